import { largest, mean, smallest } from '../../statistics/spread';
import { counted, percent } from '../../words/counting';
import { USUAL_AGREEMENT, USUAL_SHARE_OF_SESSIONS } from './agreement';

export interface CheckedSession {
  phase: string;
  /** The coefficient of this session, of one kind throughout; null where it is not defined. */
  agreement: number | null;
}

export interface PhaseAgreement {
  phase: string;
  /** Sessions watched by two, and all sessions of the phase. */
  checked: number;
  sessions: number;
  share: number;
  mean: number | null;
  low: number | null;
  high: number | null;
  /** Whether a fifth of the sessions or more was watched by two. */
  enoughChecked: boolean;
  /** Whether the mean reaches the usual mark; null without any. */
  agrees: boolean | null;
}

/**
 * Agreement over the sessions of each phase: how many were watched by two, and what they come to.
 *
 * @param checked  the sessions watched by two
 * @param sessions  how many sessions each phase has, in order of the phases
 * @param mark  the usual mark of the coefficient: .80, for κ .60
 * @see common practice: agreement in a fifth of the sessions of each phase, and a mean of 80% or more
 */
export function agreementByPhase(
  checked: readonly CheckedSession[],
  sessions: readonly { phase: string; n: number }[],
  mark: number = USUAL_AGREEMENT,
): PhaseAgreement[] {
  return sessions.map(({ phase, n }) => {
    const own = checked.filter((session) => session.phase === phase);
    const values = own.flatMap(({ agreement }) => agreement ?? []);
    const average = values.length === 0 ? null : mean(values);
    return {
      phase,
      checked: own.length,
      sessions: n,
      share: n === 0 ? 0 : own.length / n,
      mean: average,
      low: values.length === 0 ? null : smallest(values),
      high: values.length === 0 ? null : largest(values),
      enoughChecked: n > 0 && own.length / n >= USUAL_SHARE_OF_SESSIONS - 1e-9,
      agrees: average === null ? null : average >= mark - 1e-9,
    };
  });
}

const share = (part: number) => percent(100 * part);

/**
 * The agreement of a phase in a sentence; what is usual stands once beside all of them.
 *
 * @example “New support: 3 of 12 sessions were seen by two (25%); they agree to 90% in the mean, from 80% to 100%.”
 */
export function phaseAgreementSentence(of: PhaseAgreement): string {
  const { phase, checked, sessions, mean: middle, low, high } = of;
  const seen = `${checked} of ${counted(sessions, 'session was', 'sessions were')} seen by two (${share(of.share)})`;
  const range = low === null || high === null || checked === 1 ? '' : `, from ${share(low)} to ${share(high)}`;
  return `${phase}: ${seen}${middle === null ? '' : `; they agree to ${share(middle)} in the mean${range}`}.`;
}

export const usualAgreement = `Usually at least ${share(USUAL_SHARE_OF_SESSIONS)} of the sessions of each phase are seen by two, who agree to at least ${share(USUAL_AGREEMENT)} (common practice).`;
