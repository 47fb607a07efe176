import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import {
  type Answers,
  answersSentence,
  answerWords,
  checkAnswers,
  fittingAnswers,
  openWords,
  type Question,
  questionField,
  standsOut,
} from './form';
import { formInput, optionsFrom, optionsText, questionFrom, questionToChange } from './form-input';
import { shippedForm, shippedForms } from './shipped';
import { answersToSend, textsIn } from './typed-answers';

const question = (changes: Partial<Question>): Question => ({
  ...{ id: randomUUID(), kind: 'text', ask: 'What helped?', hint: '', isRequired: false, options: [] },
  ...{ takesSeveral: false, unit: '', least: null, most: null, lowBelow: null },
  ...changes,
});
const option = (words: string, out = false) => ({ words, standsOut: out });

const went = question({
  ...{ kind: 'level', ask: 'How did it go?', isRequired: true },
  options: [option('I am stuck', true), option('All right'), option('Well')],
});
const used = question({
  ...{ kind: 'choice', ask: 'What did you use?', takesSeveral: true },
  options: [option('The steps'), option('A picture'), option('Nothing', true)],
});
const sure = question({ kind: 'sure', ask: 'How sure are you?' });
const minutes = question({ kind: 'number', ask: 'How long', unit: 'minutes', least: 0, most: 600, lowBelow: 5 });
const helped = question({});
const picture = question({ kind: 'photograph', ask: 'A picture' });
const all = [went, used, sure, minutes, helped, picture];

const checked = (raw: Answers, hasPhotograph = false) => checkAnswers(all, raw, hasPhotograph);

describe('answers to a form', () => {
  it('are kept as they were given, and what is empty is left out: blank is not the lowest', () => {
    const raw = { [went.id]: 0, [used.id]: [1, 0, 1], [minutes.id]: 12.5, [helped.id]: '  ', [sure.id]: 3 };
    expect(checked(raw)).toEqual({
      answers: { [went.id]: 0, [used.id]: [0, 1], [minutes.id]: 12.5, [sure.id]: 3 },
      ...{ messages: {}, open: [] },
    });
    expect(checked({ [used.id]: [] }).answers).toEqual({});
  });

  it.each([
    ['a level that is not there', went, 3, 'Choose one of these.'],
    ['a level between two', went, 0.5, 'Choose one of these.'],
    ['a text in place of a level', went, 'Well', 'Choose one of these.'],
    ['a choice that is not there', used, [7], 'Choose one of these.'],
    ['surer than very sure', sure, 4, 'Choose one of these.'],
    ['a word for a number', minutes, 'many', 'Type a number.'],
    ['less than there can be', minutes, -3, 'It cannot be less than 0.'],
    ['more than there can be', minutes, 10_000, 'It cannot be more than 600.'],
    ['a text that is too long', helped, 'x'.repeat(1001), 'Keep it to 1,000 characters.'],
  ])('%s gets a sentence at the question', (_, { id }, given, message) => {
    expect(checked({ [id]: given }).messages).toEqual({ [questionField(id)]: message });
  });

  it('only one may be chosen where several are not asked for', () => {
    const one = { ...used, takesSeveral: false };
    const { messages } = checkAnswers([one], { [one.id]: [0, 1] }, false);
    expect(messages[questionField(one.id)]).toBe('Choose one only.');
  });

  it('an answer to no question of this version is not passed over in silence', () => {
    expect(checked({ [randomUUID()]: 'lost?' }).messages.form).toMatch(/changed meanwhile/);
  });

  it('required questions that are open are said, a photograph too', () => {
    const wanted = [went, { ...picture, isRequired: true }];
    expect(checkAnswers(wanted, {}, false).open).toEqual([went.id, picture.id]);
    expect(checkAnswers(wanted, { [went.id]: 0 }, true).open).toEqual([]);
    expect(openWords(1)).toContain('leave it open');
    expect(openWords(2)).toContain('leave them open');
  });

  it('fit where nothing is wrong; what is open is asked about, once, and nothing at all is no answer', () => {
    const given = { leavesOpen: false, hasPhotograph: false };
    expect(fittingAnswers(all, { [went.id]: 1 }, given)).toEqual({ answers: { [went.id]: 1 } });
    expect(fittingAnswers(all, { [sure.id]: 1 }, given)).toEqual({
      messages: { [questionField(went.id)]: 'This one is still open.', open: openWords(1) },
    });
    expect(fittingAnswers(all, { [sure.id]: 1 }, { ...given, leavesOpen: true })).toEqual({
      answers: { [sure.id]: 1 },
    });
    expect(fittingAnswers(all, {}, { ...given, leavesOpen: true })).toEqual({
      messages: { form: 'Nothing is answered yet.' },
    });
    expect(fittingAnswers(all, {}, { leavesOpen: true, hasPhotograph: true })).toEqual({ answers: {} });
    // What is wrong is said before what is open.
    expect(fittingAnswers(all, { [minutes.id]: -3 }, given)).toEqual({
      messages: { [questionField(minutes.id)]: 'It cannot be less than 0.' },
    });
  });

  it('become numbers where numbers were typed; what is none stays as it was typed', () => {
    const typed = { [minutes.id]: '2,5', [helped.id]: '3', [went.id]: 1 };
    expect(answersToSend(all, typed)).toEqual({ [minutes.id]: 2.5, [helped.id]: '3', [went.id]: 1 });
    expect(answersToSend(all, { [minutes.id]: 'many' })).toEqual({ [minutes.id]: 'many' });
    expect(textsIn(all, typed)).toBe('3');
  });

  it('read as sentences, in the form’s own words; texts only where they are shown', () => {
    const answers = { [went.id]: 2, [used.id]: [0, 1], [minutes.id]: 12.5, [helped.id]: 'The timer.' };
    expect(answersSentence(all, answers)).toBe(
      'How did it go? Well. What did you use? The steps, A picture. How long: 12.5 minutes. What helped? “The timer.”',
    );
    expect(answersSentence(all, answers, { words: false })).not.toContain('timer');
    expect(answersSentence(all, {})).toBe('Nothing was answered.');
    expect(answerWords(sure, 0)).toBe('Not at all sure');
    expect(answerWords(went, undefined)).toBe('');
  });

  it('stand out where the form says so, and never by being open', () => {
    expect([standsOut(went, 0), standsOut(went, 1)]).toEqual([true, false]);
    expect([standsOut(used, [0, 2]), standsOut(used, [0])]).toEqual([true, false]);
    expect([standsOut(sure, 1), standsOut(sure, 2)]).toEqual([true, false]);
    expect([standsOut(minutes, 4.9), standsOut(minutes, 5)]).toEqual([true, false]);
    expect(all.map((one) => standsOut(one, undefined))).toEqual(all.map(() => false));
  });
});

describe('a form that is made', () => {
  it('takes options one a line, the marked ones stand out, and gives them back as they were typed', () => {
    const typed = '! I am stuck\n\n  All right \n!\n! Well';
    expect(optionsFrom(typed)).toEqual([option('I am stuck', true), option('All right'), option('Well', true)]);
    expect(optionsText(optionsFrom(typed))).toBe('! I am stuck\nAll right\n! Well');
  });

  it('keeps of a question only what belongs to its kind', () => {
    const input = { ...questionToChange(minutes), kind: 'text' as const, options: 'a\nb', takesSeveral: true };
    expect(questionFrom(input)).toMatchObject({ options: [], unit: '', least: null, takesSeveral: false });
    expect(questionFrom(questionToChange(minutes))).toEqual(minutes);
    expect(questionFrom(questionToChange(went))).toEqual(went);
    expect(questionFrom({ ...questionToChange(minutes), lowBelow: '2,5' }).lowBelow).toBe(2.5);
  });

  const form = (questions: object[]) =>
    formInput.safeParse({ id: randomUUID(), title: 'A form', hint: '', side: 'self', questions });
  const messagesOf = (questions: object[]) => form(questions).error?.issues.map(({ message }) => message) ?? [];

  it.each([
    ['no question', [], 'A form asks at least one question.'],
    ['one level only', [{ ...questionToChange(went), options: 'Well' }], 'Type at least two, one a line.'],
    ['the same twice', [{ ...questionToChange(went), options: 'Well\nwell' }], 'Two of these are the same.'],
    ['the most below the least', [{ ...questionToChange(minutes), most: '-1' }], 'The most is less than the least.'],
    ['letters for a number', [{ ...questionToChange(minutes), least: 'x' }], 'Type a number, or leave it empty.'],
    ['nothing asked', [{ ...questionToChange(helped), ask: ' ' }], 'Type the question.'],
    [
      'two photographs',
      [picture, question({ kind: 'photograph' })].map(questionToChange),
      'Ask for one photograph at most.',
    ],
  ])('%s is refused with a sentence', (_, questions, message) => {
    expect(messagesOf(questions)).toContain(message);
  });

  it('three ship, one for each side, and each of them can be kept as it is', () => {
    expect(shippedForms.map(({ side }) => side)).toEqual(['staff', 'self', 'classmates']);
    for (const { questions } of shippedForms) {
      expect(messagesOf(questions.map((one) => questionToChange({ ...one, id: randomUUID() })))).toEqual([]);
    }
    expect(shippedForm('no-such-form')).toBeUndefined();
  });
});
