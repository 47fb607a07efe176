import {
  exactCountPerIntervalAgreement,
  intervalByIntervalAgreement,
  meanCountPerIntervalAgreement,
  meanDurationPerOccurrenceAgreement,
  scoredIntervalAgreement,
  totalCountAgreement,
  totalDurationAgreement,
  trialByTrialAgreement,
  USUAL_AGREEMENT,
  USUAL_KAPPA,
  unscoredIntervalAgreement,
} from '../measures/agreement/agreement';
import { cohensKappa } from '../measures/agreement/kappa';
import { sum } from '../statistics/spread';

/** What two observers noted: counts by interval, yes or no by interval, lengths by occurrence, or any categories. */
export type AgreementRows =
  | { kind: 'total' | 'duration'; a: number[]; b: number[] }
  | { kind: 'interval'; a: boolean[]; b: boolean[] }
  | { kind: 'trial' | 'kappa'; a: string[]; b: string[] };

export const agreementKinds = ['total', 'interval', 'trial', 'duration', 'kappa'] as const;

/**
 * The agreement of two observers: the coefficient asked for as `agreement`, with those of its family beside it.
 *
 * @param rows  as many of one observer as of the other, at least one
 */
export function analyseAgreement(rows: AgreementRows) {
  const about = { kind: rows.kind, n: rows.a.length };
  const against = (agreement: number | null, usualMark: number) => ({
    agreement,
    usualMark,
    reachesMark: agreement === null ? null : agreement >= usualMark - 1e-9,
  });
  switch (rows.kind) {
    case 'total': {
      const totalCount = totalCountAgreement(sum(rows.a), sum(rows.b));
      return {
        ...about,
        ...against(totalCount, USUAL_AGREEMENT),
        totalCount,
        meanCountPerInterval: meanCountPerIntervalAgreement(rows.a, rows.b),
        exactCountPerInterval: exactCountPerIntervalAgreement(rows.a, rows.b),
      };
    }
    case 'duration': {
      const totalDuration = totalDurationAgreement(rows.a, rows.b);
      return {
        ...about,
        ...against(totalDuration, USUAL_AGREEMENT),
        totalDuration,
        meanDurationPerOccurrence: meanDurationPerOccurrenceAgreement(rows.a, rows.b),
      };
    }
    case 'interval': {
      const intervalByInterval = intervalByIntervalAgreement(rows.a, rows.b);
      return {
        ...about,
        ...against(intervalByInterval, USUAL_AGREEMENT),
        intervalByInterval,
        scoredInterval: scoredIntervalAgreement(rows.a, rows.b),
        unscoredInterval: unscoredIntervalAgreement(rows.a, rows.b),
      };
    }
    case 'trial': {
      const trialByTrial = trialByTrialAgreement(rows.a, rows.b);
      return { ...about, ...against(trialByTrial, USUAL_AGREEMENT), trialByTrial };
    }
    case 'kappa': {
      const { kappa, observed, expected } = cohensKappa(rows.a, rows.b);
      return { ...about, ...against(kappa, USUAL_KAPPA), kappa, observed, expected };
    }
  }
}
