import { dayNumber, type IsoDate } from '~/core/calendar/iso-date';
import type { ObservedSession } from '~/core/entries/observation';
import { type GoalDefinition, goalDefinition } from '~/core/goals/goal';
import type { SeriesPoint } from '~/core/progress/series';

export const calendar = { weekdays: [1, 2, 3, 4, 5], closures: [] };

/** A goal of ten opportunities, of which eight should go right, unless said otherwise. */
export function goalOf(changes: object = {}): GoalDefinition {
  return goalDefinition.parse({
    measure: {
      kind: 'trials',
      levels: [{ key: 'independent', label: 'Independent', words: 'alone' }],
      mostSupport: 'independent',
      planned: 10,
    },
    criterion: { comparison: 'atLeast', value: 80, rule: { kind: 'ofLast', k: 3, n: 4 } },
    pointPer: 'day',
    baseline: null,
    target: 80,
    targetOn: '2026-12-01',
    startsOn: '2026-09-01',
    plannedGap: null,
    phases: [],
    ...changes,
  });
}

/** A session with so many opportunities right, or the reason there is no score. */
export function session(
  on: IsoDate,
  right: number | 'absent' | 'refused',
  of = 10,
  changes: Partial<ObservedSession> = {},
): ObservedSession {
  const trials =
    typeof right === 'number' ? [...Array(right).fill('independent'), ...Array(of - right).fill('incorrect')] : [];
  return {
    id: `${on} ${right}`,
    on,
    outcome: typeof right === 'number' ? { data: { trials }, reason: null } : { data: null, reason: right },
    location: 'kitchen',
    observer: 'manager',
    ...changes,
  };
}

/** A point of a value on a date. */
export function point(on: IsoDate, value: number, changes: Partial<SeriesPoint> = {}): SeriesPoint {
  return {
    on,
    day: dayNumber(on),
    value,
    amount: value / 10,
    weight: 10,
    phase: 0,
    isBaseline: false,
    isBeyond: false,
    isFormer: false,
    afterGap: false,
    observations: [],
    settings: ['kitchen'],
    observers: ['manager'],
    ...changes,
  };
}
