// What the screens of this room say, together: to be read in one go, and one day translated.

/** `document-view.tsx` */
export const documentViewWords = {
  date: (name: string) => `${name}, date`,
};

/** `words-editor.tsx` */
export const wordsEditorWords = {
  theEditorIsBeingFetched: 'The editor is being fetched …',
  formOf: (label: string) => `Form of: ${label}`,
  bold: 'Bold',
  italic: 'Italic',
  list: 'List',
  numberedList: 'Numbered list',
};

/** `edited-document.tsx` */
export const editedDocumentWords = {
  theEditorIsBeingFetched: 'The editor is being fetched …',
  yourWordsForTheWhole: 'Your words for the whole',
  yourWordsAbout: (place: string) => `Your words about ${place}`,
};

/** `issue-dialog.tsx` */
export const issueDialogWords = {
  issueThisReport: 'Issue this report?',
  issueItAsNo: (number: number) => `Issue it as no. ${number}?`,
  itIsDatedTodayAnd: 'It is dated today and does not change any more, whatever is entered or corrected later.',
  itReplacesNoWhichStays: (replaces: number) => ` It replaces no. ${replaces}, which stays readable and says so.`,
  missingSeeTheMargin: (missing: string) => `${missing} missing: see the margin.`,
  thingIs: 'thing is',
  thingsAre: 'things are',
  besidesTheTeamFor: 'Besides the team, for',
  readersWhoHaveAnEmail: 'Readers who have an email address get a message.',
  notYet: 'Not yet',
  issueIt: 'Issue it',
};

/** `way-back.tsx` */
export const wayBackWords = {
  progressReports: 'Progress reports',
};

/** `draft.tsx` */
export const draftWords = {
  noSuchPeriod: 'No such period.',
  thisCannotBeKeptAs: 'This cannot be kept as it is: the words may be too long.',
  issuedItIsNumberedAnd: 'Issued. It is numbered and dated, and does not change any more.',
  noWasIssuedForThis: (issued: number) =>
    `No. ${issued} was issued for this period in the meantime. Load the page again to see it.`,
  theReportThatThisOne: 'The report that this one replaces was replaced already.',
  pageTitle: (shortName: string) => `Draft of a progress report, ${shortName} · Gentle Margin`,
  aProgressReport: 'A progress report',
  theServerCannotBeReached: 'The server cannot be reached; what you typed is still here and is kept as soon as it can.',
  beingKept: 'Saving …',
  by: (changedByName: string) => `, by ${changedByName}`,
  nothingWrittenYet: 'Nothing written yet.',
  beforeItIsIssued: 'Before it is issued',
  anotherChildReadersFromOutside: (named: string) => `${named}: another child? Readers from outside see “a classmate”.`,
  everyGoalHasBeenObserved: 'Every goal has been observed in this period.',
  whatIsMissing: 'What is missing',
  no: (number: number) => `No. ${number}`,
  wasIssuedForThisPeriod: 'was issued for this period. A new one replaces it openly.',
  somebodyElseHasWrittenHere: 'Somebody else has written here in the meantime. Yours is still on this page.',
  keepMine: 'Keep mine',
  showTheirsAndLoseMine: 'Show theirs, and lose mine',
  issueIt: 'Issue it …',
  ofTheDraft: 'of the draft',
  heading: 'Draft of a progress report',
};

/** `use-kept-words.ts` */
export const useKeptWordsWords = {
  whatYouTypedLastHas: 'What you typed last has not been kept yet. Leave it?',
};

/** `reports-nav.tsx` */
export const reportsNavWords = {
  progressReports: 'Progress reports',
  messages: 'Messages',
  messageTemplates: 'Message templates',
  whatGoesOut: 'What goes out',
};

/** `issued-marks.tsx` */
export const issuedMarksWords = {
  noWasIssuedInPlace: (replacedBy: number) => `No. ${replacedBy} was issued in place of this report.`,
  thatItWasMadeFrom: (correctedSince: string, correctedSince2: string) =>
    `${correctedSince} that it was made from ${correctedSince2} corrected or withdrawn since. The report says what stood when it was issued.`,
};

/** `issued.tsx` */
export const issuedWords = {
  noSuchAddress: 'No such address.',
  requests: 'The family asks for an amendment',
  pageTitle: (title: string) => `${title} · Gentle Margin`,
  aProgressReport: 'A progress report',
  aboutThisReport: 'About this report',
  no: (number: number) => `No. ${number}`,
  by: (said: string, issuedByName: string) => `${said}, by ${issuedByName}.`,
  forTheTeam: 'For the team',
  and: (readers: string) => ` and ${readers}`,
  itDoesNotChangeAny: '. It does not change any more.',
  print: ' Print',
  progressReport: 'Progress report',
};

/** `progress.tsx` */
export const progressWords = {
  pageTitle: (shortName: string) => `Progress reports of ${shortName} · Gentle Margin`,
  aboutProgressReports: 'About progress reports',
  aReportIsComputedFrom:
    'A report is computed from the entries until it is issued. Then it is numbered, dated and never changes.',
  whenAnEntryIsCorrected:
    'When an entry is corrected later, the report says so and stays as it was. A new one can be issued in its place; both stay readable.',
  familiesAreToldOfProgress: 'Families are told of progress periodically: 34 CFR 300.320(a)(3).',
  reportingPeriods: 'Reporting periods',
  thePlanHasNoReporting: 'The plan has no reporting periods yet.',
  addThemToThePlan: 'Add them to the plan',
  no: (number: number) => `no. ${number}`,
  overAndNotIssued: 'over, and not issued',
  notBegunYet: 'not begun yet',
  goingOn: 'going on',
  issueAnew: 'Issue anew',
  toTheDraft: 'To the draft',
  of: (label: string) => ` of ${label}`,
  issued: 'Issued',
  noneYet: 'None yet.',
  by: 'by ',
  forTheTeam: ' · for the team',
  replacedByNo: (replacedBy: number) => ` · replaced by no. ${replacedBy}`,
};

/** `read-issued.tsx` */
export const readIssuedWords = {
  noSuchReport: 'No such report.',
  ifYouSeeItOtherwise:
    'If you see something otherwise, you may add a statement that stays with this report, or ask the school to amend it.',
  stateOrAsk: 'Add a statement, or ask for an amendment',
  aProgressReport: 'A progress report',
  aboutThisReport: 'About this report',
  forItDoesNotChange: (readerName: string, said: string) => `For ${readerName}. ${said}. It does not change any more.`,
  pdf: 'PDF',
  print: ' Print',
  theIndividualReport: 'The individual report',
  progressReport: 'Progress report',
};

/** `meeting.tsx`, `decided.tsx` */
export const meetingWords = {
  pageTitle: (initials: string) => `Meeting · ${initials}`,
  meeting: 'Meeting',
  goals: 'Goals',
  previous: 'Previous',
  next: 'Next',
  goalOf: (at: number, of: number) => `Goal ${at} of ${of}`,
  leave: 'Leave the meeting view',
  noGoal: 'No goal is worked on at the moment.',
  nothingMeasuredYet: 'Nothing is measured yet.',
  decided: 'What is decided',
  usual: ['Raise the target', 'Change the support', 'Retire the goal'],
  what: 'Decision',
  note: 'Note decision',
  open: 'Open follow-ups',
  forBy: (name: string, due: string) => `for ${name}, due ${due}`,
  changeGoal: 'Change target or support now',
  retireGoal: 'Retire a goal now',
  unreachable: 'The server cannot be reached. Nothing is lost; note it again in a moment.',
};

/** `due-dates-calendar.ts` */
export const dueDatesWords = {
  calendar: 'Gentle Margin: due dates',
  planEnds: (who: string) => `${who}: the plan ends`,
  reportDue: (who: string, period: string, isIssued: boolean) =>
    `${who}: progress report, ${period}${isIssued ? ' (issued)' : ''}`,
};
