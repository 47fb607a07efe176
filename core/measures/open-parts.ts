import { listed } from '../words/counting';

/** As many are named; of more only how many they are. */
const MOST_NAMED = 4;

/**
 * Parts of a session that are still blank, in a line: named while they are few.
 *
 * @example openNamed(['flour', 'salt']) // 'flour and salt'
 * @example openNamed(['a', 'b', 'c', 'd', 'e', 'f']) // 'a, b, c and 3 more'
 */
export function openNamed(names: readonly string[]): string {
  if (names.length <= MOST_NAMED) return listed([...names]);
  const shown = names.slice(0, MOST_NAMED - 1);
  return listed([...shown, `${names.length - shown.length} more`]);
}
