import type { Transporter } from 'nodemailer';
import { addDays } from '~/core/calendar/iso-date';
import { instantAt, wallTime } from '~/core/calendar/zone';
import { retryAfter } from '~/core/post/message';
import type { Database } from '../db/database';
import { recordReading } from '../readers/readings';
import type { School } from '../school/school';
import { composeMessage, type Message } from './compose';

/** When messages that were held leave. */
const MORNING = '07:00';
/** All that keep the limit count their messages one after the other. */
const LIMIT_LOCK = 4310_0001;

export interface Carrier {
  transport: Pick<Transporter, 'sendMail'>;
  from: string;
  /** Whether it takes a message with the same Message-ID only once: then one that may have been handed over is handed over again. */
  takesOnce: boolean;
}

interface Surroundings {
  school: School;
  publicUrl: string;
  carrier: Carrier;
  now: Date;
}

/** The messages that are to leave now. */
export async function dueMessages(db: Database, now: Date, limit = 500): Promise<{ id: string; attempts: number }[]> {
  return db('messages')
    .whereIn('state', ['waiting', 'held'])
    .where('not_before', '<=', now)
    .orderBy('seq')
    .limit(limit)
    .select('id', 'attempts');
}

/**
 * After a worker has died in the middle: what it was handing over is handed over again where the carrier takes a message once;
 * else nobody knows whether it arrived, and a person decides. Call it only where no other worker can be at work.
 */
export async function settleInterrupted(db: Database, { takesOnce }: Pick<Carrier, 'takesOnce'>): Promise<void> {
  const change = takesOnce
    ? { state: 'waiting' }
    : { state: 'uncertain', reason: 'We stopped while it was being handed over. It may have arrived.' };
  await db('messages').where({ state: 'sending' }).update(change);
}

/**
 * Sends one message, if it is still to be sent: of several that try, one does. What became of it stands with it.
 */
export async function deliver(db: Database, id: string, around: Surroundings): Promise<void> {
  const message = await claim(db, id, around);
  if (!message) return;
  const settle = (change: object) => db('messages').where({ id, state: 'sending' }).update(change);
  let composed: Awaited<ReturnType<typeof composeMessage>>;
  try {
    composed = await composeMessage(db, message, around);
  } catch (error) {
    await settle({ state: 'waiting' });
    throw error;
  }
  if (!composed) {
    await settle({ state: 'stopped', reason: 'There is nothing in it that this reader may see.' });
    return;
  }
  const { carrier, now } = around;
  try {
    await carrier.transport.sendMail({
      from: carrier.from,
      to: { name: message.toName, address: message.toEmail },
      subject: composed.subject,
      text: composed.body,
      messageId: `<${id}@gentle-margin.invalid>`,
      ...(composed.stopLink && {
        headers: {
          'List-Unsubscribe': `<${composed.stopLink}>`,
          'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
        },
      }),
    });
    const { subject, body } = composed.kept;
    await settle({ state: 'sent', sent_at: now, reason: null, sent_subject: subject, sent_body: body });
    await recordSending(db, message, now);
  } catch (error) {
    await settle(afterRefusal(error, message.attempts, now));
  }
}

/** What was told of a student in a message is a disclosure too; an invitation tells nothing of any. */
async function recordSending(db: Database, { kind, studentId, linkId, personId }: Message, now: Date): Promise<void> {
  const by = linkId ? { linkId } : personId ? { personId } : null;
  const tells = kind === 'entry' || kind === 'digest' || kind === 'byHand';
  if (by && tells) await recordReading(db, by, { studentId, what: 'a message', how: 'sent' }, now);
}

/** Takes a message to send, or holds it for tomorrow when today’s limit is reached; null when it is not to be sent now. */
async function claim(db: Database, id: string, { school, now }: Surroundings): Promise<Message | null> {
  return db.transaction(async (trx) => {
    await trx.raw('select pg_advisory_xact_lock(?)', [LIMIT_LOCK]);
    const { on } = wallTime(now, school.timeZone);
    const midnight = instantAt({ on, time: '00:00' }, school.timeZone);
    const { daily_limit: limit } = await trx('post_settings').first('daily_limit');
    const [counted] = await trx('messages')
      .where((today) => today.where('sent_at', '>=', midnight).orWhere({ state: 'sending' }))
      .count('id as n');
    const waits = trx('messages').where({ id }).whereIn('state', ['waiting', 'held']);
    if (Number(counted?.n) >= limit) {
      const tomorrow = instantAt({ on: addDays(on, 1), time: MORNING }, school.timeZone);
      await waits.update({
        state: 'held',
        not_before: tomorrow,
        reason: `Today’s limit of ${limit} messages is reached.`,
      });
      return null;
    }
    const [message] = await waits
      .where('not_before', '<=', now)
      .update({ state: 'sending', reason: null, attempts: trx.raw('attempts + 1') })
      .returning<Message[]>([
        'id',
        'kind',
        'student_id as studentId',
        'link_id as linkId',
        'person_id as personId',
        'invitation_id as invitationId',
        'to_name as toName',
        'to_email as toEmail',
        'entry_ids as entryIds',
        'own_subject as ownSubject',
        'own_body as ownBody',
        'attempts',
      ]);
    return message ?? null;
  });
}

/** A refusal for good comes back with the carrier’s words; anything else is tried again, ever later. */
function afterRefusal(error: unknown, attempts: number, now: Date): object {
  const { responseCode, response, message } = error as { responseCode?: number; response?: string; message?: string };
  const words = (response ?? message ?? 'The carrier could not be reached.').slice(0, 300);
  const minutes = retryAfter(attempts);
  if ((responseCode !== undefined && responseCode >= 500) || minutes === null)
    return { state: 'bounced', reason: words };
  return { state: 'waiting', not_before: new Date(now.getTime() + minutes * 60_000), reason: words };
}
