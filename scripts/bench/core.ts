import { linearRegression } from 'simple-statistics';
import { analyseSeries, nothingSet } from '~/core/analyse/analyse-series';
import { analyseBehavior } from '~/core/behavior/analysis';
import { addDays } from '~/core/calendar/iso-date';
import { schoolDays } from '~/core/calendar/school-days';
import { timetableDefinition } from '~/core/calendar/timetable';
import { type Incident, incidentDefinition } from '~/core/entries/incidents/incident';
import { chanceMet } from '~/core/progress/luck';
import { progressOf } from '~/core/progress/progress';
import { leastSquares } from '~/core/progress/trend/least-squares';
import { theilSen } from '~/core/progress/trend/theil-sen';
import { calendar, goalOf, session } from '~/tests/examples/series';

/** The median time of some runs, after as many to warm up. */
function medianMs(runs: number, work: () => unknown): number {
  const times: number[] = [];
  for (let i = 0; i < 2 * runs; i++) {
    const start = performance.now();
    work();
    times.push(performance.now() - start);
  }
  const warm = times.slice(runs).sort((a, b) => a - b);
  return Math.round(1000 * (warm[runs >> 1] as number)) / 1000;
}

const wave = (i: number) => (i * 37) % 101;

function wholeSeries(length: number, runs: number, atMost: number) {
  const rows = Array.from({ length }, (_, i) => ({
    date: addDays('2010-01-05', i),
    value: wave(i),
    phase: i < length / 5 ? 'Baseline' : 'New support',
    ...{ of: 6, place: null, observer: null },
  }));
  const options = { ...nothingSet, target: 80, targetDate: '2026-12-01', criterion: { k: 3, n: 4 } };
  return { medianMs: medianMs(runs, () => analyseSeries(rows, options)), atMost };
}

/** What a student's page computes: the decisions of ten goals with sixty sessions each. */
function decisions() {
  const goal = goalOf({ baseline: { value: 20, on: '2026-09-01' }, targetOn: '2027-06-01' });
  const days = schoolDays('2026-09-01', '2027-01-01', { weekdays: [1, 2, 3, 4, 5], closures: [] });
  const goals = Array.from({ length: 10 }, (_, g) => days.slice(0, 60).map((on, i) => session(on, wave(i + g) % 6, 6)));
  const decide = () => goals.map((sessions) => progressOf(goal, sessions, { calendar, today: '2026-12-01' }));
  return { medianMs: medianMs(40, decide), atMost: 10 };
}

/** How easily luck would meet a criterion, as it is computed while the criterion is written: both ways, and with twice the opportunities. */
function luck() {
  const rule = { k: 8, n: 10, value: 80, opportunities: 6, comparison: 'atLeast' as const };
  const ask = () =>
    [60, 80].flatMap((truly) => [6, 12].map((n) => chanceMet({ ...rule, opportunities: n }, truly, 180)));
  return { medianMs: medianMs(20, ask), atMost: 50 };
}

function manyPoints() {
  const points = Array.from({ length: 4000 }, (_, i) => ({ day: i, value: wave(i) }));
  const xy = points.map(({ day, value }) => [day, value]);
  const ours = medianMs(200, () => leastSquares(points));
  const reference = medianMs(200, () => linearRegression(xy));
  return {
    theilSen4000Points: { medianMs: medianMs(5, () => theilSen(points)), atMost: 150 },
    leastSquares4000Points: {
      medianMs: ours,
      simpleStatisticsMs: reference,
      ratio: Math.round((100 * ours) / reference) / 100,
      atMost: 2,
    },
  };
}

function manyIncidents(length: number, runs: number, atMost: number) {
  const days = schoolDays('2025-09-01', '2026-06-12', { weekdays: [1, 2, 3, 4, 5], closures: [] });
  const pick = <T>(list: readonly T[], i: number) => list[i % list.length] as T;
  const names = (what: string, n: number) => Array.from({ length: n }, (_, i) => `${what} ${i + 1}`);
  const [antecedents, behaviors, consequences] = [names('Before', 9), names('Behavior', 5), names('After', 8)];
  const incidents = Array.from(
    { length },
    (_, i): Incident =>
      incidentDefinition.parse({
        on: pick(days, i * 7),
        time: `${String(8 + (wave(i) % 7)).padStart(2, '0')}:${String(wave(i * 3) % 60).padStart(2, '0')}`,
        behaviors: [pick(behaviors, wave(i))],
        antecedents: [pick(antecedents, wave(i * 5)), pick(antecedents, wave(i * 11))],
        consequences: [pick(consequences, wave(i * 2))],
        location: pick(['Workshop', 'Kitchen', 'Garden'], i),
        functions: ['attention'],
        seconds: 10 + wave(i),
        intensity: 1 + (i % 5),
      }),
  );
  const timetable = timetableDefinition.parse(
    [1, 2, 3, 4, 5].flatMap((weekday) =>
      [8, 9, 10, 11, 12, 13, 14].map((hour) => ({
        weekday,
        part: `Part ${hour - 7}`,
        from: `${String(hour).padStart(2, '0')}:00`,
        to: `${String(hour).padStart(2, '0')}:50`,
      })),
    ),
  );
  return { medianMs: medianMs(runs, () => analyseBehavior(incidents, { days, timetable, watched: [] })), atMost };
}

/** What this machine makes of ten million divisions just now: the bare work that the figures below can be held against. */
function bareWork() {
  const values = Float64Array.from({ length: 10_000 }, (_, i) => i + 1);
  const divide = () => {
    let sum = 0;
    for (let round = 1; round <= 1000; round++)
      for (let i = 0; i < values.length; i++) sum += (values[i] as number) / round;
    return sum;
  };
  return { medianMs: medianMs(5, divide) };
}

/** How long the computing core takes by itself. */
export function measureCore() {
  return {
    tenMillionDivisions: bareWork(),
    series200PointsWhole: wholeSeries(200, 60, 4),
    series4000PointsWhole: wholeSeries(4000, 5, 200),
    tenDecisions: decisions(),
    luck: luck(),
    ...manyPoints(),
    incidents500Whole: manyIncidents(500, 8, 150),
    incidents5000Whole: manyIncidents(5000, 4, 1000),
  };
}
