import { data } from 'react-router';
import { z } from 'zod';
import { countsInput, incidentInput } from '~/core/entries/incidents/incident-input';
import { LARGEST_WITH_PHOTOGRAPHS } from '~/core/entries/photograph';
import { counted } from '~/core/words/counting';
import { readable } from '~/core/words/readable';
import { recordCounts } from '~/server/entries/incidents/counts';
import { recordIncident } from '~/server/entries/incidents/record-incident';
import { database } from '~/server/platform/db/current';
import { Invalid, NotFound } from '~/server/platform/failures';
import { requireStudent } from '~/server/students/students';
import { sayNext, undoOf } from '../../platform/http/cookies';
import { jsonOf, refusedWith } from '../../platform/http/json-of';
import { idFrom, personOf } from '../../platform/http/request-person';
import type { AboutRoute } from '../../platform/http/routes-known';
import { withErrors } from '../../platform/http/with-errors';
import type { Route } from './+types/recorded';
import { recordedWords } from './words';

const sent = z.object({
  personId: z.uuid(),
  incident: z.looseObject({}).optional(),
  counts: z.looseObject({}).optional(),
});

/** Photographs come along. */
export const handle: AboutRoute = { largestBody: LARGEST_WITH_PHOTOGRAPHS };

/** Takes an ABC incident or counts of a student, at once or from a device on which they waited. */
export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, wall, now, discreet } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'observe');
  const body = sent.safeParse(await jsonOf(request));
  if (!body.success) return refusedWith({ form: recordedWords.thisCannotBeRead });
  // Somebody else has signed in on this device since: what waits there is not theirs.
  if (body.data.personId !== actor.personId) return data(null, { status: 409 });
  const moment = { wall, now, timeZone: school.timeZone };
  try {
    if (body.data.incident) {
      const input = readable(incidentInput).safeParse(body.data.incident);
      if (!input.success) return refusedWith(messagesIn(input.error));
      const { firstName, initials } = await recordIncident(database(), actor, studentId, input.data, moment);
      const link = { to: `/students/${studentId}/incidents/${input.data.id}`, label: recordedWords.seeIt };
      const text = discreet ? recordedWords.savedFor(initials) : recordedWords.savedForAnAbcIncident(firstName);
      return data(
        { ids: [input.data.id] },
        { headers: await sayNext({ text, link, ...undoOf(studentId, [input.data.id]) }) },
      );
    }
    const input = readable(countsInput).safeParse(body.data.counts);
    if (!input.success) return refusedWith(messagesIn(input.error));
    const { firstName, initials } = await recordCounts(database(), actor, studentId, input.data, moment);
    const ids = input.data.counts.map(({ id }) => id);
    const text = recordedWords.savedCountsFor(discreet ? initials : firstName, counted(ids.length, 'count', 'counts'));
    return data({ ids }, { headers: await sayNext({ text, ...undoOf(studentId, ids) }) });
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    throw error;
  }
});

/** Messages by field; those of a count under its place and field, and the whole under `form`. */
export function messagesIn(error: z.ZodError): Record<string, string> {
  const messages: Record<string, string> = {};
  for (const { path, message } of error.issues) {
    const [field, at, inner] = path;
    const name =
      field === 'counts'
        ? inner === undefined
          ? 'form'
          : `counts.${String(at)}.${String(inner)}`
        : String(field ?? 'form');
    messages[name] ??= message;
  }
  return messages;
}

export const loader = withErrors(async () => {
  throw new NotFound(recordedWords.thereIsOnlySomethingTo);
});
