import type { IsoDate } from '~/core/calendar/iso-date';
import type { ObservedSession } from '~/core/observations/observation';
import { type Progress, progressOf } from '~/core/progress/progress';
import type { Database } from '../db/database';
import { type GoalSession, sessionsByGoal, type VersionedSession } from '../observations/read';
import type { School } from '../school/school';
import type { Goal } from './goals';

/** Goals whose entries are read together. */
const READ_AT_ONCE = 16;

interface When {
  school: School;
  today: IsoDate;
}

/**
 * Reads the entries of some goals, computes what is said of each today, and keeps of it what is asked for. A few goals at a time:
 * memory never holds the entries of a whole caseload, nor the points that are made of them.
 */
async function ofGoals<Kept>(
  db: Database,
  goals: readonly Goal[],
  { school, today }: When,
  keep: (progress: Progress) => Kept,
): Promise<Map<string, Kept>> {
  const asksForVariety = goals.some(
    ({ criterion }) => criterion.distinctSettings > 1 || criterion.distinctObservers > 1,
  );
  const when = { calendar: school.calendar, today };
  const kept = new Map<string, Kept>();
  for (let from = 0; from < goals.length; from += READ_AT_ONCE) {
    const some = goals.slice(from, from + READ_AT_ONCE);
    const sessions = await sessionsByGoal(db, some, { inDetail: goals.length === 1 || asksForVariety });
    for (const goal of some) {
      kept.set(goal.id, keep(progressOf(goal, sessionsOf(goal, sessions.get(goal.id) ?? []), when)));
    }
  }
  return kept;
}

/** What is said of each goal today, by its id; computed from the entries as they are stored now. For the goals of one student. */
export const progressOfGoals = (db: Database, goals: readonly Goal[], when: When): Promise<Map<string, Progress>> =>
  ofGoals(db, goals, when, (progress) => progress);

/** How a goal stands, in short. */
export interface Standing {
  verdict: Progress['verdict'];
  /** The date of its newest point; null while there is none. */
  lastOn: IsoDate | null;
}

/** How each goal stands today, by its id: for lists over many students. */
export const standingOfGoals = (db: Database, goals: readonly Goal[], when: When): Promise<Map<string, Standing>> =>
  ofGoals(db, goals, when, ({ verdict, points }) => ({ verdict, lastOn: points.at(-1)?.on ?? null }));

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
