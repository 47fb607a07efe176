// What was saved on a device and has not reached the server yet. It is read back from there like everything that arrives.
import { z } from 'zod';
import { timetableBlock } from '../calendar/timetable';
import { criterionDefinition } from '../measures/criterion-definition';
import { measureDefinition } from '../measures/measure';
import { noteInput } from './forms/note-input';
import { choiceKinds, optionalFields } from './incidents/choice';
import { countsInput, incidentInput } from './incidents/incident-input';
import { sessionInput } from './observation';
import { photographInput } from './photograph';

/** A goal as it stands before the one who observes it. */
export const observedGoal = z.object({
  id: z.string(),
  studentId: z.string(),
  number: z.string(),
  shortName: z.string(),
  wording: z.string(),
  criterion: criterionDefinition,
  version: z.number(),
  measure: measureDefinition,
  /** The last values before this session, oldest first. */
  last: z.array(z.number()),
  /** Where the goal stands before this session. */
  soFar: z.number().nullable(),
  /** How fast a cumulative total has to go on, in words. */
  pace: z.string().nullable(),
  /** The steps of the support in place. */
  supportSteps: z.array(z.object({ key: z.string(), label: z.string() })).optional(),
});
export type ObservedGoal = z.infer<typeof observedGoal>;

const named = z.object({ id: z.string(), name: z.string() });

/** What the fields of a session offer. */
export const sessionChoices = z.object({ people: z.array(named), locations: z.array(named), today: z.string() });
export type SessionChoices = z.infer<typeof sessionChoices>;

/** A choice as the screen of an incident offers it. */
const offeredChoice = z.object({
  id: z.string(),
  name: z.string(),
  words: z.string(),
  locationId: z.string().nullable(),
  abc: z.boolean(),
  counted: z.boolean(),
  timed: z.boolean(),
  /** It was typed into an incident, and nobody has said yet whether it stays: devices that kept less do not know. */
  isNew: z.boolean().default(false),
});
export type OfferedChoice = z.infer<typeof offeredChoice>;

/** What an incident may repeat of the one before. */
export const repeatedIncident = z.object({
  locationId: z.string().nullable(),
  behaviors: z.array(z.string()),
  antecedents: z.array(z.string()),
  consequences: z.array(z.string()),
  functions: z.array(z.string()),
  intensityId: z.string().nullable(),
});
export type RepeatedIncident = z.infer<typeof repeatedIncident>;

/** What it takes to record an incident or a count of one student. */
export const incidentScreen = z.object({
  student: z.object({ id: z.string(), shortName: z.string(), firstName: z.string() }),
  offered: z.record(z.enum(choiceKinds), z.array(offeredChoice)),
  leftOut: z.array(z.enum(optionalFields)),
  people: z.array(named),
  timetable: z.array(timetableBlock),
  personId: z.string(),
  wall: z.object({ on: z.string(), time: z.string() }),
  /** The last incident that this person recorded of the student. */
  last: repeatedIncident.nullable(),
  discreet: z.boolean(),
});
export type IncidentScreen = z.infer<typeof incidentScreen>;

/** What was saved for one student. */
const waitingFor = z.object({
  id: z.string(),
  /** Who saved it: nobody else on this device sees or sends it. */
  personId: z.string(),
  student: z.object({ id: z.string(), shortName: z.string() }),
  /** In milliseconds since 1970. */
  savedAt: z.number(),
  /** What the server said when it would not take it. */
  problem: z.string().nullable(),
});

/** Goals observed in one go, with what it takes to show and to change them without the server. */
const waitingSession = waitingFor.extend({
  kind: z.literal('session'),
  session: sessionInput,
  goals: z.array(observedGoal),
  choices: sessionChoices,
});
export type WaitingSession = z.infer<typeof waitingSession>;

/** An incident, with what it takes to show and to change it without the server. */
const waitingIncident = waitingFor.extend({ kind: z.literal('incident'), incident: incidentInput, incidentScreen });
export type WaitingIncident = z.infer<typeof waitingIncident>;

/** Behaviors counted in one observation window, each with its sentence. */
const waitingCounts = waitingFor.extend({
  kind: z.literal('counts'),
  counts: countsInput,
  said: z.array(z.string()),
});
export type WaitingCounts = z.infer<typeof waitingCounts>;

/** A form that was answered about the student, as it will read. */
const waitingNote = waitingFor.extend({
  kind: z.literal('note'),
  note: noteInput,
  title: z.string(),
  said: z.string(),
});

/**
 * A change to what was recorded before: corrected, withdrawn, an incident that has ended, each naming the version that it replaces; or a
 * photograph put beside it.
 */
const waitingChange = waitingFor.extend({
  kind: z.literal('change'),
  /** The page of the record that is changed. */
  to: z.string().startsWith('/students/'),
  change: z.discriminatedUnion('intent', [
    z.looseObject({ intent: z.literal(['correct', 'withdraw', 'end']), version: z.number() }),
    photographInput.extend({ intent: z.literal('photograph'), name: z.string() }),
  ]),
});
export type WaitingChange = z.infer<typeof waitingChange>;

export const waitingItem = z.discriminatedUnion('kind', [
  waitingSession,
  waitingIncident,
  waitingCounts,
  waitingNote,
  waitingChange,
]);
export type WaitingItem = z.infer<typeof waitingItem>;

/** What of an item is for the server to take or to refuse. */
const contents: readonly PropertyKey[] = ['session', 'incident', 'counts', 'note', 'change'];

/**
 * What a device gives back. What the server would only refuse (a note that is too long, a day in the future) is still read: it can be
 * changed and sent.
 *
 * @returns null for what is no such item, or was written by a version that put it otherwise
 */
export function readWaiting(raw: unknown): WaitingItem | null {
  const parsed = waitingItem.safeParse(raw);
  if (parsed.success) return parsed.data;
  const hasItsShape = parsed.error.issues.every(({ code, path: [field] }) => {
    const isContent = field !== undefined && contents.includes(field);
    return isContent && code !== 'invalid_type' && code !== 'invalid_union';
  });
  // Every field is there and of its type: only its value is not what the server takes.
  return hasItsShape ? (raw as WaitingItem) : null;
}
