import { counted } from '~/core/words/counting';

// What the screens of this room say, together: to be read in one go, and one day translated.

/** `breakdown.ts` */
export const breakdownWords = {
  soFar: 'So far',
  neverRightYet: (stateWords: string) => `${stateWords}, never right yet`,
};

/** `goal-data-file.ts` */
export const goalDataFileWords = {
  dataOfGoal: (number: string, format: string) => `Data of goal ${number} (${format})`,
  goal: (number: string) => `goal ${number}`,
};

/** `pooled-shares.tsx` */
export const pooledSharesWords = {
  over: 'Over',
};

/** `shares-chart.tsx` */
export const sharesChartWords = {
  theShareAtEachSupport: 'The share at each support level in each session; the table below holds the same numbers.',
};

/** `goal-tables.ts` */
export const goalTablesWords = {
  all: (amount: string, total: string, unit: string) => `${amount} of ${total} ${unit} altogether`,
  ofAll: (share: string) => `${share} of all`,
  progressTowardTheTarget: 'Progress toward the target',
  noneYet: 'none yet',
  aWeek: (change: string) => `${change} a week`,
  medianByDayOfThe: 'Median by day of the week',
  medianByObserver: 'Median by observer',
  medianByLocation: 'Median by location',
  lastSchoolDays: (days: number) => `Last ${days} school days`,
  allSoFar: 'All so far',
  soFar: 'So far',
};

/** `goal-chart.tsx` */
export const goalChartWords = {
  graphTheArrowKeysGo: 'Graph. The arrow keys go from point to point.',
};

/** `breakdown-table.tsx` */
export const breakdownTableWords = {
  sessionBySession: 'Session by session',
  what: 'What',
  nothingRecorded: 'nothing recorded',
};

/** `coverage.tsx` */
export const coverageWords = {
  noneYet: 'none yet',
  pageTitle: 'Team · Gentle Margin',
  longestSinceTheLastEntry: 'Longest since the last entry',
  schoolDaysByTheSchools: 'School days, by the school’s calendar.',
  teamCoverage: 'Team: coverage',
  everyGoalHasBeenObserved: 'Every goal has been observed as often as its plan wants.',
  ofHadNothingForLonger: (n: number, n2: string, n3: string) =>
    `${n} of ${n2} ${n3} had nothing for longer than planned`,
  whichGoals: 'Which goals',
  allGoals: 'All goals',
  longerThanPlanned: 'Longer than planned',
  noGoalIsWorkedOn: 'No goal is worked on yet.',
  entriesByPerson: 'Entries by person',
  nobodyHasWrittenAnythingDown: 'Nobody recorded anything in these weeks.',
  entriesByPersonAndWeek: 'Entries by person and week',
  everyGoalIsObservedAs: 'Every goal is observed as often as planned.',
  entriesOfByGoalAnd: (name: string) => `Entries of ${name} by goal and week`,
  nothingHasBeenWrittenDown: 'Nothing has been recorded yet.',
  lastEntryAgo: (lastOn: string, schoolDays: string) => `Last entry: ${lastOn}, ${schoolDays} ago.`,
  schoolDay: 'school day',
  schoolDays: 'school days',
  lastEntry: 'Last entry',
  all: 'All',
  noSchool: 'no school',
};

/** `how-computed.tsx` */
export const howComputedWords = {
  asASpreadsheet: '(XLSX)',
  howThisIsComputed: 'How this is computed',
  howEasilyLuckWouldMeet: 'How easily luck would meet it',
  daysAreTakenToBe: 'Days are taken to be independent of each other.',
  checkItYourself: 'Check it yourself',
  dataOfThisPage: 'Data of this page',
  csvAndTheCommandThat: '(CSV), and the command that gives the same figures from it:',
};

/** `same-numbers.tsx` */
export const sameNumbersWords = {
  hideTheTables: 'Hide the tables',
  theSameNumbersAsTables: 'The same numbers as tables',
  pointsOfTheGraph: 'Points of the graph',
  date: 'Date',
  phase: 'Phase',
  from: 'From',
  value: 'Value',
  shareAtEachSupportLevel: 'Share at each support level, newest sessions',
};

/** `goal.tsx` */
export const goalWords = {
  byCategory: 'By category',
  pageTitle: (number: string, shortName: string) => `${number} · ${shortName} · Gentle Margin`,
  whatItSays: 'What it says',
  ratedBySeveral: 'rated by several',
  editTheGoal: 'edit the goal',
  observe: 'Observe ',
  on: (retirementWords: string, on: string, note: string) => `${retirementWords} on ${on}${note}`,
  throughItsYears: 'Show the graph through its years',
  thisPlanOnly: 'Show this plan only',
  measuredOtherwise: 'What was measured otherwise is not in it.',
  toTheNext: 'To the goal that took its place',
  earlierTextsOfThisGoal: 'Earlier texts of this goal',
  untilChangedBy: (until: string, changedBy: string) => `Until ${until}, changed by ${changedBy}:`,
  thereIsNoBaselineSo: 'There is no baseline, so there is no aim line to compare with.',
  takeTheMedianOfThe: (offered: string) => `Take the median of the first three: ${offered}`,
  nothingMeasuredYetSoThere: 'Nothing measured yet, so there is no graph.',
  byWhomWhereAndWhen: 'By whom, where and when',
  ioa: 'interobserver agreement (IOA)',
  twoObservers: 'Two observers',
  howMuchHelp: 'How much help',
  sessionBySession: 'Session by session',
  entries: 'Entries',
  enterSeveralFromPaper: 'enter several from paper',
};

/** `fidelity.tsx` */
export const fidelityWords = {
  fidelity: 'Fidelity',
  hint: 'how far the support was carried out',
  head: (support: string, since: string, said: number, of: number, share: string) =>
    `“${support}”, since ${since}: ${said} of ${counted(of, 'session says', 'sessions say')} which steps were done; ${share} of those steps were.`,
  stepByStep: 'Step by step',
  times: (done: number, of: number) => `${done} of ${of}`,
  whatTheStudentDid: 'What the student did',
  enough: (limit: number) => `with at least ${limit}% of the steps`,
  less: 'with fewer',
  noneYet: 'no score',
  sessions: (n: number) => counted(n, 'session', 'sessions'),
  noProof:
    'The two are compared as they came about: nobody dealt the sessions by chance, so a difference does not prove what the support does. 80% is common practice, no published limit.',
};

/** `class-totals.tsx`, `class-totals-view.ts` */
export const classTotalsWords = {
  pageTitle: 'Class totals · Gentle Margin',
  classTotals: 'Class totals',
  printedHeading: (group: string, school: string, today: string) => `Class totals · ${group} · ${school} · ${today}`,
  altogether: (logs: string, amount: string, unit: string) => `${logs}, ${amount} ${unit} altogether`,
  everyone: 'everyone',
  group: 'Group',
  log: 'Log of',
  logOf: (kind: string) => `log ${kind.charAt(0)}`,
  show: 'Show',
  noLogYet:
    'Nobody in this group has a goal about how much altogether (hours, plants, trays). Give each student one, and their totals stand here side by side.',
  chooseAStudent: 'Choose a student to add the goal to',
  goalForAGroup: 'A goal for a group',
  csv: 'These totals as a file (CSV)',
  xlsx: 'as a spreadsheet (XLSX)',
  print: 'Print',
  tableOf: (unit: string) => `Totals of ${unit}, as a table`,
  student: 'Student',
  soFar: 'So far',
  share: 'Share of the target',
  thisWeek: 'This week',
  recently: 'Last 20 school days',
  fullAbout: 'Full about',
  allTogether: 'All together',
  of: (amount: string, total: string) => `${amount} of ${total}`,
  notPartOfIt: 'not part of this log',
  nothingThisWeek: 'nothing this week',
  there: 'reached',
  notForeseen: 'not to be foreseen',
  notByTheTarget: 'Not full by the target date',
  byThePace: 'At the pace of the last 20 school days.',
  thoseWithPace: 'At their pace all who have one are there in time.',
  everyoneIsOnTheWay: 'At this pace everyone is there in time.',
  nothingToSay: 'Nothing yet.',
  needs: (amount: string, days: number) => `Needs ${amount} in ${counted(days, 'school day', 'school days')}.`,
  noPaceYet: 'no pace yet',
  targetOn: (day: string) => `Target date ${day}.`,
  overTime: 'Over time',
  eachOfItsTarget: 'dashed: the target of each',
  since: (day: string) => `Since ${day}`,
};

/** `class-totals-file.ts` */
export const classTotalsFileWords = {
  noSuchFileInThe: 'No such file in the discreet view.',
  what: (format: string) => `Class totals (${format})`,
};

/** `class-nav.tsx` */
export const classNavWords = {
  class: 'Class',
  totals: 'Totals',
  works: 'Work and boards',
  forms: 'Forms',
  feedback: 'Feedback',
  workSamples: 'Work samples',
  cards: 'Cards',
};
