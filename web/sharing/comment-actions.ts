import { data } from 'react-router';
import { z } from 'zod';
import { commentInput, decisionInput, hidingInput } from '~/core/sharing/comment';
import { refusal } from '~/core/words/refusal';
import { Invalid } from '~/server/platform/failures';

/** What a page with threads is sent. */
const commentAction = z.discriminatedUnion('intent', [
  commentInput.extend({ intent: z.literal('say'), entryId: z.uuid().nullable().default(null) }),
  decisionInput.extend({ intent: z.literal('decide') }),
  hidingInput.extend({ intent: z.literal('hide') }),
  z.object({ intent: z.literal('show'), id: z.uuid() }),
  z.object({ intent: z.literal('stand'), id: z.uuid(), version: z.coerce.number().int().min(1) }),
]);
export type CommentAction = z.infer<typeof commentAction>;

/**
 * Reads what was sent to a thread and does it.
 *
 * @param does  one command for each thing that can be asked for
 * @returns which it was, or messages by field
 */
export async function answerComments(form: FormData, does: (asked: CommentAction) => Promise<void>) {
  const parsed = commentAction.safeParse(Object.fromEntries(form), { error: refusal });
  const refused = (messages: Record<string, string>) => data({ messages }, { status: 400 });
  if (!parsed.success) {
    return refused(
      Object.fromEntries(parsed.error.issues.map(({ path, message }) => [String(path[0] ?? ''), message])),
    );
  }
  try {
    await does(parsed.data);
  } catch (error) {
    if (error instanceof Invalid) return refused(error.fields);
    throw error;
  }
  return data({ said: parsed.data.id });
}
