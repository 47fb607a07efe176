import { Link } from 'react-router';
import { entryDay } from '~/core/calendar/iso-date';
import { pageOf } from '../entries/page-of';
import type { ShownEntry } from '../entries/shown-entry';
import { editRuleWords } from './words';

interface Preview {
  from: string;
  hasStudents: boolean;
  isTold: boolean;
  found: number;
  looked: string;
  entries: ShownEntry[];
  names: Record<string, string>;
}

/** What a rule would have done in the last school days: how many, and which. */
export function RulePreview({ preview, isBusy }: { preview: Preview | null | undefined; isBusy: boolean }) {
  return (
    <div className="mt-4 border-t border-rule pt-3">
      <h2 className="text-small font-semibold text-ink-2">{editRuleWords.wouldHave}</h2>
      <div aria-live="polite" aria-busy={isBusy} className={isBusy ? 'opacity-60' : ''}>
        <Told preview={preview} />
      </div>
    </div>
  );
}

function Told({ preview }: { preview: Preview | null | undefined }) {
  if (preview === undefined) return <p className="mt-1 text-small">{editRuleWords.reckoning}</p>;
  if (preview === null) return <p className="mt-1 text-small">{editRuleWords.cannotReckon}</p>;
  const { from, hasStudents, isTold, found, looked, entries, names } = preview;
  if (!hasStudents) return <p className="mt-1 text-small">{editRuleWords.noStudents}</p>;
  if (!isTold) return <p className="mt-1 text-small">{editRuleWords.nothingToTell}</p>;
  if (found === 0) return <p className="mt-1 text-small">{editRuleWords.tellsNone(looked, from)}</p>;
  return (
    <>
      <p className="mt-1">{editRuleWords.tells(found, looked, from)}</p>
      <ul className="mt-1">
        {entries.map((entry) => (
          <li key={entry.id} className="border-b border-dotted border-ink-3/40 py-1.5 text-small">
            <Link to={pageOf(entry)} className="font-semibold link">
              {names[entry.studentId]} · {entry.title}
            </Link>{' '}
            <span className="text-ink-2">
              {entryDay(entry.on)} · {entry.sentence}
            </span>
          </li>
        ))}
      </ul>
      {found > entries.length && (
        <p className="mt-1 text-small text-ink-2">{editRuleWords.more(found - entries.length)}</p>
      )}
    </>
  );
}
