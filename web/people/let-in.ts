import { type Cookie, redirect } from 'react-router';
import { wallTime } from '~/core/calendar/zone';
import { signInAtWithCode } from '~/server/people/devices';
import { beginSession } from '~/server/people/sessions';
import { rememberDevice } from '~/server/people/sign-in';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { existing } from '~/server/platform/failures';
import { schoolOf } from '~/server/school/school';
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
  { personId, isShared, deviceId = null }: { personId: string; isShared: boolean; deviceId?: string | null },
  { next, ends }: { next: string | null; ends?: Cookie },
): Promise<Response> {
  if (deviceId !== null) return letInAt(deviceId, personId, ends);
  const token = await beginSession(database(), personId, now(), { isShared });
  const device = await rememberDevice(database(), personId, await carriedDevice(request), now());
  const headers = new Headers({ 'Set-Cookie': await sessionCookie.serialize(token) });
  headers.append('Set-Cookie', await deviceCookie.serialize(device));
  if (ends) headers.append('Set-Cookie', await ends.serialize('', { maxAge: 0 }));
  return redirect(next ?? '/students', { headers });
}

/** At a shared device, after the PIN and the code. */
async function letInAt(deviceId: string, personId: string, ends: Cookie | undefined): Promise<Response> {
  const device = existing(await database()('opened_devices').where({ id: deviceId }).first('school_id'));
  const { timeZone } = await schoolOf(database(), device.school_id);
  const today = wallTime(now(), timeZone).on;
  const token = await signInAtWithCode(database(), { deviceId, personId, today }, now());
  const headers = new Headers({ 'Set-Cookie': await sessionCookie.serialize(token) });
  if (ends) headers.append('Set-Cookie', await ends.serialize('', { maxAge: 0 }));
  return redirect('/', { headers });
}
