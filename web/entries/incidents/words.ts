import { type ChoiceKind, choiceKinds, kindWords } from '~/core/entries/incidents/choice';

/** What the incident’s screen calls its parts. */
export interface IncidentWords {
  title: string;
  asks: Record<ChoiceKind, string>;
  /** A plain hint beside it; none where it says enough. */
  hints: Partial<Record<ChoiceKind, string>>;
  howLong: string;
  resolved: string;
  words: string;
  reads: string;
  again: string;
  begin: string;
  more: string;
}

const ofEach = (part: 'asks' | 'hint') =>
  // Every kind has its pair: `fromEntries` only knows that keys are texts.
  Object.fromEntries(choiceKinds.map((kind) => [kind, kindWords[kind][part]])) as Record<ChoiceKind, string>;

const inTheOpen: IncidentWords = {
  title: 'Record an incident',
  asks: ofEach('asks'),
  hints: ofEach('hint'),
  howLong: 'How long it lasted',
  resolved: 'Was it resolved?',
  words: 'Note',
  reads: 'How it will read',
  again: 'It happened again',
  begin: 'Tap what happened. What is not tapped stays blank.',
  more: 'More: how long, resolved, words',
};

/** The same for a screen that a passing student may see: nothing that says what it is about. */
const discreetly: IncidentWords = {
  title: 'A note',
  hints: {},
  asks: {
    behavior: 'Then',
    antecedent: 'First',
    consequence: 'Last',
    location: 'Where',
    intensity: 'Step',
    function: 'Also',
  },
  howLong: 'Minutes',
  resolved: 'Done?',
  words: 'Words',
  reads: 'In short',
  again: 'Again',
  begin: 'What is not tapped stays blank.',
  more: 'More',
};

export const incidentWords = (discreet: boolean) => (discreet ? discreetly : inTheOpen);

/** `chips.tsx` */
export const chipsWords = {
  isNew: 'new',
  other: ' other',
};

/** `how-long.tsx` */
export const howLongWords = {
  stop: 'Stop',
  goOn: 'Go on',
  start: 'Start',
  stillGoing: 'Still going',
  typed: (label: string) => `${label}, typed`,
  after: 'after',
  afterHowLong: 'After how long',
};

/** `when-fields.tsx` */
export const whenFieldsWords = {
  observerNotSpecified: 'observer not specified',
  beside: (name: string) => `beside ${name}`,
  locationChoose: 'Location: choose',
  fiveMinutesEarlier: '5 min earlier',
  change: 'change',
  date: 'Date',
  time: 'Time',
  where: 'Where',
  notSaid: 'Not specified',
  observer: 'Observer',
  secondObserverBeside: 'Second observer beside',
  nobodyThisIsTheOnly: 'Nobody: this is the only one',
  anotherPlace: 'Another location',
};

/** `incident-fields.tsx` */
export const incidentFieldsWords = {
  less: 'Less',
};

/** `recorded.ts` */
export const recordedWords = {
  thisCannotBeRead: 'This cannot be read.',
  seeIt: 'See it',
  savedFor: (initials: string) => `Saved for ${initials}.`,
  savedForAnAbcIncident: (firstName: string) => `Saved for ${firstName}: an ABC incident.`,
  savedCountsFor: (discreet: string, n: string) => `Saved for ${discreet}: ${n}.`,
  thereIsOnlySomethingTo: 'This address only takes entries.',
};

/** `choices-form.tsx` */
export const choicesFormWords = {
  discreet: 'In the discreet view',
  discreetOf: (name: string) => `In the discreet view: ${name}`,
  discreetly: (letters: string) => `discreet: ${letters}`,
  whatUsuallyComesJustBefore: 'What usually comes just before.',
  whateverFollowsNotAPunishment: 'Whatever follows, not a punishment: peers laughing is one.',
  aLocationOfTheSchool: 'A location of the school is filled in from the timetable.',
  fromLeastToMostEach: 'From least to most, each step with what it looks like.',
  whatItMayBeFor: 'What it may be for, as a guess: attention, escape, access, sensory.',
  shouldBecomeLess: 'Should become less',
  shouldBecomeMore: 'Should become more',
  writtenSoThatTwoPeople: 'Written so that two people who read it would count the same.',
  targetBehavior: 'target behavior',
  fieldsLeftOutOfThis: 'Fields left out of this student’s incidents',
  save: 'Save',
  back: 'Back',
  incidentByIncidentAbc: 'Incident by incident (ABC)',
  counted: 'Counted',
  timed: 'Timed',
  called: 'Called',
  leavesTheBench: 'Leaves the bench',
  direction: 'Direction',
  whatItLooksLike: 'What it looks like',
  whatItIsNot: 'What it is not',
  noted: 'How it is recorded',
  whatStepLooksLike: (at: number) => `What step ${at} looks like`,
  placeOfLocation: (at: number) => `Place of location ${at}`,
  noLocationOfTheTimetable: 'No location of the timetable',
  yesTheyMeanDifferentThings: 'Yes, they mean different things',
};

/** `record-incident.tsx` */
export const recordIncidentWords = {
  pageTitle: 'Note · Gentle Margin',
  why: 'Why',
  nothingToRecordYet: 'Nothing to record yet',
  noBehaviorIsCounted: (firstName: string, next: string) =>
    `None of ${firstName}’s target behaviors is set up to be counted or timed. ${next}`,
  noTargetBehaviorIsSet: (firstName: string, mayEditGoals: string) =>
    `No target behavior is set up for ${firstName}. ${mayEditGoals}`,
  itTakesAMinuteAnd: 'It takes a minute and starts from the school’s lists.',
  theCaseManagerSetsThem: 'The case manager sets them up.',
  setUpBehavior: 'Set up behavior',
  sayWhatHappened: 'Say what happened.',
  oneThingIsMissingWhat: 'One thing is missing: what happened.',
  itIsNotSavedYet: 'It is not saved yet: something needs another look.',
};

/** `record-count.tsx` */
export const recordCountWords = {
  pageTitle: 'Count · Gentle Margin',
  howItWillRead: 'How it will read',
  inShort: 'In short',
  nothingYetNoneOccurredCounts:
    'Nothing yet. “None occurred” counts too: it is what makes a rate a rate. What is not touched stays blank.',
  count: 'Count ',
  partOfTheDay: 'Part of the day',
  outsideTheDay: 'Outside the day',
  minutesWatched: 'Minutes watched',
  date: 'Date',
  from: 'From',
  observer: 'Observer',
  secondObserverBeside: 'Second observer beside',
  nobody: 'Nobody',
  noneOccurred: 'None occurred',
  stop: 'Stop',
  timeIt: 'Time it',
  oneLessOf: (name: string) => `One less of ${name}`,
  countOf: (name: string) => `Count of ${name}`,
  oneMoreOf: (name: string) => `One more of ${name}`,
  nothingIsCountedYetCount: 'Nothing is counted yet. Count, or say that none occurred.',
  sayHowLongYouWatched: 'Say how long you watched.',
  oneThingIsMissingHow: 'One thing is missing: how long you watched.',
};

/** `school-choices.tsx` */
export const schoolChoicesWords = {
  theStartingListsAreSaved: 'The starting lists are saved.',
  pageTitle: 'Starting lists · Gentle Margin',
  whatTheyAreFor: 'What they are for',
  aStudentWhoseBehaviorBegins: 'When behavior tracking begins for a student, their lists start as a copy of these.',
  aChangeHereChangesNo: 'A change here changes no student’s lists, and no incident recorded so far.',
  toTheSchool: 'To the school',
  startingLists: 'Starting lists',
};

/** `set-up.tsx` */
export const setUpWords = {
  itIsAChoiceNow: 'Added to the choices.',
  theyAreOneNowIn: 'Merged, in earlier incidents too.',
  theTimetableIsSaved: 'The timetable is saved.',
  theBehaviorSetupIsSaved: 'The behavior setup is saved.',
  savedWithoutBehavior: 'Saved. A target behavior is missing still: until there is one, nothing can be recorded.',
  noBehaviorYet: (shortName: string) =>
    `A target behavior is missing: until there is one, no incident and no count of ${shortName} can be recorded. Add one below, or copy from another student.`,
  copyFrom: 'Copy choices from',
  theStartingLists: 'The school’s starting lists',
  addWhatIsMissing: 'Add what is missing here',
  nothingToCopy: 'Everything there is here already.',
  copied: (n: string) => `${n} added to the lists below. Nothing is saved yet: look through them first.`,
  pageTitle: (shortName: string) => `Behavior setup of ${shortName} · Gentle Margin`,
  behaviorSetup: 'Behavior setup',
  besides: 'Also',
  behavior: (shortName: string) => `${shortName} · Behavior`,
  theseAreTheSchoolsStarting: (shortName: string) =>
    `These are the school’s starting lists. Keep what fits ${shortName}, reword it, add to it. Nothing is saved yet.`,
  typedIntoIncidents: 'Typed into incidents',
  makeItAChoice: 'Add to choices',
  retired: 'Retired',
  bringItBack: 'Bring it back',
  incidentsThatNameThemKeep: 'Incidents that name them keep them.',
  notOffered: 'Not offered',
  everythingIsOffered: 'Everything is offered.',
  twoThatMeanTheSame: 'Two that mean the same',
  thisOneGoes: 'Merge this one',
  intoThisOne: 'into this one',
  makeThemOne: 'Merge them',
  ownPartsOfTheDay: 'Own parts of the day',
  theyStandBeforeThoseOf: 'They take the place of the group’s and the school’s.',
  onePartOfTheDay: 'part of the day',
  partOfTheDay: 'Part of the day',
  from: 'From',
  to: 'To',
  location: 'Location',
  notSaid: 'Not specified',
  on: 'On',
  saveTheTimetable: 'Save the timetable',
  earlierDefinitions: 'Earlier definitions',
  untilChangedBy: (until: string, changedBy: string) => `Until ${until}, changed by ${changedBy}:`,
};
