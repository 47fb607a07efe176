import { type HelpPage, helpWords } from './help-words';
import { howThisWorksWords } from './words';

/** A few sentences on what a screen is for and what to do first. Opens beside the screen, in its margin. */
export function HowThisWorks({ of }: { of: HelpPage }) {
  const { about, first } = helpWords[of];
  return (
    <details className="no-print mt-6 border-t border-rule pt-2">
      <summary className="tap cursor-pointer py-1.5 text-small font-semibold">{howThisWorksWords.howThisWorks}</summary>
      <div className="mt-1 grid gap-2 text-small text-ink-2">
        {about.map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
        <p>
          <b className="text-ink">{howThisWorksWords.first}</b> {first}
        </p>
      </div>
    </details>
  );
}
