/**
 * A path of this site, or null for anything that would lead elsewhere.
 *
 * @example localPath('/students?x=1') // '/students?x=1'
 * @example localPath('//elsewhere.example') // null
 * @example localPath('/.//elsewhere.example') // null
 */
export function localPath(text: string | null | undefined): string | null {
  if (!text?.startsWith('/')) return null;
  const here = 'http://here.invalid';
  const url = URL.canParse(text, here) ? new URL(text, here) : null;
  // What is asked is where it ends up, not how it is written: `/.//elsewhere.example` resolves to `//elsewhere.example`.
  const path = url?.origin === here ? url.pathname + url.search : null;
  return path && !path.startsWith('//') ? path : null;
}
