import { z } from 'zod';
import type { FollowUpChange, FollowUpInput } from '~/core/rules/follow-up';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Conflict, Invalid, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';
import { can } from '../students/rights';
import { requireStudent, studentsOf, supportTeam } from '../students/students';

const followUpRow = z.object({
  id: z.string(),
  version: z.number(),
  studentId: z.string(),
  /** What it is because of; null where it is because of none in particular. */
  entryId: z.string().nullable(),
  entryKind: z.enum(['goal', 'incident', 'count', 'note']).nullable(),
  isWithdrawn: z.boolean(),
  goalId: z.string().nullable(),
  goal: z.string().nullable(),
  what: z.string(),
  forPerson: z.string(),
  forName: z.string(),
  dueOn: z.string(),
  inReport: z.boolean(),
  /** The rule from which it followed; null where somebody made it. */
  rule: z.string().nullable(),
  madeBy: z.string().nullable(),
  madeAt: z.date(),
  isDone: z.boolean(),
});
export type FollowUp = z.infer<typeof followUpRow>;

const query = `
  select f.id, f.version, f.student_id as "studentId", f.entry_id as "entryId", e.kind as "entryKind",
         coalesce(e.withdrawn, false) as "isWithdrawn", coalesce(g.id, own.id) as "goalId",
         coalesce(g.number || ' · ' || g.short_name, own.number || ' · ' || own.short_name) as goal,
         f.what, f.for_person as "forPerson", p.short_name as "forName", f.due_on as "dueOn", f.in_report as "inReport",
         v.name as rule, m.short_name as "madeBy", f.made_at as "madeAt", f.done_at is not null as "isDone"
    from follow_ups f join people p on p.id = f.for_person left join people m on m.id = f.made_by
    left join entries e on e.id = f.entry_id left join goals own on own.id = e.goal_id
    left join rule_firings r on r.id = f.firing_id left join goals g on g.id = r.goal_id
    left join rule_versions v on v.rule_id = r.rule_id and v.version = r.version`;

interface FollowUpsWanted {
  forPerson?: string | undefined;
  isDone?: boolean | undefined;
  ids?: readonly string[];
  /** Those that stand in the individual report. */
  inReport?: boolean;
  limit?: number;
}

/** Follow-ups of some students, what is due first, then what is done, the newest first. */
export async function followUpsOf(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  { forPerson, isDone, ids, inReport, limit = 300 }: FollowUpsWanted = {},
): Promise<FollowUp[]> {
  if (studentIds.length === 0) return [];
  return rowsOf(
    db,
    followUpRow,
    `${query} where f.student_id = any(:studentIds)
        ${forPerson ? 'and f.for_person = :forPerson' : ''} ${ids ? 'and f.id = any(:ids)' : ''} ${inReport ? 'and f.in_report' : ''}
        ${isDone === undefined ? '' : `and f.done_at is ${isDone ? 'not null' : 'null'}`}
      order by f.done_at is not null, f.done_at desc, f.due_on, f.made_at, f.id limit :limit`,
    { studentIds: [...studentIds], forPerson: forPerson ?? '', ids: [...(ids ?? [])], limit },
  );
}

const changeRow = z.object({
  followUpId: z.string(),
  what: z.enum(['done', 'handedOn', 'putOff', 'reopened']),
  word: z.string(),
  forName: z.string().nullable(),
  dueOn: z.string().nullable(),
  by: z.string(),
  at: z.date(),
});

/** What was done with some follow-ups, oldest first. */
export async function changesOfFollowUps(db: Database, ids: readonly string[]) {
  return rowsOf(
    db,
    changeRow,
    `select c.follow_up_id as "followUpId", c.what, c.word, f.short_name as "forName", c.due_on as "dueOn", p.short_name as by,
            c.changed_at as at
       from follow_up_changes c join people p on p.id = c.changed_by left join people f on f.id = c.for_person
      where c.follow_up_id = any(?) order by c.follow_up_id, c.version`,
    [[...ids]],
  );
}

/** @throws Invalid where that person is not on the student's team */
async function mustBeOnTeam(
  db: Database,
  actor: Actor,
  studentId: StudentAccess<'read'>,
  personId: string,
): Promise<void> {
  const team = await supportTeam(db, studentId, actor.today);
  if (!team.some((member) => member.id === personId && can(member, 'see')))
    throw new Invalid({ forPerson: 'Choose somebody who is on this student’s team.' });
}

/**
 * Makes a follow-up by hand. Sent twice, it is there once.
 *
 * @throws NotFound for a student whom they may not observe, or an entry that is not this student's
 * @throws Invalid where it is for somebody who is not on the team
 */
export async function makeFollowUp(db: Database, actor: Actor, input: FollowUpInput, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const student = await requireStudent(trx, actor, input.studentId, 'observe');
    await mustBeOnTeam(trx, actor, student.id, input.forPerson);
    if (input.entryId) {
      const entry = await trx('entries').where({ id: input.entryId, student_id: student.id }).first('id');
      if (!entry) throw new NotFound('No such entry.');
    }
    await trx('follow_ups')
      .insert({
        ...{
          id: input.id,
          student_id: student.id,
          entry_id: input.entryId,
          what: input.what,
          for_person: input.forPerson,
        },
        ...{ due_on: input.dueOn, in_report: input.inReport, made_by: actor.personId, made_at: now },
      })
      .onConflict('id')
      .ignore();
  });
}

/**
 * One follow-up of a student whom the one who asks may see.
 *
 * @throws NotFound where there is none
 */
export async function followUpOf(db: Database, actor: Actor, id: string): Promise<FollowUp> {
  const students = await studentsOf(db, actor);
  const [found] = await followUpsOf(
    db,
    students.map((student) => student.id),
    { ids: [id] },
  );
  if (!found) throw new NotFound('No such follow-up.');
  return found;
}

/**
 * Says what is done with a follow-up: anybody may who observes the student, and it says who did.
 *
 * @throws Conflict where somebody has changed it meanwhile
 * @throws NotFound for a student whom they may not observe
 */
export async function changeFollowUp(
  db: Database,
  actor: Actor,
  id: string,
  change: FollowUpChange,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const row = await trx('follow_ups').where({ id }).forUpdate().first('student_id', 'version', 'done_at');
    if (!row) throw new NotFound('No such follow-up.');
    const student = await requireStudent(trx, actor, row.student_id, 'observe');
    if (row.version !== change.version) throw new Conflict(await followUpOf(trx, actor, id));
    const forPerson = change.what === 'handedOn' ? change.forPerson : null;
    const dueOn = change.what === 'putOff' ? change.dueOn : null;
    if (forPerson) await mustBeOnTeam(trx, actor, student.id, forPerson);
    const version = row.version + 1;
    await trx('follow_up_changes').insert({
      ...{ follow_up_id: id, version, student_id: student.id, what: change.what, word: change.word },
      ...{ for_person: forPerson, due_on: dueOn, changed_by: actor.personId, changed_at: now },
    });
    await trx('follow_ups')
      .where({ id })
      .update({
        version,
        ...(forPerson && { for_person: forPerson }),
        ...(dueOn && { due_on: dueOn }),
        ...(change.what === 'done' && { done_at: now }),
        ...(change.what === 'reopened' && { done_at: null }),
      });
  });
}
