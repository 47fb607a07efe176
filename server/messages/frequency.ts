import { z } from 'zod';
import type { FrequencyInput, LetterInput } from '~/core/messages/message';
import type { Frequency } from '~/core/sharing/share-link';
import { hashToken } from '../people/tokens';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { existing, Invalid, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { changeLink, linkState, writeLink } from '../sharing/share-links';
import { requireStudent } from '../students/students';

/** Says how often a reader by a share link is told of new entries, and at which address. For those who may share. */
export async function setFrequency(
  db: Database,
  actor: Actor,
  studentId: string,
  { id, email, frequency }: FrequencyInput,
  now: Date,
): Promise<void> {
  await changeLink(db, actor, { studentId, id }, now, (link) =>
    link.update({ email: email ?? null, frequency: frequency, stopped_at: null }),
  );
}

/** Says how often one is told oneself of a student’s new entries. For every member who may read. */
export async function setOwnFrequency(
  db: Database,
  actor: Actor,
  studentId: string,
  frequency: Frequency,
): Promise<void> {
  await requireStudent(db, actor, studentId, 'read');
  await db('team_members')
    .where({ student_id: studentId, person_id: actor.personId })
    .update({ frequency: frequency, stopped_at: null });
}

/** How often one is told oneself of this student. */
export async function ownFrequency(db: Database, actor: Actor, studentId: string): Promise<Frequency> {
  const row = await db('team_members')
    .where({ student_id: studentId, person_id: actor.personId })
    .orderBy('from_date', 'desc')
    .first('frequency');
  return row?.frequency ?? 'byHand';
}

/**
 * Puts a message written by hand among the messages to send. Sent twice it is one message.
 *
 * @throws NotFound; Invalid for a reader without an address, or one who wants no messages
 */
export async function writeLetter(
  db: Database,
  actor: Actor,
  studentId: string,
  { id, linkId, subject, body }: LetterInput,
  now: Date,
): Promise<void> {
  await requireStudent(db, actor, studentId, 'share');
  const link = await db('share_links').where({ id: linkId, student_id: studentId, withdrawn_at: null }).first();
  if (!link || link.ends_on < actor.today) throw new NotFound('No such share link.');
  if (!link.email) throw new Invalid({ linkId: 'This reader has no email address yet.' });
  if (link.stopped_at) throw new Invalid({ linkId: 'This reader has stopped messages.' });
  await db('messages')
    .insert({
      ...{ id, key: `byHand:${id}`, kind: 'byHand', student_id: studentId, link_id: linkId },
      ...{ to_name: link.reader_name, to_email: link.email, own_subject: subject, own_body: body },
      ...{ state: 'waiting', not_before: now, made_by: actor.personId, made_at: now },
    })
    .onConflict('id')
    .ignore();
}

const foundStopRow = z.object({
  readerName: z.string(),
  isStopped: z.boolean(),
});
export type FoundStop = z.infer<typeof foundStopRow>;

/** Whose messages a link in one of them stops; null when there is no such link. */
export async function findStop(db: Database, token: string): Promise<FoundStop | null> {
  const found = await rowsOf(
    db,
    foundStopRow,
    `select m.to_name as "readerName", coalesce(l.stopped_at, t.stopped_at) is not null or coalesce(l.id, t.person_id) is null as "isStopped"
       from message_stops s join messages m on m.id = s.message_id
            left join share_links l on l.id = m.link_id
            left join lateral (select * from team_members o where o.person_id = m.person_id and o.student_id = m.student_id
                                order by o.from_date desc limit 1) t on true
      where s.token_hash = ?`,
    [hashToken(token)],
  );
  return found[0] ?? null;
}

/** Stops the messages that a reader gets about one student, from a message itself. Those that wait are not sent any more. */
export async function stopMessages(db: Database, token: string, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const stop = await trx('message_stops as s')
      .join('messages as m', 'm.id', 's.message_id')
      .where({ 's.token_hash': hashToken(token) })
      .first('m.student_id', 'm.link_id', 'm.person_id');
    if (!stop) throw new NotFound('No such message.');
    const change = { frequency: 'byHand' as const, stopped_at: now };
    if (stop.link_id) {
      const before = linkState(existing(await trx('share_links').where({ id: stop.link_id }).forUpdate().first()));
      await trx('share_links').where({ id: stop.link_id }).update(change);
      await writeLink(trx, null, { studentId: stop.student_id, id: stop.link_id, before }, now);
    } else await trx('team_members').where({ student_id: stop.student_id, person_id: stop.person_id }).update(change);
    await trx('messages')
      .where(stop.link_id ? { link_id: stop.link_id } : { person_id: stop.person_id, student_id: stop.student_id })
      .whereIn('state', ['waiting', 'held'])
      .whereIn('kind', ['entry', 'digest', 'byHand', 'issued'])
      .update({ state: 'stopped', reason: 'The reader has stopped messages.' });
  });
}
