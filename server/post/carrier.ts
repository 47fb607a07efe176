import { mustSetUp } from '../access/set-up';
import type { Database } from '../db/database';
import type { Actor } from '../students/students';

/** What the simulated carrier does with whom: it sends back, takes later, or takes slowly. */
export interface CarrierRule {
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
export const carrierRules = (db: Database): Promise<CarrierRule[]> =>
  db('carrier_rules').orderBy('made_at').select<CarrierRule[]>(ruleColumns);

/** Keeps what has arrived; the same Message-ID is kept once. */
export async function keepArrived(db: Database, mail: Omit<Arrived, 'id'>): Promise<void> {
  await db('carrier_inbox')
    .insert({
      ...{ message_id: mail.messageId, recipient: mail.recipient, subject: mail.subject, body: mail.body },
      ...{ headers: JSON.stringify(mail.headers), arrived_at: mail.arrivedAt },
    })
    .onConflict('message_id')
    .ignore();
}

/** What the simulated carrier got, newest first, and its rules. For who sets up the school. */
export async function carrierInbox(db: Database, actor: Actor): Promise<{ inbox: Arrived[]; rules: CarrierRule[] }> {
  await mustSetUp(db, actor);
  const inbox: Arrived[] = await db('carrier_inbox')
    .orderBy('id', 'desc')
    .limit(100)
    .select('id', 'message_id as messageId', 'recipient', 'subject', 'body', 'headers', 'arrived_at as arrivedAt');
  return { inbox, rules: await carrierRules(db) };
}

/** Adds a rule. */
export async function addCarrierRule(db: Database, actor: Actor, rule: CarrierRule, now: Date): Promise<void> {
  await mustSetUp(db, actor);
  await db('carrier_rules')
    .insert({ ...rule, made_at: now })
    .onConflict('id')
    .ignore();
}

/** Takes a rule away. */
export async function removeCarrierRule(db: Database, actor: Actor, id: string): Promise<void> {
  await mustSetUp(db, actor);
  await db('carrier_rules').where({ id }).delete();
}
