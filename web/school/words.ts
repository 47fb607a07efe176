// What the screens of this room say, together: to be read in one go, and one day translated.

/** `changes-file.ts` */
export const changesFileWords = {
  noSuchFileInThe: 'No such file in the discreet view.',
};

/** `changes.tsx` */
export const changesWords = {
  pageTitle: 'Changes · Gentle Margin',
  aboutThisList: 'About this list',
  whoMayDoAndSee:
    'Who may do and see what, and what the school and its figures rest on: each change with how it was before and after. Nothing is taken out of it: the database refuses.',
  whatWasObservedHasIts: 'What was observed has its own history, on each entry’s page.',
  whatAFamilyCouldSee: 'What a family could see of a student on a day is told under ',
  whoCanSeeThis: 'Who can see this',
  onThatStudentsPage: ' on that student’s page.',
  theseChangesAsAFile: 'These changes as a file (CSV)',
  toTheSchool: 'To the school',
  changes: 'Changes',
  what: 'What',
  everything: 'Everything',
  nameOfAStudentOr: 'Name of a student or person',
  from: 'From',
  to: 'To',
  showThese: 'Show these',
  namesAreHiddenInThe: 'Names are hidden in the discreet view, and this list is made of them.',
  nothingHasBeenChangedYet: 'Nothing has been changed yet.',
  nothingThatFitsAskFor: 'Nothing that fits. Ask for less at once.',
  changesNewestFirst: 'Changes, newest first',
  when: 'When',
  of: 'Of',
  fromWhatToWhat: 'From what to what',
  by: 'By',
  theSchool: 'the school',
  became: ' became ',
  nothing: 'nothing',
  aReaderFromOutside: 'a reader from outside',
  later: '← Later',
  pageOf: (page: number, pages: number) => `, page ${page} of ${pages}`,
  earlier: 'Earlier →',
};

/** `school.tsx` */
export const schoolWords = {
  theSchoolIsSaved: 'The school is saved.',
  stepsOfTheirWork: 'How students say where they are',
  fiveMeanings:
    'At their desk students say of each step of their work how they stand with it: five meanings. Type words of your own where they suit your students better.',
  pageTitle: 'School · Gentle Margin',
  whatItIsFor: 'What it is for',
  schoolDaysAndClosuresSay:
    'School days and closures say when a goal is due, how long nothing was observed, and how many points a week there can be.',
  theTimeZoneIsThe: 'The time zone is the one of the clock on the wall, whatever a device says.',
  groupsAndLocationsAreRenamed:
    'Groups and locations are renamed in every entry at once. They are not taken away: entries name them.',
  theTimetableTellsWhatIs: 'The timetable tells what is planned now, and fills in the location.',
  toThePeople: 'To the people who work here',
  signingIn: 'Signing in',
  asksSecondFactor: 'Whoever shares reports or administers types a code beside the password',
  toTheRoster: 'To the roster',
  testMailServer: 'Test mail server',
  whatWasChangedWhenAnd: 'What was changed, when and by whom',
  startingListsForAbcNotes: 'Starting lists for incidents (ABC)',
  school: 'School',
  name: 'Name',
  timeZone: 'Time zone',
  schoolDays: 'School days',
  openOn: 'Open on',
  closures: 'Closures',
  whatItIs: 'What it is',
  firstDay: 'First day',
  lastDay: 'Last day',
  classGroups: 'Class groups',
  places: 'Locations',
  timetable: 'Timetable',
  onePartOfTheDay: 'part of the day',
  partOfTheDay: 'Part of the day',
  for: 'For',
  wholeSchool: 'Whole school',
  location: 'Location',
  notSaid: 'Not specified',
  from: 'From',
  to: 'To',
  on: 'On',
  signingOutByItself: 'Signing out by itself',
  whenNobodyUsesASign: 'When nobody uses a sign-in for this long, it ends.',
  documents: 'Documents',
  paper: 'PDFs and text documents are set for',
  sizes: { letter: 'Letter (8.5 × 11 in)', a4: 'A4 (210 × 297 mm)' },
  withoutNetwork: 'Without network',
  devicesKeepWhatTheyNeed:
    'The devices of your staff keep what they need to go on recording without network: locked, of their own students, until they sign out. 0 days keeps nothing.',
  keptForAtMost: 'Kept for at most',
  onASharedTablet: 'On a shared tablet',
  locksItselfAfter: 'A device locks itself after (blank: never)',
  elsewhere: 'Elsewhere',
  saveTheSchool: 'Save the school',
  nameOf: (what: string, at: number) => `Name of ${what} ${at}`,
};

/** `first-steps.ts` */
export const firstStepsWords = {
  closures: 'School days, vacations and other closures',
  locations: 'Locations and class groups',
  student: 'The first student, with a case manager',
  staff: 'The support team: invite people on the student’s Team page',
};
