import { measureOf } from '~/core/measures/measure';
import { phaseAt } from '~/core/progress/series';
import { mediansByWeekday, type SessionMedian, sessionMedians } from '~/core/progress/session-medians';
import type { ReportEntry } from '~/core/report/report';
import { counted } from '~/core/words/counting';
import type { Goal } from '~/server/goals/goals';
import type { TableEntry } from '../report/entries-table';
import type { ShownEntry } from '../report/shown-entry';
import type { Medians } from './by-day-and-person';

/** The middle of the sessions by weekday and by observer, where there is more than one of them. */
export function mediansOf(goal: Goal, entries: readonly ReportEntry[]): Medians[] {
  const { said } = measureOf(goal.measure);
  const sessions = entries.map(({ on, observer, outcome }) => ({ on, observer, data: outcome.data }));
  const rowsOf = <K>(medians: SessionMedian<K>[], label: (key: K) => string) =>
    medians.map(({ key, n, median }) => ({
      label: label(key),
      value: said(goal.measure, median),
      n: counted(n, 'session', 'sessions'),
    }));
  return [
    {
      title: 'The middle of the sessions, by day of the week',
      rows: rowsOf(mediansByWeekday(goal.measure, sessions), (day) => weekdayNames[day] as string),
    },
    {
      title: '… and by who observed',
      rows: rowsOf(
        sessionMedians(goal.measure, sessions, ({ observer }) => observer),
        (name) => name,
      ),
    },
  ].filter(({ rows }) => rows.length > 1);
}

const weekdayNames = ['', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/** A goal's entries with what its table sorts and filters them by. */
export function tableEntries(goal: Goal, entries: readonly ReportEntry[], shown: readonly ShownEntry[]): TableEntry[] {
  const { score, said } = measureOf(goal.measure);
  const outcomes = new Map(entries.map(({ id, outcome }) => [id, outcome]));
  return shown.map((entry) => {
    const data = outcomes.get(entry.id)?.data ?? null;
    const value = data === null ? null : score(goal.measure, data).value;
    return {
      ...entry,
      phase: goal.phases[phaseAt(goal.phases, entry.on)]?.label ?? 'Before',
      value,
      valueSaid: value === null ? '–' : said(goal.measure, value),
    };
  });
}
