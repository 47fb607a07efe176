import { redirect } from 'react-router';
import { endAllSessions, endSession } from '~/server/people/sessions';
import { database } from '~/server/platform/db/current';
import { sessionCookie } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { isOfSeveral, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/sign-out';

/** Ends this session, or all of them with `everywhere`. */
export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { person, now } = personOf(context);
  const everywhere = (await formOf(request)).has('everywhere');
  const token: unknown = await sessionCookie.parse(request.headers.get('Cookie'));
  if (everywhere) await endAllSessions(database(), person.id, now);
  else if (typeof token === 'string') await endSession(database(), token);
  // On a device of several the next one takes it.
  const to = (await isOfSeveral(request)) ? '/device' : '/sign-in';
  return redirect(to, { headers: { 'Set-Cookie': await sessionCookie.serialize('', { maxAge: 0 }) } });
});

export function loader() {
  return redirect('/account');
}
