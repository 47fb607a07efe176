import type { WaitingChange, WaitingItem } from '~/core/entries/waiting';
import { sendWords } from './words';

/**
 * Why something has not been sent yet. `unreachable`: there was nobody to ask. `signedOut`: nobody is signed in any more. `someoneElse`:
 * another person is. `tooMany`: the server asks for a pause. `ours`: the server failed on this one.
 */
export type Why = 'unreachable' | 'signedOut' | 'someoneElse' | 'tooMany' | 'ours';

/** What came of a try: the server has it, will not take it as it is, or it goes on waiting. */
export type Sent = { is: 'saved' } | { is: 'refused'; messages: Record<string, string> } | { is: 'waits'; why: Why };

/** While these hold, the others would not get through either. */
export const holdsAll = (why: Why): boolean => why === 'unreachable' || why === 'signedOut' || why === 'tooMany';

/** What is said of each: what happened, and what is next. In between it is said that nothing is lost. */
export const whyWords: Record<Why, { happened: string; next: string }> = {
  unreachable: { happened: sendWords.theServerCannotBeReached, next: sendWords.itIsSentByItself },
  signedOut: { happened: sendWords.youAreSignedOut, next: sendWords.signInAgainOnThis },
  someoneElse: {
    happened: sendWords.somebodyElseIsSignedIn,
    next: sendWords.itIsSentWhenYou,
  },
  tooMany: { happened: sendWords.theServerAsksForA, next: sendWords.itIsSentByItselfIn },
  ours: { happened: sendWords.theServerFailedOnThis, next: sendWords.itIsTriedAgainEverything },
};

const refusals: Record<number, string> = {
  403: sendWords.thisIsNotYoursTo,
  404: sendWords.thisStudentOrWhatIt,
  413: sendWords.thisIsLargerThanAn,
  422: sendWords.somethingInItCannotBe,
};

/** Where something is sent, and what of it. */
function addressed(item: Exclude<WaitingItem, WaitingChange>): [path: string, content: object] {
  if (item.kind === 'incident') return ['behavior-entries', { incident: item.incident }];
  if (item.kind === 'counts') return ['behavior-entries', { counts: item.counts }];
  if (item.kind === 'note') return ['notes', { note: item.note }];
  return ['sessions', { session: item.session }];
}

/**
 * Sends what waits. It carries its own ids: sent again, it is still saved once.
 *
 * @param isQuiet  whether the page says itself what was saved: of several sent in one go
 */
export async function send(item: WaitingItem, { isQuiet = false } = {}): Promise<Sent> {
  if (item.kind === 'change') return sendChange(item);
  const [path, content] = addressed(item);
  let answer: Response;
  try {
    answer = await fetch(`/students/${item.student.id}/${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ personId: item.personId, ...content, ...(isQuiet && { isQuiet }) }),
      // Where one would have to sign in first, nothing has been saved.
      redirect: 'manual',
    });
  } catch {
    return { is: 'waits', why: 'unreachable' };
  }
  return sentAs(answer);
}

/** A change goes to the page of its record, which refuses one to a version that is not the newest any more. */
async function sendChange({ to, change, personId }: WaitingChange): Promise<Sent> {
  let answer: Response;
  try {
    answer = await fetch(`${to}.data`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'X-For': personId },
      body: JSON.stringify(change),
      redirect: 'manual',
    });
  } catch {
    return { is: 'waits', why: 'unreachable' };
  }
  // What it answers is for its page to read; here its status says enough. A redirect there leads to the sign-in.
  if (answer.status === 202) return { is: 'waits', why: 'signedOut' };
  if (answer.status === 409) return { is: 'refused', messages: { form: sendWords.itWasChangedMeanwhile } };
  if (answer.status >= 400 && answer.status < 500 && !(answer.status in refusals) && answer.status !== 401)
    return { is: 'refused', messages: { form: sendWords.thisChangeCannotBe } };
  return sentAs(answer);
}

async function sentAs(answer: Response): Promise<Sent> {
  const { status, type } = answer;
  if (answer.ok) return { is: 'saved' };
  if (status === 401 || type === 'opaqueredirect') return { is: 'waits', why: 'signedOut' };
  if (status === 409) return { is: 'waits', why: 'someoneElse' };
  if (status === 429) return { is: 'waits', why: 'tooMany' };
  if (status === 502 || status === 503 || status === 504) return { is: 'waits', why: 'unreachable' };
  if (status >= 500) return { is: 'waits', why: 'ours' };
  return {
    is: 'refused',
    messages: (await messagesOf(answer)) ?? { form: refusals[status] ?? sendWords.thisCannotBeRead },
  };
}

/** The messages by field that came along; null when there are none. */
async function messagesOf(answer: Response): Promise<Record<string, string> | null> {
  try {
    const { messages } = (await answer.json()) as { messages?: Record<string, string> };
    return messages ?? null;
  } catch {
    return null;
  }
}
