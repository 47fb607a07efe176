import { percent } from '../words/counting';
import { type Cell, numberCell } from './cells';

/** What there is to know of a cell that holds a whole session. */
export interface OneCell {
  /** Of how many, where a column of its own says it; blank else. */
  outOf: string;
  /** Where several levels of help count as a success: the one under which a bare number of successes is written down. */
  help: 'least' | 'most';
  /** Whether shares are written as 0.6, and not as 60. */
  areFractions: boolean;
}

const wrong = (message: string): Cell<never> => ({ ok: false, message });

/** Figures are rounded when they are written down: a share may be so far from the count that it comes from, in percent. */
const ROUNDED = 0.51;

/**
 * How many of how many went right, as people write it in one cell: “3/5”, “3 of 5”, “60%”, “0.6”.
 *
 * @param planned  of how many a session of the goal is, where neither the cell nor a column beside it says so
 * @returns a share only where it comes to a whole number of them: what was counted is not made up
 * @example shareCell('3/5', { outOf: '', help: 'most', areFractions: false }, null) // { amount: 3, of: 5 }
 * @example shareCell('60%', { outOf: '', help: 'most', areFractions: false }, 10) // { amount: 6, of: 10 }
 */
export function shareCell(text: string, { outOf, areFractions }: OneCell, planned: number | null) {
  const counted = /^(\d+)\s*(?:\/|of|out of)\s*(\d+)$/i.exec(text);
  if (counted) return countOf(Number(counted[1]), Number(counted[2]));
  const of = outOf === '' ? { ok: true as const, value: planned } : numberCell(outOf);
  if (!of.ok) return wrong(`Of how many: ${of.message}`);
  const isPercent = /%$/.test(text);
  const number = numberCell(text.replace(/\s*%$/, ''));
  if (!number.ok || number.value === null) return wrong('How many of how many, such as 3/5, or a percentage.');
  // Beside a column that says of how many, a bare number is a count.
  if (outOf !== '' && of.value !== null && !isPercent && !areFractions) return countOf(number.value, of.value);
  const share = areFractions && !isPercent ? 100 * number.value : number.value;
  if (share < 0 || share > 100) return wrong(`${percent(share)} is no share: it lies outside of 0 to 100%.`);
  if (of.value === null) {
    return wrong(`${percent(share)} of how many? Write 3/5, or add a column that says of how many.`);
  }
  const amount = Math.round((share * of.value) / 100);
  if (Math.abs((100 * amount) / of.value - share) > ROUNDED) {
    return wrong(`${percent(share)} of ${of.value} is not a whole number. Write how many of how many, such as 3/5.`);
  }
  return countOf(amount, of.value);
}

function countOf(amount: number, of: number): Cell<{ amount: number; of: number }> {
  if (!Number.isInteger(amount) || !Number.isInteger(of)) return wrong('Whole numbers, such as 3/5.');
  if (amount > of) return wrong(`${amount} of ${of} is more than there were.`);
  if (of === 0) return wrong('Of none there is no score: leave it blank, or say why there is none.');
  return { ok: true, value: { amount, of } };
}

/**
 * Signs of one cell, in the order of the things that they are of: “+ + − +”.
 *
 * @returns by the thing’s key
 */
export function signsCell(
  text: string,
  things: readonly { key: string }[],
  noun: string,
): Cell<Record<string, string>> {
  const signs = [...text.replace(/[\s,;|]/g, '')];
  if (things.length > 1 && signs.some((sign) => !'+-−✓xX01'.includes(sign))) {
    return wrong(`A column for each ${noun}, or a sign for each in their order: + and −. A total does not say which.`);
  }
  const only = things[0];
  if (things.length === 1 && only) return { ok: true, value: { [only.key]: text } };
  if (signs.length !== things.length) {
    return wrong(`A sign for each ${noun}: there are ${things.length}, and ${signs.length} here.`);
  }
  return { ok: true, value: Object.fromEntries(things.map(({ key }, i) => [key, signs[i] ?? ''])) };
}
