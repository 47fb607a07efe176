import { data } from 'react-router';
import { refusalStatus } from '~/core/words/readable';

/** The JSON that a request carries; null for what is none. The only way in which an action reads it. */
export async function jsonOf(request: Request): Promise<unknown> {
  try {
    return await request.json();
  } catch (error) {
    if (error instanceof SyntaxError || error instanceof TypeError) return null;
    throw error;
  }
}

/** The answer to what cannot be kept as it is, with its messages by field. */
export function refusedWith(messages: Record<string, string>) {
  return data({ messages }, { status: refusalStatus(Object.values(messages)) });
}
