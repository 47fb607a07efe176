import type { Knex } from 'knex';
import { z } from 'zod';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import type { OutsideKind } from '~/core/sharing/reader-kind';
import { outsideKinds } from '~/core/sharing/reader-kind';
import { frequencies, LOCKS_AFTER, type ShareLinkInput, usualPurposes, waitAfter } from '~/core/sharing/share-link';
import { hashPassword, passwordIsRight } from '../people/passwords';
import { hashToken, newToken } from '../people/tokens';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import type { ShareLinksRow } from '../platform/db/tables';
import { existing, Invalid, NotFound } from '../platform/failures';
import { messageId } from '../platform/message-id';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import { grant, type StudentAccess } from '../students/access';
import { requireStudent } from '../students/students';

export const LONGEST_WAY_IN_DAYS = 400;
/** Without a plan a link is open for so many days, unless another end is said. */
const USUAL_DAYS = 90;

/** Until when a link is usually open: as long as the plan; and until when at most. */
export const endsOfLink = (plan: { endsOn: IsoDate } | null, today: IsoDate) => ({
  usualEnd: plan && plan.endsOn > today ? plan.endsOn : addDays(today, USUAL_DAYS),
  lastDay: addDays(today, LONGEST_WAY_IN_DAYS),
});

const shareLinkRow = z.object({
  id: z.string(),
  readerName: z.string(),
  kind: z.enum(outsideKinds),
  hasPasscode: z.boolean(),
  endsOn: z.string(),
  createdByName: z.string(),
  createdAt: z.date(),
  withdrawnAt: z.date().nullable(),
  lockedAt: z.date().nullable(),
  email: z.string().nullable(),
  frequency: z.enum(frequencies),
  /** The reader has stopped messages. */
  hasStopped: z.boolean(),
  /** What the reader needs it for. */
  purpose: z.string(),
  /** How often they opened something, and when last: what was sent to them is no reading. */
  readings: z.number(),
  lastReadAt: z.date().nullable(),
});
export type ShareLink = z.infer<typeof shareLinkRow>;

/** All share links to a student's report, open ones first. For those who may share. */
export async function shareLinksOf(db: Database, actor: Actor, studentId: string): Promise<ShareLink[]> {
  await requireStudent(db, actor, studentId, 'share');
  return rowsOf(
    db,
    shareLinkRow,
    `select l.id, l.reader_name as "readerName", l.kind, l.passcode_hash is not null as "hasPasscode",
            l.ends_on as "endsOn", p.short_name as "createdByName", l.created_at as "createdAt",
            l.withdrawn_at as "withdrawnAt", l.locked_at as "lockedAt",
            l.purpose, l.email, l.frequency, l.stopped_at is not null as "hasStopped", coalesce(r.n, 0)::int as readings, r.last as "lastReadAt"
       from share_links l join people p on p.id = l.created_by
       left join (select link_id, count(*) as n, max(at) as last from access_log
                   where student_id = :studentId and how = 'opened' group by link_id) r on r.link_id = l.id
      where l.student_id = :studentId
      order by l.withdrawn_at is not null, l.ends_on < :today, l.created_at desc`,
    { studentId, today: actor.today },
  );
}

/**
 * Makes a share link. Its token is returned once and only its hash is kept.
 *
 * @returns the token; null when the same submission arrives again, since it cannot be told a second time
 * @throws NotFound for someone who may not share; Invalid for an end that is past or too far
 */
export async function makeShareLink(
  db: Database,
  actor: Actor,
  studentId: string,
  input: ShareLinkInput,
  now: Date,
): Promise<string | null> {
  await requireStudent(db, actor, studentId, 'share');
  if (input.endsOn < actor.today) throw new Invalid({ endsOn: 'Choose today or a later day.' });
  if (input.endsOn > addDays(actor.today, LONGEST_WAY_IN_DAYS)) {
    throw new Invalid({ endsOn: 'A share link lasts a school year at most. You can make a new one then.' });
  }
  const passcodeHash = input.passcode ? await hashPassword(input.passcode) : null;
  return db.transaction(async (trx) => {
    const written = await trx('share_links')
      .insert({
        ...{ id: input.id, student_id: studentId, reader_name: input.readerName, kind: input.kind },
        purpose: input.purpose || usualPurposes[input.kind],
        ...{ passcode_hash: passcodeHash, ends_on: input.endsOn, created_by: actor.personId, created_at: now },
      })
      .onConflict('id')
      .ignore()
      .returning('id');
    if (written.length === 0) return null;
    await writeLink(trx, actor.personId, { studentId, id: input.id, before: null }, now);
    return newLink(trx, input.id, now);
  });
}

/** A further address of a share link: its token, of which only the hash is kept. */
export async function newLink(db: Database, linkId: string, now: Date): Promise<string> {
  const token = newToken();
  await db('share_link_tokens').insert({ token_hash: hashToken(token), link_id: linkId, made_at: now });
  return token;
}

/** What is written down of a share link when it changes. */
export const linkState = (link: ShareLinksRow) => ({
  ...{ linkId: link.id, readerName: link.reader_name, kind: link.kind, purpose: link.purpose, endsOn: link.ends_on },
  ...{ hasPasscode: link.passcode_hash !== null, email: link.email, frequency: link.frequency },
  ...{ withdrawn: link.withdrawn_at !== null, locked: link.locked_at !== null, stopped: link.stopped_at !== null },
});

/** Writes down that a share link is not as it was. Call it in the transaction of the change. */
export async function writeLink(
  db: Database,
  by: string | null,
  { studentId, id, before }: { studentId: string; id: string; before: ReturnType<typeof linkState> | null },
  now: Date,
): Promise<void> {
  const link = existing(await db('share_links').where({ id }).first());
  await writeChange(db, by, { what: 'share link', studentId, before, after: linkState(link) }, now);
}

/**
 * Changes a share link, and writes down how it was and is. For those who may share.
 *
 * @throws NotFound for a link to something else
 */
export async function changeLink(
  db: Database,
  actor: Actor,
  { studentId, id }: { studentId: string; id: string },
  now: Date,
  change: (link: Knex.QueryBuilder) => Knex.QueryBuilder,
): Promise<void> {
  await db.transaction(async (trx) => {
    await requireStudent(trx, actor, studentId, 'share');
    const link = await trx('share_links').where({ id, student_id: studentId }).forUpdate().first();
    if (!link) throw new NotFound('No such share link.');
    await change(trx('share_links').where({ id }));
    await writeLink(trx, actor.personId, { studentId, id, before: linkState(link) }, now);
  });
}

/** Withdraws a share link; it stays listed, and its log stays. Withdrawing twice changes nothing. */
export async function withdrawShareLink(
  db: Database,
  actor: Actor,
  studentId: string,
  id: string,
  now: Date,
): Promise<void> {
  await changeLink(db, actor, { studentId, id }, now, (link) =>
    link.whereNull('withdrawn_at').update({ withdrawn_at: now, withdrawn_by: actor.personId }),
  );
}

/** Opens a share link again that wrong passcodes had locked. */
export async function unlockShareLink(
  db: Database,
  actor: Actor,
  studentId: string,
  id: string,
  now: Date,
): Promise<void> {
  await changeLink(db, actor, { studentId, id }, now, (link) =>
    link.update({ locked_at: null, wrong_passcodes: 0, wrong_at: null }),
  );
}

export interface FoundShareLink {
  id: string;
  studentId: StudentAccess<'read'>;
  shortName: string;
  readerName: string;
  kind: OutsideKind;
  endsOn: IsoDate;
  needsPasscode: boolean;
  isLocked: boolean;
}

/** The share link of a token; null when there is none, it has ended or was withdrawn: these look the same. */
export async function findShareLink(db: Database, token: string, today: IsoDate): Promise<FoundShareLink | null> {
  const link = await db('share_link_tokens as t')
    .join('share_links as l', 'l.id', 't.link_id')
    .join('students as s', 's.id', 'l.student_id')
    .where({ 't.token_hash': hashToken(token), 'l.withdrawn_at': null, 's.archived_at': null })
    .where('l.ends_on', '>=', today)
    .first('l.*', 's.short_name');
  if (!link) return null;
  return {
    id: link.id,
    studentId: grant(link.student_id, 'share link'),
    shortName: link.short_name,
    readerName: link.reader_name,
    kind: link.kind,
    endsOn: link.ends_on,
    needsPasscode: link.passcode_hash !== null,
    isLocked: link.locked_at !== null,
  };
}

const HOUR = 3_600_000;
/** So long a browser need not give the passcode again. */
const PASS_LASTS = 12 * HOUR;

export type PasscodeAnswer = { pass: string } | { wrong: number } | { waitSeconds: number } | { locked: true };

/**
 * Tries a passcode. A few slips cost nothing, then each wrong one makes the next wait longer, and then the share link is locked
 * until the case manager opens it again. Tries at the same moment wait for each other.
 *
 * @returns a pass that the browser keeps, or why there is none
 */
export async function tryPasscode(db: Database, linkId: string, passcode: string, now: Date): Promise<PasscodeAnswer> {
  return db.transaction(async (trx) => {
    const link = existing(await trx('share_links').where({ id: linkId }).forUpdate().first());
    if (link.locked_at) return { locked: true };
    const waited = link.wrong_at ? (now.getTime() - link.wrong_at.getTime()) / 1000 : Infinity;
    const waitSeconds = Math.ceil(waitAfter(link.wrong_passcodes) - waited);
    if (waitSeconds > 0) return { waitSeconds };
    const change = (content: object) => trx('share_links').where({ id: linkId }).update(content);
    if (await passwordIsRight(link.passcode_hash, passcode)) {
      await change({ wrong_passcodes: 0, wrong_at: null });
      const pass = newToken();
      const endsAt = new Date(now.getTime() + PASS_LASTS);
      await trx('share_link_passes').insert({ token_hash: hashToken(pass), link_id: linkId, ends_at: endsAt });
      return { pass };
    }
    const wrong = link.wrong_passcodes + 1;
    const locks = wrong >= LOCKS_AFTER;
    await change({ wrong_passcodes: wrong, wrong_at: now, ...(locks && { locked_at: now }) });
    if (locks) {
      await tellCaseManager(trx, link, now);
      const change = { studentId: link.student_id, id: linkId, before: linkState(link) };
      await writeLink(trx, null, change, now);
    }
    return locks ? { locked: true } : { wrong };
  });
}

async function tellCaseManager(db: Database, link: { id: string; student_id: string }, now: Date): Promise<void> {
  const managers = await db('team_members as m')
    .join('people as p', 'p.id', 'm.person_id')
    .where({ 'm.student_id': link.student_id, 'm.role': 'caseManager' })
    .whereRaw(`m.from_date <= ? and coalesce(m.until_date, 'infinity') >= ?`, [now, now])
    .select('p.id', 'p.name', 'p.email');
  for (const manager of managers) {
    const key = `locked:${link.id}:${now.toISOString()}:${manager.id}`;
    await db('messages').insert({
      ...{ id: messageId(key), key, kind: 'locked', student_id: link.student_id, person_id: manager.id },
      ...{ to_name: manager.name, to_email: manager.email, state: 'waiting', not_before: now, made_at: now },
    });
  }
}

/** Whether this browser has given the passcode lately. */
export async function hasPass(db: Database, linkId: string, pass: string, now: Date): Promise<boolean> {
  const row = await db('share_link_passes')
    .where({ token_hash: hashToken(pass), link_id: linkId })
    .where('ends_at', '>', now)
    .first('link_id');
  return row !== undefined;
}
