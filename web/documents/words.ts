// What the screens of this room say, together: to be read in one go, and one day translated.

/** `file-answer.ts` */
export const fileAnswerWords = {
  noSuchFormat: 'No such format.',
};

/** `draft-file.ts` */
export const draftFileWords = {
  noSuchPeriod: 'No such period.',
  draftOfAProgressReport: (format: string) => `draft of a progress report (${format})`,
};

/** `report-file.ts` */
export const reportFileWords = {
  thatIsSoLongA: (size: string) =>
    `That is ${size}: a report this long is made as a PDF in the background and appears here when it is ready.`,
  with: (find: string) => `with “${find}”`,
  report: (format: string) => `report (${format})`,
};

/** `batch-list.tsx` */
export const batchListWords = {
  filesForGroups: 'Files for several students',
  of: { progress: 'progress reports', running: 'individual reports' },
  short: ', in brief',
  pdf: 'PDF',
  zip: 'ZIP, a PDF each',
  file: (kind: string, n: string, pages: string) => `${kind}, ${n}, ${pages}`,
  itCouldBeFetchedFor: (days: number) => `It could be fetched for ${days} days. Ask for it again.`,
  beingMade: (label: string) => `Being made: ${label}`,
  ofMade: (done: number, n: number, problem: string) => `${done} of ${n} made. ${problem}`,
  youMayLeaveThisPage: 'You may leave this page.',
  leftOutNoLongerYours: (leftOut: string) => `Left out, no longer yours to share: ${leftOut}`,
  aStudent: 'a student',
  oneStudent: 'One student',
};

/** `several.tsx` */
export const severalWords = {
  pageTitle: 'Documents for several students · Gentle Margin',
  title: 'Documents for several students',
  files: 'Files',
  readyWithinAMinute: 'They are made in the background, and can be fetched for two weeks.',
  noneYet: 'None yet. Choose students and what to make of them.',
  nobody: 'There is no student whose reports you share.',
  students: 'Students',
  all: 'All',
  what: 'What',
  whats: [
    { id: 'progress', name: 'Progress reports, or their drafts' },
    { id: 'running', name: 'Individual reports' },
  ],
  length: 'Length',
  lengths: [
    { id: 'full', name: 'Full' },
    { id: 'short', name: 'In brief, one page each' },
  ],
  areas: 'Goals of these areas only (all goals, and behavior, where none is chosen)',
  goals: 'Or goals one by one',
  goalsOf: (name: string) => `Goals of ${name}`,
  from: 'From',
  to: 'To',
  datesAreFor: 'For individual reports. A progress report is of its reporting period.',
  order: 'Sorted by',
  orders: [
    { id: 'group', name: 'Group, then name' },
    { id: 'name', name: 'Name' },
  ],
  as: 'As',
  ways: [
    { id: 'one', name: 'One PDF to print' },
    { id: 'each', name: 'A PDF each, in a ZIP for folders' },
  ],
  chooseFirst: 'Choose students first.',
  pages: (students: string, pages: string | null) =>
    `${students}: ${pages ?? 'how many pages it is stands with the file, before you fetch or print it'}.`,
  make: 'Make it',
};

/** `reports.tsx` */
export const reportsWords = {
  pageTitle: 'Reports · Gentle Margin',
  forAWholeGroup: 'For several students',
  onePdfToPrintSorted: 'To print and hand out, sorted; each student begins on a sheet of their own.',
  progressReports: 'Progress reports',
  ofTheStudentsWhoseReport: 'Of the students whose report you share, for the period that is to be reported now',
  thereIsNoStudentWhose: 'There is no student whose reports you issue.',
  ends: (label: string, last: string) => ` · ${label}, ends ${last}`,
  noReportingPeriodsYet: ' · no reporting periods yet',
  no: 'No. ',
  issued: ', issued ',
  toTheDraft: 'To the draft',
  ofStudent: (name: string) => ` of ${name}`,
  chooseWhatToMake: 'Choose what to make',
  issuedOf: (n: number, of: string) => `Issued: ${n} of ${of}.`,
  written: (n: number, of: number) => `Own words for ${n} of ${of} goals`,
  wordsForTheWhole: ', and for the whole',
  noneForTheWhole: ', none for the whole yet',
  unseen: (names: string) => `Not observed in this period: ${names}`,
};

/** `read-file.ts` */
export const readFileWords = {
  chooseDays: 'That is more than one file can hold. Go back, and choose from when to when.',
};
