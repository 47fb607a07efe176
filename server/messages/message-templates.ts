import { type MessageKind, messageKinds } from '~/core/messages/message';
import { type MessageTemplate, usualTemplates } from '~/core/messages/message-template';
import type { Database } from '../platform/db/database';
import type { SchoolAdmin } from '../school/administrators';

/** How messages of each kind are worded: as the school laid it out, else as usual. */
export async function messageTemplates(db: Database, schoolId: string): Promise<Record<MessageKind, MessageTemplate>> {
  const rows: (MessageTemplate & { kind: MessageKind })[] = await db('message_templates')
    .where({ school_id: schoolId })
    .select('kind', 'subject', 'body');
  const own = new Map(rows.map(({ kind, subject, body }) => [kind, { subject, body }]));
  const all = messageKinds.map((kind) => [kind, own.get(kind) ?? usualTemplates[kind]]);
  // Every kind has its pair: `fromEntries` only knows that keys are texts.
  return Object.fromEntries(all) as Record<MessageKind, MessageTemplate>;
}

/**
 * Words messages of a kind anew, or as usual again. For administrators.
 *
 * @param template  null for the usual one
 */
export async function saveMessageTemplate(
  db: Database,
  actor: SchoolAdmin,
  kind: MessageKind,
  template: MessageTemplate | null,
  now: Date,
): Promise<void> {
  if (template === null) {
    await db('message_templates').where({ school_id: actor.schoolId, kind }).delete();
    return;
  }
  const content = { ...template, changed_by: actor.personId, changed_at: now };
  await db('message_templates')
    .insert({ school_id: actor.schoolId, kind, ...content })
    .onConflict(['school_id', 'kind'])
    .merge(content);
}
