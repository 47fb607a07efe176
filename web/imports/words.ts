import type { EntryFieldKey } from '~/core/imports/entries';
import type { GoalFieldKey } from '~/core/imports/goals';
import type { IncidentFieldKey } from '~/core/imports/incidents';
import type { ImportKindName } from '~/core/imports/kinds';
import type { Fate } from '~/core/imports/preview';
import type { RosterFieldKey } from '~/core/imports/roster';
import { counted } from '~/core/words/counting';

export const kindNames: Record<ImportKindName, string> = {
  roster: 'Roster',
  goals: 'Goals',
  entries: 'Past entries',
  incidents: 'Incidents (ABC)',
};

export const fateNames: Record<Fate, string> = {
  wrong: 'Needs another look',
  new: 'New',
  changed: 'Changes',
  gone: 'Archived',
  there: 'There already',
};

export const importsWords = {
  pageTitle: 'Import · Gentle Margin',
  title: 'Import',
  about:
    'Lists and tables that you keep elsewhere. Nothing is saved before you have seen what each row comes to, and all of a file can be taken back.',
  aFile: 'A file',
  aboutFile: 'CSV or XLSX, up to 8 MB; a roster also as OneRoster 1.2',
  what: 'What is in it',
  choose: 'Choose',
  file: 'File',
  chooseFile: 'Choose a file.',
  lookThrough: 'Look through it',
  reading: 'Reading the file …',
  none: 'Nothing was imported yet.',
  cameIn: (rows: string, day: string) => `${rows}, ${day}`,
  notYet: 'Looked through, not imported yet',
  undoneOn: (day: string) => `undone on ${day}`,
  ways: {
    roster: 'A row for each student: name, grade, groups, case manager with an email address.',
    goals: 'A row for each goal: student, number, wording, measure, criterion, dates.',
    entries: 'A row for each session (student, goal, date, score), or a row for each day and a column for each goal.',
    incidents: 'A row for each incident: student, date, time, antecedent, behavior, consequence.',
  } satisfies Record<ImportKindName, string>,
};

export const importWords = {
  pageTitle: (file: string) => `${file} · Import · Gentle Margin`,
  toAll: 'All imports',
  columns: 'Columns',
  aboutColumns: 'What each column holds. It is remembered for the next file with the same headings.',
  column: 'Column',
  standsThere: 'What stands there',
  holds: 'Holds',
  holdsOf: (heading: string) => `What “${heading}” holds`,
  unnamed: (n: number) => `Column ${n}`,
  passedOver: 'Passed over',
  part: 'A part of the score, by its heading',
  sheet: 'Sheet',
  dates: 'Dates',
  dayOrders: { monthFirst: 'Month first: 11/20/2026', dayFirst: 'Day first: 20/11/2026' },
  timeOfOthers: 'Time of those that say none',
  allOf: 'Student, where no column says',
  allOfGoal: 'Goal, where no column says',
  nobody: 'None',
  help: 'A bare “3/5”, where several levels of help count',
  helpMost: 'with the most help that still counts',
  helpLeast: 'with the least help',
  areFractions: 'Shares are written as 0.6, not as 60',
  fillsDown: 'A blank student or date goes on with the one above (merged cells)',
  fillsDownStudent: 'A blank student goes on with the one above (merged cells)',
  fillsDownRoster: 'A blank grade, group or case manager goes on with the one above (merged cells)',
  measureOfOthers: 'Measure of those that say none',
  durationIn: 'A bare number of a duration is',
  durations: { minutes: 'minutes', seconds: 'seconds' },
  offersNew: 'Offer names that are new from now on',
  manager: 'Case manager of those whose own is not here yet',
  isWhole: 'The file lists every student: archive those who were imported before and are not in it',
  isRenamed: 'Students whose number is on the roster under another name are the same students',
  invites: 'Ask these people to join the staff',
  invitesAre:
    'Only the people you check here get an invitation. Check each one: a parent’s address must never be among them.',
  andArchive: (n: number) => `, archive ${n}`,
  isSomeoneElse: 'Students whose name is near another’s are others',
  schoolOfFile: 'School in the file',
  allSchools: 'All',
  classes: 'Classes',
  lookAgain: 'Look again',
  rows: 'Rows',
  row: 'Row',
  becomes: 'Becomes',
  about: 'About',
  says: 'Says',
  all: 'All rows',
  shown: (shown: string, all: string) => `The first ${shown} of ${all}.`,
  noRows: 'No row holds anything. Say above what the columns hold.',
  noneOfThem: 'There are none of these.',
  newNames: 'New on their lists',
  takeOver: (rows: string) => `Import ${rows}`,
  leftOut: (n: number) =>
    `${counted(n, 'row stays', 'rows stay')} out: correct the file and import it again, and only what is missing comes in.`,
  thereAlready: (n: number) =>
    n === 1 ? 'One row is there already, and is not doubled.' : `${n} rows are there already, and are not doubled.`,
  nothingNew: 'No row is new. Say what the columns hold, and look again.',
  told: {
    roster: 'Who works here and has no account yet is asked to join, and then has their students.',
    goals: 'Each goal can be changed afterwards like any other.',
    entries: 'Nobody gets a message about them, and no rule looks at them.',
    incidents: 'Nobody gets a message about them, and no rule looks at them.',
  } satisfies Record<ImportKindName, string>,
  importing: 'Importing …',
  forget: 'Forget this file',
  forgotten: 'The file is forgotten.',
  imported: (rows: string) => `Imported: ${rows}.`,
  cameIn: (rows: string, day: string) => `${rows} came in on ${day}. The file itself is not kept.`,
  next: {
    roster: ['/roster', 'To the roster'],
    goals: ['/students', 'To the students'],
    entries: ['/students', 'To the students'],
    incidents: ['/patterns', 'To the patterns'],
  } satisfies Record<ImportKindName, [string, string]>,
  undo: 'Undo the whole import',
  undoTitle: 'Undo the whole import?',
  undoAbout: {
    roster:
      'New students are archived, changed ones are what they were, and who was asked to join is not asked any more. Students for whom anything was recorded since stay.',
    goals: 'The goals are retired. One for which anything was recorded since stays.',
    entries:
      'The entries are withdrawn: they leave every figure and stay readable on their own pages. What was corrected since stays.',
    incidents:
      'The incidents are withdrawn and leave every figure; new names are offered no longer. What was corrected since stays.',
  } satisfies Record<ImportKindName, string>,
  keep: 'Keep it',
  undone: (taken: string, stay: number) =>
    `Undone: ${taken}.${stay > 0 ? ` ${stay} stay: they were changed or used since.` : ''}`,
  wasUndone: (day: string) => `This import was undone on ${day}.`,
  passOn: 'Pass these on',
  passOnAbout: 'No mail leaves here. Each of them opens this address once, within two weeks. It is shown this once.',
  linkOf: (name: string) => `Link for ${name}`,
  namesAreHidden: 'Names are hidden in the discreet view. Turn it off to look through a file.',
  needsAnotherLook: 'Something needs another look.',
};

export const rosterFieldWords: Record<RosterFieldKey, string> = {
  firstName: 'First name',
  lastName: 'Last name',
  name: 'Whole name',
  sourcedId: 'Student id',
  grade: 'Grade',
  groups: 'Groups',
  manager: 'Case manager',
  managerEmail: 'Email of the case manager',
};

export const goalFieldWords: Record<GoalFieldKey, string> = {
  student: 'Student',
  number: 'Number',
  shortName: 'Short name',
  wording: 'Wording',
  area: 'Area',
  measure: 'Measure',
  planned: 'Opportunities, or minutes watched',
  criterion: 'Criterion',
  baselineValue: 'Baseline',
  baselineOn: 'Date of the baseline',
  startsOn: 'Goal from',
  targetOn: 'Goal until',
  planFrom: 'Plan from',
  planUntil: 'Plan until',
};

export const entryFieldWords: Record<EntryFieldKey, string> = {
  student: 'Student',
  goal: 'Goal',
  on: 'Date',
  time: 'Time',
  score: 'Score',
  outOf: 'Of how many',
  reason: 'Why no score',
  note: 'Note',
  observer: 'Observer',
  location: 'Location',
};

export const incidentFieldWords: Record<IncidentFieldKey, string> = {
  student: 'Student',
  on: 'Date',
  time: 'Time',
  antecedent: 'Antecedent',
  behavior: 'Behavior',
  consequence: 'Consequence',
  function: 'Function',
  location: 'Location',
  intensity: 'Intensity',
  duration: 'Duration',
  note: 'Note',
  observer: 'Observer',
};
