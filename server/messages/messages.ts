import { z } from 'zod';
import type { MessageState } from '~/core/messages/message';
import { messageKinds, messageStates } from '~/core/messages/message';
import type { MessageTemplate } from '~/core/messages/message-template';
import type { Database } from '../platform/db/database';
import { held, rowsOf, written } from '../platform/db/rows';
import { existing, Invalid, NotFound } from '../platform/failures';
import type { SchoolAdmin } from '../school/administrators';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import { requireStudent } from '../students/students';

const storedMessageRow = z.object({
  id: z.string(),
  kind: z.enum(messageKinds),
  studentId: held(z.string()),
  studentShortName: z.string(),
  studentInitials: z.string(),
  toName: z.string(),
  toEmail: z.string(),
  state: z.enum(messageStates),
  reason: z.string().nullable(),
  notBefore: z.date(),
  madeAt: z.date(),
  sentAt: z.date().nullable(),
  /** What left; null while it has not. */
  sent: written<MessageTemplate | null>(),
  /** Whether another was sent in its place. */
  isReplaced: z.boolean(),
});
export type StoredMessage = z.infer<typeof storedMessageRow>;

/** Who may share a student sees that student’s messages. `:today` is the day, `:personId` the person. */
const theirs = `exists (select from team_members t where t.student_id = m.student_id and t.person_id = :personId
   and (t.role = 'caseManager' or 'share' = any(t.rights))
   and t.from_date <= :today and coalesce(t.until_date, 'infinity') >= :today)`;

/** The messages about students whom the one who asks may share, newest first. */
export async function messagesOf(
  db: Database,
  actor: Actor,
  { limit = 300, state }: { limit?: number; state?: MessageState | undefined } = {},
): Promise<StoredMessage[]> {
  return rowsOf(
    db,
    storedMessageRow,
    `select m.id, m.kind, m.student_id as "studentId", s.short_name as "studentShortName", s.initials as "studentInitials",
            m.to_name as "toName", m.to_email as "toEmail", m.state, m.reason, m.not_before as "notBefore",
            m.made_at as "madeAt", m.sent_at as "sentAt",
            case when m.sent_subject is not null
                 then json_build_object('subject', m.sent_subject, 'body', m.sent_body) end as sent,
            exists (select from messages a where a.again_of = m.id) as "isReplaced"
       from messages m join students s on s.id = m.student_id
      where s.school_id = :schoolId and ${theirs} ${state ? 'and m.state = :state' : ''}
      order by m.seq desc limit :limit`,
    { ...actor, limit, state: state ?? '' },
  );
}

/** How many of their messages there are in each state. */
export async function messageCounts(db: Database, actor: Actor): Promise<Partial<Record<MessageState, number>>> {
  const found = await rowsOf(
    db,
    z.object({ state: z.enum(messageStates), n: z.number() }),
    `select m.state, count(*)::int as n from messages m join students s on s.id = m.student_id
      where s.school_id = :schoolId and ${theirs} group by m.state`,
    { ...actor },
  );
  return Object.fromEntries(found.map(({ state, n }) => [state, n]));
}

/**
 * Sends a message again that came back or may not have arrived, to the same address or a corrected one; the reader’s address is
 * corrected with it. Asked twice, it is sent once.
 *
 * @throws NotFound; Invalid for one that did not come back
 */
export async function sendAgain(
  db: Database,
  actor: Actor,
  { id, newId, email }: { id: string; newId: string; email: string },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const message = await trx('messages').where({ id }).forUpdate().first();
    if (!message?.student_id) throw new NotFound('No such message.');
    await requireStudent(trx, actor, message.student_id, 'share');
    if (await trx('messages').where({ again_of: id }).first('id')) return;
    if (!['bounced', 'uncertain', 'stopped', 'failed', 'notSetUp'].includes(message.state)) {
      throw new Invalid({ email: 'This message did not come back.' });
    }
    const { seq: _, sent_subject: __, sent_body: ___, ...content } = message;
    await trx('messages').insert({
      ...content,
      ...{ id: newId, key: `again:${newId}`, to_email: email, state: 'waiting', reason: null, attempts: 0 },
      ...{ not_before: now, made_at: now, made_by: actor.personId, sent_at: null, again_of: id },
    });
    await trx.raw(
      `insert into message_entries (message_id, student_id, entry_id, position)
       select :newId, student_id, entry_id, position from message_entries where message_id = :id`,
      { newId, id },
    );
    if (message.link_id) await trx('share_links').where({ id: message.link_id }).update({ email });
    if (message.invitation_id) await trx('invitations').where({ id: message.invitation_id }).update({ email });
  });
}

/** Says of a message that may have been sent that it arrived. */
export async function markArrived(db: Database, actor: Actor, id: string, now: Date): Promise<void> {
  const message = await db('messages').where({ id, state: 'uncertain' }).first('student_id');
  if (!message?.student_id) throw new NotFound('No such message.');
  await requireStudent(db, actor, message.student_id, 'share');
  await db('messages').where({ id, state: 'uncertain' }).update({ state: 'sent', sent_at: now, reason: null });
}

/** Takes a message back that has not left yet. */
export async function stopMessage(db: Database, actor: Actor, id: string): Promise<void> {
  const message = await db('messages').where({ id }).first('student_id');
  if (!message?.student_id) throw new NotFound('No such message.');
  await requireStudent(db, actor, message.student_id, 'share');
  await db('messages')
    .where({ id })
    .whereIn('state', ['waiting', 'held'])
    .update({ state: 'stopped', reason: 'Canceled before it was sent.' });
}

/** How many messages may leave in a day. */
export async function dailyLimit(db: Database, { schoolId }: Actor): Promise<number> {
  return existing(await db('schools').where({ id: schoolId }).first('daily_message_limit')).daily_message_limit;
}

/** For administrators. */
export async function setDailyLimit(db: Database, actor: SchoolAdmin, limit: number, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const before = { dailyLimit: await dailyLimit(trx, actor) };
    await trx('schools').where({ id: actor.schoolId }).update({ daily_message_limit: limit });
    const change = { schoolId: actor.schoolId, before, after: { dailyLimit: limit } };
    await writeChange(trx, actor.personId, { what: 'school', ...change }, now);
  });
}
