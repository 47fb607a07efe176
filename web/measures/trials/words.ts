// What the screens of this room say, together: to be read in one go, and one day translated.

/** `trials-sheet.tsx` */
export const trialsSheetWords = {
  changeOpportunity: (number: number, outcome: string) => `Opportunity ${number}: ${outcome}. Change it`,
  enterCountsInstead: 'Enter counts instead',
  oneLevelForTheSession: 'One support level for the session',
  nextOpportunity: 'Next opportunity',
  opportunity: (selected: number) => `Opportunity ${selected}`,
  opportunityIsChosenTheNext: (selected: number) => `Opportunity ${selected} is chosen: the next tap replaces it.`,
  ofHowMany: (many: string) => `Of how many ${many}?`,
  ofAccountedFor: (accounted: number, opportunities: number) => `${accounted} of ${opportunities} accounted for`,
  oneByOneInstead: 'One by one instead',
  of: (value: number, opportunities: number) => `${value} of ${opportunities}`,
  soFar: 'so far · ',
  atMost: 'at most',
};

/** `trials-fields.tsx` */
export const trialsFieldsWords = {
  plannedInASessionIf: 'Planned in a session, if the goal says',
  whenTheStudentRefuses: 'When the student refuses',
  noOpportunityLeftOut: 'no opportunity: left out',
  anOpportunityNotTakenIncorrect: 'an opportunity not taken: incorrect',
};

/** `session-level-sheet.tsx` */
export const sessionLevelSheetWords = {
  supportLevel: 'Support level of the whole session',
  right: 'Right',
  ofHowMany: (many: string) => `Of how many ${many}?`,
  oneByOneInstead: 'One by one instead',
};
