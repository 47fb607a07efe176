import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import { roles } from '~/core/students/roles';
import { type AcceptanceInput, INVITATION_DAYS, type InvitationInput } from '~/core/students/team-input';
import { ownAccount } from '../people/own-account';
import { expectStrong, hashPassword } from '../people/passwords';
import { hashToken, newToken } from '../people/tokens';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { existing, Invalid, NotAllowed, NotFound } from '../platform/failures';
import { messageId } from '../platform/message-id';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import { type Membership, membershipRow, usualRights } from './rights';
import { stayOf } from './stays';
import { requireStudent } from './students';

const invitationRow = membershipRow.extend({
  id: z.string(),
  name: z.string(),
  email: z.string(),
  until: z.string().nullable(),
  endsOn: z.string(),
  madeByName: z.string(),
  acceptedAt: z.date().nullable(),
  withdrawnAt: z.date().nullable(),
  /** They do not want to join. */
  declinedAt: z.date().nullable(),
});
export type Invitation = z.infer<typeof invitationRow>;

/** Who was asked to join a student’s team and has not answered yet, or does not want to. For the case manager. */
export async function openInvitations(db: Database, actor: Actor, studentId: string): Promise<Invitation[]> {
  await requireStudent(db, actor, studentId, 'manage');
  return rowsOf(
    db,
    invitationRow,
    `select i.id, i.name, i.email, i.role, i.rights, i.until_date as "until", i.ends_on as "endsOn",
            p.short_name as "madeByName", i.accepted_at as "acceptedAt", i.withdrawn_at as "withdrawnAt",
            i.declined_at as "declinedAt"
       from invitations i join people p on p.id = i.made_by
      where i.student_id = ? and i.accepted_at is null and i.withdrawn_at is null and i.ends_on >= ?
      order by i.made_at desc`,
    [studentId, actor.today],
  );
}

/**
 * Asks somebody to join a team. The link works once and for two weeks; only its hash is kept. It goes to the address by message, and
 * nowhere else: whoever answers it has the mailbox.
 *
 * @param readsOut  whether the one who invites may pass the link on, once: where no mail leaves, in a demo. Such a link proves
 *   nothing of the address.
 * @returns the token to pass on; null where there is none, or the same submission arrives again
 * @throws NotFound for someone who is not the case manager; Invalid when they are on the team already
 */
export async function invite(
  db: Database,
  actor: Actor,
  studentId: string,
  { id, name, email, role, rights, until }: InvitationInput,
  { now, readsOut }: { now: Date; readsOut: boolean },
): Promise<string | null> {
  await requireStudent(db, actor, studentId, 'manage');
  const member = await db('people as p')
    .join('team_members as m', 'm.person_id', 'p.id')
    .whereRaw('lower(p.email) = lower(?)', [email])
    .where({ 'm.student_id': studentId })
    .whereRaw(`coalesce(m.until_date, 'infinity') >= ?`, [actor.today])
    .first('p.name');
  if (member) throw new Invalid({ email: `${member.name} is on this team already.` });
  if (until && until < actor.today) throw new Invalid({ until: 'Choose today or a later day.' });
  const left = await db('people as p')
    .join('school_staff as a', 'a.person_id', 'p.id')
    .where({ 'a.school_id': actor.schoolId })
    .whereRaw('lower(p.email) = lower(?)', [email])
    .where('a.until_date', '<', actor.today)
    .first('p.name');
  // Whoever has left comes back by an administrator, and by no team.
  if (left) throw new Invalid({ email: `${left.name} has left this school. An administrator can bring them back.` });
  return db.transaction(async (trx) => {
    const written = await trx('invitations')
      .insert({
        ...{ id, student_id: studentId, name, email, role, rights, until_date: until ?? null },
        ends_on: addDays(actor.today, INVITATION_DAYS),
        ...{ made_by: actor.personId, made_at: now },
      })
      .onConflict('id')
      .ignore()
      .returning('id');
    if (written.length === 0) return null;
    const after = { invitationId: id, name, email, role, rights, until: until ?? null, state: 'open' };
    await writeChange(trx, actor.personId, { what: 'invitation', studentId, before: null, after }, now);
    await trx('messages').insert({
      ...{ id: messageId(`invitation:${id}`), key: `invitation:${id}`, kind: 'invitation', student_id: studentId },
      ...{ invitation_id: id, to_name: name, to_email: email, state: 'waiting', not_before: now },
      ...{ made_by: actor.personId, made_at: now },
    });
    return readsOut ? newInvitationLink(trx, id, { isReadOut: true }) : null;
  });
}

/** A further link of an invitation: its token, of which only the hash is kept. */
export async function newInvitationLink(
  db: Database,
  invitationId: string,
  { isReadOut = false } = {},
): Promise<string> {
  const token = newToken();
  await db('invitation_tokens').insert({
    ...{ token_hash: hashToken(token), invitation_id: invitationId, is_read_out: isReadOut },
  });
  return token;
}

/** Takes an invitation back; its link no longer works. */
export async function withdrawInvitation(
  db: Database,
  actor: Actor,
  studentId: string,
  id: string,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    await requireStudent(trx, actor, studentId, 'manage');
    const invitation = await trx('invitations').where({ id, student_id: studentId }).forUpdate().first();
    if (!invitation) throw new NotFound('No such invitation.');
    if (invitation.accepted_at || invitation.withdrawn_at) return;
    await trx('invitations').where({ id }).update({ withdrawn_at: now });
    await answered(trx, actor.personId, { ...invitation, studentId }, 'withdrawn', now);
  });
}

const foundInvitationRow = z.object({
  id: z.string(),
  name: z.string(),
  email: z.string(),
  role: z.enum(roles),
  studentShortName: z.string(),
  studentId: z.string(),
  madeByName: z.string(),
  /** Who has an account with this address; null when nobody. */
  accountId: z.string().nullable(),
  /** Whether that account’s address was ever proven by a message that was answered from it. */
  isProven: z.boolean(),
  /** Whether this link was passed on by the one who invited, and proves nothing of the address. */
  isReadOut: z.boolean(),
});
export type FoundInvitation = z.infer<typeof foundInvitationRow>;

const isOpen = `i.accepted_at is null and i.withdrawn_at is null and i.declined_at is null and s.archived_at is null`;

const foundColumns = `i.id, i.name, i.email, i.role, s.short_name as "studentShortName", s.id as "studentId", p.name as "madeByName",
            a.id as "accountId", a.email_proven_at is not null as "isProven"`;
const foundFrom = `invitations i join students s on s.id = i.student_id join people p on p.id = i.made_by
            left join people a on lower(a.email) = lower(i.email)`;

/** The invitation of a token; null when there is none, it is over, or it was used. */
export async function findInvitation(db: Database, token: string, today: IsoDate): Promise<FoundInvitation | null> {
  const found = await rowsOf(
    db,
    foundInvitationRow,
    `select ${foundColumns}, t.is_read_out as "isReadOut"
       from invitation_tokens t join ${foundFrom.replace('invitations i', 'invitations i on i.id = t.invitation_id')}
      where t.token_hash = ? and ${isOpen} and i.ends_on >= ?`,
    [hashToken(token), today],
  );
  return found[0] ?? null;
}

/** The invitations to somebody with an account, by their address: only where it is proven that it is theirs. */
export async function invitationsTo(
  db: Database,
  { personId, today }: Pick<Actor, 'personId' | 'today'>,
): Promise<FoundInvitation[]> {
  return rowsOf(
    db,
    foundInvitationRow,
    `select ${foundColumns}, false as "isReadOut" from ${foundFrom.replace('students s', 'invited_students() s')}
      where a.id = ? and a.email_proven_at is not null and ${isOpen} and i.ends_on >= ? order by i.made_at desc`,
    [personId, today],
  );
}

/** How somebody answers: by the link of an invitation, or signed in, by its id. */
export type InvitationDoor = { token: string } | { id: string };

/**
 * The invitation behind a door, locked until the answer is written.
 *
 * @throws NotFound for one that is over, used, or not theirs
 */
async function lockedInvitation(db: Database, door: InvitationDoor, actor: Actor | null, today: IsoDate) {
  const find = async () =>
    'token' in door
      ? findInvitation(db, door.token, today)
      : ((actor && (await invitationsTo(db, actor)).find(({ id }) => id === door.id)) ?? null);
  const before = await find();
  // Whoever has signed in comes by no link: the invitation itself opens the door.
  if (before && 'id' in door) await db.raw('select open_invitation(?)', [before.id]);
  const row = before && (await db('invitations').where({ id: before.id }).forUpdate().first());
  const found = row && (await find());
  if (!found) throw new NotFound('No such invitation.');
  return { row, found };
}

/**
 * Accepts an invitation, which can be done once. Whoever has an account signs in first: the address alone makes nobody its owner.
 * Where there is none it is made; where its address was never proven, and this link came to the address, its owner takes it over
 * with a password of their own, and whoever used it before is out.
 *
 * @param account  what it takes to make an account; null for someone who has one
 * @param actor  who is signed in; null when nobody is
 * @returns the person, and whether they are to be signed in now
 * @throws NotFound for a link that is over or used; NotAllowed while they are not signed in; Invalid
 */
export async function acceptInvitation(
  db: Database,
  door: InvitationDoor,
  { account, actor }: { account: AcceptanceInput | null; actor: Actor | null },
  { today, now }: { today: IsoDate; now: Date },
): Promise<{ personId: string; isNew: boolean }> {
  if (account) await expectStrong(account, account.password);
  const passwordHash = account && (await hashPassword(account.password));
  return db.transaction(async (trx) => {
    const { row, found } = await lockedInvitation(trx, door, actor, today);
    const isSignedIn = actor !== null && actor.personId === found.accountId;
    const takesAccount = !found.accountId || (!found.isProven && !found.isReadOut && !isSignedIn);
    let personId = found.accountId ?? randomUUID();
    if (takesAccount) {
      if (!account || !passwordHash) throw new Invalid({ password: 'Choose a password.' });
      personId = await ownAccount(
        trx,
        found,
        { ...account, passwordHash },
        { of: { studentId: found.studentId }, now },
      );
    } else if (!isSignedIn) throw new NotAllowed('Sign in with this account first.');
    // Whoever answers from the mailbox has shown that the address is theirs.
    if (!found.isReadOut && 'token' in door) {
      await trx('people').where({ id: personId, email_proven_at: null }).update({ email_proven_at: now });
    }
    const { school_id } = existing(await trx('students').where({ id: found.studentId }).first('school_id'));
    await trx('school_staff')
      .insert({ school_id, person_id: personId, from_date: today })
      .onConflict(['school_id', 'person_id'])
      .merge({ until_date: null });
    const stay = await stayOf(trx, found.studentId, personId, today);
    const isThere = stay && (stay.until_date ?? today) >= today;
    if (!isThere) {
      await trx('team_members').insert({
        ...{ student_id: found.studentId, person_id: personId, role: row.role },
        ...{ rights: [...(row.rights ?? usualRights[row.role])], until_date: row.until_date },
        ...{ from_date: today, changed_by: row.made_by, changed_at: now },
      });
    }
    await trx('invitations').where({ id: found.id }).update({ accepted_by: personId, accepted_at: now });
    await answered(trx, personId, found, 'accepted', now);
    if (!isThere) {
      const { name } = existing(await trx('people').where({ id: personId }).first('name'));
      // The database holds the roles of an invitation.
      const rights = row.rights ?? usualRights[row.role as Membership['role']];
      const after = { personId, name, role: row.role, rights, from: today, until: row.until_date };
      const member = { what: 'member of the team', studentId: found.studentId, personId, before: null, after } as const;
      await writeChange(trx, personId, member, now);
    }
    return { personId, isNew: takesAccount };
  });
}

/** Writes down what became of an invitation. */
const answered = (
  db: Database,
  by: string | null,
  { id, studentId, name, email }: Pick<FoundInvitation, 'id' | 'studentId' | 'name' | 'email'>,
  state: 'accepted' | 'declined' | 'withdrawn',
  now: Date,
) => {
  const said = { invitationId: id, name, email };
  const states = { before: { ...said, state: 'open' }, after: { ...said, state } };
  return writeChange(db, by, { what: 'invitation', studentId, ...states }, now);
};

/**
 * Says no to an invitation; its links no longer work, and the one who invited sees it.
 *
 * @throws NotFound for one that is over, used, or not theirs
 */
export async function declineInvitation(
  db: Database,
  door: InvitationDoor,
  actor: Actor | null,
  { today, now }: { today: IsoDate; now: Date },
): Promise<void> {
  await db.transaction(async (trx) => {
    const { found } = await lockedInvitation(trx, door, actor, today);
    await trx('invitations').where({ id: found.id }).update({ declined_at: now });
    await answered(trx, actor?.personId ?? null, found, 'declined', now);
  });
}
