// What the screens of forms say, together: to be read in one go, and one day translated.
import type { FormSide, QuestionKind } from '~/core/entries/forms/form';
import { counted } from '~/core/words/counting';

/** Who answers a form. */
export const sideWords: Record<FormSide, string> = {
  staff: 'Staff, about a student',
  self: 'Students, about themselves',
  classmates: 'Classmates, about who presents',
};

/** How a question is answered. */
export const questionKindWords: Record<QuestionKind, string> = {
  text: 'In words',
  choice: 'By choosing',
  level: 'By a level in words',
  number: 'With a number',
  sure: 'How sure they are',
  photograph: 'With a photograph',
};

/** `forms.tsx` */
export const formsWords = {
  pageTitle: 'Forms · Gentle Margin',
  forms: 'Forms',
  newForm: 'New form',
  none: 'No form yet. Begin from one below, or make your own.',
  toBeginFrom: 'To begin from',
  begin: 'Begin from it',
  about: 'Forms',
  aboutAnswers:
    'A form is made once and answered as often as you like. Each answer is an entry in that student’s report, under what each reader sees.',
  aboutSides:
    'Staff answer about any student, no goal needed. Students answer at their desk. Classmates answer for one who presents.',
  aboutChanges: 'When you change a form, what was answered before stays with the questions that were asked then.',
  atDesks: (n: number) => (n === 0 ? 'on no desk yet' : `on ${counted(n, 'desk', 'desks')}`),
  by: (name: string) => `by ${name}`,
  change: 'Change',
  copy: 'Copy',
  close: 'Put away',
  takeOut: 'Take out again',
  closed: 'Put away. Nobody is asked it any more; its answers stay.',
  openAgain: 'Taken out again.',
  putAway: (n: number) => `Put away (${n})`,
};

/** `edit-form.tsx` */
export const editFormWords = {
  pageTitle: 'A form · Gentle Margin',
  forms: 'Forms',
  newForm: 'New form',
  about: 'Making a form',
  kinds: 'Five questions are plenty for a student, three for a classmate. A level in words says more than a number.',
  outs: 'Put ! before a level or a choice that should stand out for you, such as “! I am stuck”. Students do not see the mark.',
  versions: 'Words and questions can be changed at any time. Answers stay with what was asked.',
  kept: 'Kept.',
};

/** `form-form.tsx` */
export const formFormWords = {
  title: 'What it is called',
  titleExample: 'How the baking went',
  side: 'Who answers it',
  hint: 'A line above the questions (optional)',
  questions: 'Questions',
  question: (n: number) => `Question ${n}`,
  answeredBy: 'Answered',
  levels: 'Levels, one a line, the lowest first',
  choices: 'Choices, one a line',
  unit: 'Unit',
  least: 'At least',
  most: 'At most',
  lowBelow: 'Stands out below',
  questionHint: 'A hint (optional)',
  isRequired: 'Required',
  takesSeveral: 'Several may be chosen',
  who: 'On whose desk it stands',
  keep: 'Keep form',
  back: 'Back',
};

/** `answers.tsx`, its file, and `one-student.tsx` */
export const formAnswersWords = {
  pageTitle: 'Answers · Gentle Margin',
  forms: 'Forms',
  about: 'Answers',
  group: 'Group',
  everyone: 'Everyone',
  day: 'Day',
  anyDay: 'Any day',
  newest: 'The newest of each student',
  all: 'Every answer',
  whatToShow: 'Show',
  onlyOut: 'Only what stands out',
  student: 'Student',
  when: 'When',
  noAnswer: 'no answer yet',
  leftOpen: '–',
  notAsked: 'not asked then',
  standsOut: 'stands out',
  names: (names: string) => `names ${names}`,
  csv: 'CSV',
  xlsx: 'XLSX',
  change: 'Change form',
  nobody: {
    staff: 'You are on no student’s team.',
    self: 'This form stands on no desk yet. Change the form to say on whose.',
    classmates: 'Nobody has been given feedback with this form yet. Make a presentation under Feedback.',
  } satisfies Record<FormSide, string>,
  nothingOut: 'Nothing stands out here.',
  summary: (answered: number, of: number) => `${answered} of ${counted(of, 'student has', 'students have')} answered`,
  outs: (n: number) => `${counted(n, 'stands', 'stand')} out`,
  aboutTable: 'A row for each student, with the newest answer. No answer is blank, and not the lowest one.',
  aboutOut:
    'What stands out is what the form marks: low levels, stuck, unsure. A name of a classmate is pointed out; readers outside read “a classmate”.',
  aboutConfer: 'Choose a student to see all their answers beside their goals, and go on to the next.',
  noSuchFile: 'No such file in the discreet view.',
  file: (format: string) => `Answers to a form (${format})`,
  counts: 'How many said what',
  times: (n: number) => `${counted(n, 'answer', 'answers')}`,
  previous: 'Previous student',
  next: 'Next student',
  theirGoals: 'Their goals',
  nowAndTarget: (now: string | null, target: string) => `${now ?? 'no score yet'} · target ${target}`,
  noGoals: 'No goal is worked on.',
  back: 'All students',
  openNote: 'Open',
  writeNote: 'Write about them',
};

/** `my-form.tsx` */
export const myFormWords = {
  pageTitle: 'My answers · Gentle Margin',
  saved: 'Saved. Thank you.',
  today: 'Today',
  changeIt: 'Change',
};

/** `fill-form.tsx` */
export const fillFormWords = {
  save: 'Save my answers',
  keepChange: 'Keep the change',
  leaveIt: 'Leave it as it was',
  leaveOpen: 'Save and leave open',
};
