import { counted } from '~/core/words/counting';

// What the screens of this room say, together: to be read in one go, and one day translated.

/** `finder.tsx` */
export const finderWords = {
  findAStudentOrGoal: 'Find a student or goal',
  aNameANumberOr: 'A name, a number or a word of a goal',
  nothingFoundTryFewerLetters: 'Nothing found. Try fewer letters.',
  looking: 'Looking …',
  students: 'Students',
  goals: 'Goals',
};

/** `shell.tsx` */
export const shellWords = {
  followUps: 'Follow-ups',
  today: 'Today',
  students: 'Students',
  class: 'Class',
  patterns: 'Patterns',
  reports: 'Reports',
  team: 'Team',
  setup: 'Setup',
  handOver: 'Hand over',
  noConnection: 'No connection',
  whatWaitsIsSafe:
    'What waits is kept on this device, and sent by itself. It can be read here as soon as the server is reached.',
  more: 'More',
  rounds: 'Rounds',
  recordAnIncident: 'Record an incident',
  toThePage: 'To the page',
  gentleMargin: 'Gentle Margin',
  places: 'Places',
  findAStudentOrGoal: 'Find a student or goal',
  accountOf: (initials: string, name: string) => `${initials}, account of ${name}`,
  school: 'School',
  go: 'Go',
  waitingToBeSent: 'waiting to be sent',
  stillGoing: 'Still going',
  since: (time: string) => `since ${time}`,
  sinceWithoutAnEnd: (on: string) => `since ${on}, without an end`,
  itHasEnded: 'It has ended',
  endedAndWaits: 'Ended; waits to be sent',
  discreetOn: 'Discreet on',
  discreetOff: 'Discreet off',
  studentsByTab: 'Students, by tab',
  somethingDueToday: 'something due today',
  noStudentsYet: 'No students yet',
};

/** `summary.ts` */
export const summaryWords = {
  noGroupYet: 'No group yet',
};

/** `students.tsx` */
export const studentsWords = {
  haveLeft: 'Who have left',
  haveLeftAbout: 'Their records are read here, and nothing is added to them.',
  pageTitle: 'Students · Gentle Margin',
  whatCameIn: 'What came in',
  students: 'Students',
  nobodyNeedsACloserLook: 'nobody needs a closer look',
  withAGoalThatNeeds: (n: number) => `${n} with a goal that needs a closer look`,
  theRoster: 'the roster',
  whichStudents: 'Which students',
  everyone: 'Everyone',
  needsACloserLook: 'Needs a closer look',
  youAreNotOnAny: 'You are not on any student’s support team yet. A case manager can add you.',
  noGoalNeedsACloser: 'No goal needs a closer look.',
  noGoalsYet: 'No goals yet',
  notObservedYet: 'Not observed yet',
  seen: (lastOn: string) => `Seen ${lastOn}`,
};

/** `today.tsx` */
export const todayWords = {
  hiddenFollowUp: 'Follow-up',
  followUps: 'Follow-ups',
  isDueToday: 'due today',
  wasDue: (on: string) => `was due ${on}`,
  allFollowUps: (open: number) => `All that is open for you: ${open}`,
  goalsAre: (n: number) => counted(n, 'goal is', 'goals are'),
  pageTitle: 'Today · Gentle Margin',
  whatCameInToday: 'What came in today',
  nothingYetToday: 'Nothing yet today.',
  today: 'Today',
  toBeSent: (waiting: string) => ` · ${waiting} to be sent`,
  recordWaits: 'record waits',
  recordsWait: 'records wait',
  youAreAskedToJoin: 'You are asked to join ',
  supportTeam: 'support team',
  supportTeams: 'support teams',
  answer: 'Answer',
  youAreNotOnAny: 'You are not on any student’s support team yet. A case manager can add you.',
  seeAStudentsGoals: 'See a student’s goals, and how each is measured',
  recordYourFirstEntry: 'Record your first entry',
  awayToday: 'Away today: ',
  noSchoolToday: (noSchool: string) => `No school today: ${noSchool}.`,
  yourRoundsToday: 'Your rounds today',
  allRounds: 'All rounds',
  makeARoundToObserve: 'Make a round, to observe several in one go',
  dueWhenItFits: 'Due, when it fits',
  nothingIsDueToday: 'Nothing is due today.',
  now: 'Now',
  nextAt: (from: string) => `Next, at ${from}`,
  dueToday: 'Due today',
  at: (part: string, from: string) => `${part}, at ${from}`,
  nothingIsDue: 'Nothing is due: ',
  alsoHere: 'Also here: ',
  nothingIsDueHere: 'Nothing is due here.',
  dueFor: (n: string, n2: string) => `${n} due for ${n2}`,
  goThroughThem: 'Go through them',
  observeNamed: (name: string) => `Observe ${name}`,
  observe: 'Observe',
};

/** `attention.tsx` */
export const attentionWords = {
  needsACloserLook: 'Needs a closer look',
};

/** `record-for.tsx` */
export const recordForWords = {
  pageTitle: 'Record an incident · Gentle Margin',
  recordAnIncident: 'Record an incident',
  ofWhom: 'Of whom?',
  youMayObserveNobody: 'There is no student whom you observe.',
  whatComesNext: 'What comes next',
  dateTimeAndObserver: 'Date, time and observer are filled in; what happened is a few taps.',
};

/** `setup.tsx` */
export const setupWords = {
  pageTitle: 'Setup · Gentle Margin',
  setup: 'Setup',
  whatIsSetOnce: 'What is set once, and then holds for everybody.',
  whoMay: 'Who may',
  whoMayWords: (school: string) =>
    `The school’s own are for administrators of ${school}. What you do not see here, they can change.`,
  school: 'School',
  schoolIs: 'Name, school days, closures, groups, locations, parts of the day',
  people: 'People',
  peopleIs: 'Who works here: asking somebody to join, administrators, leaving',
  roster: 'Roster',
  rosterIs: 'Students, their groups, plans and case managers',
  rules: 'Rules',
  rulesAre: 'What marks an entry, and what follows from it',
  followUps: 'Follow-ups',
  followUpsAre: 'What is to be done, for you or of all your students',
  choices: 'What is chosen from',
  choicesIs: 'Antecedents, behaviors, consequences and functions every student begins with',
  visibility: 'What each reader sees',
  visibilityIs: 'Which fields family, students and others get, unless a student has rules of their own',
  templates: 'Message templates',
  templatesIs: 'Subject and text of what is sent by email',
  testMail: 'Test mail server',
  testMailIs: 'What would have been sent, in a school that only tries it out',
  changes: 'Changes',
  changesIs: 'Who changed rights, plans and rules, and when',
  rounds: 'Rounds',
  roundsIs: 'Several students and goals observed in one go',
  forms: 'Forms',
  formsIs: 'Questions made once, answered by staff, students or classmates',
  cards: 'Cards',
  cardsIs: 'With which students open their desk',
  imports: 'Import',
  overview: 'Overview',
  overviewIs: 'What stands open, by case manager: goals without data, reports, plans, and nothing of what was observed',
  newYear: 'A new school year',
  newYearIs: 'Grades, groups, teams, reporting periods and closures, seen before it is done',
  destructions: 'Destroying records',
  destructionsAre: 'Records of students who have left, when they are not needed any more',
  records: 'Records that arrive',
  recordsAre: 'A student’s whole record from another school, read in',
  importsAre: 'Roster, goals and past entries from files of your own; taken back as a whole',
  messages: 'Messages',
  messagesIs: 'What was sent to whom, and what came back',
  account: 'Account',
  devices: 'A device for several adults',
  devicesAre: 'A tablet that stays in the room: who takes it taps their name',
  accountIs: 'Look, keys and what this device keeps; signing out',
};
