import type { IsoDate } from '../calendar/iso-date';
import { type Answer, type Answers, answerWords, type Question, standsOut, sureWords } from '../entries/forms/form';

/** What somebody answered, with the questions as they stood then. */
export interface AnsweredForm {
  id: string;
  studentId: string;
  on: IsoDate;
  time: string;
  by: string;
  questions: readonly Question[];
  answers: Answers;
}

export interface AnswerCell {
  /** In the form's own words; empty where it was left open. */
  words: string;
  /** Whether it was asked at all: a question may be younger than the answer. */
  wasAsked: boolean;
  standsOut: boolean;
  /** Of a number the number; of a level, or how sure, its place from 1, the lowest first; else null. */
  value: number | null;
}

export interface AnswerRow {
  studentId: string;
  /** Null for a student of whom there is no answer: that is not the lowest one. */
  answered: (Pick<AnsweredForm, 'id' | 'on' | 'time' | 'by'> & { cells: AnswerCell[] }) | null;
  /** How many answers there are of this student. */
  times: number;
  standsOut: boolean;
}

/** Whether a question has a column: a photograph stands beside its note. */
export const hasColumn = ({ kind }: Question) => kind !== 'photograph';

/** Whether its answers are places on a ladder of words: then the place is a number too. */
export const isLadder = ({ kind }: Question) => kind === 'level' || kind === 'sure';

/** How many places the ladder of a question has. */
export const placesOf = ({ kind, options }: Question) => (kind === 'sure' ? sureWords.length : options.length);

function numberOf({ kind }: Question, answer: Answer | undefined): number | null {
  if (typeof answer !== 'number') return null;
  return kind === 'level' || kind === 'sure' ? answer + 1 : answer;
}

/**
 * The answers of a class by one form as a table: a row for each student with the newest answer, or one for each answer. A question
 * keeps its column when the form is changed; what was not asked then is blank.
 *
 * @param studentIds  in the order of the rows
 * @param notes  newest first
 */
export function answerRows(
  studentIds: readonly string[],
  notes: readonly AnsweredForm[],
  questions: readonly Question[],
  { all = false } = {},
): AnswerRow[] {
  return studentIds.flatMap((studentId): AnswerRow[] => {
    const own = notes.filter((note) => note.studentId === studentId);
    if (own.length === 0) return [{ studentId, answered: null, times: 0, standsOut: false }];
    return (all ? own : own.slice(0, 1)).map((note) => {
      const cells = questions.filter(hasColumn).map((question) => cellOf(note, question.id));
      const { id, on, time, by } = note;
      const answered = { id, on, time, by, cells };
      return { studentId, answered, times: own.length, standsOut: cells.some((cell) => cell.standsOut) };
    });
  });
}

function cellOf({ questions, answers }: AnsweredForm, id: string): AnswerCell {
  const question = questions.find((one) => one.id === id);
  if (!question) return { words: '', wasAsked: false, standsOut: false, value: null };
  const answer = answers[id];
  return {
    ...{ words: answerWords(question, answer), wasAsked: true },
    ...{ standsOut: standsOut(question, answer), value: numberOf(question, answer) },
  };
}

export interface QuestionCount {
  questionId: string;
  ask: string;
  /** How often each of its words was answered, in their order. */
  counts: { words: string; n: number; standsOut: boolean }[];
  answered: number;
}

/** Of each question that is answered by choosing, how many of the rows answered what; a row that left it open is in none of them. */
export function answerCounts(
  notes: readonly Pick<AnsweredForm, 'answers' | 'questions'>[],
  questions: readonly Question[],
): QuestionCount[] {
  const chosen = questions.filter(({ kind }) => kind === 'choice' || kind === 'level' || kind === 'sure');
  return chosen.map((question) => {
    const words = question.kind === 'sure' ? [...sureWords] : question.options.map((option) => option.words);
    const said = notes.map((note) => {
      const then = note.questions.find(({ id }) => id === question.id);
      const answer = note.answers[question.id];
      if (!then || answer === undefined) return [];
      // By its words, since a changed form may have put them in another order.
      return Array.isArray(answer)
        ? answer.map((place) => then.options[place]?.words ?? '')
        : [answerWords(then, answer)];
    });
    const outs = words.map((_, place) => standsOut(question, question.kind === 'choice' ? [place] : place));
    return {
      questionId: question.id,
      ask: question.ask,
      counts: words.map((one, place) => ({
        words: one,
        n: said.filter((list) => list.includes(one)).length,
        standsOut: outs[place] ?? false,
      })),
      answered: said.filter((list) => list.length > 0).length,
    };
  });
}
