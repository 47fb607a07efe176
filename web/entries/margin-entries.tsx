import { Link } from 'react-router';
import { type IsoDate, shortDate } from '~/core/calendar/iso-date';
import { EntryMarks } from '../platform/ui/entry-marks';
import { TrialMarks } from '../platform/ui/trial-marks';
import { marginEntriesWords } from './margin-words';
import { pageOf } from './page-of';
import type { ShownEntry } from './shown-entry';

/** The newest entries, as the margin tells them. */
export function MarginEntries({
  entries,
  today,
  names,
}: {
  entries: readonly ShownEntry[];
  today: IsoDate;
  /** Whose entry it is, where the page is about several students. */
  names?: Record<string, string>;
}) {
  if (entries.length === 0) return <p className="text-ink-2">{marginEntriesWords.nothingHasBeenWrittenDown}</p>;
  return (
    <ol>
      {entries.map((entry) => (
        <li key={entry.id} className="border-b border-dotted border-ink-3/50 py-3.5 first:pt-0">
          <p className="flex justify-between gap-3 text-small text-ink-2">
            <span>
              {entry.on === today ? marginEntriesWords.today : shortDate(entry.on)} {entry.time}
            </span>
            <span className="font-semibold">{entry.observer}</span>
          </p>
          <p className="mt-1 font-bold">
            <Link to={pageOf(entry)} className="hover:underline">
              {names && `${names[entry.studentId]} · `}
              {entry.title}
            </Link>
          </p>
          <TrialMarks tones={entry.tones} />
          <EntryMarks marks={entry.marks} />
          <p className="text-small text-ink-2">{entry.note || entry.sentence}</p>
        </li>
      ))}
    </ol>
  );
}
