import type { Breakdown } from './breakdown';
import { breakdownTableWords } from './words';

/** A goal's newest sessions, row by row: trial marks where there are levels, figures elsewhere. */
export function BreakdownTable({ breakdown: { sessions, standing, rows } }: { breakdown: Breakdown }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard
    <section aria-label={breakdownTableWords.sessionBySession} tabIndex={0} className="overflow-x-auto">
      <table className="table table-sm w-auto">
        <thead>
          <tr className="text-ink-2">
            <th scope="col">
              <span className="sr-only">{breakdownTableWords.what}</span>
            </th>
            {sessions.map((session, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a day may hold several sessions
              <th key={i} scope="col" className="px-2 text-center font-normal whitespace-nowrap">
                {session}
              </th>
            ))}
            {standing && <th scope="col">{standing}</th>}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.key}>
              <th scope="row" className="font-semibold whitespace-nowrap">
                {row.label}
              </th>
              {row.cells.map((cell, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a day may hold several sessions
                <td key={i} className={`px-2 text-center ${cell?.tone === null ? 'min-w-20' : ''}`}>
                  {cell === null ? (
                    <span className="text-ink-3">
                      <span aria-hidden>–</span>
                      <span className="sr-only">{breakdownTableWords.nothingRecorded}</span>
                    </span>
                  ) : cell.tone === null ? (
                    cell.said
                  ) : (
                    <span className={`trial-mark inline-block size-5 align-middle ${cell.tone}`} title={cell.said}>
                      <span className="sr-only">{cell.said}</span>
                    </span>
                  )}
                </td>
              ))}
              {standing && <td className="whitespace-nowrap text-ink-2">{row.standing}</td>}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
