import { z } from 'zod';
import { type ChangeKind, type ChangesWanted, changeKinds, type State, stateOn } from '~/core/sharing/change';
import type { Database } from '../platform/db/database';
import { rowsOf, written } from '../platform/db/rows';
import type { SchoolAdmin } from './administrators';

/** What is written down of a change: what and whom it is about, and how it was before and after. */
export interface Change {
  what: ChangeKind;
  /** Of one student; their school is the change’s. */
  studentId?: string | null;
  /** Else of one school; else, of a person, of each school that they work at. */
  schoolId?: string | null;
  /** Whom it is about, where it is about somebody with an account. */
  personId?: string | null;
  before: State;
  after: State;
}

/**
 * Writes down a change; it is never changed again. Call it in the transaction of the change itself. What is as it was is no change.
 *
 * @param by  who made it; null for a reader from outside, or nobody
 */
export async function writeChange(
  db: Database,
  by: string | null,
  { what, studentId = null, schoolId = null, personId = null, before, after }: Change,
  now: Date,
): Promise<void> {
  if (JSON.stringify(before) === JSON.stringify(after)) return;
  await db.raw(
    `insert into changes (school_id, student_id, person_id, what, before, after, changed_by, changed_at)
     select s.id, :studentId, :personId, :what, :before, :after, :by, :now
       from (select) as this
       left join (
         select cast(:schoolId as uuid) as id where cast(:schoolId as uuid) is not null
         union
         select school_id from students where id = :studentId and cast(:schoolId as uuid) is null
         union
         select school_id from school_staff
          where person_id = :personId and coalesce(cast(:studentId as uuid), cast(:schoolId as uuid)) is null
                and coalesce(until_date, 'infinity') >= cast(cast(:now as timestamptz) as date)) as s on true`,
    {
      ...{ what, studentId, schoolId, personId, by, now },
      ...{ before: before && JSON.stringify(before), after: after && JSON.stringify(after) },
    },
  );
}

const writtenChangeRow = z.object({
  id: z.string(),
  at: z.date(),
  what: z.enum(changeKinds),
  /** The student’s or person’s name that it is about; null where it is about the school. */
  student: z.string().nullable(),
  person: z.string().nullable(),
  by: z.string().nullable(),
  before: written<State>(),
  after: written<State>(),
});
export type WrittenChange = z.infer<typeof writtenChangeRow>;

/** Changes on one page. */
export const CHANGES_A_PAGE = 100;

/**
 * What was changed at a school, newest first. For administrators.
 *
 * @param page  null for all of them
 * @throws NotFound for everyone else
 */
export async function changesOf(
  db: Database,
  actor: SchoolAdmin,
  { kind, about, from, to, page }: Omit<ChangesWanted, 'page'> & { page: number | null },
): Promise<{ changes: WrittenChange[]; total: number }> {
  const where = `c.school_id = :schoolId
    ${kind ? 'and c.what = :kind' : ''}
    ${about ? `and strpos(lower(concat_ws(' ', s.first_name, s.last_name, p.name, w.name)), lower(:about)) > 0` : ''}
    ${from ? `and cast(c.changed_at at time zone k.time_zone as date) >= :from` : ''}
    ${to ? `and cast(c.changed_at at time zone k.time_zone as date) <= :to` : ''}`;
  const tables = `changes c join schools k on k.id = c.school_id left join students s on s.id = c.student_id
    left join people p on p.id = c.person_id left join people w on w.id = c.changed_by`;
  const values = { schoolId: actor.schoolId, kind: kind ?? '', about, from: from ?? '', to: to ?? '' };
  const slice = page === null ? '' : `limit ${CHANGES_A_PAGE} offset ${(page - 1) * CHANGES_A_PAGE}`;
  const found = await rowsOf(
    db,
    writtenChangeRow,
    `select c.id, c.changed_at as at, c.what, s.first_name || ' ' || s.last_name as student, p.name as person, w.name as by,
            c.before, c.after
       from ${tables} where ${where} order by c.id desc ${slice}`,
    values,
  );
  const counted = await rowsOf(
    db,
    z.object({ n: z.number() }),
    `select count(*)::int as n from ${tables} where ${where}`,
    values,
  );
  return { changes: found, total: counted[0]?.n ?? 0 };
}

/**
 * How something that is written down as a whole stood at the end of a day at the school.
 *
 * @param of  a student’s own, or a school’s
 * @param present  as it stands now
 */
export async function stateAtDay<Rule>(
  db: Database,
  what: ChangeKind,
  of: { studentId: string } | { schoolId: string },
  present: Record<string, Rule>,
  { day, timeZone }: { day: string; timeZone: string },
): Promise<Record<string, Rule>> {
  const where = 'studentId' in of ? { student_id: of.studentId } : { school_id: of.schoolId, student_id: null };
  const rows: { on: string; before: Record<string, Rule> | null; after: Record<string, Rule> | null }[] = await db(
    'changes',
  )
    .where({ what, ...where })
    .orderBy('id')
    .select(db.raw('cast(changed_at at time zone ? as date) as "on"', [timeZone]), 'before', 'after');
  return stateOn(present, rows, day);
}
