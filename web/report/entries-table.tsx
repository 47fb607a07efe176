import { useState } from 'react';
import { Link } from 'react-router';
import { longDate } from '~/core/calendar/iso-date';
import { Beads } from '../ui/beads';
import type { ShownEntry } from './shown-entry';

/** Rows that are shown before one asks for all. */
const FIRST_ROWS = 25;

/** A goal's entries, newest first. */
export function EntriesTable({ entries }: { entries: readonly ShownEntry[] }) {
  const [showsAll, setShowsAll] = useState(false);
  if (entries.length === 0) return <p className="text-ink-2">No entries yet.</p>;
  const shown = showsAll ? entries : entries.slice(0, FIRST_ROWS);
  return (
    <>
      <div className="overflow-x-auto">
        <table className="table table-sm">
          <thead>
            <tr className="text-ink-2">
              <th scope="col">When</th>
              <th scope="col">What was seen</th>
              <th scope="col">Where</th>
              <th scope="col">By</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((entry) => (
              <tr key={entry.id} className="align-top">
                <th scope="row" className="font-normal whitespace-nowrap">
                  <Link
                    to={`/students/${entry.studentId}/entries/${entry.id}`}
                    className="underline underline-offset-2"
                  >
                    {longDate(entry.on).replace(/, \d{4}$/, '')}
                  </Link>
                  <span className="block text-small text-ink-3">
                    {entry.time}
                    {entry.isCorrected && ' · corrected'}
                  </span>
                </th>
                <td className="min-w-64">
                  <Beads tones={entry.tones} />
                  {entry.sentence}
                  {entry.note && <span className="block text-small text-ink-2">{entry.note}</span>}
                </td>
                <td>{entry.setting ?? '–'}</td>
                <td className="whitespace-nowrap">{entry.observer}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {shown.length < entries.length && (
        <button type="button" className="btn mt-3" onClick={() => setShowsAll(true)}>
          Show all {entries.length}
        </button>
      )}
    </>
  );
}
