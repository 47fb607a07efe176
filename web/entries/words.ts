// What the screens of this room say, together: to be read in one go, and one day translated.

/** `goal-card.tsx` */
/** `support-steps.tsx` */
export const supportStepsWords = {
  supportSteps: 'Support steps',
  allDone: 'All done',
  step: (label: string, isDone: boolean | undefined) =>
    `${label}: ${isDone ? 'done' : isDone === false ? 'not done' : 'not marked'}`,
};

export const goalCardWords = {
  theClockIsRunning: 'the clock is running',
  nothingYet: 'nothing yet: stays blank, not zero',
  noScoreYet: 'no score yet',
  noteOn: (shortName: string) => `Note on ${shortName}`,
  noteOptional: 'Note (optional)',
  of: (n: number, planned: number, many: string) => `${n} of ${planned} ${many}`,
  noScoreToday: 'No score today?',
};

/** `session-line.tsx` */
export const sessionLineWords = {
  observerNotSpecified: 'observer not specified',
  noDate: 'no date',
  noTime: 'no time',
  change: 'change',
  locationChoose: 'Location: choose',
  beside: (person: string, name: string) => `${person} beside ${name}`,
  date: 'Date',
  time: 'Time',
  location: 'Location',
  notSaid: 'Not specified',
  observer: 'Observer',
  secondObserverBeside: 'Second observer beside',
  nobodyThisIsTheOnly: 'Nobody: this is the only one',
};

/** `waiting-dialog.tsx` */
export const waitingDialogWords = {
  changes: { correct: 'A correction', withdraw: 'A withdrawal', end: 'The end of an incident' },
  why: (why: string) => `Why: ${why}`,
  openTheRecord: 'Open the record',
  waitingToBeSent: 'Waiting to be sent',
  nothingWaitsTheServerHas: 'Nothing waits: the server has everything.',
  itIsKeptOnThis: 'It is kept on this device until the server has it.',
  aPhotograph: (name: string) => `A photograph beside an entry: ${name}`,
  moreAreSealed: (count: number) =>
    `${count} of them ${count === 1 ? 'is' : 'are'} sealed since you signed out here: read and sent as soon as the server is reached.`,
  itHasNotBeenSent: 'It has not been sent and will be lost.',
  takeItAway: 'Remove it',
  keepIt: 'Keep it',
  change: 'Change',
  remove: 'Remove',
  close: 'Close',
  tryNow: 'Try now',
  savedOnAt: (when: string, when2: string) => `Saved on ${when} at ${when2}`,
  thisPageCannotReadIt:
    'This page cannot read it any more, so it cannot be sent. It stays on this device. Download it and enter it anew, or give the file to whoever looks after this installation.',
  download: 'Download',
  removeItFromThisDevice: 'Remove it from this device',
  count: (on: string, time: string) => `${on} · ${time} · count`,
  sayWhatHappened: 'Say what happened.',
  somethingMustBeMarked: 'Something must be marked.',
  cancel: 'Cancel',
  keepTheChange: 'Keep the change',
};

/** `last-five.tsx` */
export const lastFiveWords = {
  noPointsBeforeThisOne: 'No points before this one',
  nowTarget: (before: string, now: string, target: string) => `${before}. Now: ${now}. Target ${target}.`,
  nothingYet: 'nothing yet',
};

/** `how-it-reads.tsx` */
export const howItReadsWords = {
  nothingIsMarkedYetGoals: 'Nothing is marked yet. Goals you leave alone stay blank.',
  theClockIsRunning: 'The clock is running.',
  besideTheLast: (number: string, n: string | number) => `${number}, beside the last ${n}`,
};

/** `kept-draft.tsx` */
export const keptDraftWords = {
  keptOnThisDevice: 'Kept on this device ✓',
  pickedUpWhereYouLeft: 'Picked up where you left off ✓',
  startOver: 'start over',
};

/** `observing-page.tsx` */
export const observingPageWords = {
  stillOpenSaveAgain: (names: string) => `Still open: ${names}. Mark them, or save again to leave them blank.`,
  howItWillRead: 'How it will read',
  inSReport: (firstName: string) => `in ${firstName}’s report`,
  thereIsNoGoalTo: 'There is no goal to observe yet.',
  onTo: 'On to ',
  marked: (marked: number) => `${marked} marked`,
  sideBySide: 'Side by side',
  savedFor: (saved: string, goals: string) => `Saved for ${saved}: ${goals}.`,
  onThisDeviceUntilIt: (waits: string) => `On this device until it can be sent: ${waits}`,
  thereIsANoteOn:
    'There is a note or a photograph at this goal but nothing is marked. Mark it, or say why there is no score.',
  nothingIsMarkedYetMark: 'Nothing is marked yet. Mark at least one goal, or say why there is no score.',
};

/** `sessions.ts` */
export const sessionsWords = {
  thisCannotBeRead: 'This cannot be read.',
  savedFor: (name: string, n: string, paired: string) => `Saved for ${name}: ${n}${paired}.`,
  seeIt: 'See it',
  thereIsOnlySomethingTo: 'This address only takes entries.',
};

/** `entries-table.tsx` */
export const entriesTableWords = {
  secondObserver: ' · second observer',
  whatWasSeen: 'What was seen',
  by: 'By',
  where: 'Where',
  phase: 'Phase',
  noEntriesYet: 'No entries yet.',
  entriesAsATable: 'Entries, as a table',
};

/** `change-messages.tsx` */
export const changeMessagesWords = {
  theServerCannotBeReached:
    'The server cannot be reached. What you typed is still here and is sent again by itself; leave this page open.',
  thisEntryInTheMeantime: ' this entry in the meantime',
  itNowSays: (about: string, sentence: string, note: string) => `It now says: ${about}. ${sentence} ${note}`,
  yoursWasNotSavedIf: 'Yours was not saved. If it should count, record it anew.',
  yoursWasNotSavedAnd: 'Yours was not saved and is still here. Save again to let it replace what stands now.',
};

/** `withdrawal-form.tsx` */
export const withdrawalFormWords = {
  itWaits: 'No connection: the withdrawal waits on this device, and is sent by itself.',
  withdrawThisEntry: 'Withdraw this entry',
  itWillCountInNo:
    'It will count in no figure and stand in no report. Nothing is deleted: it stays readable here, with your reason.',
  whyIsItWithdrawn: 'Why is it withdrawn?',
  withdrawEntry: 'Withdraw entry',
  keepIt: 'Keep it',
};

/** `correction.tsx` */
export const correctionWords = {
  itWaits: 'No connection: the correction waits on this device, and is sent by itself.',
  correctThis: (what: string) => `Correct this ${what}`,
  whyIsItCorrected: 'Why is it corrected?',
  saveTheCorrection: 'Save the correction',
  cancel: 'Cancel',
};

/** `correction-form.tsx` */
export const correctionFormWords = {
  note: 'Note',
  noteOptional: 'Note (optional)',
};

/** `observe.tsx` */
export const observeWords = {
  pageTitle: (shortName: string) => `Observing ${shortName} · Gentle Margin`,
  observing: (shortName: string) => `Observing ${shortName}`,
};

/** `record-changes.tsx` */
export const recordChangesWords = {
  history: 'History',
  by: ' by ',
  standsNow: ' · stands now',
  withdrawnBy: (written: string) => `Withdrawn by ${written}.`,
  itCountsInNoFigure: ' It counts in no figure and stands in no report.',
  correctEntry: 'Correct entry',
  withdrawEntry: 'Withdraw entry',
};

/** `table-entry.tsx` */
export const tableEntryWords = {
  sessionsOnASheet: 'Sessions',
  blankSheet: 'Blank sheet to print (PDF)',
  photographOfTheSheet: 'A photograph of the sheet, to stand beside the first row’s entry',
  theSheet: 'the sheet',
  pageTitle: (number: string) => `${number} from paper · Gentle Margin`,
  whatWillBeSaved: 'What will be saved',
  allRowsAreSavedTogether: 'All rows are saved together, or none.',
  nothingYetEmptyRowsAre: 'Nothing yet. Empty rows are left out.',
  theServerCannotBeReached:
    'The server cannot be reached. Nothing is lost: the table is kept on this device and sent again by itself while this page is open.',
  anotherLookNothingHasBeen: (wrong: string) => `${wrong} another look. Nothing has been saved.`,
  rowNeeds: 'row needs',
  rowsNeed: 'rows need',
  thereIsNoRowTo: 'There is no row to save yet.',
  saving: 'Saving …',
  saveRows: (n: string) => `Save ${n}`,
  save: 'Save',
  keptOnThisDevice: 'Kept on this device ✓',
  fromPaperInATable: 'From paper, in a table',
  oneRowForEachSession:
    'One row for each session. Type, or paste from a spreadsheet into the first cell; with the names of the columns above, in any order.',
  observedBy: 'Observed by',
  location: 'Location',
  notSaid: 'Not specified',
  timeWhereARowSays: 'Time, where a row says none',
  nothingWasChanged: (pasteMessage: string) => `${pasteMessage} Nothing was changed.`,
  takeAway: 'Remove',
  row: (label: string, at: number) => `${label}, row ${at}`,
  takeAwayRow: (at: number) => `Remove row ${at}`,
};

/** `undo.ts` */
export const undoWords = {
  undone: (entries: string) => `Undone: ${entries}. Withdrawn, and counted nowhere.`,
};
