import { z } from 'zod';
import type { RecordRequestInput } from '~/core/student-record/destruction';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { requireStudent } from '../students/students';

const requestRow = z.object({
  ...{ id: z.string(), askedBy: z.string(), askedOn: z.string(), notedBy: z.string() },
  ...{ answeredBy: z.string().nullable(), answeredAt: z.date().nullable() },
});
export type RecordRequest = z.infer<typeof requestRow>;

/** Who asked to see a student's record, open ones first. For those who may carry it out. @throws NotFound */
export async function recordRequestsOf(db: Database, actor: Actor, studentId: string): Promise<RecordRequest[]> {
  await requireStudent(db, actor, studentId, 'carryOut');
  return rowsOf(
    db,
    requestRow,
    `select r.id, r.asked_by as "askedBy", r.asked_on as "askedOn", n.name as "notedBy", a.name as "answeredBy", r.answered_at as "answeredAt"
       from record_requests r join people n on n.id = r.noted_by left join people a on a.id = r.answered_by
      where r.student_id = :studentId order by r.answered_at is not null, r.asked_on, r.id`,
    { studentId },
  );
}

/** Notes that a family asks to see the record: until it is answered, nothing of it is destroyed. Sent twice, it is one. @throws NotFound; Invalid */
export async function noteRecordRequest(
  db: Database,
  actor: Actor,
  studentId: string,
  { id, askedBy, askedOn }: RecordRequestInput,
  now: Date,
): Promise<void> {
  await requireStudent(db, actor, studentId, 'carryOut');
  if (askedOn > actor.today) throw new Invalid({ askedOn: 'That day is still to come.' });
  await db('record_requests')
    .insert({
      ...{ id, student_id: studentId, asked_by: askedBy, asked_on: askedOn },
      ...{ noted_by: actor.personId, noted_at: now },
    })
    .onConflict('id')
    .ignore();
}

/** Notes that it was shown, or given out. @throws NotFound */
export async function answerRecordRequest(db: Database, actor: Actor, studentId: string, id: string, now: Date) {
  await requireStudent(db, actor, studentId, 'carryOut');
  const known = await db('record_requests').where({ id, student_id: studentId }).first('id');
  if (!known) throw new NotFound('No such request.');
  await db('record_requests')
    .where({ id })
    .whereNull('answered_at')
    .update({ answered_by: actor.personId, answered_at: now });
}
