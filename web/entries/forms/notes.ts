import { data } from 'react-router';
import { z } from 'zod';
import { noteInput } from '~/core/entries/forms/note-input';
import { LARGEST_WITH_PHOTOGRAPHS } from '~/core/entries/photograph';
import { readable } from '~/core/words/readable';
import { recordNote } from '~/server/entries/forms/notes';
import { database } from '~/server/platform/db/current';
import { Busy, Invalid, NotFound } from '~/server/platform/failures';
import { requireStudent } from '~/server/students/students';
import { sayNext, undoOf } from '../../platform/http/cookies';
import { jsonOf, refusedWith } from '../../platform/http/json-of';
import { idFrom, personOf } from '../../platform/http/request-person';
import type { AboutRoute } from '../../platform/http/routes-known';
import { withErrors } from '../../platform/http/with-errors';
import type { Route } from './+types/notes';
import { notesWords } from './words';

const sent = z.object({ personId: z.uuid(), note: z.looseObject({}) });

/** Messages by field; of an answer, under its question. */
export function noteMessages(error: z.ZodError): Record<string, string> {
  const messages: Record<string, string> = {};
  for (const { path, message } of error.issues) messages[path.slice(0, 2).join('.') || 'form'] ??= message;
  return messages;
}

/** Photographs come along. */
export const handle: AboutRoute = { largestBody: LARGEST_WITH_PHOTOGRAPHS };

/** Takes what was answered about a student by a form, at once or from a device on which it waited. */
export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, wall, now, discreet } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'observe');
  const body = sent.safeParse(await jsonOf(request));
  if (!body.success) return refusedWith({ form: notesWords.thisCannotBeRead });
  // Somebody else has signed in on this device since: what waits there is not theirs.
  if (body.data.personId !== actor.personId) return data(null, { status: 409 });
  const input = readable(noteInput).safeParse(body.data.note);
  if (!input.success) return refusedWith(noteMessages(input.error));
  try {
    const moment = { wall, now, timeZone: school.timeZone };
    const { firstName, initials } = await recordNote(database(), actor, studentId, input.data, moment);
    const link = { to: `/students/${studentId}/notes/${input.data.id}`, label: notesWords.seeIt };
    const text = notesWords.savedFor(discreet ? initials : firstName);
    return data(
      { ids: [input.data.id] },
      { headers: await sayNext({ text, link, ...undoOf(studentId, [input.data.id]) }) },
    );
  } catch (error) {
    if (error instanceof Busy) return data(null, { status: 503 });
    if (error instanceof Invalid) return refusedWith(error.fields);
    throw error;
  }
});

export const loader = withErrors(async () => {
  throw new NotFound(notesWords.onlySent);
});
