import { mean } from '../../statistics/spread';
import { counted, percent } from '../../words/counting';
import { totalCountAgreement, trialByTrialAgreement, USUAL_AGREEMENT, USUAL_SHARE_OF_SESSIONS } from './agreement';

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

/** Of the things that both looked at, the share of which both say the same. */
export function commonAgreement<T>(
  a: readonly (readonly [string, T])[],
  b: readonly (readonly [string, T])[],
  noun: { one: string; many: string },
): PairAgreement | null {
  const others = new Map(b);
  const both = a.filter(([key]) => others.has(key));
  if (both.length === 0) return null;
  const share = trialByTrialAgreement(
    both.map(([, value]) => value),
    // `both` are the keys that the others have too.
    both.map(([key]) => others.get(key) as T),
  );
  return { share, basis: `${noun.one} by ${noun.one}, ${counted(both.length, noun.one, noun.many)} looked at by both` };
}

export interface AgreementOfGoal {
  pairs: number;
  /** Sessions that are counted, seen by one or by two. */
  sessions: number;
  /** 0 … 1: the mean of the pairs, the lowest and the highest. */
  mean: number;
  lowest: number;
  highest: number;
}

/** What the pairs of a goal come to; null while there is none. */
export function agreementOfGoal(shares: readonly number[], sessions: number): AgreementOfGoal | null {
  if (shares.length === 0) return null;
  const [lowest, highest] = [Math.min(...shares), Math.max(...shares)];
  return { pairs: shares.length, sessions, mean: mean(shares), lowest, highest };
}

/**
 * What the pairs of a goal come to, in a sentence beside what is usual.
 *
 * @example “3 of 12 sessions were seen by two (25%); they agree to 90% in the mean, from 80% to 100%. Usually …”
 */
export function agreementSentence({ pairs, sessions, mean: middle, lowest, highest }: AgreementOfGoal): string {
  const share = (part: number) => percent(100 * part);
  const seen = `${pairs} of ${counted(sessions, 'session was', 'sessions were')} seen by two (${share(Math.min(1, pairs / sessions))})`;
  const range = pairs === 1 ? '' : `, from ${share(lowest)} to ${share(highest)}`;
  const usual = `Usually at least ${share(USUAL_SHARE_OF_SESSIONS)} of the sessions are seen by two, who agree to at least ${share(USUAL_AGREEMENT)} (common practice).`;
  return `${seen}; they agree to ${share(middle)} in the mean${range}. ${usual}`;
}
