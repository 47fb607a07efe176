import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { type Database, preparedRows } from '../platform/db/database';
import { NotFound } from '../platform/failures';
import { writeChange } from '../school/changes';
import { type Actor, type School, schoolColumn, schoolJson } from '../school/school';
import type { Person } from './people';
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
  /** The school they are at, and all that they work at. */
  school: School;
  schools: { id: string; name: string }[];
  /** A token to set in the cookie in place of the old one, when it was time to rotate. */
  newToken: string | null;
  /** Nothing is shown in it until its person has opened it again. */
  isLocked: boolean;
  /** That it has not been used for so long: it may have been, with nothing to ask the server. */
  isStale: boolean;
  /** After how many minutes a device locks itself; null where it does not. */
  lockMinutes: number | null;
  /** Whether the school asks this person for a code beside the password, and there is none yet. */
  needsFactor: boolean;
  /** Whether it was begun with a PIN, at a shared device. */
  isByPin: boolean;
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
  await db('sign_in_sessions').insert({
    id: randomUUID(),
    person_id: personId,
    token_hash: hashToken(token),
    created_at: now,
    rotated_at: now,
    seen_at: now,
    is_shared: isShared,
  });
  await writeChange(
    db,
    personId,
    { what: 'sign-in', personId, before: null, after: { device: isShared ? 'a shared tablet' : 'their own' } },
    now,
  );
  return token;
}

const sessionRow = z.object({
  session_id: z.string(),
  id: z.string(),
  name: z.string(),
  shortName: z.string(),
  initials: z.string(),
  work: z.string(),
  email: z.string(),
  school: schoolColumn,
  staff_of: z.array(z.object({ id: z.string(), name: z.string(), isAdmin: z.boolean() })),
  token_is_current: z.boolean(),
  created_at: z.date(),
  rotated_at: z.date(),
  seen_at: z.date(),
  idle_minutes: z.number(),
  locked_at: z.date().nullable(),
  lock_minutes: z.number().nullable(),
  needs_factor: z.boolean(),
  device_id: z.string().nullable(),
});

/** The day at a school, at the instant `$2`. */
const dayAt = `cast(cast($2 as timestamptz) at time zone c.time_zone as date)`;

/** Who carries this token: null when nobody, or no longer. Rotates the token when it is due. */
export async function resumeSession(db: Database, token: string, now: Date): Promise<SignedIn | null> {
  const hash = hashToken(token);
  const [row] = await preparedRows(
    db,
    'resume-session',
    sessionRow,
    `select s.id as session_id, s.token_hash = $1 as token_is_current, s.created_at, s.rotated_at, s.seen_at,
            case when s.is_shared then at.shared_idle_minutes else at.idle_minutes end as idle_minutes,
            s.locked_at, at.lock_minutes, s.device_id,
            p.id, p.name, p.short_name as "shortName", p.initials, p.work, p.email,
            staff.of as staff_of, ${schoolJson('at')} as school,
            at.asks_second_factor
              and not exists (select from second_factors f where f.person_id = p.id and f.confirmed_at is not null)
              and (exists (select from school_staff a where a.school_id = at.id and a.person_id = p.id and a.is_admin)
                   or shares_reports(p.id, at.id, ${dayAt.replace('c.', 'at.')})) as needs_factor
       from sign_in_sessions s join people p on p.id = s.person_id
            cross join lateral (
              select json_agg(json_build_object('id', c.id, 'name', c.name, 'isAdmin', a.is_admin) order by c.name) as of,
                     (array_agg(c.id order by c.id = s.school_id desc nulls last, c.name))[1] as at
                from school_staff a join schools c on c.id = a.school_id
               where a.person_id = p.id and a.from_date <= ${dayAt} and coalesce(a.until_date, 'infinity') >= ${dayAt}) staff
            join schools at on at.id = staff.at
      where s.token_hash = $1 or s.previous_hash = $1`,
    [hash, now],
  );
  if (!row) return null;
  const age = (since: Date) => now.getTime() - since.getTime();
  const isOver = age(row.seen_at) > row.idle_minutes * MINUTE || age(row.created_at) > LONGEST;
  if (isOver || (!row.token_is_current && age(row.rotated_at) > GRACE)) return null;
  const { session_id: sessionId, school } = row;
  const isByPin = row.device_id !== null;
  const schools = row.staff_of.map(({ id, name }) => ({ id, name }));
  const person: Person = {
    id: row.id,
    name: row.name,
    shortName: row.shortName,
    initials: row.initials,
    work: row.work,
    email: row.email,
    isSchoolAdmin: !isByPin && row.staff_of.some(({ id, isAdmin }) => id === school.id && isAdmin),
  };
  const lockMinutes = row.lock_minutes;
  const isLocked = row.locked_at !== null;
  const isStale = lockMinutes !== null && age(row.seen_at) > lockMinutes * MINUTE;
  const needsFactor = row.needs_factor;
  const found = { sessionId, person, school, schools, lockMinutes, isLocked, isStale, needsFactor, isByPin };
  // What is locked is not used.
  if (isLocked) return { ...found, newToken: null };
  if (row.token_is_current && age(row.rotated_at) > ROTATE_AFTER) {
    return { ...found, newToken: await rotate(db, sessionId, hash, now) };
  }
  if (age(row.seen_at) > SEEN_EVERY) await db('sign_in_sessions').where({ id: sessionId }).update({ seen_at: now });
  return { ...found, newToken: null };
}

/** Of several requests at once only one rotates: the others find the token already replaced. */
async function rotate(db: Database, sessionId: string, hash: Buffer, now: Date): Promise<string | null> {
  const token = newToken();
  const changed = await db('sign_in_sessions')
    .where({ id: sessionId, token_hash: hash })
    .update({ token_hash: hashToken(token), previous_hash: hash, rotated_at: now, seen_at: now });
  return changed === 1 ? token : null;
}

/** Ends one session. */
export async function endSession(db: Database, token: string): Promise<void> {
  const hash = hashToken(token);
  await db('sign_in_sessions').where({ token_hash: hash }).orWhere({ previous_hash: hash }).delete();
}

/** Ends all of a person's sessions: sign out everywhere. */
export async function endAllSessions(db: Database, personId: string, now: Date): Promise<void> {
  await db('sign_in_sessions').where({ person_id: personId }).delete();
  const after = { everywhere: 'signed out' };
  await writeChange(db, personId, { what: 'sign-in', personId, before: null, after }, now);
}

/**
 * Goes to another of one's schools: what this session shows from now on is of that one.
 *
 * @throws NotFound for a school that this person does not work at
 */
export async function goToSchool(
  db: Database,
  { personId, today }: Actor,
  sessionId: string,
  schoolId: string,
): Promise<void> {
  const works = await db('school_staff')
    .where({ school_id: schoolId, person_id: personId })
    .where('from_date', '<=', today)
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .first('school_id');
  if (!works) throw new NotFound('No such school.');
  await db('sign_in_sessions').where({ id: sessionId }).update({ school_id: schoolId });
}
