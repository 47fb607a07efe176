import { type Cookie, createCookie } from 'react-router';
import { z } from 'zod';
import { config } from '~/server/platform/config';

const isSecure = config.PUBLIC_URL.startsWith('https:');
const base = { path: '/', sameSite: 'lax', httpOnly: true, secure: isSecure } as const;
/** Where https allows, a cookie that opens something can be set by this host alone, and for all of it. */
const host = isSecure ? '__Host-' : '';

/** Carries a session's token. It has no end of its own: the session in the database has. */
export const sessionCookie = createCookie(`${host}gm-session`, base);

/** Carries a sign-in whose password was right, until its code is. */
export const halfCookie = createCookie(`${host}gm-half`, { ...base, maxAge: 600 });

/** Carries what was asked of the district's own sign-in, until it answers. */
export const districtCookie = createCookie(`${host}gm-district`, { ...base, maxAge: 900 });

/** Tells a device that was opened for several adults: each begins there with their name and PIN. */
export const openedCookie = createCookie(`${host}gm-opened`, { ...base, maxAge: 180 * 24 * 3600 });

/** Carries the session of a student's desk: their own, and nobody's account. */
export const deskCookie = createCookie(`${host}gm-desk`, base);

/** Tells a shared tablet that a teacher has opened for the students of a lesson. */
export const turnCookie = createCookie(`${host}gm-turn`, base);

/** Carries the seat of one of a class who answers for presenters, without a desk. */
export const seatCookie = createCookie(`${host}gm-seat`, base);

/** Tells a browser in which somebody has signed in before. */
export const deviceCookie = createCookie(`${host}gm-device`, { ...base, maxAge: 180 * 24 * 3600 });

/** What one device prefers: the theme, whether names are hidden, whether single keys do something. */
export const preferencesCookie = createCookie('gm-preferences', { ...base, maxAge: 400 * 24 * 3600 });

const preferences = z.object({
  theme: z.enum(['system', 'light', 'dark']).catch('system'),
  discreet: z.boolean().catch(false),
  /** Whether single keys do something (WCAG 2.1.4). */
  shortcuts: z.boolean().catch(true),
  /** Whether this device keeps pages for when there is no network. */
  keepsPages: z.boolean().catch(true),
});
export type Preferences = z.infer<typeof preferences>;

/** What a cookie holds, as its schema has it; null where there is none, or another. */
export async function readCookie<T>(request: Request, cookie: Cookie, schema: z.ZodType<T>): Promise<T | null> {
  const parsed = schema.safeParse(await cookie.parse(request.headers.get('Cookie')));
  return parsed.success ? parsed.data : null;
}

/** The device's preferences; what cannot be read counts as not chosen. */
export const preferencesOf = async (request: Request): Promise<Preferences> =>
  (await readCookie(request, preferencesCookie, preferences)) ?? preferences.parse({});

/** One sentence that the next page says once. */
export const toast = z.object({
  text: z.string(),
  link: z.object({ to: z.string(), label: z.string() }).optional(),
  /** What was saved just now and can be taken back with one tap: which, and where that is said. */
  undo: z.object({ at: z.string(), ids: z.array(z.string()) }).optional(),
});
export type Toast = z.infer<typeof toast>;

export const toastCookie = createCookie('gm-toast', { ...base, maxAge: 30 });

/** More than these are taken back one by one: a cookie holds no long list. */
const MOST_UNDONE = 20;

/** What was saved just now, as it can be taken back with one tap. */
export const undoOf = (studentId: string, ids: readonly string[]): Pick<Toast, 'undo'> =>
  ids.length > MOST_UNDONE ? {} : { undo: { at: `/students/${studentId}/undo`, ids: [...ids] } };

/** The header that makes the next page say a sentence. */
export async function sayNext(said: Toast): Promise<Headers> {
  return new Headers({ 'Set-Cookie': await toastCookie.serialize(said) });
}

/** Texts by name, as the two below hold them. */
export const texts = z.record(z.string(), z.string());

/** How this device’s reader wants reports laid out. */
export const arrangementCookie = createCookie('gm-report', { ...base, maxAge: 400 * 24 * 3600 });

const ARRANGEMENT = ['as', 'by', 'order'];

/** The header that makes a device remember an arrangement that the address has just asked for. */
export async function rememberArrangement(
  search: URLSearchParams,
  before: Record<string, string> | null,
): Promise<Headers> {
  const chosen = ARRANGEMENT.flatMap((name) => (search.has(name) ? [[name, search.get(name) ?? '']] : []));
  if (chosen.length === 0) return new Headers();
  return new Headers({ 'Set-Cookie': await arrangementCookie.serialize({ ...before, ...Object.fromEntries(chosen) }) });
}

/** The share links whose passcode was given in this browser, by their id. */
export const passCookie = createCookie('gm-pass', { ...base, path: '/shared', maxAge: 12 * 3600 });
