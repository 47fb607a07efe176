import { z } from 'zod';
import { figure } from '../words/counting';
import { typedNumber } from '../words/typed-number';
import { beginFromGoal } from './begin';
import type { GoalInput } from './goal-input';
import { templateFor } from './other-student';

/** Students who get the same goal in one step. */
export const MOST_IN_GROUP = 60;

/** One goal for several students, each with a target of their own. Ids come from the form: sent twice, each is one goal. */
export const forGroupInput = z.object({
  rows: z
    .array(
      z.object({
        id: z.uuid(),
        studentId: z.uuid(),
        target: z.number({ error: 'Type the target as a number.' }).min(0, { error: 'A target cannot be below 0.' }),
      }),
    )
    .min(1, { error: 'Choose at least one student.' })
    .max(MOST_IN_GROUP, { error: `At most ${MOST_IN_GROUP} students at once.` }),
});
export type ForGroupInput = z.infer<typeof forGroupInput>;

/** What a goal's target is as one types it: of a total how much altogether, else the criterion's figure. */
export const typedTarget = ({ measure, criterion }: Pick<GoalInput, 'measure' | 'criterion'>): number =>
  measure.kind === 'cumulativeTotal' ? measure.total : criterion.value;

/**
 * A goal of one student for another, with a target of their own. The wording names the other student, and says the other target where it
 * said the first one as a number of its own.
 *
 * @param names  the first names of the two
 */
export function goalForAnother(
  blank: GoalInput,
  source: GoalInput,
  { names, target }: { names: { from: string; to: string }; target: number },
): GoalInput {
  const before = typedTarget(source);
  const number = new RegExp(`(?<![\\d.,])${figure(before).replace('.', '\\.')}(?![\\d]|[.,]\\d)`, 'g');
  const named = templateFor(source.wording, names);
  const wording = target === before ? named : named.replace(number, figure(target));
  const goal = beginFromGoal(blank, source, wording);
  return goal.measure.kind === 'cumulativeTotal'
    ? { ...goal, measure: { ...goal.measure, total: target } }
    : { ...goal, criterion: { ...goal.criterion, value: target } };
}

/**
 * Targets that are pasted as a column of a spreadsheet, one a line; what is no number stays out.
 *
 * @example pastedTargets('140\n80,5\n\n–\n120') // ['140', '80.5', '', '', '120']
 */
export const pastedTargets = (text: string): string[] =>
  text
    .replace(/\r\n?/g, '\n')
    .replace(/\n+$/, '')
    .split('\n')
    .map((line) => typedNumber((line.split('\t')[0] ?? '').replace('%', '')))
    .map((number) => (number === null ? '' : String(number)));
