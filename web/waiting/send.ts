import type { WaitingSession } from './device-store';

/** What came of a try: the server has it, will not take it as it is, or could not be asked. */
export type Sent = { is: 'saved' } | { is: 'refused'; messages: Record<string, string> } | { is: 'unreachable' };

const gone = 'This student or this goal is not there for you any more.';

/** Sends a session. It carries its own ids: sent again, it is still saved once. */
export async function send({ personId, student, session }: WaitingSession): Promise<Sent> {
  const answer = await fetch(`/students/${student.id}/sessions`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId, session }),
    // Where one would have to sign in first, nothing has been saved.
    redirect: 'manual',
  }).catch(() => null);
  if (answer?.ok) return { is: 'saved' };
  if (answer?.status === 400) return { is: 'refused', messages: (await answer.json()).messages };
  if (answer?.status === 404) return { is: 'refused', messages: { form: gone } };
  return { is: 'unreachable' };
}
