import { z } from 'zod';
import { clockTimeField, isoDateField } from '../../calendar/date-fields';
import { changeReasonField, noteField } from '../observation';
import { photographsField } from '../photograph';

const idField = z.uuid({ error: 'This is not a known item.' });
const ids = z
  .array(idField)
  .max(20)
  .transform((list) => [...new Set(list)]);
const LONGEST_SECONDS = 86_400;
const secondsField = z
  .number()
  .positive({ error: 'It lasted more than no time.' })
  .max(LONGEST_SECONDS, { error: 'At most a day.' })
  .nullable();

/** When, where and by whom. */
const when = {
  on: isoDateField,
  time: clockTimeField,
  observerId: idField,
};

/** A choice that was typed because none said it. */
export const typedOther = z.object({
  id: idField,
  kind: z.enum(['behavior', 'antecedent', 'consequence', 'location', 'function']),
  name: z.string().trim().min(1).max(80, { error: 'Keep it to 80 characters.' }),
});
export type TypedOther = z.infer<typeof typedOther>;

/** What an ABC incident says. The ids are those of the student’s choices. */
const content = z.object({
  ...when,
  locationId: idField.nullable(),
  behaviors: ids.refine((list) => list.length > 0, { error: 'Say what happened.' }),
  antecedents: ids,
  consequences: ids,
  functions: ids,
  intensityId: idField.nullable(),
  seconds: secondsField,
  /** It is not over yet: how long it lasted is said later. */
  isGoing: z.boolean(),
  resolved: z.boolean().nullable(),
  /** Seconds from the end of it until it was resolved. */
  resolvedAfter: secondsField,
  note: noteField,
  /** What was typed because no choice said it; the id is that of the choice it may become. */
  others: z.array(typedOther).max(12).default([]),
});

const fitsTogether = <T extends z.infer<typeof content>>(schema: z.ZodType<T>) =>
  schema.superRefine((input, context) => {
    const refuse = (message: string, path: string) =>
      context.addIssue({ code: 'custom', message, path: [path], input });
    if (input.isGoing && input.seconds !== null) refuse('It is still going, so it has no length yet.', 'seconds');
    if (input.resolvedAfter !== null && input.resolved !== true) {
      refuse('How long it took is said only of what was resolved.', 'resolvedAfter');
    }
  });

/** A new ABC incident. */
export const incidentInput = fitsTogether(
  content.extend({
    id: idField,
    /** Whose watch it was that a second observer sat beside: such an incident is for agreement and counts in no figure. */
    besideId: idField.nullable().optional(),
    photographs: photographsField,
  }),
);
export type IncidentInput = z.infer<typeof incidentInput>;

const change = { version: z.number().int().min(1), why: changeReasonField };

export const incidentCorrection = fitsTogether(content.extend(change));
export type IncidentCorrection = z.infer<typeof incidentCorrection>;

/** An incident that was still going has ended: then, or after so many seconds. */
export const incidentEnd = z
  .object({
    version: z.number().int().min(1),
    time: clockTimeField.nullable(),
    seconds: secondsField,
  })
  .refine(({ time, seconds }) => time === null || seconds === null, {
    error: 'Say when it ended or how long it lasted.',
    path: ['seconds'],
  });
export type IncidentEnd = z.infer<typeof incidentEnd>;

/** How often a behavior occurred while somebody watched for it: none is a count too. */
const countFields = z.object({
  ...when,
  behaviorId: idField,
  /** The part of the day, as the timetable calls it. */
  part: z.string().trim().max(60).nullable(),
  minutes: z.number({ error: 'Say how long you watched.' }).positive({ error: 'Say how long you watched.' }).max(1440),
  count: z.number({ error: 'Say how often.' }).int().min(0, { error: 'A count cannot be below nothing.' }).max(10_000),
  /** How long it lasted altogether, of what is timed. */
  seconds: z.number().min(0).max(LONGEST_SECONDS).nullable(),
  note: noteField,
});

const lastsNoLonger = <T extends z.infer<typeof countFields>>(schema: z.ZodType<T>) =>
  schema.refine(({ seconds, minutes }) => seconds === null || seconds <= minutes * 60, {
    error: 'It cannot have lasted longer than you watched.',
    path: ['seconds'],
  });

/** Several behaviors watched for at the same time: those that were not touched are not in it. */
export const countsInput = z.object({
  besideId: idField.nullable().optional(),
  counts: z
    .array(lastsNoLonger(countFields.extend({ id: idField })))
    .min(1, { error: 'Nothing is counted yet. Count, or say that none occurred.' })
    .max(30),
});
export type CountsInput = z.infer<typeof countsInput>;
export type CountInput = CountsInput['counts'][number];

export const countCorrection = lastsNoLonger(
  countFields.omit({ behaviorId: true }).extend({ ...change, behaviorId: idField }),
);
export type CountCorrection = z.infer<typeof countCorrection>;

/** Something that changed for a behavior: a new support. It begins a phase. */
export const phaseInput = z.object({
  id: idField,
  /** Null: for every behavior of the student. */
  behaviorId: idField.nullable().default(null),
  label: z
    .string({ error: 'Say what changed.' })
    .trim()
    .min(1, { error: 'Say what changed.' })
    .max(60, { error: 'Keep it to 60 characters.' }),
  startsOn: isoDateField,
});
export type PhaseInput = z.infer<typeof phaseInput>;
