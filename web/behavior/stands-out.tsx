import { Link } from 'react-router';
import { MarginTitle } from '../platform/ui/page';
import type { BehaviorView } from './behavior-view';
import { standsOutWords } from './words';

/** The margin: what stands out, the strongest first, and what is too little to say. */
export function StandsOut({ view: { findings, tooFew, help, figures } }: { view: BehaviorView }) {
  const changes = help?.comparisons ?? [];
  return (
    <>
      <MarginTitle>{standsOutWords.whatStandsOut}</MarginTitle>
      {findings.length === 0 && figures && <p className="text-ink-2">{standsOutWords.nothingStandsOutNoTime}</p>}
      {!figures && findings.length === 0 && <p className="text-ink-2">{standsOutWords.nothingHasBeenNoted}</p>}
      <ul>
        {changes.map(({ to, sentence }) => (
          <Found key={to} title={standsOutWords.since(to)} sentence={sentence} to="#help" />
        ))}
        {findings.map(({ title, sentence, to }) => (
          <Found key={sentence} title={title} sentence={sentence} to={to} />
        ))}
      </ul>
      {tooFew.length > 0 && (
        <div className="pt-3.5 text-ink-3">
          <h3 className="text-base">{standsOutWords.tooFewToSay}</h3>
          {tooFew.map((sentence) => (
            <p key={sentence} className="text-small">
              {sentence.replace(/^Too few to say: /, '')}
            </p>
          ))}
        </div>
      )}
      {findings.length > 0 && <p className="mt-4 text-small text-ink-3">{standsOutWords.howOftenByLuck}</p>}
    </>
  );
}

function Found({ title, sentence, to }: { title: string; sentence: string; to: string }) {
  return (
    <li className="border-b border-dotted border-ink-3/50 py-3.5 first:pt-0">
      <h3 className="text-base">
        <Link to={to} className="hover:underline">
          {title}
        </Link>
      </h3>
      <p className="mt-0.5 text-small text-ink-2">{sentence}</p>
    </li>
  );
}
