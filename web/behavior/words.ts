import { counted } from '~/core/words/counting';

// What the screens of this room say, together: to be read in one go, and one day translated.

const timesSaid = (n: number): string => (n === 1 ? 'once' : `${n} times`);

/** `behavior-view.ts` */
export const behaviorViewWords = {
  withOtherBehaviorsOf: (n: number, n2: number) => `with other behaviors ${n} of ${n2}`,
  immediateChange: 'Immediate change',
  of: (n: number, n2: number, p: string) => `${n} of ${n2} (${p})`,
  in: (part: string, count: string | number, minutes: string) => `${part}: ${count} in ${minutes}`,
  outsideTheDay: 'Outside the day',
  inTheSecondPeriod: (times: string) => `In the second period ${times}.`,
  theTwoCannotBeHeld:
    'The two cannot be held against each other: one of them has no school day, or the first no incident.',
};

/** `incidents-file.ts` */
export const incidentsFileWords = {
  taken: (format: string) => `ABC incidents (${format})`,
  abcIncidents: 'ABC incidents',
};

/** `agreement.tsx` */
export const agreementWords = {
  notDefined: 'not defined',
  bothCounted: (a: string, ofA: number, b: string, ofB: number, intervals: number) =>
    `${a} recorded it ${timesSaid(ofA)}, ${b} ${timesSaid(ofB)}, in ${counted(intervals, 'interval', 'intervals')}.`,
  chooseABehavior: 'Choose a behavior.',
  sayHowManyMinutes: 'Say how many minutes.',
  chooseAnObserver: 'Choose an observer.',
  itEndsAfterItBegins: 'It ends after it begins.',
  chooseSomebodyElse: 'Choose somebody else.',
  pageTitle: 'Two observers · Gentle Margin',
  howItIsDone: 'How it is done',
  twoPeopleWatchTheSame:
    'Two people watch the same stretch of time without talking. The second names the first, so that nothing is counted twice.',
  usualMark:
    '80% or more, or a κ of 0.60, is the usual mark. Usually two people watch a fifth of the sessions in each phase.',
  notedByTwo: (shortDate: string) => `Recorded by two: ${shortDate}.`,
  notes: 'Notes',
  behavior: 'Behavior',
  ioa: 'interobserver agreement (IOA)',
  twoObservers: 'Two observers',
  oneObserver: 'One observer',
  theOther: 'The other',
  date: 'Date',
  from: 'From',
  to: 'To',
  intervalsInMinutes: 'Intervals, in minutes',
  compare: 'Compare',
  countsOfTwoObservers: 'Counts of two observers',
  noCountWasMadeBy: 'No count was made by two people yet.',
  belowTheUsual80: ', below the usual 80%',
  intervalByInterval: 'Interval by interval',
  whereOneOrBothSaw: 'Scored intervals: one or both saw it',
  whereOneOrBothDid: 'Unscored intervals: one or both did not',
  cohens: 'Cohen’s κ',
  totalCount: 'Total count',
  countInEachInterval: 'Count in each interval',
  sameCountInEachInterval: 'Same count in each interval',
  howFarTheyAgree: 'How far they agree',
  neitherNotedItInThis: 'Neither noted it in this window. If both watched, they agree that it did not occur.',
  inEachInterval: (a: string, a2: string, b: string, b2: string) => `In each interval: ${a} ${a2} · ${b} ${b2}`,
};

/** `bars.tsx` */
export const barsWords = {
  week: (monday: string, n: number, days: number, rate: string | null) =>
    `Week of ${monday}: ${counted(n, 'incident', 'incidents')} in ${counted(days, 'school day', 'school days')}${rate === null ? '' : `, ${rate} a day`}`,
  byMonth: 'By month, ',
  incidentsAndAboveThemHow: 'incidents, and above them how many a school day',
  month: (name: string, n: number, days: number) =>
    `${name}: ${counted(n, 'incident', 'incidents')} in ${counted(days, 'school day', 'school days')}`,
  weeks: 'Weeks',
  incidentsASchoolDayIn: 'Incidents a school day in each week',
  dashedUprightWhatChanged: ' · dashed line: what changed',
  aBarLeadsToIts: '. A bar leads to its incidents.',
};

/** `did-it-help-section.tsx` */
export const didItHelpSectionWords = {
  anHourObserved: 'an hour observed',
  thatDay: 'that day',
  beforeAndAfter: 'Before and after',
  nothingHasBeenChangedYet: 'No change has been entered yet. When a new support begins, add it with the day it starts.',
  twoPhasesShowThatSomething:
    'Two phases show that something changed, not why: much else may have changed on that day too. A support that is added, taken away and added again says more.',
  theSameNumbersAsA: 'The same numbers as a table',
  phase: 'Phase',
  days: 'Days',
  median: 'Median',
  perHourObserved: 'Per hour observed',
  perSchoolDay: 'Per school day',
  before: 'Before',
  howOftenInEachHour: 'How often in each hour somebody watched, day by day.',
  howManyIncidentsOnEach: 'How many incidents on each school day.',
  since: (label: string, startsOn: string) => `${label}, since ${startsOn}`,
  removeNamed: (label: string) => `Remove “${label}”`,
  remove: 'Remove',
  somethingChanged: 'Something changed',
  whatChanged: 'What changed',
  earDefenders: 'Ear defenders',
  from: 'From',
  for: 'For',
  everyBehavior: 'Every behavior',
  writeItDown: 'Add the change',
};

/** `when-grid.tsx` */
export const whenGridWords = {
  whenItHappens: 'When it happens, ',
  byWeekdayAndPartOf: 'by weekday and part of the day',
  thereIsNoTimetableSo:
    'There is no timetable, so no part of the day has its hours. The school, a group or a student can have one.',
  whenItHappensAsA: 'When it happens, as a table',
  hours: 'hours',
  eachNumberCountsIncidentsThe: 'Each number counts incidents; the darker, the more in an hour.',
  outsideTheDay: (n: string) => `${n} outside the day`,
  byQuarterOfAnHour: 'By quarter of an hour',
  inHoursAnHour: (hours: string, rate: string) => ` in ${hours} hours, ${rate} an hour`,
  onS: (part: string, weekday: string, n: string, rated: string) => `${part} on ${weekday}s: ${n}${rated}`,
};

/** `figures.tsx` */
export const figuresWords = {
  band: (above: number | null, upTo: number | null) => {
    if (above === null) return `to ${(upTo ?? 0) / 60} min`;
    return upTo === null ? `over ${above / 60}` : `to ${upTo / 60}`;
  },
  bandOf: (n: number, all: number) => `${n} of ${all}`,
  windows: (n: number, none: number, occurredIn: string | null) =>
    `${counted(n, 'observation window', 'observation windows')}, ${none} of them without an occurrence.${occurredIn === null ? '' : ` It occurred in ${occurredIn}.`}`,
  antecedents: 'Antecedents',
  noIncidentSaysWhatCame: 'No incident says what came before.',
  consequences: 'Consequences',
  noIncidentSaysWhatFollowed: 'No incident says what followed.',
  mostCommonSequences: 'Most common sequences',
  noIncidentHasAllThree: 'No incident has all three parts yet.',
  of: (n: number, n2: number) => `${n} of ${n2}`,
  aShareIsOfIncidents:
    'A share is of incidents, not of chances: it shows what tends to come before this behavior, not what causes it.',
  byWeek: 'By week',
  locations: 'Locations',
  noIncidentSaysWhere: 'No incident says where.',
  recordedBy: 'Recorded by',
  intensity: 'Intensity',
  functionAsObserversGuessedIt: 'Function, as observers guessed it',
  howLong: 'How long',
  incidentSays: 'incident says',
  incidentsSay: 'incidents say',
  inTheMiddleAtThe: (medianSeconds: string, longestSeconds: string, totalSeconds: string) =>
    `: median ${medianSeconds}, longest ${longestSeconds}, ${totalSeconds} in all.`,
  theseAreGuessesOfWho: 'These are the observers’ guesses, each incident counted once; not a finding.',
  whileSomebodyWatchedForIt: 'During observation windows',
  twoPeriodsSideBySide: 'Two periods side by side',
  incidents: 'Incidents',
  schoolDays: 'School days',
  incidentsASchoolDay: 'Incidents a school day',
};

/** `filters.tsx` */
export const filtersWords = {
  onOtherDays: (n: number) => `; ${n} more on days without school, in no rate`,
  where: 'Where',
  notedBy: 'Recorded by',
  phase: 'Phase',
  before: 'Before',
  behavior: 'Behavior',
  from: 'From',
  to: 'To',
  all: 'all',
  in: (schoolDays: string) => ` in ${schoolDays}`,
  schoolDay: 'school day',
  schoolDays: 'school days',
  daysAway: (days: number) => ` (without ${counted(days, 'day away', 'days away')})`,
  howLongWasWatchedIs: '. How long they watched is not known for this choice, so there is no rate',
  aDay: (rate: string) => `: ${rate} a day`,
  anHourObserved: (rate: string) => `, ${rate} an hour observed`,
  againstOtherDates: 'Against other dates',
  otherDatesFrom: 'Other dates, from',
  otherDatesTo: 'Other dates, to',
  show: 'Show',
  print: ' Print',
};

/** `stands-out.tsx` */
export const standsOutWords = {
  whatStandsOut: 'What stands out',
  nothingStandsOutNoTime: 'Nothing stands out: no time, place or antecedent beyond what luck would bring.',
  nothingHasBeenNoted: 'No incident has been recorded.',
  since: (to: string) => `Since “${to}”`,
  tooFewToSay: 'Too few to say',
  howOftenByLuck:
    'Of 100 students whose incidents follow no pattern, at most about 5 would have something here: to be looked at, not proof.',
};

/** `behavior.tsx` */
export const behaviorWords = {
  byBehavior: 'By behavior',
  noIncidentYet: 'No incident yet.',

  blankSheet: 'Blank sheet to print (PDF)',
  asASpreadsheet: 'All as XLSX',
  countsAsASpreadsheet: 'Counts as XLSX',
  takenAwayTheIncidentsAre: 'Removed. The incidents are unchanged.',
  writtenDownFromThatDay: 'Saved. The time before that day and the time after it are compared.',
  notesGentleMargin: 'Notes · Gentle Margin',
  behaviorOfGentleMargin: (shortName: string) => `Behavior of ${shortName} · Gentle Margin`,
  whatStandsOut: 'What stands out',
  noneOfThisBehaviorWas: 'This behavior was not recorded in this time.',
  nothingHasBeenNotedIn: 'Nothing was recorded in this time.',
  noTargetBehaviorIsFollowed: 'No target behavior is set up for this student.',
  nothingOfThisStudentsBehavior: 'This student’s behavior is not tracked yet. Most students never need it.',
  setUpBehavior: 'Set up behavior',
  daysAway: 'Days away',
  behaviorSetup: 'Behavior setup',
  allIncidentsAsATable: 'All incidents as a table',
  twoObservers: 'Two observers',
  asAFile: 'All as CSV',
};

/** `incidents.tsx` */
export const incidentsWords = {
  outsideTheDay: 'outside the day',
  withALength: 'with a length',
  after: (antecedent: string) => `after “${antecedent}”`,
  followedBy: (consequence: string) => `followed by “${consequence}”`,
  takenToBeFor: (n: string) => `possibly for ${n}`,
  notedBy: (observer: string) => `recorded by ${observer}`,
  intensity: (intensity: number) => `intensity ${intensity}`,
  onS: (weekday: string) => `on ${weekday}s`,
  fromOnAQuarterOf: (quarter: string) => `from ${quarter} on, a quarter of an hour`,
  in: (month: string) => `in ${month}`,
  inTheWeekOf: (week: string) => `in the week of ${week}`,
  sinceDay: (from: string) => `from ${from}`,
  untilDay: (to: string) => `to ${to}`,
  notesGentleMargin: 'Notes · Gentle Margin',
  incidentsOfGentleMargin: (shortName: string) => `Incidents of ${shortName} · Gentle Margin`,
  secondObserver: ' · second observer',
  noEndYet: ' · no end yet',
  whatWasNoted: 'What was recorded',
  behavior: 'Behavior',
  where: 'Where',
  by: 'By',
  whichIncidents: 'Which incidents',
  behindTheFigure: 'Behind the figure',
  allIncidents: 'All incidents',
  asManyAsTheFigure: (all: string) => `${all}: as many as the figure counts.`,
  everyIncidentThatStandsWhat:
    'Every incident on record. Withdrawn ones are left out; second observers’ incidents count in no figure.',
  toAllIncidents: 'All incidents →',
  printedHeading: (shortName: string, asked: string, n: string, schoolName: string, today: string) =>
    `${shortName} · ABC incidents · ${asked}${n}${schoolName} · ${today}`,
  notes: 'Notes',
  abcIncidents: 'ABC incidents',
  print: ' Print',
  thereIsNoSuchIncident: 'There is no such incident.',
  noIncidentHasBeenRecorded: 'No incident has been recorded yet.',
  incidentsAsATable: 'Incidents, as a table',
  showTheEarlierOnesToo: 'Show the earlier ones too',
  from: 'From',
  to: 'To',
  showTheseDays: 'Show these days',
};

/** `patterns.tsx` */
export const patternsWords = {
  printed: (schoolName: string, from: string, to: string, group: string, today: string) =>
    `Patterns across students${group && ` · ${group}`} · ${from} – ${to} · ${schoolName} · ${today}`,
  withSeveral: {
    behaviors: 'Behaviors with several students',
    antecedents: 'Antecedents with several students',
    consequences: 'Consequences with several students',
    locations: 'Locations with several students',
    dates: 'Days with several students',
  },
  ofThese: 'Of these weeks',
  asAFile: 'CSV',
  asASpreadsheet: 'XLSX',
  print: 'Print',
  weeksFrom: (monday: string, rate: string) => `Weeks from ${monday} on; the newest ${rate} a school day`,
  pageTitle: 'Patterns · Gentle Margin',
  changedMost: 'Changed most',
  patterns: 'Patterns',
  withIncidents: (from: string, to: string, n: string) => `${from} – ${to} · ${n} with incidents`,
  moreFollowedWithoutAny: (without: number) => `, ${without} more tracked without any`,
  noIncidentWasNotedIn: 'No incidents in these weeks for any student you can see.',
  weekByWeek: 'Week by week, ',
  incidentsASchoolDayAll: 'incidents a school day, all on one scale',
  allOfThemShareOne: (highest: string) => `All of them share one scale: its top is ${highest} a school day.`,
  nothingRecursAcrossStudents: 'Nothing recurs across students.',
  ofStudents: (n: string, n2: number) => `${n} of ${n2} students`,
  group: 'Group',
  all: 'all',
  weeks: 'Weeks',
  show: 'Show',
  partsOfTheDay: 'Parts of the day',
  noIncidentFallsIntoA: 'No incident falls into a part of the timetable.',
  incidents: 'Incidents',
  perHour: 'Per hour',
  students: 'Students',
  of: (students: number, n: number) => `${students} of ${n}`,
  theLastSchoolDaysAgainst: (days: number) => `The last ${days} school days against the ${days} before.`,
  noClearChangeForAnyone: 'No clear change for anyone.',
  thereIsNothingToCompare: 'There is nothing to compare.',
};

/** `beside-file.ts` */
export const besideFileWords = {
  noSuchFile: 'No such file.',
  timetable: (format: string) => `timetable (${format})`,
  windows: (format: string) => `observation windows (${format})`,
};

/** `check.tsx` */
export const checkWords = {
  checkItYourself: 'Check it yourself',
  dataOfThisPage: 'Data of this page, and the command that gives the same figures from it:',
  incidents: 'Incidents (CSV)',
  timetable: 'Timetable (CSV)',
  windows: 'Observation windows (CSV)',
};

/** `patterns-file.ts` */
export const patternsFileWords = {
  taken: (format: string) => `patterns across students (${format})`,
  student: 'student',
  part: 'part of the day',
  kinds: {
    behaviors: 'behavior',
    antecedents: 'antecedent',
    consequences: 'consequence',
    locations: 'location',
    dates: 'date',
  },
};
