// What the screens of feedback among classmates say, together: to be read in one go, and one day translated.
import { counted } from '~/core/words/counting';

/** `presentations.tsx` */
export const presentationsWords = {
  pageTitle: 'Feedback · Gentle Margin',
  heading: 'Feedback among classmates',
  newOne: 'New presentation',
  none: 'Nothing is presented yet. Make a presentation when several students show their work to the class.',
  about: 'Feedback',
  oneCode: 'The class scans one code, or answers at their desks: a form for each who presents.',
  whereItGoes:
    'Each presenter gets theirs as entries in their report, at their desk, and by message to whoever is told of new entries.',
  lookThrough: 'You may look through answers first. A name of a classmate in one is pointed out to you.',
  present: (n: number) => `${counted(n, 'presents', 'present')}`,
  answer: (n: number) => `${counted(n, 'answers', 'answer')}`,
  closed: 'closed',
};

/** `edit-presentation.tsx` */
export const editPresentationWords = {
  pageTitle: 'A presentation · Gentle Margin',
  newOne: 'New presentation',
  kept: 'Kept.',
  order: 'They present in this order; you change it with the arrows on the next page.',
  noForm: 'There is no form for classmates yet.',
  beginForm: 'Begin from the one that ships',
  title: 'What is presented',
  titleExample: 'Birdhouses',
  form: 'Form',
  whoAnswers: 'Who answers',
  whoPresents: 'Who presents',
  looksThrough: 'I look through the answers before they go on',
  showsNames: 'Whoever presents reads who said it',
  keep: 'Keep presentation',
  back: 'Back',
};

/** `presentation.tsx` */
export const presentationWords = {
  pageTitle: (title: string) => `${title} · Feedback · Gentle Margin`,
  looked: 'you look through first',
  atOnce: 'goes on at once',
  withNames: 'with names',
  withoutNames: 'without names',
  change: 'Change',
  close: 'Close',
  openAgain: 'Open again',
  isClosed: 'Closed: nobody answers or corrects any more.',
  nowClosed: 'Closed.',
  nowOpen: 'Open again.',
  nowHeld: 'Held back. It goes on to nobody.',
  nowLetGo: 'It goes on with the others.',
  nowHandedOn: (n: number) => `Handed on: ${counted(n, 'answer', 'answers')}.`,
  handOn: (n: number, name: string) => `Hand ${counted(n, 'answer', 'answers')} on to ${name}`,
  answered: (n: number, of: number) => `${n} of ${of} answered`,
  missing: (names: string) => `not yet: ${names}`,
  names: (names: string) => `Names ${names}. Readers outside read “a classmate”.`,
  corrected: 'corrected ·',
  held: 'held back',
  handedOn: 'handed on',
  withdrawn: 'withdrawn',
  waits: 'waits',
  hold: 'Hold back',
  letGo: 'Let it go on',
  earlier: (name: string) => `${name} presents earlier`,
  later: (name: string) => `${name} presents later`,
  code: 'Code for the class',
  showCode: 'Show the code',
  anotherCode: 'Make another code',
  codeOf: (href: string) => `Square code of ${href}`,
  aboutCode:
    'Put it on the wall. It is made anew each time; an older one lets nobody in any more. At their desks students need no code.',
  onSeveral: (names: string, have: string) => `${names} ${have} answered on more than one device.`,
};

/** `take-seat.tsx` */
export const takeSeatWords = {
  pageTitle: 'Who are you? · Gentle Margin',
  whoAreYou: 'Who are you?',
  iAm: (name: string) => `I am ${name}`,
  closed: 'This code opens nothing any more.',
  askForTheCode: 'Ask your teacher to show the code once more.',
};

/** `seat.tsx` */
export const seatWords = {
  youAre: (name: string) => `You are ${name}. If not, scan the code again.`,
  scanTheCode: 'Scan the code on the wall.',
};

/** `give.tsx` */
export const giveWords = {
  pageTitle: 'Feedback · Gentle Margin',
  whoPresents: 'Choose who is presenting.',
  closed: 'It is closed. Thank you.',
  nobodyElse: 'Nobody else presents.',
  forName: (name: string) => `For ${name}`,
  open: 'answer',
  answered: 'answered · change',
  saved: (name: string) => `Saved for ${name}. Thank you.`,
};

/** `said-of-me.tsx` */
export const saidOfMeWords = {
  pageTitle: 'What my classmates said · Gentle Margin',
  heading: 'What my classmates said',
  nothing: 'Nothing yet.',
  from: (name: string) => `from ${name}`,
};
