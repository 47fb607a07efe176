// What the screens of this room say, together: to be read in one go, and one day translated.

/** `task-analysis-sheet.tsx` */
export const taskAnalysisSheetWords = {
  notDone: 'Not done',
  theRestNotDone: 'The rest: not done',
  endsWithAnError: 'A single opportunity: after a step that is not done, the rest counts as not done.',
  toTeachNext: (toTeach: string) => `To teach next: ${toTeach}`,
};

/** `task-analysis-fields.tsx` */
export const taskAnalysisFieldsWords = {
  everyStep: 'Every step is looked at: saving asks first when one is open',
  theStepsInOrder: 'The steps, in order',
  taught: 'Taught',
  whenAStepIsNotDone: 'When a step is not done',
  theNextGetsItsOpportunity: 'the next step still gets its opportunity',
  theRestIsNotDone: 'the rest counts as not done (single opportunity)',
  allStepsAtOnce: 'all steps at once',
  fromTheFirstStepOn: 'from the first step on',
  fromTheLastStepBack: 'from the last step back',
};
