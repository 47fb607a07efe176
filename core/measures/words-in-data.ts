import { figure } from '../words/counting';
import type { CumulativeTotalData } from './cumulative-total/cumulative-total';
import type { RubricData } from './rubric/rubric';

type Outcome = { data: object | null };

const remarksIn = (data: object | null) => (data && 'remarks' in data ? ((data as RubricData).remarks ?? []) : []);
const amountsIn = (data: object | null) => (data && 'amounts' in data ? (data as CumulativeTotalData).amounts : []);

/**
 * The note of an entry with what was written within its data, a line each: what raters said besides their points, what an amount was
 * for. It is shown to whom notes are shown.
 *
 * @param data  of an entry of any kind of measure
 */
export function noteWithDataWords(note: string, data: object | null): string {
  const remarks = remarksIn(data).map(({ rater, text }) => `${rater}: ${text}`);
  const titles = amountsIn(data).flatMap(({ title, amount }) => (title ? [`${title}: ${figure(amount)}`] : []));
  return [note, ...remarks, ...titles].filter(Boolean).join('\n');
}

/** An outcome without what was written within its data: that stands in the note, and is shown with it or not at all. */
export function withoutDataWords<Said extends Outcome>(outcome: Said): Said {
  const { data } = outcome;
  if (data && 'remarks' in data) {
    const { remarks: _, ...rest } = data;
    return { ...outcome, data: rest };
  }
  if (data && 'amounts' in data)
    return { ...outcome, data: { ...data, amounts: amountsIn(data).map(({ title: _, ...amount }) => amount) } };
  return outcome;
}
