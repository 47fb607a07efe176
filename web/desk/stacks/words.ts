// What the screens of stacks of work samples say, together: to be read in one go, and one day translated.
import { counted } from '~/core/words/counting';

/** `stacks.tsx` */
export const stacksWords = {
  pageTitle: 'Work samples · Gentle Margin',
  heading: 'Work samples',
  newOne: 'New stack',
  none: 'No stack yet. Make one when the same piece of work of several students is to be rated by several people.',
  about: 'Several raters',
  spread: 'Raters are spread evenly over the stack: nobody rates their own, and nobody rates one twice.',
  whatRatersSee: 'Each rater has one link with their list. They see the work and the rubric, and not whose it is.',
  afterwards:
    'When you close it, each can become an entry: staff’s ratings make the score, classmates’ stand beside it.',
  samples: (n: number) => counted(n, 'work sample', 'work samples'),
  raters: (n: number) => counted(n, 'rater', 'raters'),
  rated: (n: number, of: number) => `${n} of ${of} rated`,
  closed: 'closed',
};

/** `new-stack.tsx` */
export const newStackWords = {
  pageTitle: 'A stack of work samples · Gentle Margin',
  heading: 'A new stack',
  made: 'Made. Put the work in, then give out the links.',
  noRubric: 'None of your students has a goal with a rubric.',
  giveOne: 'Give a group one',
  title: 'What is rated',
  titleExample: 'Recipe card',
  each: 'Raters for each',
  whose: 'Whose work, by the rubric of which goal',
  staff: 'Raters from the staff (their ratings make the score)',
  classmates: 'Raters from the class (their ratings stand beside it)',
  make: 'Make stack',
  back: 'Back',
};

/** `stack.tsx` */
export const stackWords = {
  pageTitle: (title: string) => `${title} · Work samples · Gentle Margin`,
  each: (n: number) => `${counted(n, 'rater', 'raters')} for each`,
  pages: 'Pages to hand out',
  close: 'Close',
  openAgain: 'Open again',
  makeEntries: 'Make entries',
  madeEntries: (n: number) => `Made ${counted(n, 'entry', 'entries')}.`,
  nowClosed: 'Closed: nobody rates or corrects any more.',
  nowOpen: 'Open again.',
  putIn: 'Saved.',
  workSamples: 'The work',
  onPaper:
    'Raters see the number, not the name. If the work is on paper, write its number on it before you hand it out.',
  raters: 'Raters',
  linksForAll: 'Make links for all',
  newLink: (name: string) => `New link for ${name}`,
  shownOnce: 'Give each rater theirs now: they are shown once. A new link ends the one before.',
  classmate: 'classmate',
  noName: 'somebody who has left your teams',
  codeOf: (name: string) => `Square code of the link for ${name}`,
  agreement: 'How far raters agree',
  alpha: (alpha: string) => `Krippendorff’s alpha ${alpha}`,
  aboutAgreement:
    'All pairs of raters of the same work sample. Alpha takes out what chance would bring: 1 is full agreement, 0 is chance; 0.8 is usual for firm conclusions (common practice). It is said from ten pairs on (our own choice).',
};

/** `put-work.tsx` */
export const putWorkWords = {
  number: (n: number) => `No. ${n}`,
  aText: 'text',
  files: { 'image/jpeg': 'photograph', 'application/pdf': 'PDF' } as Record<string, string>,
  nothing: 'on paper',
  isEntry: 'is an entry',
  put: (name: string) => `Put ${name}’s work in`,
  file: 'Photograph or PDF',
  text: 'Or its text',
  save: 'Save work',
};

/** `pages.tsx` */
export const pagesWords = {
  pageTitle: 'Pages to hand out · Gentle Margin',
  what: (title: string) => `page of ratings: ${title}`,
  print: (n: number) => `Print ${counted(n, 'page', 'pages')}`,
  none: 'Nothing is rated yet.',
  criterion: 'Criterion',
  together: 'Together',
  level: (points: number, words: string) => `${points} ${words}`,
  leftOut: 'left out',
};
