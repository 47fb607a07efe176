import { createHash } from 'node:crypto';
import type { Request, RequestHandler } from 'express';
import getRawBody from 'raw-body';
import { studentAtDesk } from '~/server/desk/cards';
import { resumeSession } from '~/server/people/sessions';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { isDatabaseGone } from '~/server/platform/db/database';
import { deskCookie, sessionCookie } from './cookies';
import { routeAt } from './routes-known';
import { addressOf } from './security';
import { bodiesWords } from './words';

/** So many bodies may be on their way at once: from one browser or link, and from one address, which may be a whole school's. */
const MOST_OF_ONE = 64;
const MOST_OF_ADDRESS = 128;
/** So many bytes of large bodies may be on their way, as they say of themselves: of one browser, and of all. */
const BYTES_OF_ONE = 96 * 1024 * 1024;
const BYTES_OF_ALL = 288 * 1024 * 1024;
/** What is no larger needs no budget. */
const SMALL = 512 * 1024;
/** Slower than this nobody sends who means it: so many bytes in so many milliseconds, or it is over. */
const SLOWEST = { bytes: 2048, within: 20_000 };

interface Under {
  bodies: number;
  bytes: number;
}
const under = new Map<string, Under>();

function take(key: string, bytes: number, most: Under): (() => void) | null {
  const now = under.get(key) ?? { bodies: 0, bytes: 0 };
  if (now.bodies >= most.bodies || now.bytes + bytes > most.bytes) return null;
  now.bodies++;
  now.bytes += bytes;
  under.set(key, now);
  return () => {
    now.bodies--;
    now.bytes -= bytes;
    if (now.bodies === 0) under.delete(key);
  };
}

const opening = /(?:^|;\s*)(?:__Host-)?gm-(?:session|desk|seat|turn|half)=([^;]+)/g;

/**
 * Whose request this is, as far as it can be told before anything is looked up: what their browser carries, else the link, else the
 * address. A browser that lies about what it carries is bounded by its address.
 */
export function senderOf(request: Request, token: string | undefined): string {
  const carried = [...(request.headers.cookie ?? '').matchAll(opening)].map(([, value]) => value).join();
  const said = carried !== '' ? carried : (token ?? `address ${addressOf(request)}`);
  return createHash('sha256').update(said).digest('base64url');
}

async function isKnown({ headers }: Request): Promise<boolean> {
  const cookie = headers.cookie ?? null;
  const [session, desk]: unknown[] = [await sessionCookie.parse(cookie), await deskCookie.parse(cookie)];
  try {
    if (typeof session === 'string' && (await resumeSession(database(), session, now()))) return true;
    return typeof desk === 'string' && (await studentAtDesk(database(), desk)) !== null;
  } catch (error) {
    // Without a database it is answered as everything is.
    if (isDatabaseGone(error)) return true;
    throw error;
  }
}

/**
 * Reads what is sent before anything is done about it: nobody who sends slowly holds a connection to the database, or a turn of others.
 */
export const readBodies: RequestHandler = async (request, response, next) => {
  if (request.method === 'GET' || request.method === 'HEAD') return next();
  const length = Number(request.headers['content-length']);
  const large = length > SMALL ? length : 0;
  const given = [
    take(senderOf(request, routeAt(request.path).params.token), large, { bodies: MOST_OF_ONE, bytes: BYTES_OF_ONE }),
    take(`address ${addressOf(request)}`, 0, { bodies: MOST_OF_ADDRESS, bytes: 0 }),
    take('all', large, { bodies: Number.POSITIVE_INFINITY, bytes: BYTES_OF_ALL }),
  ];
  const giveBack = () => {
    for (const back of given) back?.();
  };
  const refuse = (status: number, sentence: string) => {
    // What is still on its way is not waited for.
    response.status(status).set({ 'Retry-After': '5', Connection: 'close' }).type('text').send(sentence);
    response.once('finish', () => request.destroy());
  };
  // What is larger than any form is read of those alone who have signed in, or sit at their desk.
  if (large > 0 && !given.includes(null) && !(await isKnown(request))) {
    giveBack();
    return refuse(401, bodiesWords.signInFirst);
  }
  if (given.includes(null)) {
    giveBack();
    return refuse(429, bodiesWords.muchAtOnce);
  }
  let [seen, before] = [0, 0];
  const count = (chunk: Buffer) => {
    seen += chunk.length;
  };
  let isSlow = false;
  const watch = setInterval(() => {
    if (seen - before < SLOWEST.bytes) {
      isSlow = true;
      refuse(408, bodiesWords.tooSlow);
    }
    before = seen;
  }, SLOWEST.within);
  try {
    request.on('data', count);
    request.body = await getRawBody(request, { length, limit: length });
  } catch {
    if (!isSlow && !response.headersSent && !request.destroyed) refuse(400, bodiesWords.notWhole);
    return;
  } finally {
    clearInterval(watch);
    request.off('data', count);
    // It is held in memory until it has been answered.
    if (response.writableFinished || response.destroyed) giveBack();
    else response.once('close', giveBack);
  }
  next();
};
