import { createContext, data, type MiddlewareFunction, type RouterContextProvider, redirect } from 'react-router';
import { z } from 'zod';
import { type WallTime, wallTime } from '~/core/calendar/zone';
import { openedDevice } from '~/server/people/devices';
import { lockSession } from '~/server/people/locks';
import type { Person } from '~/server/people/people';
import { resumeSession } from '~/server/people/sessions';
import { now } from '~/server/platform/clock';
import { asking, database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import type { Actor, School } from '~/server/school/school';
import { isRecorded, recordPages } from '~/server/sharing/access-log';
import { openedCookie, preferencesOf, readCookie, sessionCookie, toastCookie } from './cookies';
import { failureAnswer } from './failure-answer';
import { requestPersonWords } from './words';

/** Who is asking, at which moment, and how they want to be shown things. */
export interface RequestPerson {
  person: Person;
  actor: Actor;
  school: School;
  sessionId: string;
  /** All schools that they work at. */
  schools: { id: string; name: string }[];
  now: Date;
  wall: WallTime;
  discreet: boolean;
  /** After how many minutes this device locks itself; null where it does not. */
  lockMinutes: number | null;
  /** Whether the school asks them for a code beside the password, and there is none yet. */
  needsFactor: boolean;
}

const personContext = createContext<RequestPerson | null>(null);

/** The signed-in person of this request. Only under a route that has the `signedIn` middleware. */
export function personOf(context: Readonly<RouterContextProvider>): RequestPerson {
  const asker = personIn(context);
  if (!asker) throw new Error('This page is for whoever has signed in.');
  return asker;
}

/** The signed-in person of this request, where somebody has signed in. */
export const personIn = (context: Readonly<RouterContextProvider>): RequestPerson | null => context.get(personContext);

/** Lets only signed-in people on, and carries who they are. Others are sent to sign in and then come back. */
export const signedIn: MiddlewareFunction<Response> = async ({ request, context }, next) => {
  const asker = await findPerson(request, context);
  const response = await next();
  await writePages(request, context, response.status);
  if (asker.newToken) response.headers.append('Set-Cookie', await sessionCookie.serialize(asker.newToken));
  response.headers.set('Cache-Control', 'no-store');
  // A device keeps pages of nobody but whoever has it.
  response.headers.set('X-Person', asker.person.id);
  // Nor a page that says what has just been done: it would say so again.
  if (request.headers.get('Cookie')?.includes(`${toastCookie.name}=`)) response.headers.set('X-Said', '1');
  return response;
};

const studentPages = /^\/students\/([0-9a-f-]{36})(?:\/|\.data|$)/;

/** What is opened of a student, or kept by a device for later, stands in the access log: once a day and person. */
async function writePages(request: Request, context: Readonly<RouterContextProvider>, status: number): Promise<void> {
  const studentId = studentPages.exec(new URL(request.url).pathname)?.[1];
  if (request.method !== 'GET' || status >= 400 || !studentId || !z.uuid().safeParse(studentId).success) return;
  const { actor, now: at } = personOf(context);
  const how = request.headers.has('X-Kept') ? 'kept' : 'opened';
  if (isRecorded(actor, studentId, how)) return;
  try {
    await asking(actor, () => recordPages(database(), actor, { studentId, how }, at));
  } catch (error) {
    throw failureAnswer(error);
  }
}

/** What is open to whoever has no code beside the password yet, where their school asks for one. */
const OWN_ACCOUNT = /^\/(account(\/second-factor)?|sign-out)(\.data)?$/;

async function findPerson(request: Request, context: Readonly<RouterContextProvider>) {
  try {
    const token: unknown = await sessionCookie.parse(request.headers.get('Cookie'));
    const instant = now();
    const session = typeof token === 'string' ? await resumeSession(database(), token, instant) : null;
    // What waits on a device is sent without anybody looking: it is told that there is nobody, and stays where it is.
    const isSent = request.method !== 'GET' && request.headers.get('Content-Type')?.startsWith('application/json');
    const isLive = request.headers.get('Accept') === 'text/event-stream';
    if (!session && (isSent || isLive)) throw data(null, { status: 401 });
    if (!session) throw redirect(await doorFor(request));
    const { isLocked, isStale } = session;
    // A page that is loaded whole, after a device has lain there: whoever opened it may be somebody else.
    const isWhole = request.method === 'GET' && request.headers.get('Accept')?.includes('text/html');
    const isLaidDown = isStale && isWhole;
    if (isLaidDown && !isLocked) await lockSession(database(), session.sessionId, instant);
    if ((isLocked || isLaidDown) && (isSent || isLive)) throw data(null, { status: 401 });
    if (isLocked || isLaidDown) throw redirect(lockedAddress(request));
    // What waited on a device for somebody is sent by nobody else.
    const isFor = request.headers.get('X-For');
    if (isFor !== null && isFor !== session.person.id) throw data(null, { status: 401 });
    const { person, school, schools, sessionId, lockMinutes, needsFactor, isByPin } = session;
    if (needsFactor && (isSent || isLive)) throw data(null, { status: 401 });
    if (needsFactor && !OWN_ACCOUNT.test(new URL(request.url).pathname)) throw redirect('/account/second-factor');
    const { discreet } = await preferencesOf(request);
    const wall = wallTime(instant, school.timeZone);
    const actor = { personId: person.id, schoolId: school.id, today: wall.on, ...(isByPin && { isByPin }) };
    context.set(personContext, {
      person,
      actor,
      school,
      schools,
      sessionId,
      now: instant,
      wall,
      discreet,
      lockMinutes,
      needsFactor,
    });
    return session;
  } catch (error) {
    throw failureAnswer(error);
  }
}

/** Who is signed in, on a page that is open to others too; null when nobody is. */
export async function visitorOf(request: Request): Promise<Actor | null> {
  const token: unknown = await sessionCookie.parse(request.headers.get('Cookie'));
  const instant = now();
  const session = typeof token === 'string' ? await resumeSession(database(), token, instant) : null;
  if (session?.isLocked) return null;
  return (
    session && {
      personId: session.person.id,
      schoolId: session.school.id,
      today: wallTime(instant, session.school.timeZone).on,
    }
  );
}

/** Whether this device was opened for several adults, and is open still. */
export async function isOfSeveral(request: Request): Promise<boolean> {
  const token = await readCookie(request, openedCookie, z.string().min(1));
  return token !== null && (await openedDevice(database(), token)) !== null;
}

/** Where one begins on this device: with a name and a PIN where it was opened for several, else by signing in. */
const doorFor = async (request: Request) => ((await isOfSeveral(request)) ? '/device' : signInAddress(request));

const lockedAddress = (request: Request) => signInAddress(request).replace(/^\/sign-in/, '/locked');

function signInAddress(request: Request): string {
  const { pathname, searchParams } = new URL(request.url);
  // What a page's data request carries for React Router is no part of the page's address.
  searchParams.delete('_routes');
  if (pathname === '/') return '/sign-in';
  return `/sign-in?${new URLSearchParams({ next: pathname.replace(/\.data$/, '') + (searchParams.size > 0 ? `?${searchParams}` : '') })}`;
}

const idInAddress = z.uuid();

/**
 * An id from the address.
 *
 * @throws NotFound when it cannot be one
 */
export function idFrom(text: string | undefined): string {
  const parsed = idInAddress.safeParse(text);
  if (!parsed.success) throw new NotFound(requestPersonWords.noSuchAddress);
  return parsed.data;
}
