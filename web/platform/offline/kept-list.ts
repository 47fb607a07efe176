/** What is recorded on, of each student that one may observe. */
export const OBSERVED_VIEWS = ['observe', 'incidents/new', 'counts/new', 'notes/new'] as const;

/** What the server tells a device to keep. */
export interface KeptList {
  personId: string;
  /** The public key with which what waits is sealed (JSON Web Key, RFC 7517). */
  seal: object;
  /** For how many days at most; 0 for nothing. */
  days: number;
  /** The addresses of the pages that are to be there without network. */
  pages: string[];
  /** Whether Today may be kept as it looks, too: not where a device locks itself, as that is seen before the lock is. */
  mayShowAtOnce: boolean;
}

const ID = '[0-9a-f-]{36}';
const keepable = new RegExp(
  `^/(students|rounds|incidents/new|students/${ID}(/(${OBSERVED_VIEWS.join('|')}))?|rounds/${ID})?$`,
);

/**
 * Whether a page is one that may be kept.
 *
 * @example isKeepable('/students') // true
 * @example isKeepable('/school') // false
 */
export const isKeepable = (path: string): boolean => keepable.test(path);

/**
 * The address of a page, from where its data is fetched.
 *
 * @example pageOf('/students.data') // '/students'
 * @example pageOf('/_root.data') // '/'
 */
export const pageOf = (path: string): string => path.replace(/(^\/_root)?\.data$/, '') || '/';

/**
 * Where the data of a page is fetched.
 *
 * @example dataOf('/') // '/_root.data'
 */
export const dataOf = (page: string): string => (page === '/' ? '/_root.data' : `${page}.data`);

/** On the root of a page that the worker gave as a whole: when that was kept, as in `FromWorker`. */
export const KEPT_AT = 'data-kept-at';

/** What the worker tells a page, before it hands it an answer: whether that is the server’s, or what was kept of an earlier one. */
export interface FromWorker {
  is: 'fresh' | 'kept';
  /** When it was kept, by this device’s clock, in milliseconds since 1970; of a fresh one, now. */
  at: number;
}

/** What a page asks of the worker: to keep what the server lists, or to let its newer version take over. */
export type ToWorker = { is: 'keep' } | { is: 'takeOver' };
