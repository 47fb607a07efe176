import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import type { IsoDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import type { ObservedSession } from '~/core/entries/observation';
import { type Progress, progressOf } from '~/core/progress/progress';
import { entryStamps, type GoalSession, sessionsByGoal, type VersionedSession } from '../entries/read';
import type { Goal } from '../goals/goals';
import type { Database } from '../platform/db/database';
import type { School } from '../school/school';

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
async function computed<Kept>(
  db: Database,
  goals: readonly Goal[],
  { school, today }: When,
  keep: (goal: Goal, progress: Progress) => Kept,
): Promise<Map<string, Kept>> {
  const asksForVariety = goals.some(
    ({ criterion }) => criterion.distinctLocations > 1 || criterion.distinctObservers > 1,
  );
  const when = { calendar: school.calendar, today };
  const kept = new Map<string, Kept>();
  for (let from = 0; from < goals.length; from += READ_AT_ONCE) {
    const some = goals.slice(from, from + READ_AT_ONCE);
    const sessions = await sessionsByGoal(db, some, { inDetail: goals.length === 1 || asksForVariety });
    for (const goal of some) {
      kept.set(goal.id, keep(goal, progressOf(goal, sessionsOf(goal, sessions.get(goal.id) ?? []), when)));
    }
  }
  return kept;
}

/**
 * What is computed of a goal changes with the goal, with its entries, with the calendar and with the day, and with nothing else: as
 * long as these are as they were, what was computed is used again.
 */
class Computed<Kept extends object> {
  readonly #known: LRUCache<string, Kept>;
  readonly #keep: (progress: Progress) => Kept;

  constructor(
    options: { max: number } | { maxSize: number; sizeCalculation: (kept: Kept) => number },
    keep: (progress: Progress) => Kept,
  ) {
    this.#known = new LRUCache(options);
    this.#keep = keep;
  }

  async of(db: Database, goals: readonly Goal[], when: When): Promise<Map<string, Kept>> {
    const stamps = await entryStamps(db, goals);
    const around = hashOf([when.today, when.school.calendar]);
    const keys = new Map(
      goals.map((goal) => [goal.id, `${JSON.stringify(goal)} ${stamps.get(goal.id) ?? ''} ${around}`]),
    );
    const known = new Map(goals.map(({ id }) => [id, this.#known.get(defined(keys.get(id)))]));
    const fresh = await computed(
      db,
      goals.filter(({ id }) => !known.get(id)),
      when,
      (goal, progress) => {
        const kept = this.#keep(progress);
        this.#known.set(defined(keys.get(goal.id)), kept);
        return kept;
      },
    );
    return new Map(goals.map(({ id }) => [id, defined(known.get(id) ?? fresh.get(id))]));
  }
}

const hashOf = (value: unknown) => createHash('sha1').update(JSON.stringify(value)).digest('base64url');

/** Points of goals that are kept between pages; a goal of a year has about a hundred. */
const POINTS_KEPT = 40_000;
const wholes = new Computed<Progress>(
  { maxSize: POINTS_KEPT, sizeCalculation: ({ points }) => points.length + 1 },
  (progress) => progress,
);

/**
 * What is said of each goal today, by its id, from the entries as they are stored now. For the goals of one student.
 */
export const progressOfGoals = (db: Database, goals: readonly Goal[], when: When): Promise<Map<string, Progress>> =>
  wholes.of(db, goals, when);

/** How a goal stands, in short. */
export interface Standing {
  decision: Progress['decision'];
  /** The date of its newest point; null while there is none. */
  lastOn: IsoDate | null;
}

/** How each goal stands today, by its id: for lists over many students. */
export const standingOfGoals = (db: Database, goals: readonly Goal[], when: When): Promise<Map<string, Standing>> =>
  standings.of(db, goals, when);

const standings = new Computed<Standing>({ max: 20_000 }, ({ decision, points }) => ({
  decision,
  lastOn: points.at(-1)?.on ?? null,
}));

/** The same for one goal whose sessions have been read already, in order of date and time. */
export function progressFrom(
  goal: Goal,
  sessions: readonly GoalSession[],
  { school, today }: { school: School; today: IsoDate },
): Progress {
  const counting = sessions.filter(
    ({ pairsWith, isSelfRecorded }) => pairsWith === null && (goal.selfCounts || !isSelfRecorded),
  );
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
