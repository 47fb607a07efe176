import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { schoolDays } from '~/core/calendar/school-days';
import { type AbsenceInput, MOST_DAYS_AWAY } from '~/core/students/absence-input';
import { counted } from '~/core/words/counting';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid } from '../platform/failures';
import { type Actor, schoolOf } from '../school/school';
import type { StudentAccess } from './access';
import { requireStudent } from './students';

/** A day on which a student was away, and who says so. */
const absenceRow = z.object({ day: z.string(), recordedBy: z.string(), recordedAt: z.date() });
export type Absence = z.infer<typeof absenceRow>;

/** The days on which a student was away, newest first. */
export async function absencesOf(db: Database, studentId: StudentAccess<'see'>): Promise<Absence[]> {
  return rowsOf(
    db,
    absenceRow,
    `select a.day, p.short_name as "recordedBy", a.recorded_at as "recordedAt"
       from absences a join people p on p.id = a.recorded_by
      where a.student_id = ? and a.part is null and a.withdrawn_at is null order by a.day desc`,
    [studentId],
  );
}

/** The same of several students, as days only, by student. */
export async function daysAway(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
): Promise<Map<string, IsoDate[]>> {
  const found = await rowsOf(
    db,
    z.tuple([z.string(), z.string()]),
    `select student_id, day from absences where student_id = any(?) and part is null and withdrawn_at is null`,
    [[...studentIds]],
  );
  const days = new Map<string, IsoDate[]>(studentIds.map((id) => [id, []]));
  for (const [student, day] of found) days.get(student)?.push(day);
  return days;
}

/**
 * Writes down that a student was away on the school days of a stretch. A day that is written already stays as it is, so sent twice it is
 * once.
 *
 * @returns how many school days it holds
 * @throws NotFound for who may not observe; Invalid for days to come, for none with school, and for too many at once
 */
export async function recordAbsence(
  db: Database,
  actor: Actor,
  studentId: string,
  { from, to }: AbsenceInput,
  now: Date,
): Promise<number> {
  return db.transaction(async (trx) => {
    const { id } = await requireStudent(trx, actor, studentId, 'observe');
    if (to > actor.today) throw new Invalid({ to: 'This day has not come yet.' });
    const days = schoolDays(from, to, (await schoolOf(trx, actor.schoolId)).calendar);
    if (days.length === 0) throw new Invalid({ from: 'There was no school then.' });
    if (days.length > MOST_DAYS_AWAY) {
      throw new Invalid({
        to: `That is ${counted(days.length, 'school day', 'school days')}: look at the dates once more.`,
      });
    }
    const rows = days.map((day) => ({
      ...{ id: randomUUID(), student_id: id, day, recorded_by: actor.personId, recorded_at: now },
    }));
    await trx('absences').insert(rows).onConflict().ignore();
    return days.length;
  });
}

/**
 * The student was there on this day after all: what was written stays, as withdrawn.
 *
 * @throws NotFound for who may not observe
 */
export async function withdrawAbsence(
  db: Database,
  actor: Actor,
  studentId: string,
  day: IsoDate,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const { id } = await requireStudent(trx, actor, studentId, 'observe');
    await trx('absences')
      .where({ student_id: id, day, withdrawn_at: null })
      .update({ withdrawn_by: actor.personId, withdrawn_at: now });
  });
}
