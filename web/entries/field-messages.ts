import type { z } from 'zod';
import { entryField } from '~/core/entries/observation';

/**
 * A parse failure as messages by field: those of an entry under its goal, those of the whole under `form`.
 *
 * @param body  what was parsed, to find the goal that an entry belongs to
 */
export function fieldMessages(error: z.ZodError, body: unknown): Record<string, string> {
  const messages: Record<string, string> = {};
  const entries = (body as { entries?: { goalId?: unknown }[] } | null)?.entries;
  for (const { path, message } of error.issues) {
    const [field, at] = path;
    const goalId = field === 'entries' && typeof at === 'number' ? entries?.[at]?.goalId : undefined;
    const name =
      typeof goalId === 'string' ? entryField(goalId) : field === 'entries' ? 'form' : String(field ?? 'form');
    messages[name] ??= message;
  }
  return messages;
}
