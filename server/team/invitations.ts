import { randomUUID } from 'node:crypto';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import { type AcceptanceInput, INVITATION_DAYS, type InvitationInput } from '~/core/team/team-input';
import { hashPassword } from '../access/passwords';
import { type Membership, usualRights } from '../access/rights';
import { hashToken, newToken } from '../access/tokens';
import type { Database } from '../db/database';
import { Invalid, NotFound } from '../failures';
import { messageId } from '../post/collect';
import { type Actor, studentFor } from '../students/students';

export interface Invitation extends Membership {
  id: string;
  name: string;
  email: string;
  until: IsoDate | null;
  endsOn: IsoDate;
  madeByName: string;
  acceptedAt: Date | null;
  withdrawnAt: Date | null;
}

/** Who was asked to join a student’s team and has not answered yet. For the case manager. */
export async function openInvitations(db: Database, actor: Actor, studentId: string): Promise<Invitation[]> {
  await studentFor(db, actor, studentId, 'manage');
  const found = await db.raw<{ rows: Invitation[] }>(
    `select i.id, i.name, i.email, i.role, i.rights, i.until_date as "until", i.ends_on as "endsOn",
            p.short_name as "madeByName", i.accepted_at as "acceptedAt", i.withdrawn_at as "withdrawnAt"
       from invitations i join people p on p.id = i.made_by
      where i.student_id = ? and i.accepted_at is null and i.withdrawn_at is null and i.ends_on >= ?
      order by i.made_at desc`,
    [studentId, actor.today],
  );
  return found.rows;
}

/**
 * Asks somebody to join a team. The link works once and for two weeks; only its hash is kept.
 *
 * @returns the token; null when the same submission arrives again
 * @throws NotFound for whom is not the case manager; Invalid when they are on the team already
 */
export async function invite(
  db: Database,
  actor: Actor,
  studentId: string,
  { id, name, email, role, rights, until }: InvitationInput,
  now: Date,
): Promise<string | null> {
  await studentFor(db, actor, studentId, 'manage');
  const member = await db('people as p')
    .join('team_members as m', 'm.person_id', 'p.id')
    .whereRaw('lower(p.email) = lower(?)', [email])
    .where({ 'm.student_id': studentId })
    .first('p.name');
  if (member) throw new Invalid({ email: `${member.name} is on this team already.` });
  if (until && until < actor.today) throw new Invalid({ until: 'Choose today or a later day.' });
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
    await trx('messages').insert({
      ...{ id: messageId(`invitation:${id}`), key: `invitation:${id}`, kind: 'invitation', student_id: studentId },
      ...{ invitation_id: id, to_name: name, to_email: email, state: 'waiting', not_before: now },
      ...{ made_by: actor.personId, made_at: now },
    });
    return newInvitationLink(trx, id);
  });
}

/** A further link of an invitation: its token, of which only the hash is kept. */
export async function newInvitationLink(db: Database, invitationId: string): Promise<string> {
  const token = newToken();
  await db('invitation_tokens').insert({ token_hash: hashToken(token), invitation_id: invitationId });
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
  await studentFor(db, actor, studentId, 'manage');
  const changed = await db('invitations')
    .where({ id, student_id: studentId, accepted_at: null })
    .whereNull('withdrawn_at')
    .update({ withdrawn_at: now });
  if (changed === 0 && !(await db('invitations').where({ id, student_id: studentId }).first('id'))) {
    throw new NotFound('No such invitation.');
  }
}

export interface FoundInvitation {
  id: string;
  name: string;
  email: string;
  role: Membership['role'];
  studentShortName: string;
  studentId: string;
  madeByName: string;
  /** Whether there is an account with this address: then it is enough to accept. */
  hasAccount: boolean;
}

/** The invitation of a token; null when there is none, it is over, or it was used. */
export async function findInvitation(db: Database, token: string, today: IsoDate): Promise<FoundInvitation | null> {
  const found = await db.raw<{ rows: FoundInvitation[] }>(
    `select i.id, i.name, i.email, i.role, s.short_name as "studentShortName", s.id as "studentId",
            p.name as "madeByName", exists (select from people a where lower(a.email) = lower(i.email)) as "hasAccount"
       from invitation_tokens t join invitations i on i.id = t.invitation_id
            join students s on s.id = i.student_id join people p on p.id = i.made_by
      where t.token_hash = ? and i.accepted_at is null and i.withdrawn_at is null and i.ends_on >= ?
            and s.archived_at is null`,
    [hashToken(token), today],
  );
  return found.rows[0] ?? null;
}

const initialsOf = (name: string) => {
  const words = name.split(/\s+/).filter(Boolean);
  const letters = [words[0], words.length > 1 ? words.at(-1) : undefined].map((word) =>
    (word ?? '').charAt(0).toUpperCase(),
  );
  return { initials: letters.join(''), shortName: words.length > 1 ? `${letters[0]}. ${words.at(-1)}` : name };
};

/**
 * Accepts an invitation, which can be done once: makes the account unless there is one with this address, and puts it on the
 * team.
 *
 * @param account  what it takes to make one; null for whom has one, who then signs in as usual
 * @returns the person, and whether their account was made now
 * @throws NotFound for a link that is over or used; Invalid
 */
export async function acceptInvitation(
  db: Database,
  token: string,
  account: AcceptanceInput | null,
  { today, now }: { today: IsoDate; now: Date },
): Promise<{ personId: string; isNew: boolean }> {
  const passwordHash = account && (await hashPassword(account.password));
  return db.transaction(async (trx) => {
    const row = await trx('invitations')
      .whereIn(
        'id',
        trx('invitation_tokens')
          .where({ token_hash: hashToken(token) })
          .select('invitation_id'),
      )
      .forUpdate()
      .first();
    const found = row && (await findInvitation(trx, token, today));
    if (!found) throw new NotFound('No such invitation.');
    const known = await trx('people').whereRaw('lower(email) = lower(?)', [found.email]).first('id');
    if (!known && (!account || !passwordHash)) throw new Invalid({ password: 'Choose a password.' });
    const personId: string = known?.id ?? randomUUID();
    if (!known && account && passwordHash) {
      const { initials, shortName } = initialsOf(account.name);
      await trx('people').insert({
        ...{ id: personId, name: account.name, short_name: shortName, initials, work: account.work },
        ...{ email: found.email, password_hash: passwordHash },
      });
    }
    await trx('team_members')
      .insert({
        ...{ student_id: found.studentId, person_id: personId, role: row.role },
        ...{
          rights: row.rights ?? usualRights[row.role as Membership['role']],
          from_date: today,
          until_date: row.until_date,
        },
        ...{ changed_by: row.made_by, changed_at: now },
      })
      .onConflict(['student_id', 'person_id'])
      .ignore();
    await trx('invitations').where({ id: found.id }).update({ accepted_by: personId, accepted_at: now });
    return { personId, isNew: !known };
  });
}
