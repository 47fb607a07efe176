// What the screens of this room say, together: to be read in one go, and one day translated.

/** `goal-filter.tsx` */
export const goalFilterWords = {
  show: 'Show',
  everything: 'Everything',
  behavior: 'Behavior',
};

/** `evidence-file.ts` */
export const evidenceFileWords = {
  noSuchFile: 'No such file.',
};

/** `read-evidence.ts` */
export const readEvidenceWords = {
  noSuchFile: 'No such file.',
};

/** `count.tsx` */
export const countWords = {
  thisCannotBeRead: 'This cannot be read.',
  correctedWhatItSaidBefore: 'Corrected. What it said before is kept.',
  withdrawnItCountsNowhereAny: 'Withdrawn. It counts nowhere any more.',
  pageTitle: 'Count · Gentle Margin',
  history: 'History',
  notes: 'Notes',
  behavior: 'Behavior',
  date: 'Date',
  from: 'From',
  howOften: 'How often',
  minutesWatched: 'Minutes watched',
  part: 'Part of the day',
  noPart: 'none',
  observer: 'Observer',
  note: 'Note',
};

/** `note.tsx` */
export const noteWords = {
  thisCannotBeRead: 'This cannot be read.',
  corrected: 'Corrected. What it said before is kept.',
  withdrawn: 'Withdrawn. It stands in no report any more.',
  pageTitle: 'Note · Gentle Margin',
  history: 'History',
  report: 'Report',
  leftOpen: 'left open',
  theirWords: 'A student said this: it stays in their words. It can be withdrawn.',
  leaveOpen: 'Save and leave open what is open',
};

/** `second-observer.tsx` */
export const secondObserverWords = {
  ioa: 'interobserver agreement (IOA)',
  twoObservers: 'Two observers',
  theyAgreeTo: 'They agree to ',
  thereIsNothingThatBoth: 'There is nothing that both have looked at.',
  inFiguresAndGraphsThe: (counts: string) =>
    `${counts} in figures and graphs; the second observer’s is there for the agreement.`,
  thisEntryCounts: 'This entry counts',
  theOtherEntryCounts: 'The other entry counts',
  theyWereNotOfOne: 'They were not of one session',
  ofTheSameSessionAbout: (about: string) => `Of the same session: ${about}`,
  ofTheSameSession: 'Of the same session',
};

/** `entry.tsx` */
export const entryWords = {
  correctedWhatItSaidBefore: 'Corrected. What it said before is kept.',
  withdrawnItCountsNowhereAny: 'Withdrawn. It counts nowhere any more.',
  pageTitle: (shortName: string) => `Entry of ${shortName} · Gentle Margin`,
  whatItSaidBefore: 'What it said before',
  report: 'Report',
  turnTheDiscreetViewOff: 'Turn the discreet view off to correct or withdraw this entry.',
};

/** `incident.tsx` */
export const incidentWords = {
  thisCannotBeRead: 'This cannot be read.',
  itIsAChoiceNow: 'Added to the choices.',
  itHasAnEndNow: 'It has an end now.',
  correctedWhatItSaidBefore: 'Corrected. What it said before is kept.',
  withdrawnItCountsNowhereAny: 'Withdrawn. It counts nowhere any more.',
  abcIncidentOfGentleMargin: (shortName: string) => `ABC incident of ${shortName} · Gentle Margin`,
  noteGentleMargin: 'Note · Gentle Margin',
  history: 'History',
  abcIncident: (shortName: string, schoolName: string, today: string) =>
    `${shortName} · ABC incident · ${schoolName} · ${today}`,
  notes: 'Notes',
  behavior: 'Behavior',
  print: ' Print',
  aSecondObserversForAgreement: 'A second observer’s: for agreement, it counts in no figure.',
  wasTyped: (name: string) => `“${name}” was typed.`,
  makeItAChoice: 'Add to choices',
  whenItEnded: 'When it ended',
  itIsNotedAsStill: 'It is recorded as still going.',
  endedAt: 'Ended at',
  orLastedInMinutes: 'or lasted, in minutes',
  itLastedInMinutes: 'It lasted, in minutes',
  itHasEnded: 'It has ended',
  closeIt: 'Close it',
};

/** `pages-line.tsx` */
export const pagesLineWords = {
  pagesOfTheReport: 'Pages of the report',
  entriesBefore: (before: string) => `← ${before} entries`,
  pageOf: (page: number, pages: number) => `Page ${page} of ${pages}`,
  entriesAfter: (after: string) => `${after} entries →`,
  pageByPage: 'Page by page',
  allOnOnePage: 'All on one page',
  eachIsShownAsIt: (total: string) => `${total}. Each is shown as it stands now; what was withdrawn is left out.`,
};

/** `report-controls.tsx` */
export const reportControlsWords = {
  find: 'Find',
  aWordInIt: 'a word in it',
  findInTheReport: 'Find in the report',
  allDays: 'All days',
  from: 'From',
  to: 'To',
  showTheseDays: 'Show these days',
  arrange: 'Arrange',
  as: 'As',
  sentences: 'Sentences',
  aTable: 'A table',
  cards: 'Cards',
  grouped: 'Grouped',
  byWeek: 'By week',
  byGoal: 'By goal',
  notAtAll: 'Not at all',
  order: 'Order',
  newestFirst: 'Newest first',
  oldestFirst: 'Oldest first',
  goToADay: 'Go to a day',
};

/** `report-entries.tsx` */
export const reportEntriesWords = {
  entries: 'Entries',
  corrected: 'corrected',
  secondObserver: 'second observer',
  asATable: (title: string) => `${title}, as a table`,
  day: 'Day',
  of: 'Of',
  whatWasSeen: 'What was seen',
  where: 'Where',
  observer: 'Observer',
};

/** `read.tsx` */
export const readWords = {
  newEntriesAppearHereRight: 'New entries appear here right away.',
  incidentsAndCountsOfBehavior: 'Incidents and counts of behavior are part of it.',
  incidentsAndCountsOfBehaviorAre: 'Incidents and counts of behavior are not part of it.',
  wordsBesideAnEntryAre: 'Words beside an entry are shown.',
  wordsBesideAnEntryAreNot: 'Words beside an entry are not.',
  itSaysWhoObserved: 'It says who observed.',
  itDoesNotSayWho: 'It does not say who observed.',
  pleaseKeepTheLinkTo: 'Please keep the link to yourself: whoever has it can read this page.',
  noSuchAddress: 'No such address.',
  typeThePasscodeYouWere: 'Type the passcode you were told.',
  tooManyWereWrongWait: (waitSeconds: string) => `Too many were wrong. Wait ${waitSeconds}, then try again.`,
  thatIsNotThePasscode: 'That is not the passcode. Look at it once more; capital letters matter.',
  reportOf: (shortName: string) => `Report of ${shortName}`,
  aReportFor: (readerName: string) => `A report for ${readerName}`,
  thisLinkIsLockedBecause:
    'This link is locked because a wrong passcode was typed too often. The case manager knows and can unlock it.',
  thePasscodeThatTheCase: 'The passcode that the case manager told you',
  openTheReport: 'Open the report',
  aboutThisReport: 'About this report',
  forOpenUntil: (readerName: string, endsOn: string) => `For ${readerName}. Open until ${endsOn}.`,
  aFilledMarkIsA:
    'A filled mark is a try that went right: the darker, the less help it took. An outlined one had not come right yet.',
  printedHeading: (shortName: string, schoolName: string, today: string) =>
    `${shortName} · individual report · ${schoolName} · ${today}`,
  individualReport: (total: string) => `Individual report · ${total}`,
  nothingInTheReportIs: 'No entries match.',
  nothingHasBeenWrittenDown: 'Nothing has been recorded yet.',
  theTeamAndYourFamily: 'The team and your family see it.',
  theSupportTeamSeesIt: 'The support team sees it.',
  allEntries: 'All entries',
  print: 'Print',
};

/** `report-views.tsx` */
export const reportViewsWords = {
  individualReport: 'Individual report',
  progressReports: 'Progress reports',
  kindsOfReport: 'Kinds of report',
};

/** `report.tsx` */
export const reportWords = {
  aReader: 'A reader',
  noSuchEntry: 'No such entry.',
  pageTitle: (shortName: string) => `Report of ${shortName} · Gentle Margin`,
  whoReadsThis: 'Who reads this',
  individualReport: (shortName: string, schoolName: string, today: string) =>
    `${shortName} · individual report · ${schoolName} · ${today}`,
  print: ' Print',
  nothingInTheReportIs: 'No entries match.',
  nothingHasBeenWrittenDown: 'Nothing has been recorded yet. The first observation begins the report.',
  everyoneWhoReadsThisEntry: 'Everyone who reads this entry sees it, outside of the team too.',
  otherChildrensNames: 'Other children’s names',
  otherChildrenAreNamed: 'Other children are named',
  whoeverReadsFromOutsideSees: 'Readers outside the team see “a classmate” instead.',
  keepTheNameInThe: (names: string, on: string) => `Keep the name: ${names} in the note of ${on}`,
  keepTheName: 'Keep the name',
  theSupportTeamAndReaders: 'The support team, and readers with a share link.',
  besidesTheSupportTeam: 'besides the support team',
  nobodyYet: 'Nobody from outside yet: “Share report” makes a link for one reader.',
  lastRead: (lastRead: string) => `last read ${lastRead}`,
  notOpenedYet: 'not opened yet',
  whatEachReaderSeesAnd: 'What each reader sees, and who read →',
  emailMeAboutNewEntries: 'Email me about new entries',
  notAtAll: 'not at all',
};

/** `first-page.tsx` */
export const firstPageWords = {
  progressReports: 'Progress reports',
  addAReflection: 'Add a reflection',
  writeToTheTeam: 'Write to the team',
  goals: 'Goals',
  target: (target: string) => `Target: ${target}`,
  whatTheMarksMean: 'What the marks mean',
  new: 'New',
  newSince: (day: string) => `New since you last read, ${day}`,
  nothingNew: 'Nothing new was recorded since.',
  more: (n: string) => `And ${n} more, below.`,
  manyMore: 'And many more, below.',
};
