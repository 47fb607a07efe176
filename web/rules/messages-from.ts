import type { z } from 'zod';

/**
 * What was refused, by the path of its field: the first message of each; of the whole under `form`.
 *
 * @example messagesFrom(ruleInput.safeParse({}).error) // { id: …, name: 'Give it a name.', … }
 */
export function messagesFrom(error: z.ZodError): Record<string, string> {
  const messages: Record<string, string> = {};
  for (const { path, message } of error.issues) messages[path.join('.') || 'form'] ??= message;
  return messages;
}
