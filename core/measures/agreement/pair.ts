import { counted } from '../../words/counting';
import { totalCountAgreement } from './agreement';

export interface PairAgreement {
  /** 0 … 1 */
  share: number;
  /** Which kind of agreement it is, and over how much. */
  basis: string;
}

/** Smaller over larger of what each came to. */
export const totalAgreement = (a: number, b: number, what: string): PairAgreement => ({
  share: totalCountAgreement(a, b),
  basis: `${what}, the smaller over the larger`,
});

/**
 * Of the things that either looked at in one session, the share of which both say the same: what only one of them noted is a disagreement.
 *
 * @returns null where they have nothing in common
 */
export function commonAgreement<T>(
  a: readonly (readonly [string, T])[],
  b: readonly (readonly [string, T])[],
  noun: { one: string; many: string },
): PairAgreement | null {
  const others = new Map(b);
  const both = a.filter(([key]) => others.has(key));
  if (both.length === 0) return null;
  const same = both.filter(([key, value]) => others.get(key) === value).length;
  const either = a.length + b.length - both.length;
  return { share: same / either, basis: `${noun.one} by ${noun.one}, ${counted(either, noun.one, noun.many)} noted` };
}
