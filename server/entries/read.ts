import { z } from 'zod';
import type { FidelityMarks } from '~/core/entries/fidelity';
import type { ObservedSession, Outcome } from '~/core/entries/observation';
import type { MeasureData } from '~/core/measures/measure';
import type { NoScoreReason } from '~/core/measures/score';
import type { Database } from '../platform/db/database';
import { held, rowsOf, written } from '../platform/db/rows';
import { NotFound } from '../platform/failures';
import type { StudentAccess } from '../students/access';
import { observerName, recordedColumns, recordedNames, recordedRow, revisedEntries } from './corrections';

/** What a measure recorded, or why there is no score: the database holds that one of the two is there, never both. */
const data = written<MeasureData | null>();
const reason = written<NoScoreReason | null>();

const observationRow = recordedRow.extend({
  goalId: held(z.string()),
  /** The version of the goal under which it was made. */
  goalVersion: held(z.number()),
  on: z.string(),
  time: z.string(),
  locationId: z.string().nullable(),
  locationName: z.string().nullable(),
  data,
  reason,
  note: z.string(),
  fidelity: written<FidelityMarks | null>(),
  /** The first observer's entry of the same session, where this is the second's. */
  pairsWith: z.string().nullable(),
  /** Of a cumulative total: everything up to and with this entry; null for other measures, and for what an entry said before. */
  soFar: z.number().nullable(),
});

/** An observation with everything that its page shows. */
export type Observation = Omit<z.infer<typeof observationRow>, 'data' | 'reason'> & { outcome: Outcome };

function observationFromRow({ data, reason, ...rest }: z.infer<typeof observationRow>): Observation {
  return { ...rest, outcome: outcomeFrom(data, reason) };
}

function outcomeFrom(data: MeasureData | null, reason: NoScoreReason | null): Outcome {
  // The database holds that one of the two is there, never both.
  return { data, reason } as Outcome;
}

const columns = `
  ${recordedColumns('o')}, o.goal_id as "goalId", o.measure_version as "goalVersion", o.observed_on as "on",
  o.observed_time as "time", o.location_id as "locationId", st.name as "locationName", o.data, o.reason, o.note,
  o.fidelity, o.pairs_with as "pairsWith"`;

/** All that a cumulative total came to up to and with the entry `o`. */
const soFar = `
  case when jsonb_exists(o.data, 'amounts') then (
    select sum(cast(one ->> 'amount' as float))
      from entries before cross join jsonb_array_elements(before.data -> 'amounts') as one
     where before.student_id = o.student_id and before.goal_id = o.goal_id and before.kind = 'goal' and not before.withdrawn
           and before.pairs_with is null
           and (not before.self_recorded or coalesce((select d.self_counts from desk_goals d where d.goal_id = o.goal_id), true))
           and (before.observed_on, before.observed_time, before.recorded_at) <= (o.observed_on, o.observed_time, o.recorded_at))
  end as "soFar"`;

/** The names that belong to the observations `o`. */
const names = `${recordedNames('o')} left join locations st on st.id = o.location_id`;

/** The entries of some students that count, newest first. */
export async function observationsOf(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  {
    goalId,
    limit,
    ids,
  }: { goalId?: string | undefined; limit?: number | undefined; ids?: readonly string[] | undefined } = {},
): Promise<Observation[]> {
  const newestFirst = (of: string) => `${of}.observed_on desc, ${of}.observed_time desc, ${of}.recorded_at desc`;
  const atMost = limit ? 'limit :limit' : '';
  // Student by student, so that each list comes out of its index in order and ends early; those asked for by id, by id.
  const from = ids
    ? `(select * from entries x
         where x.id = any(:ids) and x.student_id = any(:studentIds) and x.kind = 'goal' and not x.withdrawn) o`
    : `unnest(cast(:studentIds as uuid[])) as student (id)
       cross join lateral (
         select * from entries x
          where x.student_id = student.id and x.kind = 'goal' and not x.withdrawn ${goalId ? 'and x.goal_id = :goalId' : ''}
          order by ${newestFirst('x')} ${atMost}) o`;
  const found = await rowsOf(
    db,
    observationRow,

    `select ${columns}, ${soFar} from ${from} ${names} order by ${newestFirst('o')} ${atMost}`,
    { studentIds: [...studentIds], goalId: goalId ?? '', ids: [...(ids ?? [])], limit: limit ?? 0 },
  );
  return found.map(observationFromRow);
}

/**
 * One entry of a student, withdrawn ones too.
 *
 * @throws NotFound when the student has no such entry
 */
export async function observationOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  id: string,
  { lock = false }: { lock?: boolean } = {},
): Promise<Observation> {
  const found = await rowsOf(
    db,
    observationRow,

    `select ${columns}, ${soFar} from entries o ${names}
      where o.student_id = :studentId and o.id = :id and o.kind = 'goal' ${lock ? 'for update of o' : ''}`,
    { studentId, id },
  );
  const row = found[0];
  if (!row) throw new NotFound('No such entry.');
  return observationFromRow(row);
}

/** What an entry said before each change, oldest first. */
export async function observationRevisions(db: Database, id: string): Promise<Observation[]> {
  const found = await rowsOf(
    db,
    observationRow,

    `select ${columns}, null as "soFar" from ${revisedEntries} o ${names} order by o.version`,
    { id },
  );
  return found.map(observationFromRow);
}

/** A session, and the version of its goal under which it was made. */
export interface VersionedSession extends ObservedSession {
  version: number;
}

const known = z.string().nullable();
const sessionRow = z.tuple([held(z.string()), z.string(), data, reason, held(z.number()), known, known, known]);
const text = z.string();
const goalSessionRow = z.tuple([
  text,
  text,
  data,
  reason,
  held(z.number()),
  known,
  // A student's own entry has no observer but themselves.
  known,
  text,
  text,
  known,
  known,
  written<FidelityMarks | null>(),
  z.boolean(),
]);

/**
 * What the computation needs of the entries of some goals, by goal, in order of date and time. Narrow on purpose:
 * thousands of them are read for one page. A second observer's entry is not counted again.
 *
 * @param inDetail  whether it matters which entry it was, where and by whom
 */
export async function sessionsByGoal(
  db: Database,
  goals: readonly { id: string; studentId: string; selfCounts: boolean }[],
  { inDetail }: { inDetail: boolean },
): Promise<Map<string, VersionedSession[]>> {
  // A student at their own desk is no observer.
  const details = inDetail
    ? 'o.id, o.location_id, case when o.self_recorded then null else o.observer_id end'
    : 'null, null, null';
  const found = await rowsOf(
    db,
    sessionRow,
    `select o.goal_id, o.observed_on, o.data, o.reason, o.measure_version, ${details}
         from unnest(cast(:studentIds as uuid[]), cast(:goalIds as uuid[]), cast(:selfCounts as boolean[])) as goal (student_id, id, self_counts)
         cross join lateral (
           select * from entries x
            where x.student_id = goal.student_id and x.goal_id = goal.id and x.kind = 'goal' and not x.withdrawn
                  and x.pairs_with is null and (goal.self_counts or not x.self_recorded)
            order by x.observed_on, x.observed_time, x.recorded_at) o`,
    {
      ...{ studentIds: goals.map(({ studentId }) => studentId), goalIds: goals.map(({ id }) => id) },
      selfCounts: goals.map(({ selfCounts }) => selfCounts),
    },
  );
  const byGoal = new Map<string, VersionedSession[]>();
  for (const [goal, on, data, reason, version, id, location, observer] of found) {
    const session = { id, on, outcome: outcomeFrom(data, reason), location, observer, version };
    const list = byGoal.get(goal);
    if (list) list.push(session);
    else byGoal.set(goal, [session]);
  }
  return byGoal;
}

/**
 * What changes with every entry of a goal that is written, changed, withdrawn or paired: their number and the sum of their versions, and
 * when the newest was written or paired. Read from one index, without the entries themselves.
 */
export async function entryStamps(
  db: Database,
  goals: readonly { id: string; studentId: string }[],
): Promise<Map<string, string>> {
  const found = await rowsOf(
    db,
    z.tuple([z.string(), z.string()]),
    `select goal.id, concat_ws(' ', e.n, e.versions, e.newest, e.paired, e.last_paired)
         from unnest(cast(:studentIds as uuid[]), cast(:goalIds as uuid[])) as goal (student_id, id)
         cross join lateral (
           select count(*) as n, sum(x.version) as versions, max(x.recorded_at) as newest, count(x.paired_at) as paired,
                  max(x.paired_at) as last_paired
             from entries x
            where x.student_id = goal.student_id and x.goal_id = goal.id and x.kind = 'goal' and not x.withdrawn) e`,
    { studentIds: goals.map(({ studentId }) => studentId), goalIds: goals.map(({ id }) => id) },
  );
  return new Map(found);
}

/** A session of one goal, with what its page says of it beside the figures. */
export interface GoalSession extends VersionedSession {
  id: string;
  note: string;
  observerName: string;
  locationName: string | null;
  pairsWith: string | null;
  fidelity: FidelityMarks | null;
  /** The student entered it at their own desk. */
  isSelfRecorded: boolean;
}

/** All sessions of one goal in order of date and time, those of second observers too. */
export async function sessionsOfGoal(
  db: Database,
  studentId: StudentAccess<'read'>,
  goalId: string,
): Promise<GoalSession[]> {
  const found = await rowsOf(
    db,
    goalSessionRow,
    `select o.id, o.observed_on, o.data, o.reason, o.measure_version, o.location_id, case when o.self_recorded then null else o.observer_id end, o.note,
              ${observerName('o', 'p')}, st.name, o.pairs_with, o.fidelity, o.self_recorded
         from entries o join people p on p.id = o.observer_id left join locations st on st.id = o.location_id
        where o.student_id = ? and o.goal_id = ? and o.kind = 'goal' and not o.withdrawn
        order by o.observed_on, o.observed_time, o.recorded_at`,
    [studentId, goalId],
  );
  return found.map(
    ([id, on, data, reason, version, location, observer, note, name, locationName, pairsWith, fidelity, isSelf]) => ({
      ...{
        id,
        on,
        outcome: outcomeFrom(data, reason),
        version,
        location,
        observer,
        note,
        locationName,
        pairsWith,
        fidelity,
      },
      ...{ observerName: name, isSelfRecorded: isSelf },
    }),
  );
}
