import { counted } from '~/core/words/counting';

// What the screens of this room say, together: to be read in one go, and one day translated.

/** `student-header.tsx` */
export const studentHeaderWords = {
  plan: (startsOn: string, endsOn: string) => `Plan ${startsOn} – ${endsOn}`,
  noPlanDatesYet: 'No plan dates yet',
  hasLeft: 'Has left',
  wholeRecord: 'Whole record',
  nextReport: (nextReportOn: string) => `Next report ${nextReportOn}`,
  edit: 'edit',
  viewsOf: (shortName: string) => `Views of ${shortName}`,
  goals: 'Goals',
  notes: 'Notes',
  behavior: 'Behavior',
  report: 'Report',
  sharing: 'Sharing',
  team: 'Team',
  observe: 'Observe',
  recordAnIncident: 'Record an incident',
  note: (isDiscreet: boolean) => (isDiscreet ? 'Form' : 'Note'),
  count: 'Count',
};

/** `first-steps.ts` */
export const firstStepsWords = {
  planDatesAndReportingPeriods: 'Plan dates and reporting periods',
  goalsWordForWordAs: 'Goals, word for word as in the plan',
  aBaselineForEachGoal: 'A baseline for each goal',
  theSupportTeam: 'The support team',
  theFirstEntry: 'The first entry',
};

/** `student-form.tsx` */
export const studentFormWords = {
  firstName: 'First name',
  lastName: 'Last name',
  yesThisIsSomeoneElse: 'Yes, this is someone else',
  grade: 'Grade',
  called: 'Called',
  initials: 'Initials',
  caseManager: 'Case manager',
  choose: 'Choose …',
  onlyTheCaseManagerOr: 'Only the case manager or an administrator changes this.',
  classGroups: 'Class groups',
  save: 'Save',
  back: 'Back',
};

/** `edit-student.tsx` */
export const editStudentWords = {
  changed: (day: string, from: string | null, to: string, by: string) =>
    `${day}: ${from ? `from ${from} ` : ''}to ${to}, by ${by}`,
  thePlanIsSaved: 'The plan is saved.',
  saved: 'Saved.',
  pageTitle: (title: string) => `${title} on the roster · Gentle Margin`,
  aStudent: 'A student',
  theRoster: 'The roster',
  thePlan: 'The plan',
  theDatesOfTheIndividualized: 'The dates of the individualized education program, and when progress is reported.',
  itsDatesAndGoalsAre: 'Its dates and goals are the case manager’s to set.',
  toThePageOf: (title: string) => `To the page of ${title}`,
  withANewCaseManager: 'With a new case manager, the one before stays on the support team as an educator.',
  caseManagersSoFar: 'Case managers so far',
  startsOn: 'Starts on',
  endsOn: 'Ends on',
  reportingPeriods: 'Reporting periods',
  called: 'Called',
  saveThePlan: 'Save the plan',
};

/** `invited.tsx` */
export const invitedWords = {
  youWillNotJoinThis: 'You will not join this team. Whoever asked you can see that.',
  pageTitle: 'An invitation · Gentle Margin',
  joinASupportTeam: 'Join a support team',
  asksYouToJoinThe: (madeByName: string, role: string) =>
    `${madeByName} asks you to join the support team of a student, as ${role}.`,
  thereIsAnAccountFor: (email: string) => `There is an account for ${email}. Sign in with it to answer.`,
  signInToAnswer: 'Sign in to answer',
  youAreSignedInAs: (email: string) => `You are signed in as ${email}.`,
  joinTheTeam: 'Join the team',
  iDoNotWantTo: 'I do not want to join',
  yourAccountWithWhichYou: (email: string) => `Your account, with which you sign in: ${email}`,
  yourName: 'Your name',
  whatYouDoInA: 'What you do, in a word or two',
  occupationalSpecialist: 'Occupational specialist',
  makeMyAccountAndJoin: 'Make my account and join',
};

/** `new-student.tsx` */
export const newStudentWords = {
  isOnTheRoster: (firstName: string) => `${firstName} is on the roster.`,
  addAnother: 'Add another',
  pageTitle: 'A new student · Gentle Margin',
  aboutTheRoster: 'About the roster',
  aNewPage: 'A new page',
  theStudentsPageExistsAs:
    'The student’s page exists as soon as you save, with a tab at the edge for the case manager. Goals come next.',
  aNewStudent: 'A new student',
};

/** `roster.tsx` */
export const rosterWords = {
  pageTitle: 'Roster · Gentle Margin',
  aboutTheRoster: 'About the roster',
  aStudentHasAPage: 'A student has a page from the moment they are on the roster, before anything is observed.',
  youSeeEverybodysNameHere:
    'You see every name here because you are an administrator. What was observed is for the support team.',
  anArchivedStudentLeavesEvery:
    'An archived student leaves every list. All that was recorded stays, and comes back with them.',
  schoolDaysGroupsAndLocations: 'School days, groups and locations',
  roster: 'Roster',
  importAList: 'Import a list',
  addAStudent: 'Add a student',
  findInTheRoster: 'Find in the roster',
  aName: 'A name',
  classGroup: 'Class group',
  allGroups: 'All groups',
  archived: (archived: number) => `Archived (${archived})`,
  theRosterIsEmptyBegin: 'The roster is empty. Begin with the first student.',
  nobodyMatches: 'Nobody matches.',
  pagesOfTheRoster: 'Pages of the roster',
  before: '← Before',
  pageOf: (page: number, pages: number, found: string) => `Page ${page} of ${pages}, ${found}`,
  next: 'Next →',
  noGroupYet: 'no group yet',
  noCaseManager: 'no case manager',
  bringBackNamed: (name: string) => `Bring ${name} back`,
  bringBack: 'Bring back',
  archiveNamed: (name: string) => `Archive ${name}`,
  archive: 'Archive',
  archiveThem: (name: string) => `Archive ${name}?`,
  theyLeaveEveryListAnd: 'They leave every list and tab. All that was recorded stays; you can bring them back.',
  keepOnTheRoster: 'Keep on the roster',
};

/** `start-form.tsx` */
export const startFormWords = {
  onTheTeamSinceAt: (today: string) => `On the team since (${today} at the latest)`,
  saveTheDay: 'Save the day',
};

/** `student-team.tsx` */
export const studentTeamWords = {
  theInvitationIsTakenBack: 'The invitation is taken back.',
  theDayIsChanged: 'The day is changed.',
  theTeamIsChanged: 'The team is changed.',
  alsoOnTheTeams: 'Also on other teams of yours',
  withTheSame: 'In the same step, with the same role, rights and dates, on the teams of',
  pageTitle: (shortName: string) => `Team of ${shortName} · Gentle Margin`,
  bringSomebodyIn: 'Bring somebody in',
  inviteByEmail: 'Invite by email',
  theyGetALinkThat: (days: number) => `They get a link that works once, for ${days} days.`,
  fromTheSchool: 'From the school',
  somebodyWhoHasAnAccount: 'Somebody who has an account already.',
  aboutTheTeam: 'About the team',
  theCaseManagerSaysWho: 'The case manager says who is on it, and what each may do.',
  supportTeam: 'Support team',
  wasOnTheTeam: 'was on the team',
  mayDoEverything: 'may do everything',
  mayDo: (rights: string) => `may ${rights}`,
  readsTheReportOnly: 'reads the report only',
  changeSinceWhen: 'Change since when',
  change: 'Change',
  whatMayDo: (name: string) => ` what ${name} may do`,
  invited: 'Invited',
  doesNotWantToJoin: 'does not want to join',
  untilDay: (endsOn: string) => `until ${endsOn}`,
  takeBackTheInvitationOf: (name: string) => `Take back the invitation of ${name}`,
  takeBack: 'Take back',
  theInvitation: 'The invitation',
  isInvited: (name: string) => `${name} is invited`,
  noMailLeavesThisInstallation:
    'No mail leaves this installation: pass this link on yourself. It is shown only now, and proves nothing of the address.',
  theLinkOfTheInvitation: 'The link of the invitation',
  aMessageBringsTheLink:
    'A message brings the link to this address, and only there. Whoever answers it shows that the address is theirs.',
  name: 'Name',
  email: 'Email',
  whatTheyAreToThe: 'What they are to the student',
  theyMay: 'They may',
  untilIfItEnds: 'Until, if it ends',
  invite: 'Invite',
  who: 'Who',
  choose: 'Choose …',
  may: (name: string) => `${name} may`,
  from: 'From',
  until: 'Until',
  save: 'Save',
  putOnTheTeam: 'Put on the team',
};

/** `absences.tsx` */
export const absencesWords = {
  pageTitle: (shortName: string) => `Days away, ${shortName} · Gentle Margin`,
  daysAway: 'Days away',
  whatTheyAreFor: 'What they are for',
  takenOutOfRates:
    'A day on which the student was away is taken out of every rate of behavior, and nothing is due on it. Incidents recorded on such a day are counted beside.',
  ofOneGoal: 'Where only one goal could not be observed, say so with “Absent” on its data sheet.',
  none: 'No day away has been recorded.',
  from: 'From',
  to: 'To, with this day',
  save: 'Save days away',
  saved: (days: number) => `Saved: away on ${counted(days, 'school day', 'school days')}.`,
  removed: 'Removed: the student was there on that day.',
  by: (name: string) => `recorded by ${name}`,
  remove: 'Remove',
  removeDay: (day: string) => `Remove ${day}`,
};

/** `names-in-note.tsx` */
export const namesInNoteWords = {
  anotherChild: (named: string) => `${named}: another child? Readers from outside see “a classmate”.`,
};

/** `new-entries.tsx` */
export const newEntriesWords = {
  show: (count: number) => `Show ${counted(count, 'new entry', 'new entries')}`,
};
