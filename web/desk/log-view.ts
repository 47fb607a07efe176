import { addDays } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { defined } from '~/core/defined';
import { canBeLogged, type LogMeasure } from '~/core/desk/log';
import type { MeasureData } from '~/core/measures/measure';
import { categoryTotals } from '~/core/progress/class-totals';
import { sum } from '~/core/statistics/spread';
import { figure } from '~/core/words/counting';
import { type DeskGoal, deskGoals, ownEntries } from '~/server/desk/log';
import type { Database } from '~/server/platform/db/database';
import { NotFound } from '~/server/platform/failures';
import { loggedAmounts } from '~/server/progress/class-totals';
import { progressOfGoals } from '~/server/progress/progress';
import type { Desk } from './at-desk';

/** So far back a student sees what they entered. */
const DAYS_SHOWN = 14;

const plainOf = ({ plain, goal }: DeskGoal) => plain || goal.shortName;

/** What of the goals stands on the desk: each log with how far it is, and whether there is progress to see. */
export async function deskLogs(db: Database, { studentId }: Desk) {
  const shown = (await deskGoals(db, studentId)).filter(({ shows }) => shows !== 'nothing');
  const logs = shown.filter(({ shows, goal }) => shows === 'log' && canBeLogged(goal.measure));
  const amounts = await loggedAmounts(
    db,
    logs.map(({ goal }) => goal),
  );
  return {
    hasProgress: shown.length > 0,
    logs: logs.map((one) => {
      const { id, measure } = one.goal;
      const sofar = sum(amounts.filter(({ goalId }) => goalId === id).map(({ amount }) => amount));
      return {
        ...{ goalId: id, plain: plainOf(one) },
        said: measure.kind === 'cumulativeTotal' ? `${figure(sofar)} of ${figure(measure.total)}` : '',
      };
    }),
  };
}

/** The one number of an entry, and its category. */
function amountOf(data: MeasureData): { amount: number; category: string | null } {
  if ('amounts' in data) return data.amounts[0] ?? { amount: 0, category: null };
  return { amount: 'readings' in data ? (data.readings[0] ?? 0) : 0, category: null };
}

/**
 * One log of a student: what it comes to, and what they entered of late.
 *
 * @throws NotFound for a goal of which they keep none
 */
export async function logView(db: Database, { studentId, wall, school }: Desk, goalId: string) {
  const opened = (await deskGoals(db, studentId)).find(({ goal }) => goal.id === goalId);
  const measure = opened?.goal.measure;
  if (opened?.shows !== 'log' || !measure || !canBeLogged(measure)) throw new NotFound('No such log.');
  const amounts = await loggedAmounts(db, [opened.goal]);
  const entries = await ownEntries(db, studentId, goalId, addDays(wall.on, -DAYS_SHOWN));
  return {
    ...{ studentId, goalId, plain: plainOf(opened), today: wall.on, selfCounts: opened.selfCounts },
    measure: measure satisfies LogMeasure,
    total:
      measure.kind === 'cumulativeTotal'
        ? {
            soFar: sum(amounts.map(({ amount }) => amount)),
            of: measure.total,
            byCategory: categoryTotals(amounts, measure),
          }
        : null,
    entries: entries.map(({ id, on, data, note, recordedAt }) => ({
      ...{ id, on, note, ...amountOf(data) },
      canChange: wallTime(recordedAt, school.timeZone).on === wall.on,
    })),
  };
}

/** Each goal that is opened to the student, with where they are and where it leads. */
export async function progressView(db: Database, { studentId, school, wall }: Desk) {
  const shown = (await deskGoals(db, studentId)).filter(({ shows }) => shows !== 'nothing');
  const progress = await progressOfGoals(
    db,
    shown.map(({ goal }) => goal),
    { school, today: wall.on },
  );
  return shown.map((one) => ({
    goal: one.goal,
    plain: plainOf(one),
    progress: defined(progress.get(one.goal.id)),
  }));
}
