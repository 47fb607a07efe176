// What the screens of this room say, together: to be read in one go, and one day translated.

/** `access-log-row.ts` */
export const accessLogRowWords = {
  aShareLink: (label: string) => `a share link (${label})`,
};

/** `thread.tsx` */
export const threadWords = {
  about: 'About',
  as: 'What it is',
  kinds: {
    comment: { name: 'An answer', about: 'The support team reads it.', label: 'Your answer', send: 'Answer' },
    statement: {
      name: 'A statement that stays with it',
      about: 'It is shown wherever this is shown, to everyone who reads it.',
      label: 'Your statement',
      send: 'Add the statement',
    },
    amendment: {
      name: 'A request to amend it',
      about: 'The case manager is asked to correct it and answers you here.',
      label: 'What should be amended, and why',
      send: 'Send the request',
    },
  },
  decide: 'Decide on this request',
  asksToAmend: (name: string) => `${name} asks for an amendment`,
  correctFirst:
    'To amend an entry, correct it on its own page, or withdraw it; a report is issued anew in place of the other. Then say here what was done.',
  decision: 'Decision',
  outcomes: { amended: 'It is amended', refused: 'It is not amended' },
  whyForTheFamily: 'Why, for the family to read',
  saveDecision: 'Save the decision',
  saySomethingAbout: 'Say something about',
  answer: 'Answer',
  saySomething: 'Say something',
  toNamed: (name: string) => ` to ${name}`,
  hiddenBy: (by: string, reason: string) => ` · hidden by ${by}: ${reason}`,
  showAgainWhatSaid: (name: string) => `Show again what ${name} said`,
  showAgain: 'Show again',
  hideNamed: (name: string) => `Hide what ${name} said`,
  hide: 'Hide',
  hideThis: 'Hide this?',
  hideQuestion: (name: string) => `Hide what ${name} said?`,
  readersNoLongerSeeIt:
    'Readers no longer see it. It stays here for the team, with your reason, and can be shown again.',
  why: 'Why',
  leaveIt: 'Leave it',
  hideIt: 'Hide it',
  to: 'To',
  andTheTeam: (name: string) => `${name}, and the team`,
  everyoneWhoReadsThisEntry: 'Everyone who reads this entry',
  whatIThinkAboutIt: 'What I think about it',
  yourAnswer: 'Your answer',
  putItInMyReport: 'Put it in my report',
};

/** `sharing-nav.tsx` */
export const sharingNavWords = {
  whoCanSeeThis: 'Who can see this',
  whatEachReaderSees: 'What each reader sees',
  shareLinks: 'Share links',
  accessLog: 'Access log',
  wholeRecord: 'Whole record',
  aboutReaders: 'About readers',
  desk: 'The student’s desk',
};

/** `access-log.tsx` */
export const accessLogWords = {
  asASpreadsheet: '(XLSX)',
  aReader: 'A reader',
  pageTitle: (shortName: string) => `Access log, ${shortName} · Gentle Margin`,
  byAndWhatFor: 'By, and what for',
  aboutThisLog: 'About this log',
  everyOpeningExportMessageAnd:
    'Every opening, export, message and issued report of this student: by or to whom, by which share link, and what for. What the team opens is written once a day; what a reader from outside opens, each time, except again within ten minutes.',
  aSchoolKeepsARecord:
    'A school keeps a record of who was shown a student’s records: 34 CFR 99.32. Nothing is taken out of it.',
  theAccessLogAsA: 'The access log as a file (CSV)',
  printedHeading: (shortName: string, schoolName: string, today: string) =>
    `${shortName} · access log · ${schoolName} · ${today}`,
  accessLog: 'Access log',
  nobodyHasReadItYet: 'Nobody has read it yet.',
  who: 'Who',
  how: 'How',
  theAccessLog: 'The access log',
};

/** `visibility-form.tsx` */
export const visibilityFormWords = {
  aTable: 'A table',
  byWeek: 'By week',
  byGoal: 'By goal',
  notGrouped: 'Not grouped',
  whatEachReaderSees: 'What each reader sees',
  thisStudentsOwn: 'this student’s own',
  for: (label: string, label2: string) => `${label} for ${label2}`,
  as: 'As',
  grouped: 'Grouped',
  oldestFirst: 'Oldest first',
  oldestFirstFor: (label: string) => `Oldest first for ${label}`,
  saveWhatEachReaderSees: 'Save what each reader sees',
  asAReaderSeesIt: 'As a reader sees it',
  nothingOfTheReport: 'Nothing of the report.',
  theNewestEntriesAsSeen: (label: string) => `The newest entries as seen by: ${label}`,
};

/** `school-visibility.tsx` */
export const schoolVisibilityWords = {
  savedItHoldsForEvery: 'Saved. It applies to every student without a table of their own.',
  whatEachReaderSeesGentle: 'What each reader sees · Gentle Margin',
  aboutThisTable: 'About this table',
  itHoldsForEveryStudent: 'It applies to every student whose case manager has not made another.',
  beCarefulWithNotesAnd:
    'Be careful with notes and with behavior: they often say more than was meant for this reader. Numbers say what went well.',
  whatEachReaderSees: 'What each reader sees',
  whatEachKindOfReader: 'What each kind of reader is shown of a report, in the whole school',
};

/** `copy-button.tsx` */
export const copyWords = { ready: 'Copy', copied: 'Copied ✓', refused: 'Copy it by hand' };

/** `share-links.tsx` */
export const shareLinksWords = {
  isOpenUntil: (day: string) => `open until ${day}`,
  endedOn: (day: string) => `ended ${day}`,
  aReader: 'A reader',
  theShareLinkIsWithdrawn: 'The share link is withdrawn: it no longer opens.',
  theShareLinkIsUnlocked: 'The share link is unlocked: the passcode can be tried again.',
  thisShareLinkIsAlready: 'This share link is already there. It cannot be shown a second time.',
  pageTitle: (shortName: string) => `Share links to ${shortName} · Gentle Margin`,
  aNewShareLink: 'A new share link',
  aLinkForOneReader: 'A link for one reader, to this report only. No account is needed.',
  theServerCannotBeReached: 'The server cannot be reached at the moment. Nothing you typed is lost: try again shortly.',
  shareLinks: 'Share links',
  linksForReadersFromOutside: 'Links for readers from outside. What each kind sees is said in',
  whatEachReaderSees: 'What each reader sees',
  eachReadingIsWrittenDown: '; each reading is written down.',
  nobodyFromOutsideTheTeam: 'Nobody from outside the team yet.',
  whoWillRead: 'Who will read',
  grandmotherDrPerrin: 'Grandmother, Dr. Perrin …',
  whatKindOfReader: 'What kind of reader',
  whatFor: 'What for',
  openUntil: 'Open until',
  passcodeIfYouWantOne: 'Passcode, if you want one',
  tellItByAnotherWay: 'tell it by another way',
  makeTheLink: 'Make the link',
  theNewLink: 'The new link',
  theLinkFor: (readerName: string) => `The link for ${readerName}`,
  itIsShownOnlyNow: 'It is shown only now: copy it and send it to this reader alone.',
  theLink: 'The link',
  withdrawn: (withdrawnOn: string) => `withdrawn ${withdrawnOn}`,
  withAPasscode: ' · with a passcode',
  made: ' · made ',
  by: ' by ',
  lockedAWrongPasscodeWas: 'Locked: a wrong passcode was given too often.',
  unlock: 'Unlock',
  lastRead: (on: string, time: string) => `last read ${on}, ${time}`,
  notOpenedYet: 'not opened yet',
  opened: (readings: string) => `opened ${readings}`,
  withdrawNamed: (readerName: string) => `Withdraw the share link of ${readerName}`,
  withdraw: 'Withdraw',
  withdrawThisShareLink: 'Withdraw this share link?',
  withdrawQuestion: (readerName: string) => `Withdraw the share link of ${readerName}?`,
  itStopsOpeningAtOnce: 'It stops opening at once. What was read stays written down. You can make a new one.',
  keepIt: 'Keep it',
  withdrawLink: 'Withdraw link',
  theReaderHasStoppedMessages: 'The reader has stopped messages.',
  emailsTo: (email: string, frequencyWords: string) => `Emails to ${email}, ${frequencyWords}.`,
  noEmails: 'No emails.',
  change: 'Change',
  howIsTold: (readerName: string) => ` how often ${readerName} gets email`,
  email: 'Email',
  told: 'How often',
  save: 'Save',
  writeTo: (readerName: string) => `Write to ${readerName}`,
};

/** `visibility.tsx` */
export const visibilityWords = {
  savedEveryReaderSeesThe: 'Saved. Every reader sees the report so from now on.',
  whatEachReaderSeesFor: (shortName: string) => `What each reader sees, for ${shortName} · Gentle Margin`,
  asAReaderSeesIt: 'As a reader sees it',
  whatEachReaderSees: 'What each reader sees',
  whereNothingIsThisStudents:
    'Where this student has nothing of their own, the school’s table applies. A reader may lay the report out another way for themselves; what is not ticked is not in their page at all.',
};

/** `who.tsx` */
export const whoWords = {
  aReader: 'A reader',
  pageTitle: (shortName: string) => `Who can see ${shortName} · Gentle Margin`,
  nobodyElse: 'Nobody else',
  whoeverIsNotOnThis: (shortName: string) =>
    `Whoever is not on this page sees nothing of ${shortName}: not the goals, not an entry, not the report.`,
  whoSetsUpTheSchool: 'Administrators see the name, grade and groups on the roster, and nothing that was observed.',
  aReaderFromOutsideSees: 'A reader from outside sees “a classmate” where a note names another child.',
  couldSeeOn: (day: string) => `who could see this on ${day}`,
  canSee: 'who can see this',
  couldSeeOnQuestion: (day: string) => `Who could see this on ${day}?`,
  canSeeQuestion: 'Who can see this?',
  print: ' Print',
  onAnotherDay: 'On another day',
  showThatDay: 'Show that day',
  backToToday: 'Back to today',
  asItStoodAtThe:
    'As it stood at the end of that day, by what was written down of teams, share links and what each reader sees.',
  theSupportTeam: 'The support team',
  changeTheTeam: 'Change the team',
  readersFromOutside: 'Readers from outside',
  nobody: 'Nobody.',
  lastRead: (lastRead: string) => `Last read ${lastRead}.`,
  notOpenedYet: 'Not opened yet.',
};

/** `share.ts`, `share-dialog.tsx` */
export const shareWords = {
  shareReport: 'Share report',
  whoReads: 'Who will read',
  example: 'Grandmother, Dr. Perrin …',
  kind: 'What kind of reader',
  theySee: 'They see',
  alwaysSeen: 'the day and the goal',
  change: 'Change what each reader sees',
  anExample: 'For example',
  nothingToSee: 'There is no entry yet that they would see.',
  openUntil: 'Open until',
  passcode: 'Passcode (optional; tell it by another way than the link)',
  email: 'Their email (optional)',
  sendNow: 'Send them the link now',
  share: 'Share report',
  alreadyMade: 'This share link is there already. Its address was shown once; withdraw it and make a new one.',
  theLinkFor: (name: string) => `The link for ${name}`,
  shownOnlyNow: 'It is shown only now: copy it, or send it on.',
  isSent: (email: string) => `A message with it leaves now to ${email}.`,
  theLink: 'The link',
  sendOn: 'Send on …',
  done: 'Done',
  cancel: 'Cancel',
  unreachable: 'The server cannot be reached. Nothing is lost; share it again in a moment.',
};
