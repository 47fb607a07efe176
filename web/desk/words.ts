// What the students' own pages, the class board and the cards say.
import { counted } from '~/core/words/counting';

/** `desk.tsx` and what it is made of */
export const deskWords = {
  pageTitle: 'My desk',
  hello: 'Hello.',
  helloName: (name: string) => `Hello ${name}.`,
  wordsOnYourCard: 'The four words on your card',
  fourWords: 'fern otter lamp moon',
  openMyDesk: 'Open my desk',
  whoseTurn: 'Whose turn?',
  turnIsOver: 'The time of this tablet is over. Ask your teacher.',
  itIs: (name: string) => `It is ${name}’s turn`,
  withACard: 'Or with a card',
  orScan: 'Or scan the square on your card with the camera.',
  typeTheWords: 'Type the four words on your card.',
  opensNothing: 'These words open nothing. Look at your card once more, or ask your teacher for a new one.',
  tooManyTries: 'Too many tries. Wait a few minutes, or ask your teacher.',
  cannotBeRead: 'This could not be sent. Tell your teacher.',
  keptHere: 'No connection. What you tapped is kept here and is sent by itself.',
  scanAgain: 'Your desk was put away. Open it with your card: what you tapped is kept here.',
  nothingOpen: 'There is no work open for you at the moment.',
  youAreAt: (step: number) => `You are at step ${step}.`,
  allDone: 'All steps are done.',
  step: (at: number, title: string) => `${at} ${title}`,
  changeAnyTime: 'You can change this at any time. Your teacher sees it at once.',
  whereStuck: 'Where are you stuck?',
  tellMyTeacher: 'Tell my teacher',
  told: 'Your teacher can see it.',
  seen: 'Your teacher has seen it.',
  readAloud: 'Read aloud',
  putAway: 'Put my desk away',
  alsoHere: 'Also on my desk',
  howIDid: (title: string) => `How I did: ${title}`,
  answeredToday: 'answered today',
  feedbackFor: 'feedback for classmates',
  saidToMe: 'What my classmates said',
  tellUs: 'Say what you think',
  bothSides: 'Both side by side',
  myProgress: 'My progress',
  backToDesk: 'Back to my desk',
};

/** `my-log.tsx` */
export const myLogWords = {
  pageTitle: 'My log',
  of: (total: string) => `of ${total}.`,
  toGo: (left: string) => `${left} to go.`,
  full: 'It is full.',
  howMuch: (unit: string) => `How many ${unit}?`,
  howHigh: 'What was it?',
  which: 'Which kind?',
  note: 'Which ones? (if you like)',
  withThese: (amount: string, total: string) => `With these it will be ${amount} of ${total}.`,
  save: (what: string) => `Save ${what}`,
  change: (what: string) => `Change to ${what}`,
  typeANumber: 'Type a number.',
  saved: 'It is saved.',
  mine: 'What I entered',
  changeIt: 'Change',
  setAside: 'Your teacher looks at these before they count.',
  day: 'Day',
  leaveIt: 'Leave it as it was',
};

/** `how-i-did.tsx` */
export const howIDidWords = {
  pageTitle: 'How I did',
  about: (title: string, madeOn: string) => `How I did · ${title} · ${madeOn}`,
  whatDoYouThink: 'What do you think, before you see your teacher’s?',
  bothSides: 'What I think, and what my teacher thinks',
  notYet: 'Your teacher has not rated it yet.',
  saidAlready: 'You have said already what you think.',
  i: 'I',
  myTeacher: 'My teacher',
  level: (points: number, words: string) => `${points} · ${words}`,
  leftOut: 'left out',
};

/** `my-progress.tsx` */
export const myProgressWords = {
  pageTitle: 'My progress',
  nothing: 'There is nothing to show yet.',
  youAreAt: (now: string, target: string) => `You are at ${now}. The target is ${target}.`,
  notYet: (target: string) => `No score yet. The target is ${target}.`,
  reached: 'You have reached it.',
  youHave: (amount: string, total: string) => `You have ${amount} of ${total}.`,
  untilWhen: (day: string) => `There is time until ${day}.`,
};

/** `student-desk.tsx` */
export const studentDeskWords = {
  pageTitle: (name: string) => `Desk of ${name} · Gentle Margin`,
  title: 'At the desk',
  about: 'The student’s desk',
  aboutWords:
    'What stands here is what the student sees when they come in with their card, in the words that you choose.',
  aboutLog: 'In a log they enter amounts or measurements themselves. Each entry says that it is the student’s.',
  aboutCounts: 'Where their entries do not count, they are shown in the report and make no figure.',
  shows: 'At the desk',
  inWords: 'In plain words',
  counts: 'Their entries count',
  showsWords: { nothing: 'Not shown', progress: 'Progress', log: 'Progress and a log' },
  save: 'Save',
  saved: 'The desk is kept.',
  noGoals: 'There is no goal yet.',
  cards: 'Make a card',
};

/** `works.tsx` */
export const worksWords = {
  pageTitle: 'Work and boards · Gentle Margin',
  works: 'Work and boards',
  newWork: 'New work',
  none: 'No work yet. Make one from a list of steps and give it to a group: each student says at their desk which step they are at, and the board shows it at once.',
  about: 'About work',
  aboutSteps: 'A piece of work is a list of steps. Students say of each: at it, stuck, please look, done.',
  aboutCards: 'They come to their desk with a card, without an account.',
  aboutCopies: 'What you made once can be copied for the next group. What students said stays with the first.',
  summary: (steps: string, students: string, when: string) => `${steps} · ${students} · ${when}`,
  by: (name: string) => `by ${name}`,
  change: 'Change',
  copy: 'Copy',
  close: 'Put away',
  takeOut: 'Take out again',
  closed: 'The work is put away. It stands on no desk any more.',
  openAgain: 'The work is on the desks again.',
  putAway: (count: number) => `${count} put away`,
};

/** `edit-work.tsx` */
export const editWorkWords = {
  pageTitle: 'Work · Gentle Margin',
  works: 'Work and boards',
  newWork: 'New work',
  kept: 'The work is kept.',
  about: 'Good steps',
  short: 'One or two words a step, as you would say it aloud. A hint stands below it on the desk.',
  whileTheyWork: 'You may change steps while students work: what they said of a step stays with it.',
};

/** `work-form.tsx` */
export const workFormWords = {
  title: 'Name of the work',
  titleExample: 'Birdhouse, week 2',
  steps: 'Steps',
  step: (at: number) => `Step ${at}`,
  hint: 'Hint (optional)',
  who: 'Who has it',
  keep: 'Save work',
  back: 'Back',
};

/** `class-board.tsx` */
export const classBoardWords = {
  pageTitle: (title: string) => `${title} · Class board · Gentle Margin`,
  works: 'Work and boards',
  needsSomebody: 'Needs somebody',
  live: (students: string, isClosed: boolean) => (isClosed ? `${students}, put away` : `${students}, live`),
  nobodyHasIt: 'Nobody has this work yet.',
  giveIt: 'Give it to a group',
  order: 'Order of the rows',
  byNeed: 'Who needs somebody',
  byName: 'By name',
  byStep: 'By step',
  allSteps: (count: number) => `All ${count} steps`,
  project: 'For the wall',
  boardOf: (title: string) => `Board of ${title}`,
  student: 'Student',
  observeThese: (count: number) => (count === 1 ? 'Observe this student' : `Observe these ${count}`),
  writeNote: 'Write a note',
  markAsSeen: 'Mark as seen',
  markedAsSeen: 'Marked as seen.',
  chosen: (count: number, names: string) => `${count} chosen: ${names}`,
  soFar: (done: number, of: string) => `So far: ${done} of ${of} done.`,
  mostStuck: (step: string, students: string, minutes: number) =>
    `Most were stuck at ${step} (${students}, median ${minutes} min).`,
  nobodyWaits: 'Nobody waits at the moment.',
  wait: (count: number) => `${counted(count, 'step waits', 'steps wait')} for somebody.`,
  whoAndStep: (name: string, step: string) => `${name} · ${step}`,
  quoted: (word: string) => `“${word}”`,
  stuckFor: (minutes: number, times: number) =>
    `${minutes === 0 ? 'Stuck just now' : `Stuck for ${counted(minutes, 'minute', 'minutes')}`}${times > 1 ? `; ${times} times at this step so far` : ''}.`,
  asksFor: (minutes: number) =>
    minutes === 0 ? 'Asks you to look.' : `Asked you to look ${counted(minutes, 'minute', 'minutes')} ago.`,
  justNow: 'Just now',
  finished: (name: string, step: string) => `${name} finished ${step}.`,
  began: (name: string, step: string) => `${name} began ${step}.`,
};

/** `board-cell.tsx` */
export const boardCellWords = {
  seen: ' · seen',
  minutes: (count: number) => (count === 0 ? ' · now' : ` · ${count} min`),
};

/** `projected.tsx` */
export const projectedWords = {
  pageTitle: (title: string) => `${title} · For the wall`,
  done: (count: number, of: number) => `${count} of ${of} steps done`,
  step: 'Step',
  back: 'Back to the board',
};

/** `cards.tsx` */
export const cardsWords = {
  pageTitle: 'Cards · Gentle Margin',
  cards: 'Cards',
  about: 'About cards',
  whatItOpens: 'A card opens one student’s own desk, and nothing of anybody else. No account, no email.',
  shownOnce: 'The words and the square are shown once, here, to be printed. Nobody can look them up later.',
  whenLost: 'Is a card lost, make a new one: the old one opens nothing any more, on any device.',
  nobody: 'Cards are made by whoever may share a student’s report. You may for none at the moment.',
  newCards: 'New cards',
  printNow: (cards: string) => `${cards} to print now.`,
  print: 'Print',
  squareCodeOf: (name: string) => `The square code of ${name}`,
  noCard: 'no card',
  madeOn: (day: string) => `card of ${day}`,
  openNow: 'open now',
  onDevices: (count: number) => `open on ${count} devices`,
  end: (name: string) => `End ${name}’s card`,
  ended: 'The card is ended.',
  onTheCard: 'On the card',
  firstName: 'First name',
  initials: 'Initials',
  make: (n: number) => (n === 0 ? 'Make cards' : `Make cards for ${counted(n, 'student', 'students')}`),
  chooseSomebody: 'Choose at least one student.',
  oldOnesEnd: 'Whoever has a card already gets a new one; the old one opens nothing any more.',
  forHowLong: 'A shared tablet, for',
  minutes: (count: number) => (count < 120 ? `${count} minutes` : `${count / 60} hours`),
  whoseTurn: 'Whose turn? on this device',
  signsOut:
    'The chosen students who have a card sit down by tapping their initials. You are signed out on this device.',
};
