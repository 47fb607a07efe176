import type { Cell } from '../measures/cells';
import type { CriterionInput } from '../measures/criterion-definition';
import { type MeasureDefinition, measureOf } from '../measures/measure';

const atMost = /^(?:at most|no more than|not more than|up to|under|below|less than|fewer than|≤|<=|<)\s*/i;
const atLeast = /^(?:at least|no less than|not less than|≥|>=|>)\s*/i;
const value =
  /^(\d+(?:[.,]\d+)?)\s*(?:(\/|of|out of)\s*(\d+)(?:\s*(?:tries|trials|opportunities|times))?)?\s*(%|percent)?/i;
const ofLast = /(\d+)\s*(?:\/|of|out of)\s*(?:the\s*)?(?:last\s*)?(\d+)/i;
const inARow = /(\d+)\s*(?:[a-z]+\s+)?(?:in a row|consecutive)|(\d+)\s+(?:consecutive|successive)/i;

/**
 * A criterion as plans word it: “80%”, “at least 80% in 3 of 4 sessions”, “4/5 trials in 3 consecutive sessions”, “at most 2”. Which way is
 * better, and over how many sessions, is the measure’s usual where it does not say.
 *
 * @example criterionCell('at least 80% in 3 of 4 sessions', beginningOf('trials')) // value 80, rule 3 of the last 4
 */
export function criterionCell(text: string, measure: MeasureDefinition): Cell<CriterionInput> {
  const usual = measureOf(measure).defaultCriterion();
  const less = atMost.exec(text);
  const more = atLeast.exec(text);
  const rest = text.slice((less ?? more)?.[0].length ?? 0);
  const found = value.exec(rest);
  if (!found) return { ok: false, message: 'A criterion such as: at least 80% in 3 of 4 sessions.' };
  const [whole, figure = '', slash, of] = found;
  const number = Number(figure.replace(',', '.'));
  const isShare = measureOf(measure).axis.unit === '%';
  if (slash && !isShare)
    return { ok: false, message: 'How many of how many fits a share only; this is measured otherwise.' };
  if (slash && Number(of) === 0) return { ok: false, message: 'Of none there is no share.' };
  const after = rest.slice(whole.length);
  const row = inARow.exec(after);
  const last = ofLast.exec(after);
  const rule: CriterionInput['rule'] = row
    ? { kind: 'inARow', n: Number(row[1] ?? row[2]) }
    : last
      ? { kind: 'ofLast', k: Number(last[1]), n: Number(last[2]) }
      : usual.rule;
  if (!row && !last && /\d/.test(after)) {
    return {
      ok: false,
      message: 'How often could not be read: write “in 3 of 4 sessions”, or “in 3 sessions in a row”.',
    };
  }
  const comparison = less ? 'atMost' : more ? 'atLeast' : usual.comparison;
  const places = { distinctLocations: 1, distinctObservers: 1, minimumOpportunities: null };
  return { ok: true, value: { comparison, value: slash ? (100 * number) / Number(of) : number, rule, ...places } };
}
