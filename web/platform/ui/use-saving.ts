import { useCallback, useEffect } from 'react';
import { data, isRouteErrorResponse, type SubmitTarget, useFetcher } from 'react-router';
import { isUnreachable } from '../offline/unreachable';

/** What a save answers: where it leads, what needs another look, or that the server cannot be reached. */
export type SaveAnswer = { savedTo: string } | { messages: Record<string, string> } | { unreachable: true };

const RETRY_AFTER = 4000;

/** Asks the server to save; when it cannot be reached the page stays as it is and says so. */
export async function saveOrStay<T>(serverAction: () => Promise<T>) {
  try {
    return await serverAction();
  } catch (error) {
    const isGone = isUnreachable(error) || (isRouteErrorResponse(error) && error.status === 503);
    if (!isGone) throw error;
    return data({ unreachable: true as const }, { status: 503 });
  }
}

interface Saving<Answer> {
  answer: Answer | undefined;
  isBusy: boolean;
  /** The server was out of reach: see `useRetry`. */
  isUnreachable: boolean;
  save: (body: object) => void;
}

/** Saves a JSON body, which carries its own ids: sent again, it is still saved once. */
export function useSaving<Answer>(action: string): Saving<Answer> {
  const { submit, state, data: answer } = useFetcher<Answer>();
  const isUnreachable = (answer as { unreachable?: boolean } | undefined)?.unreachable === true;
  const save = useCallback(
    // React Router sends any object as JSON; its type asks for an index.
    (body: object) => submit(body as SubmitTarget, { method: 'post', encType: 'application/json', action }),
    [submit, action],
  );
  // Said by the route’s action, whose type the caller gives.
  return { answer: answer as Answer | undefined, isBusy: state !== 'idle', isUnreachable, save };
}

/** Calls `again` a few seconds after each try that did not get through. */
export function useRetry({ isUnreachable, isBusy }: { isUnreachable: boolean; isBusy: boolean }, again: () => void) {
  useEffect(() => {
    if (!isUnreachable || isBusy) return;
    const timer = setTimeout(again, RETRY_AFTER);
    return () => clearTimeout(timer);
  }, [isUnreachable, isBusy, again]);
}
