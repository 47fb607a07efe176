/**
 * A number as people type it: “12”, “1,5”, “1.5”, “-3”.
 *
 * @returns null where it is none, also where it has more figures than anybody counts
 * @example typedNumber('1,5') // 1.5
 */
export function typedNumber(text: string): number | null {
  const tidy = text.trim().replace(',', '.');
  return /^-?\d{1,9}(\.\d{1,3})?$/.test(tidy) ? Number(tidy) : null;
}
