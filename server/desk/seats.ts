import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { hashToken, newToken } from '../people/tokens';
import { asking, database } from '../platform/db/current';
import { type Database, preparedRows } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { schoolColumn, schoolJson } from '../school/school';
import { grant, type StudentAccess } from '../students/access';

/** A seat is left after a school day: whoever comes later scans the code again. */
const SEAT_HOURS = 8;

const atSeatRow = z.object({
  presentationId: z.string(),
  studentId: z.string(),
  firstName: z.string(),
  initials: z.string(),
  isDemo: z.boolean(),
});
/** Somebody who may answer on a device that was opened with the class's code. */
export type AtSeat = z.infer<typeof atSeatRow>;

/** Who may answer with this code, in order of initials; nobody once it is closed or there is a newer one. */
export async function whoPresents(db: Database, token: string): Promise<AtSeat[]> {
  return rowsOf(
    db,
    atSeatRow,
    `select presentation_id as "presentationId", student_id as "studentId", first_name as "firstName", initials, is_demo as "isDemo"
       from students_presenting(:hash) order by initials, first_name, student_id`,
    { hash: hashToken(token) },
  );
}

/**
 * Sits one of the class down on a device.
 *
 * @returns the token that the device keeps; null for somebody who is not in it
 */
export async function takeSeat(db: Database, token: string, studentId: string, now: Date): Promise<string | null> {
  const found = (await whoPresents(db, token)).find((one) => one.studentId === studentId);
  if (!found) return null;
  const kept = newToken();
  await asking({ doorTo: studentId }, () =>
    database()('presentation_seats').insert({
      ...{ id: randomUUID(), presentation_id: found.presentationId, student_id: studentId },
      ...{ token_hash: hashToken(kept), began_at: now },
    }),
  );
  return kept;
}

/** Who sits at a device, so that the door to that student can be opened; null for a seat that there never was. */
export async function studentInSeat(db: Database, token: string): Promise<string | null> {
  const [found] = await preparedRows(
    db,
    'student-in-seat',
    z.object({ id: z.string().nullable() }),
    'select student_in_seat($1) as id',
    [hashToken(token)],
  );
  return found?.id ?? null;
}

const seatRow = z.object({
  seatId: z.string(),
  presentationId: z.string(),
  studentId: z.string(),
  firstName: z.string(),
  school: schoolColumn,
});
/** Somebody of the class at a device, for one presentation. */
export type Seat = Omit<z.infer<typeof seatRow>, 'studentId'> & { studentId: StudentAccess<'read'> };

/** Whose seat this is. To be asked at the student's own door. @returns null when it is too old, or its student has left */
export async function resumeSeat(db: Database, token: string, now: Date): Promise<Seat | null> {
  const [seat] = await rowsOf(
    db,
    seatRow,
    `select t.id as "seatId", t.presentation_id as "presentationId", t.student_id as "studentId", s.first_name as "firstName", ${schoolJson('c')} as school
       from presentation_seats t join students s on s.id = t.student_id and s.archived_at is null
       join schools c on c.id = s.school_id
      where t.token_hash = :hash and t.began_at > cast(:now as timestamptz) - make_interval(hours => ${SEAT_HOURS})`,
    { hash: hashToken(token), now },
  );
  return seat ? { ...seat, studentId: grant(seat.studentId, 'class code') } : null;
}
