/**
 * A key that a list does not have yet, for something new in it.
 *
 * @example newKey('item', ['item1', 'item3']) // 'item2'
 */
export function newKey(stem: string, taken: readonly string[]): string {
  let n = 1;
  while (taken.includes(`${stem}${n}`)) n++;
  return `${stem}${n}`;
}

/** The lines and cells of a pasted text, without the empty ones. */
export const linesOf = (text: string): string[] =>
  text
    .split(/[\r\n\t]+/)
    .map((line) => line.trim())
    .filter(Boolean);

/** A list with pasted lines from one row on; that row keeps its key, the others get new ones. */
export function withLines(rows: readonly { key: string }[], at: number, lines: readonly string[], stem: string) {
  const keys = rows.map(({ key }) => key);
  const added = lines.map((label, i) => {
    const key = i === 0 ? (rows[at]?.key ?? newKey(stem, keys)) : newKey(stem, keys);
    keys.push(key);
    return { key, label };
  });
  return [...rows.slice(0, at), ...added, ...rows.slice(at + 1)];
}
