import { redirect } from 'react-router';
import { endAllSessions, endSession } from '~/server/people/sessions';
import { database } from '~/server/platform/db/current';
import { answering } from '../platform/http/answering';
import { askerOf } from '../platform/http/asker';
import { sessionCookie } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import type { Route } from './+types/sign-out';

/** Ends this session, or all of them with `everywhere`. */
export const action = answering(async ({ request, context }: Route.ActionArgs) => {
  const { person, now } = askerOf(context);
  const everywhere = (await formOf(request)).has('everywhere');
  const token: unknown = await sessionCookie.parse(request.headers.get('Cookie'));
  if (everywhere) await endAllSessions(database(), person.id, now);
  else if (typeof token === 'string') await endSession(database(), token);
  return redirect('/sign-in', { headers: { 'Set-Cookie': await sessionCookie.serialize('', { maxAge: 0 }) } });
});

export function loader() {
  return redirect('/account');
}
