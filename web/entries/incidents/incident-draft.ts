import { z } from 'zod';
import { blockAt } from '~/core/calendar/timetable';
import type { WallTime } from '~/core/calendar/zone';
import { type IncidentInput, type TypedOther, typedOther } from '~/core/entries/incidents/incident-input';
import { incidentSentence } from '~/core/entries/incidents/incident-sentence';
import { type IncidentScreen, repeatedIncident } from '~/core/entries/waiting';
import { clock, isRunning, secondsOn, stoppedClock } from '../../measures/clock';

/** An ABC incident in the making. */
export const incidentDraft = repeatedIncident.extend({
  id: z.string(),
  on: z.string(),
  time: z.string(),
  /** Whether date or time were set by hand; if not, they are those of the first tap. */
  timeIsChosen: z.boolean(),
  observerId: z.string(),
  besideId: z.string().nullable(),
  /** Whether the location was set by hand; if not, the timetable says it. */
  locationIsChosen: z.boolean(),
  others: z.array(typedOther),
  clock,
  seconds: z.number().nullable(),
  isGoing: z.boolean(),
  resolved: z.boolean().nullable(),
  resolvedAfter: z.number().nullable(),
  note: z.string(),
});
export type IncidentDraft = z.infer<typeof incidentDraft>;

/** Where the timetable has the student at a moment, as a choice of the incident. */
export function locationAt(
  { timetable, offered }: Pick<IncidentScreen, 'timetable' | 'offered'>,
  wall: WallTime,
): string | null {
  const place = blockAt(timetable, wall)?.location ?? null;
  return place === null ? null : (offered.location.find(({ locationId }) => locationId === place)?.id ?? null);
}

/** An incident of which nothing is marked, now. */
export function emptyIncident(incidentScreen: IncidentScreen, id: string, wall: WallTime): IncidentDraft {
  return {
    id,
    ...wall,
    timeIsChosen: false,
    observerId: incidentScreen.personId,
    besideId: null,
    locationId: locationAt(incidentScreen, wall),
    locationIsChosen: false,
    behaviors: [],
    antecedents: [],
    consequences: [],
    functions: [],
    intensityId: null,
    others: [],
    clock: stoppedClock,
    seconds: null,
    isGoing: false,
    resolved: null,
    resolvedAfter: null,
    note: '',
  };
}

/** The next of several incidents from memory: day, time, place and observer stay, what happened is blank. */
export function nextIncident(incidentScreen: IncidentScreen, draft: IncidentDraft, id: string): IncidentDraft {
  const { on, time, timeIsChosen, observerId, besideId, locationId, locationIsChosen } = draft;
  return {
    ...emptyIncident(incidentScreen, id, { on, time }),
    ...{ timeIsChosen, observerId, besideId, locationId, locationIsChosen },
  };
}

/** Whether anything would be lost with this draft. */
export function isIncidentTouched({
  clock,
  note,
  others,
  resolved,
  seconds,
  isGoing,
  ...draft
}: IncidentDraft): boolean {
  const lists = [draft.behaviors, draft.antecedents, draft.consequences, draft.functions, others];
  return (
    lists.some((list) => list.length > 0) ||
    draft.intensityId !== null ||
    seconds !== null ||
    isGoing ||
    resolved !== null ||
    clock.before > 0 ||
    isRunning(clock) ||
    note.trim() !== ''
  );
}

/**
 * A draft with something changed. With the first mark its time becomes that of the tap, and with its time the location that of
 * the timetable, where neither was chosen by hand.
 *
 * @param timeNow  by the school’s clock; null where the time stays what it is
 */
export function changedIncident(
  incidentScreen: Pick<IncidentScreen, 'timetable' | 'offered'>,
  draft: IncidentDraft,
  changes: Partial<IncidentDraft>,
  timeNow: WallTime | null,
): IncidentDraft {
  const timeIsChosen = draft.timeIsChosen || 'on' in changes || 'time' in changes;
  const locationIsChosen = draft.locationIsChosen || 'locationId' in changes;
  const isFirst = timeNow !== null && !timeIsChosen && !isIncidentTouched(draft);
  const next = { ...draft, ...(isFirst && timeNow), ...changes, timeIsChosen, locationIsChosen };
  return locationIsChosen ? next : { ...next, locationId: locationAt(incidentScreen, next) };
}

/** A time on the wall so many minutes earlier; it stays within its day. */
export function minutesBefore(time: string, minutes: number): string {
  const total = Math.max(0, Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5)) - minutes);
  return `${String(Math.floor(total / 60)).padStart(2, '0')}:${String(total % 60).padStart(2, '0')}`;
}

/** What is sent of a draft: its stopwatch read now. */
export function incidentInputFrom(draft: IncidentDraft, now: number): IncidentInput {
  const { timeIsChosen: _, locationIsChosen: __, clock, besideId, seconds, resolved, ...rest } = draft;
  const timed = Math.round(secondsOn(clock, now));
  return {
    ...rest,
    ...(besideId && { besideId }),
    seconds: rest.isGoing ? null : (seconds ?? (timed > 0 ? timed : null)),
    resolved,
    resolvedAfter: resolved ? rest.resolvedAfter : null,
    note: rest.note.trim(),
  };
}

/** A draft as the report will say it; null while nothing has happened. */
export function draftSentence(
  { offered }: Pick<IncidentScreen, 'offered'>,
  draft: IncidentDraft,
  now: number,
): string | null {
  const input = incidentInputFrom(draft, now);
  const namesOf = (kind: Exclude<TypedOther['kind'], 'location'>, ids: readonly string[]) => [
    ...ids.flatMap((id) => offered[kind].find((choice) => choice.id === id)?.name ?? []),
    ...draft.others.filter((other) => other.kind === kind).map(({ name }) => name),
  ];
  const behaviors = namesOf('behavior', input.behaviors);
  if (behaviors.length === 0) return null;
  return incidentSentence({
    ...input,
    behaviors,
    antecedents: namesOf('antecedent', input.antecedents),
    consequences: namesOf('consequence', input.consequences),
    functions: namesOf('function', input.functions),
    intensity: offered.intensity.find(({ id }) => id === input.intensityId) ?? null,
  });
}
