import { type MessageKind, messageKinds } from '~/core/messages/message';
import { usualWordings, type Wording } from '~/core/messages/message-template';
import type { Database } from '../platform/db/database';
import { mustSetUp } from '../school/administrators';
import type { Actor } from '../school/school';

/** How messages of each kind are worded: as the school laid it out, else as usual. */
export async function wordings(db: Database, schoolId: string): Promise<Record<MessageKind, Wording>> {
  const rows: (Wording & { kind: MessageKind })[] = await db('message_templates')
    .where({ school_id: schoolId })
    .select('kind', 'subject', 'body');
  const own = new Map(rows.map(({ kind, subject, body }) => [kind, { subject, body }]));
  const all = messageKinds.map((kind) => [kind, own.get(kind) ?? usualWordings[kind]]);
  return Object.fromEntries(all) as Record<MessageKind, Wording>;
}

/**
 * Words messages of a kind anew, or as usual again. For who sets up the school.
 *
 * @param wording  null for the usual one
 */
export async function saveWording(
  db: Database,
  actor: Actor,
  kind: MessageKind,
  wording: Wording | null,
  now: Date,
): Promise<void> {
  await mustSetUp(db, actor);
  if (wording === null) {
    await db('message_templates').where({ school_id: actor.schoolId, kind }).delete();
    return;
  }
  const content = { ...wording, changed_by: actor.personId, changed_at: now };
  await db('message_templates')
    .insert({ school_id: actor.schoolId, kind, ...content })
    .onConflict(['school_id', 'kind'])
    .merge(content);
}
