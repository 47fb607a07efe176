import { addDays, type IsoDate, shortDate, weekdayName } from '~/core/calendar/iso-date';
import { type SchoolCalendar, schoolDays } from '~/core/calendar/school-days';
import { ENOUGH_FIDELITY, fidelityOf, type ObservedFidelity } from '~/core/entries/fidelity';
import type { Outcome } from '~/core/entries/observation';
import type { ReportEntry } from '~/core/individual-report/report';
import { measureOf } from '~/core/measures/measure';
import { own } from '~/core/measures/measure-of-goal';
import { breakDownTrials, trials } from '~/core/measures/trials/trials';
import { categoryTotals } from '~/core/progress/class-totals';
import type { Progress } from '~/core/progress/progress';
import { nowText, valueSaid } from '~/core/progress/sentences';
import { phaseAt, phaseName } from '~/core/progress/series';
import { mediansByWeekday, type SessionMedian, scoredSessions, sessionMedians } from '~/core/progress/session-medians';
import { sum } from '~/core/statistics/spread';
import { capitalised, counted, figure, percent, signed } from '~/core/words/counting';
import type { Observation } from '~/server/entries/read';
import { type Goal, measureAt } from '~/server/goals/goals';
import { reportEntryOf } from '~/server/individual-report/entries-said';
import type { Marks } from '~/server/rules/marks';
import type { TableEntry } from '../entries/entries-table';
import { shownEntries } from '../entries/shown-entry';
import { toneOf } from '../platform/ui/outcome-tones';
import type { Medians } from './by-day-and-person';
import type { PooledShares } from './pooled-shares';
import type { Shares } from './shares-chart';
import { fidelityWords, goalTablesWords } from './words';

/** What the tables need of an entry; newest first. */
type Seen = Pick<ReportEntry, 'on' | 'observer'> & { location: string | null; outcome: Outcome };

/** School days that “the last” of them are. */
const DAYS_POOLED = 20;

/** Sessions that the chart of support levels has room for. */
const SESSIONS = 30;

/** The few large figures at the head of a goal's page. */
export function figuresOf(goal: Goal, progress: Progress): [label: string, figure: string][] {
  const { baseline, progressToTarget: way, trend } = progress;
  const measure = measureOf(goal.measure);
  return [
    ['Baseline', baseline ? valueSaid(goal, baseline.value) : '–'],
    ['Now', nowText(goal, progress) ?? '–'],
    [goalTablesWords.progressTowardTheTarget, wayFigure(way)],
    [goalTablesWords.aWeek(capitalised(measure.axis.change)), trend ? signed(trend.slopePerWeek) : '–'],
  ];
}

/** As a figure: nothing is said to be done where the student stands on the far side of the start. */
function wayFigure(way: number | null): string {
  if (way === null) return '–';
  return way < 0 ? goalTablesWords.noneYet : percent(100 * Math.min(1, way));
}

/** How much help each of the newest sessions took; nothing for what is not measured by trials. */
export function sharesOf({ measure }: Goal, entries: readonly Seen[]): Shares {
  if (measure.kind !== 'trials') return { sessions: [], parts: [] };
  const sessions = entries
    .flatMap(({ on, outcome }) => (outcome.data === null ? [] : { on, data: own(trials, outcome.data) }))
    .slice(0, SESSIONS)
    .reverse()
    .map(({ on, data }) => ({ on, parts: breakDownTrials(measure, data) }));
  const keys = sessions[0]?.parts ?? [];
  return {
    sessions: sessions.map(({ on }) => shortDate(on)),
    parts: keys.map(({ key, label }, i) => ({
      key,
      label,
      tone: toneOf(measure, key),
      shares: sessions.map(({ parts }) => parts[i]?.share ?? 0),
    })),
  };
}

/** The middle of the sessions by weekday and by observer, where there is more than one of them. */
export function mediansOf(goal: Goal, entries: readonly Seen[]): Medians[] {
  const measure = measureOf(goal.measure);
  const scored = scoredSessions(
    goal.measure,
    entries.map(({ on, observer, location, outcome }) => ({ ...{ on, observer, location, data: outcome.data } })),
  );
  const rowsOf = <K>(medians: SessionMedian<K>[], label: (key: K) => string) =>
    medians.map(({ key, n, median }) => ({
      label: label(key),
      value: measure.said(median),
      n: counted(n, 'session', 'sessions'),
    }));
  return [
    {
      title: goalTablesWords.medianByDayOfThe,
      rows: rowsOf(mediansByWeekday(scored), weekdayName),
    },
    {
      title: goalTablesWords.medianByObserver,
      rows: rowsOf(
        sessionMedians(scored, ({ observer }) => observer),
        (name) => name,
      ),
    },
    {
      title: goalTablesWords.medianByLocation,
      rows: rowsOf(
        sessionMedians(scored, ({ location }) => location),
        (name) => name,
      ),
    },
  ].filter(({ rows }) => rows.length > 1);
}

/** The share at each support level, all opportunities of a time together: for some times to choose from. */
export function pooledShares(
  { measure, phases }: Goal,
  entries: readonly Seen[],
  { today, calendar }: { today: IsoDate; calendar: SchoolCalendar },
): PooledShares[] {
  if (measure.kind !== 'trials') return [];
  const phase = phases[phaseAt(phases, today)];
  const [recent] = schoolDays(addDays(today, -60), today, calendar).slice(-DAYS_POOLED);
  const times: [label: string, from: IsoDate][] = [
    ...(phase && phases.length > 1 ? [[phase.label, phase.startsOn] satisfies [string, IsoDate]] : []),
    ...(recent ? [[goalTablesWords.lastSchoolDays(DAYS_POOLED), recent] satisfies [string, IsoDate]] : []),
    [goalTablesWords.allSoFar, ''],
  ];
  return times.flatMap(([label, from]) => {
    const [first, ...more] = entries.flatMap(({ on, outcome }) =>
      on < from || outcome.data === null ? [] : [own(trials, outcome.data)],
    );
    if (!first) return [];
    const parts = breakDownTrials(measure, trials.pool(measure, [first, ...more]));
    return {
      ...{ label, sessions: 1 + more.length },
      parts: parts.map(({ key, label: name, n, share }) => ({
        key,
        label: name,
        tone: toneOf(measure, key),
        n,
        share,
      })),
    };
  });
}

/** A goal's entries with what its table sorts and filters them by. */
export function tableEntries(
  goal: Goal,
  observations: readonly Observation[],
  { discreet, marks }: { discreet: boolean; marks: Marks },
): TableEntry[] {
  const entries = observations.map((observation) => reportEntryOf(observation, goal));
  return shownEntries(entries, [goal], { discreet, marks }).map((entry, i) => {
    const data = entries[i]?.outcome?.data ?? null;
    const definition = measureAt(goal, entry.goalVersion);
    const measure = measureOf(definition);
    const value = data === null ? null : measure.score(data).value;
    return {
      ...entry,
      phase: phaseName(goal.phases, phaseAt(goal.phases, entry.on)),
      value,
      valueSaid: value === null ? '–' : measure.said(value),
    };
  });
}

/** The fidelity of the support in place, as the goal’s page shows it. */
export interface FidelityShown {
  head: string;
  steps: Medians['rows'];
  outcomes: Medians['rows'];
}

/**
 * Fidelity beside outcome in the present phase.
 *
 * @param sessions  of the goal as it is measured now, newest first, second observers’ left out
 * @returns null where the phase has no steps that anybody said anything of
 */
export function fidelityShown(goal: Goal, sessions: readonly ObservedFidelity[], today: IsoDate): FidelityShown | null {
  const phase = goal.phases.findLast(({ startsOn }) => startsOn <= today);
  const found =
    phase &&
    fidelityOf(
      goal.measure,
      sessions.filter(({ on }) => on >= phase.startsOn),
    );
  if (!found) return null;
  const { said, of, share, steps, outcomes } = found;
  return {
    head: fidelityWords.head(phase.label, shortDate(phase.startsOn), said, of, percent(share)),
    steps: steps.map((step) => ({
      label: step.label,
      value: fidelityWords.times(step.done, step.of),
      n: percent((100 * step.done) / step.of),
    })),
    outcomes: outcomes.map(({ isEnough, sessions: n, value }) => ({
      label: isEnough ? fidelityWords.enough(ENOUGH_FIDELITY) : fidelityWords.less,
      value: value === null ? fidelityWords.noneYet : valueSaid(goal, value),
      n: fidelityWords.sessions(n),
    })),
  };
}

/**
 * What a log came to by category, and altogether.
 *
 * @returns null for goals of other measures, and for logs that tell nothing apart
 */
export function byCategory(goal: Goal, sessions: readonly Pick<Seen, 'outcome'>[]): Medians | null {
  const { measure } = goal;
  if (measure.kind !== 'cumulativeTotal') return null;
  const amounts = sessions.flatMap(({ outcome }) =>
    outcome.data && 'amounts' in outcome.data ? outcome.data.amounts : [],
  );
  const totals = categoryTotals(amounts, measure);
  if (totals.length === 0 || amounts.length === 0) return null;
  const all = sum(totals.map(({ amount }) => amount));
  return {
    title: goalTablesWords.all(figure(all), figure(measure.total), measure.unit.many),
    rows: totals.map(({ label, amount }) => ({
      ...{ label, value: figure(amount) },
      n: all === 0 ? '' : goalTablesWords.ofAll(percent((100 * amount) / all)),
    })),
  };
}
