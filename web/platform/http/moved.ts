import type { RequestHandler } from 'express';

const student = '(/students/[^/]+)';
const end = '(?=$|/|\\.data$)';

/** Where pages stood before, and where they stand: links in messages that have left, and bookmarks, still lead there. */
const moves: [RegExp, string][] = (
  [
    [`/read${end}`, '/shared'],
    [`/post/wordings${end}`, '/messages/templates'],
    [`/post/carrier${end}`, '/messages/test-mail'],
    [`/post${end}`, '/messages'],
    [`/school/readers${end}`, '/school/visibility'],
    [`${student}/report${end}`, '$1/individual-report'],
    [`${student}/progress${end}`, '$1/progress-report'],
    [`${student}/readers/rules${end}`, '$1/sharing/visibility'],
    [`${student}/readers${end}`, '$1/sharing'],
    [`${student}/ways-in${end}`, '$1/sharing/links'],
    [`${student}/readings(\\.csv)?${end}`, '$1/sharing/access-log$2'],
    [`${student}/write${end}`, '$1/messages/new'],
    [`${student}/note${end}`, '$1/incidents/new'],
    [`${student}/tally${end}`, '$1/counts/new'],
    [`${student}/tallies${end}`, '$1/counts'],
    [`${student}/caught${end}`, '$1/behavior-entries'],
  ] as const
).map(([from, to]) => [new RegExp(`^${from}`), to]);

/**
 * Where a page stands that had another address before; null for one that has none.
 *
 * @example movedTo('/students/1/ways-in?new=1') // '/students/1/sharing/links?new=1'
 */
export function movedTo(url: string): string | null {
  const [path = '', search] = url.split('?', 2);
  const move = moves.find(([from]) => from.test(path));
  if (!move) return null;
  const to = path.replace(move[0], move[1]);
  return search === undefined ? to : `${to}?${search}`;
}

/** Sends whoever asks at an old address on to the present one, with what they brought. */
export const moved: RequestHandler = (request, response, next) => {
  const to = movedTo(request.url);
  if (to === null) next();
  // Some of them hold a key.
  else response.set({ 'Cache-Control': 'no-store', 'Referrer-Policy': 'no-referrer' }).redirect(308, to);
};
