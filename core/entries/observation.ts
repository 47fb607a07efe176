import { z } from 'zod';
import { clockTimeField, isoDateField } from '../calendar/date-fields';
import type { IsoDate } from '../calendar/iso-date';
import { type MeasureData, type MeasureDefinition, readData } from '../measures/measure';
import { type NoScoreReason, noScoreReasons } from '../measures/score';
import { fidelityMarks } from './fidelity';
import { photographsField } from './photograph';

export const LONGEST_NOTE = 4000;

/** What came of a session: data in the shape of the goal's measure, or the reason there is no score. */
export type Outcome = { data: MeasureData; reason: null } | { data: null; reason: NoScoreReason };

/** An observation as the computation sees it. */
export interface ObservedSession {
  on: IsoDate;
  outcome: Outcome;
  /** Which entry, where and by whom: null where nothing that is asked depends on it. */
  id: string | null;
  location: string | null;
  observer: string | null;
  /** How the goal was measured then, where that was not as it is now. */
  former?: MeasureDefinition | undefined;
}

export const noteField = z
  .string()
  .trim()
  .max(LONGEST_NOTE, {
    error: `A note can be ${LONGEST_NOTE.toLocaleString('en-US')} characters long; this one is longer.`,
  });

const idField = z.uuid({ error: 'This is not a known item.' });

/** When, where and by whom: the same for every goal of one session. */
export const sessionFields = z.object({
  on: isoDateField,
  time: clockTimeField,
  observerId: idField,
  locationId: idField.nullable(),
});

/** An outcome as it arrives: not yet held against the goal's own definition. */
export const rawOutcome = z.union([
  z.object({ data: z.looseObject({}), reason: z.null() }),
  z.object({ data: z.null(), reason: z.enum(noScoreReasons) }),
]);

/** Several goals of one student recorded in one go. What was not touched is not in it: it stays blank. */
export const sessionInput = sessionFields.extend({
  /** Whose session it is that was watched by a second observer, who sends this. */
  besideId: idField.nullable().optional(),
  entries: z
    .array(
      z.object({
        id: idField,
        goalId: idField,
        /** The version of the goal that the observer had before them; the present one unless it is said. */
        goalVersion: z.number().int().min(1).optional(),
        outcome: rawOutcome,
        note: noteField,
        /** Which steps of the support were done; blank where nobody said. */
        fidelity: fidelityMarks.nullish(),
        photographs: photographsField,
      }),
    )
    .min(1, { error: 'Nothing is marked yet. Mark at least one goal, or say why there is no score.' })
    .max(60),
});
export type SessionInput = z.infer<typeof sessionInput>;

/** Several sessions of one goal, from a table: each row is an entry, and they are saved together. */
export const tableInput = z.object({
  goalVersion: z.number().int().min(1),
  observerId: idField,
  locationId: idField.nullable(),
  rows: z
    .array(z.object({ id: idField, on: isoDateField, time: clockTimeField, outcome: rawOutcome, note: noteField }))
    .min(1, { error: 'There is no row to save yet.' })
    .max(200, { error: 'At most 200 rows are saved at once.' }),
  /** Of the sheet that it was written on: they stand beside the first row’s entry. */
  photographs: photographsField,
});
export type TableInput = z.infer<typeof tableInput>;

/** The field of one goal's entry, for messages that belong to it. */
export const entryField = (goalId: string) => `goal.${goalId}`;

export const changeReasonField = z
  .string({ error: 'Say why, in a few words.' })
  .trim()
  .min(3, { error: 'Say why, in a few words.' })
  .max(400, { error: 'Keep the reason to 400 characters.' });

/** A correction names the version it was made from, so that two people cannot undo each other unseen. */
export const correctionInput = sessionFields.extend({
  version: z.number().int().min(1),
  outcome: rawOutcome,
  note: noteField,
  /** As it was, where it is not in it. */
  fidelity: fidelityMarks.nullish(),
  why: changeReasonField,
});
export type CorrectionInput = z.infer<typeof correctionInput>;

export const withdrawalInput = z.object({
  version: z.coerce.number().int().min(1),
  why: changeReasonField,
});
export type WithdrawalInput = z.infer<typeof withdrawalInput>;

/**
 * Holds an outcome against the goal's measure.
 *
 * @returns the outcome, or the first message a teacher should read
 */
export function checkOutcome(
  measure: MeasureDefinition,
  raw: z.infer<typeof rawOutcome>,
): { ok: true; outcome: Outcome } | { ok: false; message: string } {
  if (raw.reason !== null) return { ok: true, outcome: raw };
  const read = readData(measure, raw.data);
  return read.ok ? { ok: true, outcome: { data: read.data, reason: null } } : read;
}
