import { z } from 'zod';
import { clockTimeField, isoDateField } from '../../calendar/date-fields';
import { changeReasonField } from '../observation';
import { photographContent } from '../photograph';
import { answersSchema } from './form';

const idField = z.uuid({ error: 'This is not a known item.' });

const answered = {
  answers: answersSchema,
  /** Required questions may be left open, once that is said. */
  leavesOpen: z.boolean().default(false),
};

/** The version of the form that whoever answered had before them. */
const ofForm = { formId: idField, formVersion: z.number().int().min(1) };

const photograph = photographContent.nullable().default(null);

const when = { on: isoDateField, time: clockTimeField, observerId: idField };

/** What staff note of a student by a form. It carries its own id: sent twice, it is there once. */
export const noteInput = z.object({ id: idField, ...ofForm, ...when, ...answered, photograph });
export type NoteInput = z.infer<typeof noteInput>;

/** The same, corrected. It stays with the version under which it was made. */
export const noteCorrection = z.object({
  ...when,
  ...answered,
  version: z.number().int().min(1),
  why: changeReasonField,
});
export type NoteCorrection = z.infer<typeof noteCorrection>;

/** What a student answers at their desk. */
export const ownNoteInput = z.object({ id: idField, ...ofForm, ...answered, photograph });
export type OwnNoteInput = z.infer<typeof ownNoteInput>;
