import { z } from 'zod';
import { counted } from '../../words/counting';

/** Who answers a form: staff about a student, students about themselves, or classmates about one who presents. */
export const formSides = ['staff', 'self', 'classmates'] as const;
export type FormSide = (typeof formSides)[number];

export const questionKinds = ['text', 'choice', 'level', 'number', 'sure', 'photograph'] as const;
export type QuestionKind = (typeof questionKinds)[number];

/** How sure somebody is, least first: our own four words, since a middle one would be taken for “no answer”. */
export const sureWords = ['Not at all sure', 'Not very sure', 'Fairly sure', 'Very sure'] as const;
/** Of these, those that count as unsure. */
const UNSURE = 2;

const optionSchema = z.object({
  words: z.string().trim().min(1).max(80),
  /** Whether an answer with it is pointed out to who looks through the answers. */
  standsOut: z.boolean(),
});
export type Option = z.infer<typeof optionSchema>;

const finite = z.number().finite();

/** One question of a form. */
export const questionSchema = z.object({
  id: z.uuid(),
  kind: z.enum(questionKinds),
  ask: z.string().trim().min(1).max(160),
  hint: z.string().trim().max(160),
  /** Asked for before saving; it can still be left open, when that is said. */
  isRequired: z.boolean(),
  /** Of a choice, in any order; of levels, the lowest first; else none. */
  options: z.array(optionSchema).max(12),
  /** Whether several of the options may be chosen. */
  takesSeveral: z.boolean(),
  /** Of a number: in what it is counted, what it can be, and below which it stands out. */
  unit: z.string().trim().max(20),
  least: finite.nullable(),
  most: finite.nullable(),
  lowBelow: finite.nullable(),
});
export type Question = z.infer<typeof questionSchema>;

export const questionsSchema = z.array(questionSchema);

/** A form as it stood in one of its versions. */
export interface FormVersion {
  title: string;
  hint: string;
  questions: Question[];
}

export const LONGEST_ANSWER = 1000;

/**
 * Answers by the question's id. A text is a text; of a choice the places of what was chosen, of a level or how sure its place, counted from 0; a
 * number is a number. What was left open is not in it.
 */
export const answersSchema = z.record(z.uuid(), z.union([z.string(), z.number(), z.array(z.number())]));
export type Answers = z.infer<typeof answersSchema>;
export type Answer = Answers[string];

/** What a photograph is asked for with is answered by a file beside the entry, and not in the answers. */
const isWritten = ({ kind }: Question) => kind !== 'photograph';

/** Under which name the message of a question goes back to its form. */
export const questionField = (id: string) => `answers.${id}`;

interface Checked {
  answers: Answers;
  /** By the field of the question; none when all can be kept. */
  messages: Record<string, string>;
  /** Required questions that are open, by id. */
  open: string[];
}

/**
 * Holds answers against their questions. What is empty is left out: blank is not an answer. An answer to a question that is not there is
 * refused, so that nothing is kept that nobody can read.
 *
 * @param hasPhotograph  whether a photograph comes along
 * @example checkAnswers([sleep], { [sleep.id]: 9 }, false) // { answers: { … : 9 }, messages: {}, open: [] }
 */
export function checkAnswers(questions: readonly Question[], raw: Answers, hasPhotograph: boolean): Checked {
  const answers: Answers = {};
  const messages: Record<string, string> = {};
  for (const question of questions.filter(isWritten)) {
    const given = raw[question.id];
    if (given === undefined || given === '' || (Array.isArray(given) && given.length === 0)) continue;
    const read = readAnswer(question, given);
    if (typeof read === 'object' && 'message' in read) messages[questionField(question.id)] = read.message;
    else if (read !== '') answers[question.id] = read;
  }
  const known = new Set(questions.map(({ id }) => id));
  if (Object.keys(raw).some((id) => !known.has(id)))
    messages.form = 'This form has changed meanwhile. Look at it once more.';
  const open = questions
    .filter(({ isRequired, id, kind }) => isRequired && (kind === 'photograph' ? !hasPhotograph : !(id in answers)))
    .map(({ id }) => id);
  return { answers, messages, open };
}

function readAnswer(question: Question, given: Answer): Answer | { message: string } {
  switch (question.kind) {
    case 'text':
      return typeof given === 'string' ? readText(given) : notThere;
    case 'choice':
      return Array.isArray(given) ? readChoice(question, given) : notThere;
    case 'level':
      return isPlace(given, question.options.length) ? given : notThere;
    case 'sure':
      return isPlace(given, sureWords.length) ? given : notThere;
    case 'number':
      return typeof given === 'number' ? readNumber(question, given) : { message: 'Type a number.' };
    case 'photograph':
      return notThere;
  }
}

const notThere = { message: 'Choose one of these.' };

const isPlace = (given: unknown, of: number): given is number =>
  typeof given === 'number' && Number.isInteger(given) && given >= 0 && given < of;

function readText(given: string): string | { message: string } {
  const text = given.trim();
  if (text.length <= LONGEST_ANSWER) return text;
  return { message: `Keep it to ${LONGEST_ANSWER.toLocaleString('en-US')} characters.` };
}

function readChoice({ options, takesSeveral }: Question, given: readonly number[]): number[] | { message: string } {
  const chosen = [...new Set(given)].sort((a, b) => a - b);
  if (!chosen.every((place) => isPlace(place, options.length))) return notThere;
  if (!takesSeveral && chosen.length > 1) return { message: 'Choose one only.' };
  return chosen;
}

function readNumber({ least, most }: Question, given: number): number | { message: string } {
  if (!Number.isFinite(given)) return { message: 'Type a number.' };
  if (least !== null && given < least) return { message: `It cannot be less than ${least}.` };
  if (most !== null && given > most) return { message: `It cannot be more than ${most}.` };
  return given;
}

/** “2 questions are still open. Answer, or save and leave them open.” */
export const openWords = (open: number): string =>
  `${counted(open, 'question is', 'questions are')} still open. Answer, or save and leave ${open === 1 ? 'it' : 'them'} open.`;

interface Given {
  leavesOpen: boolean;
  hasPhotograph: boolean;
}

/**
 * The same, as it is said to who answers: required questions that are open are asked about, unless they are to be left open, and nothing at all is no
 * answer.
 *
 * @returns what is kept, or messages by field: under `open` what is asked, under `form` what concerns the whole
 */
export function fittingAnswers(
  questions: readonly Question[],
  raw: Answers,
  { leavesOpen, hasPhotograph }: Given,
): { answers: Answers } | { messages: Record<string, string> } {
  const { answers, messages, open } = checkAnswers(questions, raw, hasPhotograph);
  if (Object.keys(messages).length > 0) return { messages };
  if (open.length > 0 && !leavesOpen) {
    const at = open.map((id) => [questionField(id), 'This one is still open.']);
    return { messages: { ...Object.fromEntries(at), open: openWords(open.length) } };
  }
  if (Object.keys(answers).length === 0 && !hasPhotograph) return { messages: { form: 'Nothing is answered yet.' } };
  return { answers };
}

/** An answer in the form's own words; empty where it was left open. */
export function answerWords(question: Question, answer: Answer | undefined): string {
  if (answer === undefined) return '';
  if (typeof answer === 'string') return answer;
  if (Array.isArray(answer)) return answer.map((place) => question.options[place]?.words ?? '?').join(', ');
  if (question.kind === 'level') return question.options[answer]?.words ?? '?';
  if (question.kind === 'sure') return sureWords[answer] ?? '?';
  return `${answer.toLocaleString('en-US', { maximumFractionDigits: 4 })}${question.unit ? ` ${question.unit}` : ''}`;
}

/** Whether an answer is one that its form asks to point out: low, unsure, or a choice that needs somebody. */
export function standsOut(question: Question, answer: Answer | undefined): boolean {
  if (answer === undefined || typeof answer === 'string') return false;
  if (Array.isArray(answer)) return answer.some((place) => question.options[place]?.standsOut);
  if (question.kind === 'level') return question.options[answer]?.standsOut ?? false;
  if (question.kind === 'sure') return answer < UNSURE;
  return question.lowBelow !== null && answer < question.lowBelow;
}

/**
 * All answers as sentences, each after what was asked; what was left open is not said.
 *
 * @param words  whether what was written in words is said too: not every reader is shown it
 * @example answersSentence(questions, answers) // 'How did it go? Well. What helped? “The timer.”'
 */
export function answersSentence(questions: readonly Question[], answers: Answers, { words = true } = {}): string {
  const said = questions.flatMap((question) => {
    const answer = answerWords(question, answers[question.id]);
    if (answer === '' || (question.kind === 'text' && !words)) return [];
    const asked = /[?:.!]$/.test(question.ask) ? question.ask : `${question.ask}:`;
    return [`${asked} ${question.kind === 'text' ? `“${answer}”` : answer}${/[.!?]$/.test(answer) ? '' : '.'}`];
  });
  return said.join(' ') || 'Nothing was answered.';
}
