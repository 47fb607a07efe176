// What the screens of this room say, together: to be read in one go, and one day translated.

/** `failure-page.tsx` */
export const failurePageWords = {
  thereIsNothingAtThis: 'There is nothing at this address',
  itMayHaveBeenMoved:
    'It may have been moved, withdrawn or mistyped, or it belongs to someone whose team you are not on.',
  goBackToYourStudents: 'Go back to your students. If someone sent you a link, ask them for a new one.',
  thisIsNotYoursTo: 'This is not yours to change',
  yourRoleDoesNotAllow: 'Your role does not allow this.',
  nothingWasChangedTheCase: 'Nothing was changed. The case manager can.',
  thisCannotBeKept: 'This cannot be kept',
  somethingWasNotReadable: 'Something was not readable.',
  nothingWasChangedGoBack: 'Nothing was changed. Go back: what you typed is still there.',
  tooManyTriesFromHere: 'Too many tries from here',
  addressesThatLeadNowhereWere:
    'Addresses that lead nowhere were opened too often, so this door stays closed for a while.',
  waitAQuarterOfAn: 'Wait a quarter of an hour, then open your link again.',
  tooMuchAtOnce: 'Too much at once',
  everythingThatWasSavedIs: (data: string) => `${data} Everything that was saved is safe.`,
  waitAFewSecondsThen: 'Wait a few seconds, then try again. This page looks again by itself.',
  theDatabaseCannotBeReached: 'The database cannot be reached',
  everythingThatWasSavedIsSafe: 'Everything that was saved is safe, and what you were marking is kept on this device.',
  thisPageLooksAgainEvery: 'This page looks again every few seconds and comes back by itself.',
  somethingWentWrongOnOur: 'Something went wrong on our side',
  whatWasSavedIsSafe: 'What was saved is safe. The fault has been written down.',
  tryAgainIfItStays: 'Try again; if it stays, tell whoever looks after this installation.',
  noConnection: 'No connection',
  thisPageIsNotKept: 'The server cannot be reached, and this page is not kept on this device.',
  whatYouRecordedIsSafe: 'What you recorded is safe: it is kept here, and sent by itself later.',
  tryAgain: 'Try again',
  toToday: 'To Today',
  gentleMargin: (title: string) => `${title} · Gentle Margin`,
  toTheStudents: 'To the students',
};

/** `toasts.tsx` */
export const toastsWords = {
  doneJustNow: 'Done just now',
  notSent: 'No connection: this was not sent. What you typed is still here; send it again when there is one.',
  undo: 'Undo',
  close: 'Close',
};

/** `key-help.tsx` */
export const keyHelpWords = {
  findAStudentOrA: 'Find a student or a goal',
  thisList: 'This list',
  observeOnAStudentsOr: 'Observe, on a student’s or a goal’s page',
  writeANote: 'Write a note, on a student’s page',
  recordAnIncidentOnA: 'Record an incident, on a student’s page',
  whileObservingMarkTheNext: 'While recording: mark the next opportunity, or choose in the group that shows digits',
  whileObservingTakeTheLast: 'While observing: take the last one back',
  whileObservingGoToThe: 'While recording: go to the next goal or group',
  inARoundToThe: 'In a round: to the student before, to the next',
  whileObservingSave: 'While recording: save; with Ctrl also from a field',
  correctARecord: 'On a record’s page: correct it',
  toWhatWasSaid: 'To what was said just now: see it, or undo it',
  onAGoalsPageThe: 'On a goal’s page: the graph’s numbers as a table',
  onAGraphFromPoint: 'On a graph: from point to point',
  closeWhatIsOpen: 'Close what is open',
  keys: 'Keys',
  close: 'Close',
};

/** `unsaved.tsx` */
export const unsavedWords = {
  leave: 'Leave without saving?',
  itIsNotSaved: 'What you changed on this page is not saved yet.',
  leaveWithout: 'Leave without saving',
  stay: 'Stay here',
};

/** `page.tsx` */
export const pageWords = {
  closeTheMargin: 'Close',
};

/** `how-this-works.tsx` */
export const howThisWorksWords = {
  howThisWorks: 'How this works',
  first: 'First:',
};

/** `rows.tsx` */
export const rowsWords = {
  drag: (named: string) => `Drag ${named}`,
  moveUp: (named: string) => `Move ${named} up`,
  moveDown: (named: string) => `Move ${named} down`,
  takeAway: (named: string) => `Remove ${named}`,
  add: ' Add ',
};

/** `data-table.tsx` */
export const dataTableWords = {
  all: 'all',
  since: 'Since',
  of: (n: number, all: string) => `${n} of ${all}`,
  showAll: (n: number) => `Show all ${n}`,
};

/** `covered.tsx` */
export const coveredWords = {
  why: 'Why',
  theDiscreetViewShowsNo: 'The discreet view shows no names and no wordings, here as elsewhere.',
  isWrittenInTheOpen: (what: string) => `${what} is written in the open`,
  switchTheDiscreetViewOff: 'Switch the discreet view off, at the top, to write it.',
};

/** `first-steps.tsx` */
export const firstStepsWords = {
  firstSteps: 'First steps',
  done: '(done)',
};

/** `no-mail.tsx` */
export const noMailWords = {
  notSetUp:
    'Email is not set up for this school, so no message is sent. Give links yourself, or ask the person who runs Gentle Margin here to set up a mail server.',
};

/** `schema-form.tsx` */
export const schemaFormWords = {
  losesOther:
    'Another form on this page has changes that are not saved. Save those first, or save again here to lose them.',
};

/** `group-buttons.tsx` */
export const groupButtonsWords = {
  all: (group: string) => `All of ${group}`,
};

/** `on-its-way.tsx` */
export const onItsWayWords = {
  onItsWay: 'On its way',
};

/** `file-links.tsx` */
export const fileLinksWords = {
  takeItAwayAs: 'Take it away as',
};

/** `entry-marks.tsx` */
export const entryMarksWords = {
  markedBy: 'Marked:',
};
