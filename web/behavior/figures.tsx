import { Link } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import { counted, figure, lengthOfTime, percent } from '~/core/words/counting';
import { Bars, Months, Weeks } from './bars';
import type { BehaviorView } from './behavior-view';
import { WhenGrid } from './when-grid';
import { figuresWords } from './words';

type Drawn = NonNullable<BehaviorView['figures']>;

/** When a behavior happens, what comes before and follows, how much of it there is, where, and by whom it was noted. */
export function Figures({ figures }: { figures: NonNullable<BehaviorView['figures']> }) {
  const { antecedents, consequences, settings, chains, months, weeks, phaseLines, durations, intensities } = figures;
  const levels = intensities?.levels.map(({ name, n, share, to }) => ({
    ...{ name, share, to },
    said: `${n} · ${percent(100 * share)}`,
  }));
  const functions = figures.functions.map(({ name, n, share, to }) => {
    return { name, share, to, said: `${n} · ${percent(100 * share)}` };
  });
  const observers = figures.observers.map(({ name, n, share, to }) => ({
    name,
    share,
    to,
    said: counted(n, 'incident', 'incidents'),
  }));
  return (
    <>
      <WhenGrid figures={figures} />
      <div className="mt-5 grid gap-x-10 gap-y-6 xl:grid-cols-2">
        <Bars title={figuresWords.antecedents} rows={antecedents} none={figuresWords.noIncidentSaysWhatCame} />
        <Bars title={figuresWords.consequences} rows={consequences} none={figuresWords.noIncidentSaysWhatFollowed} />
        <section className="break-inside-avoid">
          <h2 className="mb-1.5 text-lg">{figuresWords.mostCommonSequences}</h2>
          {chains.length === 0 && <p className="text-small text-ink-2">{figuresWords.noIncidentHasAllThree}</p>}
          <ol className="grid gap-1">
            {chains.map(({ antecedent, behavior, consequence, n, of, to }) => (
              <li key={`${antecedent} ${consequence}`}>
                <Link to={to} className="flex min-h-8 gap-3 hover:underline pointer-coarse:min-h-11">
                  <span className="grow">
                    {antecedent} → {behavior} → {consequence}
                  </span>
                  <span className="text-small whitespace-nowrap text-ink-2">{figuresWords.of(n, of)}</span>
                </Link>
              </li>
            ))}
          </ol>
        </section>
        <Months months={months} />
      </div>
      <p className="mt-3 text-small text-ink-3">{figuresWords.aShareIsOfIncidents}</p>
      <section className="mt-6">
        <h2 className="mb-1 text-lg">{figuresWords.byWeek}</h2>
        <Weeks weeks={weeks} phaseLines={phaseLines} />
      </section>
      <div className="mt-6 grid gap-x-10 gap-y-6 xl:grid-cols-2">
        <Bars title={figuresWords.locations} rows={settings} none={figuresWords.noIncidentSaysWhere} />
        <Bars title={figuresWords.recordedBy} rows={observers} none="" />
        {levels && <Bars title={figuresWords.intensity} rows={levels} none="" />}
        {functions.length > 0 && <Bars title={figuresWords.functionAsObserversGuessedIt} rows={functions} none="" />}
        {durations && (
          <section>
            <h2 className="mb-1 text-lg">{figuresWords.howLong}</h2>
            <p>
              <Link to={durations.to} className="link">
                {counted(durations.n, figuresWords.incidentSays, figuresWords.incidentsSay)}
              </Link>
              {figuresWords.inTheMiddleAtThe(
                lengthOfTime(durations.medianSeconds),
                lengthOfTime(durations.longestSeconds),
                lengthOfTime(durations.totalSeconds),
              )}
            </p>
            <LengthBands bands={durations.bands} n={durations.n} />
          </section>
        )}
      </div>
      {functions.length > 0 && <p className="mt-2 text-small text-ink-3">{figuresWords.theseAreGuessesOfWho}</p>}
    </>
  );
}

/** How many lasted how long, side by side. */
function LengthBands({ bands, n }: { bands: NonNullable<Drawn['durations']>['bands']; n: number }) {
  const most = Math.max(1, ...bands.map((band) => band.n));
  const names = bands.map(({ upTo }, at) => figuresWords.band(bands[at - 1]?.upTo ?? null, upTo));
  return (
    <ul className="mt-3 flex h-36 max-w-md items-end gap-3 border-b border-rule text-small">
      {bands.map((band, at) => (
        <li key={names[at]} className="flex h-full flex-1 flex-col justify-end text-center">
          <span className="font-bold">{band.n}</span>
          <span
            aria-hidden
            className="bar mx-auto w-4/5 rounded-t-md bg-clay-deep"
            style={{ height: `${(60 * band.n) / most}%` }}
          />
          <span className="text-ink-2">{names[at]}</span>
          <span className="sr-only">{figuresWords.bandOf(band.n, n)}</span>
        </li>
      ))}
    </ul>
  );
}

/** Stretches of watching, those without an occurrence among them. */
export function Watched({ watched, studentId }: { watched: NonNullable<BehaviorView['watched']>; studentId: string }) {
  return (
    <section className="mt-8">
      <h2 className="mb-1 text-lg">{figuresWords.whileSomebodyWatchedForIt}</h2>
      <p>{figuresWords.windows(watched.stretches, watched.none, watched.base)}</p>
      <div className="mt-2 flex flex-wrap gap-x-10 gap-y-2 text-small">
        <ul>
          {watched.parts.map(({ part, said }) => (
            <li key={part}>
              <b>{part}</b> {said}
            </li>
          ))}
        </ul>
        <ul className="no-print">
          {watched.counts.map(({ id, on, said }) => (
            <li key={id}>
              <Link to={`/students/${studentId}/counts/${id}`} className="link">
                {shortDate(on)}
              </Link>{' '}
              {said}
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}

/** Two stretches of dates side by side. */
export function Beside({ beside: { sides, sentence, antecedents } }: { beside: NonNullable<BehaviorView['beside']> }) {
  return (
    <section className="mt-8" aria-labelledby="beside">
      <h2 id="beside" className="mb-1 text-lg">
        {figuresWords.twoPeriodsSideBySide}
      </h2>
      <table className="table table-sm max-w-2xl">
        <thead>
          <tr className="text-ink-2">
            <td />
            {sides.map(({ range, to }) => (
              <th key={`${range.from} ${range.to}`} scope="col">
                <Link to={to} className="link">
                  {shortDate(range.from)} – {shortDate(range.to)}
                </Link>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[
            [figuresWords.incidents, ...sides.map(({ n }) => figure(n))],
            [figuresWords.schoolDays, ...sides.map(({ days }) => figure(days))],
            [figuresWords.incidentsASchoolDay, ...sides.map(({ rate }) => rate)],
            ...antecedents.map(({ name, first, second }) => [`Before: ${name}`, first, second]),
          ].map(([label, first, second]) => (
            <tr key={label}>
              <th scope="row" className="font-normal">
                {label}
              </th>
              <td>{first}</td>
              <td>{second}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-small text-ink-2">{sentence}</p>
    </section>
  );
}
