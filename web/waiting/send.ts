import type { WaitingItem } from './device-store';

/** What came of a try: the server has it, will not take it as it is, or could not be asked. */
export type Sent = { is: 'saved' } | { is: 'refused'; messages: Record<string, string> } | { is: 'unreachable' };

const gone = 'This student, or what it names, is not there for you any more.';

/** Where something is sent, and what of it. */
function addressed(item: WaitingItem): [path: string, content: object] {
  if (item.kind === 'note') return ['caught', { note: item.note }];
  if (item.kind === 'tallies') return ['caught', { tallies: item.tallies }];
  return ['sessions', { session: item.session }];
}

/** Sends what waits. It carries its own ids: sent again, it is still saved once. */
export async function send(item: WaitingItem): Promise<Sent> {
  const [path, content] = addressed(item);
  const answer = await fetch(`/students/${item.student.id}/${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId: item.personId, ...content }),
    // Where one would have to sign in first, nothing has been saved.
    redirect: 'manual',
  }).catch(() => null);
  if (answer?.ok) return { is: 'saved' };
  if (answer?.status === 400) return { is: 'refused', messages: (await answer.json()).messages };
  if (answer?.status === 404) return { is: 'refused', messages: { form: gone } };
  return { is: 'unreachable' };
}
