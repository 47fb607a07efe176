import { type Cookie, redirect } from 'react-router';
import { beginSession } from '~/server/people/sessions';
import { rememberDevice } from '~/server/people/sign-in';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { deviceCookie, sessionCookie } from '../platform/http/cookies';

/** What the browser carries that somebody has signed in from before; null when it carries nothing. */
export async function carriedDevice(request: Request): Promise<string | null> {
  const carried: unknown = await deviceCookie.parse(request.headers.get('Cookie'));
  return typeof carried === 'string' ? carried : null;
}

/**
 * Begins a session in this browser, and remembers it.
 *
 * @param next  where they were going; null where one begins
 * @param ends  a cookie that has done what it was for
 */
export async function letIn(
  request: Request,
  { personId, isShared }: { personId: string; isShared: boolean },
  { next, ends }: { next: string | null; ends?: Cookie },
): Promise<Response> {
  const token = await beginSession(database(), personId, now(), { isShared });
  const device = await rememberDevice(database(), personId, await carriedDevice(request), now());
  const headers = new Headers({ 'Set-Cookie': await sessionCookie.serialize(token) });
  headers.append('Set-Cookie', await deviceCookie.serialize(device));
  if (ends) headers.append('Set-Cookie', await ends.serialize('', { maxAge: 0 }));
  return redirect(next ?? '/students', { headers });
}
