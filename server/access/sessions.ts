import { randomUUID } from 'node:crypto';
import { type Database, preparedRows } from '../db/database';
import type { Person } from '../people/people';
import { type School, schoolExpression } from '../school/school';
import { hashToken, newToken } from './tokens';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;

/** A session ends after this long, however much it is used. */
const LONGEST = 14 * 24 * HOUR;
/** A token is replaced after this long. */
const ROTATE_AFTER = HOUR;
/** That it is used is written down no more often than this. */
const SEEN_EVERY = MINUTE;
/** Requests already under way may still carry the token that was just replaced. */
const GRACE = MINUTE;

export interface SignedIn {
  sessionId: string;
  person: Person;
  school: School;
  /** A token to set in the cookie in place of the old one, when it was time to rotate. */
  newToken: string | null;
}

/**
 * Begins a session and returns its token: the only time it is known outside the browser.
 *
 * @param isShared  on a tablet that others use too: it ends sooner when nobody uses it
 */
export async function beginSession(
  db: Database,
  personId: string,
  now: Date,
  { isShared = false } = {},
): Promise<string> {
  const token = newToken();
  await db('sessions').insert({
    id: randomUUID(),
    person_id: personId,
    token_hash: hashToken(token),
    created_at: now,
    rotated_at: now,
    seen_at: now,
    is_shared: isShared,
  });
  return token;
}

interface SessionRow extends Person {
  session_id: string;
  school: School;
  token_is_current: boolean;
  created_at: Date;
  rotated_at: Date;
  seen_at: Date;
  idle_minutes: number;
}

/** Who carries this token: null when nobody, or no longer. Rotates the token when it is due. */
export async function resumeSession(db: Database, token: string, now: Date): Promise<SignedIn | null> {
  const hash = hashToken(token);
  const [row] = await preparedRows<SessionRow>(
    db,
    'resume-session',
    `select s.id as session_id, s.token_hash = $1 as token_is_current, s.created_at, s.rotated_at, s.seen_at,
            coalesce((select case when s.is_shared then shared_idle_minutes else idle_minutes end from school), 720) as idle_minutes,
            p.id, p.name, p.short_name as "shortName", p.initials, p.work, p.email, p.sets_up as "setsUp",
            ${schoolExpression} as school
       from sessions s join people p on p.id = s.person_id
      where s.token_hash = $1 or s.previous_hash = $1`,
    [hash],
  );
  if (!row) return null;
  const age = (since: Date) => now.getTime() - since.getTime();
  const isOver = age(row.seen_at) > row.idle_minutes * MINUTE || age(row.created_at) > LONGEST;
  if (isOver || (!row.token_is_current && age(row.rotated_at) > GRACE)) return null;
  const { session_id: sessionId, school } = row;
  const person: Person = {
    id: row.id,
    name: row.name,
    shortName: row.shortName,
    initials: row.initials,
    work: row.work,
    email: row.email,
    setsUp: row.setsUp,
  };
  if (row.token_is_current && age(row.rotated_at) > ROTATE_AFTER) {
    return { sessionId, person, school, newToken: await rotate(db, sessionId, hash, now) };
  }
  if (age(row.seen_at) > SEEN_EVERY) await db('sessions').where({ id: sessionId }).update({ seen_at: now });
  return { sessionId, person, school, newToken: null };
}

/** Of several requests at once only one rotates: the others find the token already replaced. */
async function rotate(db: Database, sessionId: string, hash: Buffer, now: Date): Promise<string | null> {
  const token = newToken();
  const changed = await db('sessions')
    .where({ id: sessionId, token_hash: hash })
    .update({ token_hash: hashToken(token), previous_hash: hash, rotated_at: now, seen_at: now });
  return changed === 1 ? token : null;
}

/** Ends one session. */
export async function endSession(db: Database, token: string): Promise<void> {
  const hash = hashToken(token);
  await db('sessions').where({ token_hash: hash }).orWhere({ previous_hash: hash }).delete();
}

/** Ends all of a person's sessions: sign out everywhere. */
export async function endAllSessions(db: Database, personId: string): Promise<void> {
  await db('sessions').where({ person_id: personId }).delete();
}
