import { setTimeout as pause } from 'node:timers/promises';
import type { Transporter } from 'nodemailer';
import { addDays } from '~/core/calendar/iso-date';
import { instantAt, wallTime } from '~/core/calendar/zone';
import { messageHtml } from '~/core/messages/html';
import { retryAfter } from '~/core/messages/message';
import { type Database, isDatabaseGone } from '../platform/db/database';
import { existing } from '../platform/failures';
import type { School } from '../school/school';
import { recordAccess } from '../sharing/access-log';
import { grant } from '../students/access';
import { type AccountMessage, type Composed, composeAccountMessage, composeMessage, type Message } from './compose';

/** When messages that were held leave. */
const MORNING = '07:00';
/** All that keep the limit count their messages one after the other. */
const LIMIT_LOCK = 4310_0001;

export interface MailServer {
  transport: Pick<Transporter, 'sendMail'>;
  from: string;
  /** Whether it takes a message with the same Message-ID only once: then one that may have been handed over is handed over again. */
  takesOnce: boolean;
  /** Whether what it takes leaves for people: the one that ships with the product keeps it. Left out where it does. */
  keepsAll?: boolean;
}

interface Surroundings {
  school: School;
  publicUrl: string;
  mailServer: MailServer;
  now: Date;
  /** Ends the waiting for a database that has gone. */
  signal?: AbortSignal;
  /** Of what went wrong in our own house somebody should know. */
  complain?: (error: unknown) => void;
}

/** The messages that are to leave now. */
export async function dueMessages(
  db: Database,
  now: Date,
  limit = 200,
): Promise<{ id: string; attempts: number; schoolId: string }[]> {
  return db('messages as m')
    .leftJoin('students as s', 's.id', 'm.student_id')
    .leftJoin('account_links as l', 'l.id', 'm.account_link_id')
    .whereIn('m.state', ['waiting', 'held'])
    .where('m.not_before', '<=', now)
    .orderBy('m.seq')
    .limit(limit)
    .select('m.id', 'm.attempts', db.raw('coalesce(s.school_id, l.school_id) as "schoolId"'));
}

/** When the next message is to leave; null when none waits. */
export async function nextMessageAt(db: Database): Promise<Date | null> {
  const row = await db('messages')
    .whereIn('state', ['waiting', 'held'])
    .orderBy('not_before')
    .first('not_before as at');
  return row?.at ?? null;
}

/**
 * After a worker has died in the middle: what it was handing over is handed over again where the mail server takes a message once;
 * else nobody knows whether it arrived, and a person decides. Call it only where no other worker can be at work.
 */
export async function settleInterrupted(db: Database, { takesOnce }: Pick<MailServer, 'takesOnce'>): Promise<void> {
  const interrupted = () => db('messages').where({ state: 'sending' });
  // Where there is none, nothing is written.
  if (!(await interrupted().first('id'))) return;
  // What is interrupted again and again is for a person to look at.
  if (takesOnce) await interrupted().where('attempts', '<', MOST_FAULTS).update({ state: 'waiting' });
  const reason = 'We stopped while it was being handed over. It may have arrived.';
  await interrupted().update({ state: 'uncertain', reason });
}

/**
 * Sends one message, if it is still to be sent: of several that try, one does. What became of it stands with it. Each step has a
 * failure of its own: what could not be put together was not handed over; what was handed over is written down as sent, however
 * often that takes, and is not handed over again.
 */
export async function deliver(db: Database, id: string, around: Surroundings): Promise<void> {
  const message = await claim(db, id, around);
  if (!message) return;
  const settle = (change: object, trx = db) => trx('messages').where({ id, state: 'sending' }).update(change);
  const { mailServer, now, complain } = around;

  let composed: Awaited<ReturnType<typeof composeMessage>>;
  try {
    composed = await db.transaction((trx) =>
      'accountLinkId' in message ? composeAccountMessage(trx, message, around) : composeMessage(trx, message, around),
    );
  } catch (error) {
    if (!isDatabaseGone(error)) complain?.(error);
    await untilWritten(() => settle(afterFault(message.attempts, now)), around);
    return;
  }
  if (!composed) {
    const reason = 'There is nothing in it that this reader may see.';
    await untilWritten(() => settle({ state: 'stopped', reason }), around);
    return;
  }

  try {
    await mailServer.transport.sendMail(mailOf(message, composed, mailServer));
  } catch (error) {
    await untilWritten(() => settle(afterRefusal(error, message.attempts, around)), around);
    return;
  }

  const { subject, body } = composed.kept;
  await untilWritten(
    () =>
      db.transaction(async (trx) => {
        const kept = { reason: null, sent_subject: subject, sent_body: body };
        // Of a real school nothing was told to anybody by what the test mail server got; in a demo it plays the world outside.
        if (mailServer.keepsAll && !around.school.isDemo) await settle({ ...kept, state: 'notSetUp' }, trx);
        else if ((await settle({ ...kept, state: 'sent', sent_at: now }, trx)) > 0) {
          await recordSending(trx, message, now);
        }
      }),
    around,
  );
}

const mailOf = (
  { id, toName, toEmail }: Message | AccountMessage,
  { subject, body, stopLink, replyTo }: Composed,
  { from }: MailServer,
) => ({
  from,
  to: { name: toName, address: toEmail },
  subject,
  text: body,
  html: messageHtml(body),
  ...(replyTo && { replyTo }),
  messageId: `<${id}@gentle-margin.invalid>`,
  ...(stopLink && {
    headers: { 'List-Unsubscribe': `<${stopLink}>`, 'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click' },
  }),
});

/** Between two tries to write something down, in milliseconds: the first, and the longest it comes to by doubling. */
const [FIRST_PAUSE, LONGEST_PAUSE] = [100, 10_000];

/** A fault of ours that does not pass: after so many tries a person has to look. */
const MOST_FAULTS = 6;

/**
 * Writes something down, as often as it takes for a database that has gone to come back: what has happened has happened.
 *
 * @throws what goes wrong again and again without the database being gone; the message is then settled as one that was interrupted
 */
async function untilWritten(write: () => Promise<unknown>, { signal, complain }: Surroundings): Promise<void> {
  let faults = 0;
  for (let wait = FIRST_PAUSE; ; wait = Math.min(LONGEST_PAUSE, 2 * wait)) {
    try {
      await write();
      return;
    } catch (error) {
      if (signal?.aborted) throw error;
      if (!isDatabaseGone(error)) {
        complain?.(error);
        if (++faults === MOST_FAULTS) throw error;
      }
    }
    await pause(wait);
  }
}

/** What was told of a student in a message is a disclosure too; an invitation tells nothing of any. */
async function recordSending(db: Database, message: Message | AccountMessage, now: Date): Promise<void> {
  if ('accountLinkId' in message) return;
  const { kind, studentId, linkId, personId } = message;
  const by = linkId ? { linkId } : personId ? { personId } : null;
  const tells = kind === 'entry' || kind === 'digest' || kind === 'byHand';
  if (by && tells) await recordAccess(db, by, { studentId, what: 'a message', how: 'sent' }, now);
}

type Claimed = Omit<Message, 'studentId'> & {
  studentId: string | null;
  accountLinkId: string | null;
};

/** Takes a message to send, or holds it for tomorrow when today’s limit is reached; null when it is not to be sent now. */
async function claim(
  db: Database,
  id: string,
  { school, now }: Surroundings,
): Promise<Message | AccountMessage | null> {
  return db.transaction(async (trx) => {
    await trx.raw('select pg_advisory_xact_lock(?)', [LIMIT_LOCK]);
    const { on } = wallTime(now, school.timeZone);
    const midnight = instantAt({ on, time: '00:00' }, school.timeZone);
    const { daily_message_limit: limit } = existing(
      await trx('schools').where({ id: school.id }).first('daily_message_limit'),
    );
    const [counted] = await trx('messages as m')
      .join('students as s', 's.id', 'm.student_id')
      .where({ 's.school_id': school.id })
      .where((today) => today.where('m.sent_at', '>=', midnight).orWhere({ 'm.state': 'sending' }))
      .count('m.id as n');
    const waits = trx('messages').where({ id }).whereIn('state', ['waiting', 'held']);
    // Who cannot sign in is not held until tomorrow.
    const isOfAccount = await trx('messages').where({ id }).whereNotNull('account_link_id').first('id');
    if (Number(counted?.n) >= limit && !isOfAccount) {
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
      .returning<Claimed[]>([
        'id',
        'kind',
        'student_id as studentId',
        'account_link_id as accountLinkId',
        'link_id as linkId',
        'person_id as personId',
        'invitation_id as invitationId',
        'to_name as toName',
        'to_email as toEmail',
        'own_subject as ownSubject',
        'own_body as ownBody',
        'attempts',
      ]);
    if (!message) return null;
    const { studentId, accountLinkId, ...rest } = message;
    // The database holds that one of the two is there.
    return accountLinkId ? { ...rest, accountLinkId } : { ...rest, studentId: grant(existing(studentId), 'message') };
  });
}

/** What could not be put together, by a fault of ours, is tried again, ever later, and then has failed. */
function afterFault(attempts: number, now: Date): object {
  const minutes = retryAfter(attempts);
  if (minutes === null) {
    return { state: 'failed', reason: `It could not be put together, after ${attempts} tries. It was not sent.` };
  }
  return {
    state: 'waiting',
    not_before: new Date(now.getTime() + minutes * 60_000),
    reason: `It could not be put together; it is tried again after ${minutes} min.`,
  };
}

interface MailFailure {
  responseCode?: number;
  response?: string;
  message?: string;
  /** What was being said to the server. */
  command?: string;
}

/** A refusal for good comes back with the mail server’s words; anything else is tried again, ever later, and then has failed. */
function afterRefusal(error: unknown, attempts: number, { now, mailServer }: Surroundings): object {
  const { responseCode, response, message, command } = error as MailFailure;
  const words = (response ?? message ?? 'The mail server could not be reached.').slice(0, 300);
  if (responseCode !== undefined && responseCode >= 500) return { state: 'bounced', reason: words };
  if (responseCode === undefined && command === 'DATA' && !mailServer.takesOnce) {
    return {
      state: 'uncertain',
      reason: 'The connection broke off while it was being handed over. It may have arrived.',
    };
  }
  const minutes = retryAfter(attempts);
  if (minutes === null) return { state: 'failed', reason: `Not taken after ${attempts} tries: ${words}` };
  return { state: 'waiting', not_before: new Date(now.getTime() + minutes * 60_000), reason: words };
}
