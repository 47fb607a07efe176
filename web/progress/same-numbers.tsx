import { useState } from 'react';
import { type IsoDate, shortDate } from '~/core/calendar/iso-date';
import { percent } from '~/core/words/counting';
import { useKey } from '../platform/ui/use-key';
import type { Shares } from './shares-chart';
import { sameNumbersWords } from './words';

interface Numbers {
  points: { on: IsoDate; phase: string; of: string; value: string }[];
  shares: Shares;
}

/** The graphs’ numbers as tables: one key away. */
export function SameNumbers({ points, shares }: Numbers) {
  const [isOpen, setOpen] = useState(false);
  useKey('t', () => setOpen((before) => !before));
  if (points.length === 0) return null;
  return (
    <div className="mt-2">
      <button type="button" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)} className="py-2 text-small link">
        {isOpen ? sameNumbersWords.hideTheTables : sameNumbersWords.theSameNumbersAsTables}{' '}
        <kbd className="keycap">T</kbd>
      </button>
      {isOpen && (
        <div className="grid gap-6 overflow-x-auto xl:grid-cols-2">
          <table className="table table-sm">
            <caption className="text-left text-small text-ink-2">{sameNumbersWords.pointsOfTheGraph}</caption>
            <thead>
              <tr>
                {[sameNumbersWords.date, sameNumbersWords.phase, sameNumbersWords.from, sameNumbersWords.value].map(
                  (heading) => (
                    <th key={heading} scope="col">
                      {heading}
                    </th>
                  ),
                )}
              </tr>
            </thead>
            <tbody>
              {points.map((point, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a day may hold several sessions
                <tr key={i}>
                  <th scope="row" className="font-normal">
                    {shortDate(point.on)}
                  </th>
                  <td>{point.phase}</td>
                  <td>{point.of}</td>
                  <td>{point.value}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {shares.sessions.length > 0 && (
            <table className="table table-sm">
              <caption className="text-left text-small text-ink-2">{sameNumbersWords.shareAtEachSupportLevel}</caption>
              <thead>
                <tr>
                  <th scope="col">{sameNumbersWords.date}</th>
                  {shares.parts.map(({ key, label }) => (
                    <th key={key} scope="col">
                      {label}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {shares.sessions.map((session, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a day may hold several sessions
                  <tr key={i}>
                    <th scope="row" className="font-normal">
                      {session}
                    </th>
                    {shares.parts.map(({ key, shares: values }) => (
                      <td key={key}>{percent(values[i] ?? 0)}</td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </div>
      )}
    </div>
  );
}
