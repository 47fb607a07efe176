import { Link } from 'react-router';
import { weekdayName } from '~/core/calendar/iso-date';
import { counted, figure, rateFigure } from '~/core/words/counting';
import type { BehaviorView } from './behavior-view';
import { whenGridWords } from './words';

type Figures = NonNullable<BehaviorView['figures']>;

/** Weekday by part of the day: each cell a count, darker where its rate is higher, and the way to its incidents. */
export function WhenGrid({ figures }: { figures: Figures }) {
  const { weekdays, when, outside, quarters } = figures;
  return (
    <section aria-labelledby="when" className="mt-5">
      <h2 id="when" className="text-lg">
        {whenGridWords.whenItHappens}
        <span className="font-normal text-ink-2">{whenGridWords.byWeekdayAndPartOf}</span>
      </h2>
      {when.length === 0 ? (
        <p className="mt-2 text-small text-ink-2">{whenGridWords.thereIsNoTimetableSo}</p>
      ) : (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard
        <section aria-label={whenGridWords.whenItHappensAsA} tabIndex={0} className="mt-2 overflow-x-auto">
          <table className="w-full border-separate border-spacing-1 text-small">
            <thead>
              <tr>
                <td />
                {weekdays.map((day) => (
                  <th key={day} scope="col" className="min-w-12 font-normal text-ink-2">
                    <abbr title={weekdayName(day)} className="no-underline">
                      {weekdayName(day).slice(0, 3)}
                    </abbr>
                  </th>
                ))}
                <th scope="col" className="pl-2 text-right font-normal text-ink-2">
                  {whenGridWords.hours}
                </th>
              </tr>
            </thead>
            <tbody>
              {when.map(({ part, from, hours, cells }) => (
                <tr key={part}>
                  <th scope="row" className="w-32 pr-2 text-left font-normal whitespace-nowrap">
                    <span className="text-ink-2">{from}</span> {part}
                  </th>
                  {cells.map((cell, i) => (
                    <td key={weekdays[i]} className="p-0">
                      {cell ? (
                        <Cell part={part} cell={cell} />
                      ) : (
                        <span className="block h-9 pointer-coarse:h-11 text-center text-ink-3" />
                      )}
                    </td>
                  ))}
                  <td className="pl-2 text-right text-ink-2">{figure(hours)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      <p className="mt-1 text-small text-ink-2">{whenGridWords.eachNumberCountsIncidentsThe}</p>
      <div className="flex flex-wrap items-start gap-x-6 text-small text-ink-2">
        {outside.n > 0 && (
          <p className="py-2">
            <Link to={outside.to} className="link">
              {whenGridWords.outsideTheDay(counted(outside.n, 'incident', 'incidents'))}
            </Link>
          </p>
        )}
        {quarters.length > 0 && (
          <details className="no-print grow">
            <summary className="tap cursor-pointer py-2 link">{whenGridWords.byQuarterOfAnHour}</summary>
            <ul className="mt-1 flex flex-wrap gap-1.5">
              {quarters.map(({ from, n, to }) => (
                <li key={from}>
                  <Link to={to} className="flex tap items-center rounded-field border border-rule bg-sheet px-2.5">
                    {from} <b className="ml-1.5 text-ink">{n}</b>
                  </Link>
                </li>
              ))}
            </ul>
          </details>
        )}
      </div>
    </section>
  );
}

type FilledCell = NonNullable<Figures['when'][number]['cells'][number]>;

function Cell({ part, cell: { weekday, heat, n, hours, rate, to } }: { part: string; cell: FilledCell }) {
  if (n === 0) {
    return (
      <span className="grid h-9 pointer-coarse:h-11 place-items-center rounded-field border border-rule text-ink-3">
        –
      </span>
    );
  }
  const rated = rate === null ? '' : whenGridWords.inHoursAnHour(figure(hours), rateFigure(rate));
  const said = whenGridWords.onS(part, weekdayName(weekday), counted(n, 'incident', 'incidents'), rated);
  return (
    <Link
      to={to}
      aria-label={said}
      title={said}
      className={`${heat === null ? 'border border-rule' : `heat-${heat}`} grid h-9 pointer-coarse:h-11 place-items-center rounded-field font-bold`}
    >
      {n}
    </Link>
  );
}
