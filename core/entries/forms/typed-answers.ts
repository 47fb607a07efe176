import { typedNumber } from '../../words/typed-number';
import type { Answers, Question } from './form';

/** Answers as they are sent: a number that was typed becomes one; what is none stays as it was typed, and is said so at its question. */
export function answersToSend(questions: readonly Question[], answers: Answers): Answers {
  const numbers = new Set(questions.flatMap(({ id, kind }) => (kind === 'number' ? [id] : [])));
  return Object.fromEntries(
    Object.entries(answers).map(([id, answer]) => {
      if (!numbers.has(id) || typeof answer !== 'string') return [id, answer];
      return [id, typedNumber(answer) ?? answer];
    }),
  );
}

/** All that was answered in words, in which somebody could be named. */
export const textsIn = (questions: readonly Question[], answers: Answers): string =>
  questions
    .flatMap(({ id, kind }) => (kind === 'text' && typeof answers[id] === 'string' ? [answers[id]] : []))
    .join('\n');
