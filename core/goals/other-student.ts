const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** How often a name stands in a wording, as a word of its own. */
export function timesNamed(wording: string, name: string): number {
  return name === '' ? 0 : [...wording.matchAll(wordOf(name))].length;
}

/**
 * A goal's wording for another student. Only whole words are replaced: “Ann” stays in “Anniversary”; a possessive keeps its
 * ending. What it finds is shown before it is used.
 *
 * @example wordingFor('Ansel will sand. Ansel’s edges …', { from: 'Ansel', to: 'Nell' }) // 'Nell will sand. Nell’s edges …'
 */
export function templateFor(wording: string, { from, to }: { from: string; to: string }): string {
  return from === '' ? wording : wording.replace(wordOf(from), () => to);
}

const wordOf = (name: string) => new RegExp(`(?<![\\p{L}\\p{N}])${escaped(name)}(?![\\p{L}\\p{N}])`, 'gu');
