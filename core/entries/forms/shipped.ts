import type { FormSide, FormVersion, Option, Question } from './form';

/** A question without its id: one is given when a form is made of it. */
type Begun = Omit<Question, 'id'>;

/** A form that ships, to be copied and changed. */
export interface ShippedForm extends Omit<FormVersion, 'questions'> {
  key: string;
  side: FormSide;
  about: string;
  questions: Begun[];
}

const blank: Begun = {
  ...{ kind: 'text', ask: '', hint: '', isRequired: false, options: [], takesSeveral: false },
  ...{ unit: '', least: null, most: null, lowBelow: null },
};

const options = (words: readonly string[], standOut: readonly string[] = []): Option[] =>
  words.map((one) => ({ words: one, standsOut: standOut.includes(one) }));

/** Three forms of our own, one for each side. Their questions are common practice; their words are ours. */
export const shippedForms: readonly ShippedForm[] = [
  {
    ...{ key: 'skill-seen', side: 'staff', title: 'A skill I saw', hint: 'For what belongs to no goal.' },
    about: 'What somebody noticed, how much help it took, and a sentence. With a picture, where one says more.',
    questions: [
      { ...blank, ask: 'What did they do?', isRequired: true },
      {
        ...{ ...blank, kind: 'level', ask: 'How much help did it take?' },
        options: options(['With a lot of help', 'With some help', 'With a reminder', 'Alone'], ['With a lot of help']),
      },
      { ...blank, ask: 'What helped?' },
      { ...blank, kind: 'photograph', ask: 'A picture of it' },
    ],
  },
  {
    ...{ key: 'how-it-went', side: 'self', title: 'How it went today', hint: 'There is no wrong answer.' },
    about: 'Students look back on a lesson: how it went, what they used, how sure they are, what is next.',
    questions: [
      {
        ...{ ...blank, kind: 'level', ask: 'How did it go?', isRequired: true },
        options: options(['I am stuck', 'Hard going', 'It went all right', 'It went well'], ['I am stuck']),
      },
      {
        ...{ ...blank, kind: 'choice', ask: 'What did you use?', takesSeveral: true },
        options: options(['The steps', 'A picture', 'A classmate', 'A teacher', 'Nothing']),
      },
      { ...blank, kind: 'sure', ask: 'How sure are you that you can do it alone next time?' },
      { ...blank, ask: 'What will you do next?' },
    ],
  },
  {
    ...{ key: 'after-presenting', side: 'classmates', title: 'After a presentation', hint: 'Say it so that it helps.' },
    about: 'Classmates answer for each one who presents: what was clear, what was good, and a tip.',
    questions: [
      {
        ...{ ...blank, kind: 'level', ask: 'How clear was it?', isRequired: true },
        options: options(['I could not follow', 'Partly clear', 'Clear', 'Very clear']),
      },
      { ...blank, ask: 'What was good?', isRequired: true },
      { ...blank, ask: 'A tip for next time' },
    ],
  },
];

/** The form that ships under this key. */
export const shippedForm = (key: string): ShippedForm | undefined => shippedForms.find((form) => form.key === key);
