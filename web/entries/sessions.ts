import { data } from 'react-router';
import { z } from 'zod';
import { sessionInput } from '~/core/entries/observation';
import { LARGEST_WITH_PHOTOGRAPHS } from '~/core/entries/photograph';
import { counted } from '~/core/words/counting';
import { readable } from '~/core/words/readable';
import { pairBeside } from '~/server/entries/pairs';
import { recordSession } from '~/server/entries/record';
import { database } from '~/server/platform/db/current';
import { Invalid, NotFound } from '~/server/platform/failures';
import { requireStudent } from '~/server/students/students';
import { sayNext, undoOf } from '../platform/http/cookies';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import type { AboutRoute } from '../platform/http/routes-known';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/sessions';
import { fieldMessages } from './field-messages';
import { sessionsWords } from './words';

const sent = z.object({ personId: z.uuid(), session: z.looseObject({}), isQuiet: z.boolean().optional() });

/** Photographs come along. */
export const handle: AboutRoute = { largestBody: LARGEST_WITH_PHOTOGRAPHS };

/** Takes what was observed of a student in one go, at once or from a device on which it waited. */
export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, wall, now, discreet } = personOf(context);
  const studentId = idFrom(params.studentId);
  const body = sent.safeParse(await jsonOf(request));
  // Even what cannot be read is answered only to whom may observe; what can be, is asked for where it is written.
  if (!body.success) {
    await requireStudent(database(), actor, studentId, 'observe');
    return refusedWith({ form: sessionsWords.thisCannotBeRead });
  }
  // Somebody else has signed in on this device since: what waits there is not theirs.
  if (body.data.personId !== actor.personId) return data(null, { status: 409 });
  const parsed = readable(sessionInput).safeParse(body.data.session);
  if (!parsed.success) {
    await requireStudent(database(), actor, studentId, 'observe');
    return refusedWith(fieldMessages(parsed.error, body.data.session));
  }
  try {
    const { ids, student } = await recordSession(database(), actor, studentId, parsed.data, { wall, now });
    const { besideId, observerId } = parsed.data;
    const isSecond = besideId && besideId !== observerId;
    const paired = isSecond ? await pairBeside(database(), actor, { studentId: student.id, ids, besideId }, now) : null;
    const name = discreet ? student.initials : student.firstName;
    const text = sessionsWords.savedFor(name, counted(ids.length, 'goal', 'goals'), pairedSaid(paired, ids.length));
    const link = { to: `/students/${studentId}/entries/${ids[0]}`, label: sessionsWords.seeIt };
    if (body.data.isQuiet) return data({ ids });
    return data(
      { ids },
      { headers: await sayNext({ text, ...(ids.length === 1 && { link }), ...undoOf(studentId, ids) }) },
    );
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    throw error;
  }
});

function pairedSaid(paired: number | null, all: number): string {
  if (paired === null) return '';
  return paired === all
    ? ', paired with the other observer’s'
    : `, ${paired} paired; pair the rest on their page when the other observer has saved`;
}

export const loader = withErrors(async () => {
  throw new NotFound(sessionsWords.thereIsOnlySomethingTo);
});
