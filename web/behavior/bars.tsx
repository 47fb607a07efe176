import { Link } from 'react-router';
import { dayNumber, shortDate } from '~/core/calendar/iso-date';
import { rateFigure } from '~/core/words/counting';
import type { BehaviorView } from './behavior-view';
import { barsWords } from './words';

type Figures = NonNullable<BehaviorView['figures']>;

interface BarRow {
  name: string;
  share: number;
  said: string;
  others?: string;
  to: string;
}

/** Names with their shares; each bar leads to its incidents. */
export function Bars({ title, rows, none }: { title: string; rows: readonly BarRow[]; none: string }) {
  return (
    <section className="break-inside-avoid">
      <h2 className="mb-1.5 text-lg">{title}</h2>
      {rows.length === 0 && <p className="text-small text-ink-2">{none}</p>}
      <ul className="grid gap-0.5">
        {rows.map(({ name, share, said, others, to }) => (
          <li key={name}>
            <Link
              to={to}
              title={others || undefined}
              className="group grid min-h-8 grid-cols-[minmax(0,11rem)_minmax(3rem,1fr)_5.5rem] items-center gap-3 pointer-coarse:min-h-11"
            >
              <span className="truncate group-hover:underline">{name}</span>
              <span aria-hidden className="h-4 rounded-sm bg-wash">
                <span className="bar block h-4 rounded-sm bg-fern" style={{ width: `${Math.max(2, 100 * share)}%` }} />
              </span>
              <span className="text-small text-ink-2">{said}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

const monthFormat = new Intl.DateTimeFormat('en-US', { month: 'short', timeZone: 'UTC' });

/** Months side by side, per school day. */
export function Months({ months }: { months: Figures['months'] }) {
  const highest = Math.max(...months.map(({ rate }) => rate ?? 0), 0.01);
  return (
    <section className="break-inside-avoid">
      <h2 className="mb-1.5 text-lg">
        {barsWords.byMonth}
        <span className="font-normal text-ink-2">{barsWords.incidentsAndAboveThemHow}</span>
      </h2>
      <ul className="flex h-40 max-w-md items-end gap-4 border-b border-rule">
        {months.map(({ month, n, exposure, rate, to }) => {
          const name = monthFormat.format(Date.parse(`${month}-01T00:00:00Z`));
          const said = barsWords.month(name, n, exposure);
          return (
            <li key={month} className="flex h-full min-w-10 flex-1 flex-col justify-end text-center text-small">
              <Link to={to} title={said} className="flex h-full flex-col justify-end">
                <span className="font-bold">{rateFigure(rate)}</span>
                <span
                  className="bar mx-auto w-4/5 rounded-t-md bg-clay-deep"
                  style={{ height: `${(68 * (rate ?? 0)) / highest}%` }}
                />
                <span aria-hidden className="text-ink-2">
                  {name} · {n}
                </span>
                <span className="sr-only">{said}</span>
              </Link>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const CHART = { width: 800, height: 150, top: 18, left: 30 };

/** Weeks in real dates, per school day, with phase lines. A week without school days has no bar. */
export function Weeks({ weeks, phaseLines }: { weeks: Figures['weeks']; phaseLines: Figures['phaseLines'] }) {
  const [first, last] = [weeks[0], weeks.at(-1)];
  if (!first || !last) return null;
  const days = dayNumber(last.monday) + 7 - dayNumber(first.monday);
  const highest = Math.max(...weeks.map(({ rate }) => rate ?? 0), 0.1);
  const x = (on: string) =>
    CHART.left + ((CHART.width - CHART.left) * (dayNumber(on) - dayNumber(first.monday))) / days;
  const wide = (7 * (CHART.width - CHART.left)) / days;
  const y = (rate: number) => CHART.height - ((CHART.height - CHART.top) * rate) / highest;
  const every = Math.ceil(weeks.length / 10);
  return (
    <figure className="break-inside-avoid">
      <svg
        viewBox={`0 0 ${CHART.width} ${CHART.height + 20}`}
        className="block h-auto w-full text-small"
        aria-label={barsWords.weeks}
      >
        <path d={`M${CHART.left} ${CHART.height}H${CHART.width}`} className="stroke-rule" />
        <text x={CHART.left - 6} y={CHART.top + 4} textAnchor="end" className="fill-ink-2 text-xs">
          {rateFigure(highest)}
        </text>
        <text x={CHART.left - 6} y={CHART.height} textAnchor="end" className="fill-ink-2 text-xs">
          0
        </text>
        {weeks.map(({ monday, n, exposure, rate, to }, i) => {
          const said = barsWords.week(shortDate(monday), n, exposure, rate === null ? null : rateFigure(rate));
          return (
            <g key={monday}>
              <Link to={to} aria-label={said}>
                <title>{said}</title>
                <rect
                  x={x(monday)}
                  y={CHART.top}
                  width={wide}
                  height={CHART.height - CHART.top}
                  className="fill-transparent"
                />
                {rate !== null && (
                  <rect
                    x={x(monday) + wide * 0.15}
                    y={rate === 0 ? CHART.height - 1.5 : y(rate)}
                    width={wide * 0.7}
                    height={rate === 0 ? 1.5 : CHART.height - y(rate)}
                    className="fill-clay-deep"
                  />
                )}
              </Link>
              {i % every === 0 && (
                <text x={x(monday)} y={CHART.height + 15} className="fill-ink-2 text-xs">
                  {shortDate(monday)}
                </text>
              )}
            </g>
          );
        })}
        {phaseLines.map(({ label, on }, i) => (
          <g key={`${on} ${label}`}>
            <path d={`M${x(on)} 0V${CHART.height}`} className="stroke-clay" strokeWidth="1.5" strokeDasharray="5 5" />
            <text x={x(on) + 5} y={11 + 13 * (i % 2)} className="fill-clay-deep text-xs font-semibold">
              {label}
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="text-small text-ink-3">
        {barsWords.incidentsASchoolDayIn}
        {phaseLines.length > 0 && barsWords.dashedUprightWhatChanged}
        {barsWords.aBarLeadsToIts}
      </figcaption>
    </figure>
  );
}
