import { Link } from 'react-router';
import { type Fate, fates, type PreviewRow } from '~/core/imports/preview';
import { sum } from '~/core/statistics/spread';
import { fateNames, importWords } from './words';

interface PreviewProps {
  rows: readonly PreviewRow[];
  counts: Record<Fate, number>;
  /** Which rows are shown; null for all. */
  show: Fate | null;
  found: number;
  notes: readonly string[];
}

const figure = (n: number) => n.toLocaleString('en-US');

/** What each row of a file comes to, before anything is saved. */
export function Preview({ rows, counts, show, found, notes }: PreviewProps) {
  const all = sum(Object.values(counts));
  return (
    <section aria-label={importWords.rows} className="mt-10 pb-24">
      <h2 className="text-lg">{importWords.rows}</h2>
      {all === 0 && <p className="mt-2 text-ink-2">{importWords.noRows}</p>}
      {all > 0 && (
        <nav aria-label={importWords.rows} className="mt-2 flex flex-wrap gap-2">
          <Choice to="?" isChosen={show === null} preventScrollReset>
            {importWords.all} <span className="tabular-nums">{figure(all)}</span>
          </Choice>
          {fates
            .filter((fate) => counts[fate] > 0)
            .map((fate) => (
              <Choice key={fate} to={`?show=${fate}`} isChosen={show === fate} preventScrollReset>
                {fateNames[fate]} <span className="tabular-nums">{figure(counts[fate])}</span>
              </Choice>
            ))}
        </nav>
      )}
      {notes.length > 0 && (
        <details className="mt-4" open={notes.length <= 12}>
          <summary className="tap content-center text-small font-semibold">{importWords.newNames}</summary>
          <ul className="text-small text-ink-2">
            {notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        </details>
      )}
      {all > 0 && found === 0 && <p className="mt-4 text-ink-2">{importWords.noneOfThem}</p>}
      {rows.length > 0 && (
        <>
          <table className="mt-4 w-full text-small">
            <thead className="border-b border-rule-strong text-left">
              <tr>
                <th scope="col" className="py-1.5 pr-3 font-semibold">
                  {importWords.row}
                </th>
                <th scope="col" className="py-1.5 pr-3 font-semibold">
                  {importWords.becomes}
                </th>
                <th scope="col" className="py-1.5 font-semibold">
                  {importWords.about}
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a row of a wide table is several, and nothing about one is its own
                <Row key={at} {...row} />
              ))}
            </tbody>
          </table>
          {found > rows.length && (
            <p className="mt-3 text-small text-ink-2">{importWords.shown(figure(rows.length), figure(found))}</p>
          )}
        </>
      )}
    </section>
  );
}

function Choice({ isChosen, ...link }: { isChosen: boolean } & Parameters<typeof Link>[0]) {
  return (
    <Link {...link} aria-current={isChosen || undefined} className={`btn btn-sm ${isChosen ? 'btn-active' : ''}`} />
  );
}

function Row({ row, fate, about, says, messages }: PreviewRow) {
  const isWrong = fate === 'wrong';
  return (
    <tr className="border-b border-rule align-top">
      <td className="w-12 py-2 pr-3 text-ink-2 tabular-nums">{row}</td>
      <td className={`w-36 py-2 pr-3 ${isWrong ? 'font-semibold text-clay-deep' : ''}`}>{fateNames[fate]}</td>
      <td className="py-2 wrap-anywhere">
        <span className="font-semibold">{about}</span>
        {says && <span className="block text-ink-2">{says}</span>}
        {messages.map((message) => (
          <span key={message} className="block font-semibold text-clay-deep">
            {message}
          </span>
        ))}
      </td>
    </tr>
  );
}
