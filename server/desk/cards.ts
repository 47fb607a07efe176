import { randomBytes, randomUUID } from 'node:crypto';
import { z } from 'zod';
import { codeFrom, typedCode, WORDS_IN_CODE } from '~/core/desk/card-code';
import { hashToken, newToken } from '../people/tokens';
import { asking, database } from '../platform/db/current';
import { type Database, preparedRows } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { writeChange } from '../school/changes';
import { type Actor, schoolColumn, schoolJson } from '../school/school';
import { doorOf } from '../sharing/doors';
import { grant, type StudentAccess } from '../students/access';
import { can } from '../students/rights';
import { requireStudent, studentsOf } from '../students/students';

const MINUTE = 60_000;
/** That a desk is used is written down no more often than this. */
const SEEN_EVERY = MINUTE;

const cardRow = z.object({
  studentId: z.string(),
  madeAt: z.date(),
  /** Devices on which the desk stands open at the moment. */
  devices: z.number(),
});

/** A student of one's own, with the card that opens their desk; null while there is none. */
export interface StudentCard {
  studentId: string;
  shortName: string;
  initials: string;
  groups: string[];
  card: { madeAt: Date; devices: number } | null;
}

/** A desk is open as long as somebody uses it. */
const isOpen = `d.ended_at is null and d.seen_at > cast(:now as timestamptz) - make_interval(mins => c.shared_idle_minutes)`;

/** The cards of the students for whom the one who asks may make them, by name. */
export async function cardsOf(db: Database, actor: Actor, now: Date): Promise<StudentCard[]> {
  const students = (await studentsOf(db, actor)).filter((student) => can(student, 'share'));
  const found = await rowsOf(
    db,
    cardRow,
    `select k.student_id as "studentId", k.made_at as "madeAt",
            (select count(*)::int from desk_sessions d
               join students s on s.id = d.student_id join schools c on c.id = s.school_id
              where d.card_id = k.id and ${isOpen}) as devices
       from cards k where k.student_id = any(:ids) and k.ended_at is null`,
    { ids: students.map(({ id }) => id), now },
  );
  const byStudent = new Map(found.map(({ studentId, ...card }) => [studentId, card]));
  return students.map(({ id, shortName, initials, groups }) => ({
    ...{ studentId: id, shortName, initials, groups },
    card: byStudent.get(id) ?? null,
  }));
}

/** A card as it is printed: the only time that its secrets are known outside the student's hands. */
export interface NewCard {
  studentId: string;
  firstName: string;
  initials: string;
  token: string;
  code: string;
}

/**
 * Makes cards, each in place of the one before, which opens nothing any more.
 *
 * @throws NotFound for a student whose report this person may not share
 */
export async function makeCards(
  db: Database,
  actor: Actor,
  studentIds: readonly string[],
  now: Date,
): Promise<NewCard[]> {
  return db.transaction(async (trx) => {
    const made: NewCard[] = [];
    for (const id of studentIds) {
      const student = await requireStudent(trx, actor, id, 'share');
      const had = await endCards(trx, student.id, now);
      const card = { token: newToken(), code: codeFrom(randomBytes(WORDS_IN_CODE)) };
      await trx('cards').insert({
        ...{ id: randomUUID(), student_id: student.id, made_by: actor.personId, made_at: now },
        ...{ token_hash: hashToken(card.token), code_hash: hashToken(wordsOf(card.code)) },
      });
      const change = { what: 'card' as const, studentId: student.id, before: null };
      await writeChange(trx, actor.personId, { ...change, after: { card: had ? 'renewed' : 'made' } }, now);
      made.push({ studentId: student.id, firstName: student.firstName, initials: student.initials, ...card });
    }
    return made;
  });
}

/** Words are hashed apart from what a square code holds: one can never be taken for the other. */
const wordsOf = (code: string) => `words ${typedCode(code)}`;

async function endCards(trx: Database, studentId: string, now: Date): Promise<boolean> {
  const ended = await trx('cards').where({ student_id: studentId, ended_at: null }).update({ ended_at: now });
  await trx('desk_sessions').where({ student_id: studentId, ended_at: null }).update({ ended_at: now });
  return ended > 0;
}

/**
 * Ends a student's card, and their desk wherever it stands open.
 *
 * @throws NotFound for a student whose report this person may not share
 */
export async function endCard(db: Database, actor: Actor, studentId: string, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const { id } = await requireStudent(trx, actor, studentId, 'share');
    if (!(await endCards(trx, id, now))) return;
    const change = { what: 'card' as const, studentId: id, before: { card: 'made' }, after: { card: 'ended' } };
    await writeChange(trx, actor.personId, change, now);
  });
}

/** What is on a card: the words that are typed, or what its square code holds. */
export type CardSecret = { words: string } | { token: string };

/**
 * Opens the desk of the student whose card this is.
 *
 * @returns the token of the desk's session; null where the card opens nothing, or nothing any more
 */
export async function openDesk(db: Database, secret: CardSecret, now: Date): Promise<string | null> {
  const shown = 'words' in secret ? wordsOf(secret.words) : secret.token;
  const door = await doorOf(db, shown);
  if (!door) return null;
  return asking({ doorTo: door.studentId }, () => beginDesk(shown, now));
}

async function beginDesk(shown: string, now: Date): Promise<string | null> {
  const db = database();
  const hash = hashToken(shown);
  const card = await db('cards as k')
    .join('students as s', 's.id', 'k.student_id')
    .where((either) => either.where('k.token_hash', hash).orWhere('k.code_hash', hash))
    .whereNull('k.ended_at')
    .whereNull('s.archived_at')
    .first('k.id', 'k.student_id');
  return card ? beginSession(db, { cardId: card.id, studentId: card.student_id }, now) : null;
}

/** Begins a session at a student's desk, and gives its token. To be asked at the student's own door. */
export async function beginSession(
  db: Database,
  { cardId, studentId }: { cardId: string; studentId: string },
  now: Date,
): Promise<string> {
  const token = newToken();
  await db('desk_sessions').insert({
    ...{ id: randomUUID(), card_id: cardId, student_id: studentId, token_hash: hashToken(token) },
    ...{ began_at: now, seen_at: now },
  });
  return token;
}

const deskRow = z.object({
  sessionId: z.string(),
  cardId: z.string(),
  studentId: z.string(),
  firstName: z.string(),
  seenAt: z.date(),
  school: schoolColumn,
});
/** The desk of one student, opened by their card. */
export type OpenDesk = Omit<z.infer<typeof deskRow>, 'studentId'> & { studentId: StudentAccess<'read'> };

/** At whose desk a session is, so that the door to that student can be opened; null for a session that there never was. */
export async function studentAtDesk(db: Database, token: string): Promise<string | null> {
  const [found] = await preparedRows(
    db,
    'student-at-desk',
    z.object({ id: z.string().nullable() }),
    'select student_at_desk($1) as id',
    [hashToken(token)],
  );
  return found?.id ?? null;
}

/**
 * Whose desk this is. To be asked at the student's own door.
 *
 * @returns null when it was not used for as long as the school lets a shared device rest, when its card was ended, or its student has left
 */
export async function resumeDesk(db: Database, token: string, now: Date): Promise<OpenDesk | null> {
  const [desk] = await rowsOf(
    db,
    deskRow,
    `select d.id as "sessionId", d.card_id as "cardId", d.student_id as "studentId", s.first_name as "firstName", d.seen_at as "seenAt",
            ${schoolJson('c')} as school
       from desk_sessions d
       join cards k on k.id = d.card_id and k.ended_at is null
       join students s on s.id = d.student_id and s.archived_at is null
       join schools c on c.id = s.school_id
      where d.token_hash = :hash and ${isOpen}`,
    { hash: hashToken(token), now },
  );
  if (!desk) return null;
  if (now.getTime() - desk.seenAt.getTime() > SEEN_EVERY) {
    await db('desk_sessions').where({ id: desk.sessionId }).update({ seen_at: now });
  }
  return { ...desk, studentId: grant(desk.studentId, 'card') };
}

/** Puts the desk away on this device. */
export async function leaveDesk(db: Database, { sessionId }: OpenDesk, now: Date): Promise<void> {
  await db('desk_sessions').where({ id: sessionId }).update({ ended_at: now });
}
