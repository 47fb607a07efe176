import type { Outcome } from '~/core/entries/observation';
import type { MeasureDefinition } from '~/core/measures/measure';
import type { Support } from '~/core/measures/support-levels';

/** The tones of the support ramp. Goals with more levels share neighbouring ones: the word always stands beside. */
const TONES = 5;

/** The look of one trial's outcome: a class of the support ramp, or of what is no success at any level. */
export function toneOf({ levels }: Pick<Support, 'levels'>, outcome: string): string {
  const at = levels.findIndex((level) => level.key === outcome);
  if (at === -1) return `outcome-${outcome}`;
  return `support-${levels.length <= TONES ? at : Math.round((at * (TONES - 1)) / (levels.length - 1))}`;
}

/** An entry's trials as tones, in their order; none for an entry without a score, or where no order was noted. */
export function tonesOf(measure: MeasureDefinition, outcome: Outcome): string[] {
  if (measure.kind !== 'trials' || outcome.data === null || !('trials' in outcome.data)) return [];
  return outcome.data.trials.map((trial) => toneOf(measure, trial));
}
