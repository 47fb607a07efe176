import { data, isRouteErrorResponse, type MiddlewareFunction } from 'react-router';

/** What a proxy, or the worker on this device, answers for a server that is not there. */
const NOT_THERE = new Set([502, 504]);

/** Whether an error means that nobody answered: there is no network, or no server behind it. */
export function isUnreachable(error: unknown): boolean {
  if (isRouteErrorResponse(error)) return NOT_THERE.has(error.status);
  // Each browser has a sentence of its own for a request that came to nothing.
  return error instanceof TypeError && /fetch|network|load failed/i.test(error.message);
}

/** Said to whoever listens: something was sent, and nobody answered. */
export const NOT_SENT = 'gentle-margin:not-sent';

type Results = Record<string, { type: 'data' | 'error'; result: unknown }>;

/**
 * What is sent while nobody answers comes back to the page it was sent from: what was typed stays there, to be sent again, in place
 * of a page that says only what went wrong.
 */
export const staysWhenUnreachable: MiddlewareFunction<Results> = async ({ request }, next) => {
  const results = await next();
  if (request.method === 'GET') return results;
  for (const [id, { type, result }] of Object.entries(results)) {
    if (type === 'data' || !isUnreachable(result)) continue;
    results[id] = { type: 'data', result: data({ unreachable: true }, { status: 504 }) };
    dispatchEvent(new Event(NOT_SENT));
  }
  return results;
};
