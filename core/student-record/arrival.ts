import { z } from 'zod';
import { studentInput } from '../students/student-input';

/** A record with its files; larger ones are not taken in at once. */
export const MOST_RECORD_BYTES = 80 * 1024 * 1024;
export const recordTooLargeWords = `The record is larger than ${MOST_RECORD_BYTES / 1024 / 1024} MB.`;

/** A record that is handed over, beside its bytes. */
export const arrivalUpload = z.object({ id: z.uuid() });
export type ArrivalUpload = z.infer<typeof arrivalUpload>;

/** What the receiving school says of the student; all else stands in the record. */
export const readInInput = studentInput.pick({ grade: true, groupIds: true, caseManagerId: true, isSomeoneElse: true });
export type ReadInInput = z.infer<typeof readInInput>;

/** What the one who carries a record out says of it: it stands in the access log (34 CFR 99.32). */
export const carryOutInput = z.object({
  forWhom: z
    .string({ error: 'Say for whom it is, and what for.' })
    .trim()
    .min(3, { error: 'Say for whom it is, and what for.' })
    .max(160, { error: 'Keep it to 160 characters.' }),
});
