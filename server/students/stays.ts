import { z } from 'zod';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import { type Role, roles } from '~/core/students/roles';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { membershipRow } from './rights';

/** One stay on a support team, as it is stored. */
const stayRow = z.object({
  id: z.string(),
  person_id: z.string(),
  role: z.enum(roles),
  rights: membershipRow.shape.rights,
  from_date: z.string(),
  until_date: z.string().nullable(),
});
export type StayRow = z.infer<typeof stayRow>;

/**
 * Of somebody's stays on a team the one that stands for them comes first: the present one, else the next, else the last.
 *
 * @param day  as SQL
 */
export const stayFirst = (of: string, day: string) => `
  ${of}.from_date <= ${day} and coalesce(${of}.until_date, 'infinity') >= ${day} desc, ${of}.from_date > ${day} desc,
  case when ${of}.from_date > ${day} then ${of}.from_date end, ${of}.from_date desc`;

/** The stay that stands for somebody on a team, locked; undefined where they never were on it. */
export async function stayOf(
  db: Database,
  studentId: string,
  personId: string,
  today: IsoDate,
): Promise<StayRow | undefined> {
  const found = await rowsOf(
    db,
    stayRow,
    `select id, person_id, role, rights, from_date, until_date from team_members m
      where student_id = :studentId and person_id = :personId
      order by ${stayFirst('m', 'cast(:today as date)')} limit 1 for update`,
    { studentId, personId, today },
  );
  return found[0];
}

/** Who is the case manager of a student, or is to be; null where nobody is. */
export async function caseManagerIdOf(db: Database, studentId: string, today: IsoDate): Promise<string | null> {
  const row = await db('team_members')
    .where({ student_id: studentId, role: 'caseManager' })
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .first('person_id');
  return row?.person_id ?? null;
}

interface Written {
  by: string;
  today: IsoDate;
  now: Date;
}

/**
 * From today on somebody has another role on a team. What they were until yesterday stays written: a present stay ends, and another
 * begins. Who was to join later begins now.
 */
export async function changeRole(
  db: Database,
  { studentId, personId, role }: { studentId: string; personId: string; role: Role },
  { by, today, now }: Written,
): Promise<void> {
  const stay = await stayOf(db, studentId, personId, today);
  const content = { role, rights: null, changed_by: by, changed_at: now };
  const isPresent = stay && stay.from_date <= today && (stay.until_date ?? today) >= today;
  if (stay && (stay.from_date >= today || isPresent)) {
    // What was planned for later is overtaken by this.
    await db('team_members')
      .where({ student_id: studentId, person_id: personId })
      .where('from_date', '>', today)
      .whereNot({ id: stay.id })
      .delete();
  }
  if (stay && stay.from_date >= today) {
    await db('team_members')
      .where({ id: stay.id })
      .update({ ...content, from_date: today, until_date: null });
    return;
  }
  if (stay && isPresent) {
    await db('team_members')
      .where({ id: stay.id })
      .update({ until_date: addDays(today, -1), changed_by: by, changed_at: now });
  }
  const told = stay && (await db('team_members').where({ id: stay.id }).first('frequency', 'stopped_at'));
  await db('team_members').insert({
    student_id: studentId,
    person_id: personId,
    from_date: today,
    ...content,
    ...told,
  });
}

/** Somebody is on a team no longer, from today on. What they were until yesterday stays written. */
export async function endStay(
  db: Database,
  { studentId, personId }: { studentId: string; personId: string },
  { by, today, now }: Written,
): Promise<void> {
  const stays = () => db('team_members').where({ student_id: studentId, person_id: personId });
  await stays().where('from_date', '>=', today).delete();
  await stays()
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .update({ until_date: addDays(today, -1), changed_by: by, changed_at: now });
}
