import type { Database } from '../platform/db/database';
import { NotFound } from '../platform/failures';
import type { SchoolAdmin } from '../school/administrators';
import { schoolOf } from '../school/school';

/** What the test mail server does with whom: it sends back, takes later, or takes slowly. */
export interface TestMailRule {
  id: string;
  /** Part of an address. */
  address: string;
  does: 'bounce' | 'defer' | 'delay';
  seconds: number;
  words: string;
}

export interface Arrived {
  id: string;
  messageId: string;
  recipient: string;
  subject: string;
  body: string;
  headers: Record<string, string>;
  arrivedAt: Date;
}

const ruleColumns = ['id', 'address', 'does', 'seconds', 'words'];

/** The rules in the order in which they are tried. */
export const testMailRules = (db: Database): Promise<TestMailRule[]> =>
  db('test_mail_rules').orderBy('made_at').select<TestMailRule[]>(ruleColumns);

/** Keeps what has arrived; the same Message-ID is kept once. */
export async function keepArrived(db: Database, mail: Omit<Arrived, 'id'>): Promise<void> {
  await db('test_mail_inbox')
    .insert({
      ...{ message_id: mail.messageId, recipient: mail.recipient, subject: mail.subject, body: mail.body },
      ...{ headers: JSON.stringify(mail.headers), arrived_at: mail.arrivedAt },
    })
    .onConflict('message_id')
    .ignore();
}

/** What opens something in a message: links of ours, and the word after “passcode”. */
const OPENS = [
  [/https?:\/\/[^\s/]+\/(?:shared|invited|stop|rate)\/[^\s]+/g, '(the link)'],
  [/(passcode(?:\s+is)?\s*[:=–-]?\s*)(\S+)/gi, '$1(the passcode)'],
] as const;
const withoutKeys = (text: string) => OPENS.reduce((left, [pattern, instead]) => left.replace(pattern, instead), text);

/** @throws NotFound where it is no demo: mail of a real school is not read over shoulders */
async function mustBeDemo(db: Database, actor: SchoolAdmin): Promise<void> {
  if (!(await schoolOf(db, actor.schoolId)).isDemo) throw new NotFound('There is no test mail here.');
}

/** What the test mail server got, newest first, and its rules; what opens anything is cut out. For administrators of a demo. */
export async function testMailInbox(
  db: Database,
  actor: SchoolAdmin,
): Promise<{ inbox: Arrived[]; rules: TestMailRule[] }> {
  await mustBeDemo(db, actor);
  const inbox: Arrived[] = await db('test_mail_inbox')
    .orderBy('id', 'desc')
    .limit(100)
    .select('id', 'message_id as messageId', 'recipient', 'subject', 'body', 'headers', 'arrived_at as arrivedAt');
  const shown = inbox.map((mail) => ({
    ...mail,
    subject: withoutKeys(mail.subject),
    body: withoutKeys(mail.body),
    headers: {},
  }));
  return { inbox: shown, rules: await testMailRules(db) };
}

/** Adds a rule. */
export async function addTestMailRule(db: Database, actor: SchoolAdmin, rule: TestMailRule, now: Date): Promise<void> {
  await mustBeDemo(db, actor);
  await db('test_mail_rules')
    .insert({ ...rule, made_at: now })
    .onConflict('id')
    .ignore();
}

/** Takes a rule away. */
export async function removeTestMailRule(db: Database, actor: SchoolAdmin, id: string): Promise<void> {
  await mustBeDemo(db, actor);
  await db('test_mail_rules').where({ id }).delete();
}
