import type { IsoDate } from '~/core/calendar/iso-date';
import type { ObservedSession } from '~/core/observations/observation';
import { type Progress, progressOf } from '~/core/progress/progress';
import type { Database } from '../db/database';
import { type GoalSession, sessionsByGoal, type VersionedSession } from '../observations/read';
import type { School } from '../school/school';
import type { Goal } from './goals';

/** Goals whose entries are read together. */
const READ_AT_ONCE = 64;

/** What is said of each goal today, by its id; computed from the entries as they are stored now. */
export async function progressOfGoals(
  db: Database,
  goals: readonly Goal[],
  { school, today }: { school: School; today: IsoDate },
): Promise<Map<string, Progress>> {
  const asksForVariety = goals.some(
    ({ criterion }) => criterion.distinctSettings > 1 || criterion.distinctObservers > 1,
  );
  const when = { calendar: school.calendar, today };
  const progress = new Map<string, Progress>();
  // A few goals at a time: memory never holds the entries of a whole school.
  for (let from = 0; from < goals.length; from += READ_AT_ONCE) {
    const some = goals.slice(from, from + READ_AT_ONCE);
    const sessions = await sessionsByGoal(db, some, { inDetail: goals.length === 1 || asksForVariety });
    for (const goal of some) {
      progress.set(goal.id, progressOf(goal, sessionsOf(goal, sessions.get(goal.id) ?? []), when));
    }
  }
  return progress;
}

/** The same for one goal whose sessions have been read already, in order of date and time. */
export function progressFrom(
  goal: Goal,
  sessions: readonly GoalSession[],
  { school, today }: { school: School; today: IsoDate },
): Progress {
  const counting = sessions.filter(({ pairsWith }) => pairsWith === null);
  return progressOf(goal, sessionsOf(goal, counting), { calendar: school.calendar, today });
}

/** The goal's sessions, each with the way it was measured where that is not the present one. */
function sessionsOf(
  { version, formerMeasures }: Goal,
  sessions: readonly VersionedSession[],
): readonly ObservedSession[] {
  if (version === 1) return sessions;
  return sessions.map((session) => ({ ...session, former: formerMeasures[session.version] }));
}
