import { useState } from 'react';
import type { HelpPage, helpWords } from './help-words';
import { howThisWorksWords } from './words';

type Help = (typeof helpWords)[HelpPage];

/**
 * A few sentences on what a screen is for and what to do first. Opens beside the screen, in its margin; what they say is fetched when
 * it is opened, so that no page waits for them.
 */
export function HowThisWorks({ of }: { of: HelpPage }) {
  const [help, setHelp] = useState<Help | null>(null);
  const load = () =>
    import('./help-words').then(
      ({ helpWords }) => setHelp(helpWords[of]),
      () => {},
    );
  return (
    <details className="no-print mt-6 border-t border-rule pt-2" onToggle={() => void load()}>
      <summary className="tap cursor-pointer py-1.5 text-small font-semibold">{howThisWorksWords.howThisWorks}</summary>
      {help && (
        <div className="mt-1 grid gap-2 text-small text-ink-2">
          {help.about.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
          <p>
            <b className="text-ink">{howThisWorksWords.first}</b> {help.first}
          </p>
        </div>
      )}
    </details>
  );
}
