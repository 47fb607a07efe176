import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import type { Outcome } from '../entries/observation';
import { checkOutcome } from '../entries/observation';
import type { MeasureDefinition } from '../measures/measure';
import { figure } from '../words/counting';

/** What a goal shows at its student's desk: nothing, how far they are, or also a log that they keep themselves. */
export const deskShows = ['nothing', 'progress', 'log'] as const;
export type DeskShows = (typeof deskShows)[number];

const LONGEST_NOTE = 200;

/** What a student enters in their own log. It carries its own id: sent twice, it is there once; sent otherwise that day, it is changed. */
export const logSaid = z.object({
  id: z.uuid(),
  goalId: z.uuid(),
  on: isoDateField,
  amount: z.number({ error: 'Type a number.' }),
  category: z.string().max(60).nullable().default(null),
  note: z
    .string()
    .trim()
    .max(LONGEST_NOTE, { error: `Keep it to ${LONGEST_NOTE} characters.` })
    .default(''),
});
export type LogSaid = z.infer<typeof logSaid>;

/** The measures of which students can keep a log themselves. */
export type LogMeasure = Extract<MeasureDefinition, { kind: 'cumulativeTotal' | 'measurement' }>;

/** Whether a student can keep a log of a goal: it takes one number at a time. */
export const canBeLogged = (measure: MeasureDefinition): measure is LogMeasure =>
  measure.kind === 'cumulativeTotal' || measure.kind === 'measurement';

/** What is counted or measured, as it stands after a number. */
export const logUnit = (measure: LogMeasure, amount: number): string =>
  measure.kind === 'measurement' ? measure.unit : amount === 1 ? measure.unit.one : measure.unit.many;

/**
 * Holds what a student enters against the goal's measure.
 *
 * @returns the outcome, or the first message that the student should read
 */
export function checkLog(
  measure: LogMeasure,
  { amount, category }: Pick<LogSaid, 'amount' | 'category'>,
): { ok: true; outcome: Outcome } | { ok: false; message: string } {
  if (measure.kind === 'measurement') return checkOutcome(measure, { data: { readings: [amount] }, reason: null });
  if (amount > measure.total) {
    return {
      ok: false,
      message: `${figure(amount)} is more than the whole ${figure(measure.total)}. Look again, or ask your teacher to enter it.`,
    };
  }
  return checkOutcome(measure, { data: { amounts: [{ amount, category }] }, reason: null });
}
