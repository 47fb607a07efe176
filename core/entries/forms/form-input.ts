import { z } from 'zod';
import { typedNumber } from '../../words/typed-number';
import { formSides, type Question, questionKinds } from './form';

/** Questions of one form: more is a test. */
const MOST_QUESTIONS = 20;
const MOST_OPTIONS = 12;

const line = (what: string, longest: number) =>
  z
    .string({ error: what })
    .trim()
    .min(1, { error: what })
    .max(longest, { error: `Keep it to ${longest} characters.` });

const short = (longest: number) =>
  z
    .string()
    .trim()
    .max(longest, { error: `Keep it to ${longest} characters.` })
    .default('');

/** A number as it is typed, with a point or a comma; empty for none. */
const typed = z
  .string()
  .trim()
  .default('')
  .refine((text) => text === '' || typedNumber(text) !== null, { error: 'Type a number, or leave it empty.' });

/**
 * Options as they are typed, one a line; one that stands out has a “!” before it.
 *
 * @example optionsFrom('! Not yet\nWith help\nAlone') // three, the first stands out
 */
export const optionsFrom = (text: string) =>
  text
    .split('\n')
    .map((one) => one.trim())
    .filter((one) => one.replace(/^!\s*/, '') !== '')
    .map((one) => ({ words: one.replace(/^!\s*/, ''), standsOut: one.startsWith('!') }));

/** The same, as they stand in the form to be changed. */
export const optionsText = (options: Question['options']) =>
  options.map(({ words, standsOut }) => (standsOut ? `! ${words}` : words)).join('\n');

const questionInput = z
  .object({
    id: z.uuid(),
    kind: z.enum(questionKinds),
    ask: line('Type the question.', 160),
    hint: short(160),
    isRequired: z.boolean().default(false),
    takesSeveral: z.boolean().default(false),
    options: z.string().max(2000, { error: 'Keep it to 2,000 characters.' }).default(''),
    unit: short(20),
    least: typed,
    most: typed,
    lowBelow: typed,
  })
  .superRefine(({ kind, options: lines, least, most }, context) => {
    const refuse = (path: string, message: string) =>
      context.addIssue({ code: 'custom', path: [path], message, input: null });
    if (kind === 'choice' || kind === 'level') {
      const options = optionsFrom(lines);
      if (options.length < 2) refuse('options', 'Type at least two, one a line.');
      if (options.length > MOST_OPTIONS) refuse('options', `At most ${MOST_OPTIONS}.`);
      if (options.some(({ words }) => words.length > 80)) refuse('options', 'Keep each to 80 characters.');
      const said = options.map(({ words }) => words.toLowerCase());
      if (new Set(said).size < said.length) refuse('options', 'Two of these are the same.');
    }
    const [from, to] = [typedNumber(least), typedNumber(most)];
    if (kind === 'number' && from !== null && to !== null && from > to) {
      refuse('most', 'The most is less than the least.');
    }
  });
export type QuestionInput = z.infer<typeof questionInput>;

/** A question as it is kept: what does not belong to its kind is let go. */
export function questionFrom(input: QuestionInput): Question {
  const { kind, id, ask, hint, isRequired } = input;
  const isNumber = kind === 'number';
  return {
    ...{ id, kind, ask, hint, isRequired },
    options: kind === 'choice' || kind === 'level' ? optionsFrom(input.options) : [],
    takesSeveral: kind === 'choice' && input.takesSeveral,
    unit: isNumber ? input.unit : '',
    least: isNumber ? typedNumber(input.least) : null,
    most: isNumber ? typedNumber(input.most) : null,
    lowBelow: isNumber ? typedNumber(input.lowBelow) : null,
  };
}

const written = (number: number | null) => (number === null ? '' : String(number));

/** A question as it stands in the form in which it is changed. */
export const questionToChange = (question: Question): QuestionInput => ({
  ...question,
  options: optionsText(question.options),
  least: written(question.least),
  most: written(question.most),
  lowBelow: written(question.lowBelow),
});

/** A form that is made or changed, and who has it at their desk. */
export const formInput = z.object({
  id: z.uuid(),
  title: line('Say what the form is called.', 80),
  hint: short(200),
  side: z.enum(formSides),
  questions: z
    .array(questionInput)
    .min(1, { error: 'A form asks at least one question.' })
    .max(MOST_QUESTIONS, { error: `At most ${MOST_QUESTIONS} questions.` })
    .refine((list) => list.filter(({ kind }) => kind === 'photograph').length <= 1, {
      error: 'Ask for one photograph at most.',
    }),
  studentIds: z.array(z.uuid()).max(200, { error: 'At most 200 students at once.' }).default([]),
});
export type FormInput = z.infer<typeof formInput>;
