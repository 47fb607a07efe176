// What the screens of this room say, together: to be read in one go, and one day translated.

/** `criterion-fields.tsx` */
export const criterionFieldsWords = {
  atLeastOrAtMost: 'At least or at most',
  atLeast: 'At least',
  atMost: 'At most',
  valueOfTheCriterion: 'Value of the criterion',
  howOftenItMustBe: 'How often it must be reached',
  inSoManyOfThe: 'in so many of the last',
  inARow: 'in a row',
  inHowMany: 'In how many',
  ofTheLast: 'of the last',
  ofTheLastHowMany: 'Of the last how many',
  howManyInARow: 'How many in a row',
  daysOrSessions: 'Days or sessions',
  whatIsMissingAboveAnd: 'What is missing above, and the criterion is read out here.',
  howEasilyLuckWouldMeet: 'How easily luck would meet it',
  countsWithAtLeastSo: (n: string) => `Counts with at least so many ${n}`,
  inEachOfSoMany: 'In each of so many locations',
  forEachOfSoMany: 'For each of so many observers',
};

/** `goal-form.tsx` */
export const goalFormWords = {
  asTheObserverGetsIt: 'As the observer gets it',
  tryItNothingHereIs: 'Try it: nothing here is saved.',
  number: 'Number',
  shortName: 'Short name',
  asksForATool: 'Asks for a tool',
  area: 'Area',
  theGoalWordForWord: 'The goal, word for word as the plan has it',
  whatDoYouWantTo: 'What do you want to know?',
  thisChangesWhatIsRecorded: 'This changes what is recorded. Items that stay carry on, and the graph goes on as one.',
  thisChangesWhatIsRecordedEntries:
    'This changes what is recorded. Entries made before keep how they were measured, and the graph draws a line.',
  measuredInThisWayFrom: 'Measured in this way from',
  namesAndWordingsMayChange:
    'Names and wordings may change any time. Another list of levels, items or steps, or another kind of measure begins anew from a date.',
  reachedWhen: 'Reached when',
  baselineWhereThePlanStates: 'Baseline, where the plan states one',
  baselineTakenOn: 'Baseline taken on',
  whereDoesTheStudentBegin:
    'Where does the student begin? Without a figure from the plan, mark a phase below as baseline and record three scores in it, or take the first three when they are there.',
  observedFrom: 'Observed from',
  toBeReachedBy: 'To be reached by',
  howOftenByWhomWhere: 'How often, by whom, where',
  atLeastOnceEvery: 'At least once every',
  schoolDays: 'school days',
  byIfThePlanSays: 'Observer, if the plan says',
  inIfThePlanSays: 'Location, if the plan says',
  phases: 'Phases',
  aLineInTheGraph: 'A line in the graph where something was changed: another way of helping, another room.',
  whatBegins: 'What begins',
  on: 'On',
  baseline: 'baseline',
  saveTheGoal: 'Save the goal',
  back: 'Back',
};

/** `support-step-rows.tsx` */
export const supportStepRowsWords = {
  stepsOfTheSupport: 'Steps of the support (optional)',
  whatTheyAreFor:
    'What adults do in it. While observing one can tap which were done (fidelity), and the goal’s page shows it beside what the student did.',
  whatTheAdultDoes: 'What the adult does',
};
