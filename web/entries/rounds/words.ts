// What the screens of this room say, together: to be read in one go, and one day translated.

/** `round-form.tsx` */
export const roundFormWords = {
  name: 'Name',
  mondayKitchen: 'Monday kitchen',
  usuallyOn: 'Usually on',
  anyDay: 'Any day',
  at: 'At',
  forms: 'Forms to fill in for each student (optional)',
  whoAndWhat: 'Who, and what',
  youAreNotOnAny: 'You are not on any student’s support team yet.',
  keepTheRound: 'Save the round',
  goThroughItOnce: 'Go through it once',
  back: 'Back',
};

/** `edit-round.tsx` */
export const editRoundWords = {
  theRoundIsKept: 'The round is saved.',
  pageTitle: 'A round · Gentle Margin',
  aboutRounds: 'About rounds',
  aRoundTakesSeveralStudents:
    'A round takes several students and goals in one go: one after the other, or up to four side by side.',
  notEverythingInItMust: 'Not everything in it must be recorded. What you leave alone stays blank.',
  aRoundIsYoursThe: 'A round is yours; the entries are the students’, as always.',
  rounds: 'Rounds',
  aNewRound: 'A new round',
};

/** `observe-round.tsx` */
export const observeRoundWords = {
  noSuchGoals: 'No such goals.',
  aRound: 'A round',
  theFirst: (count: number, all: number) => `A round of the first ${count} of ${all} goals`,
  pageTitle: (name: string) => `${name} · Gentle Margin`,
  nobodyIsInItNow: (name: string) => `${name}: nobody is in it now`,
};

/** `rounds.tsx` */
export const roundsWords = {
  sheet: 'Sheet',
  sheetOf: (name: string) => `Blank sheet to print: ${name}`,
  pageTitle: 'Rounds · Gentle Margin',
  aboutRounds: 'About rounds',
  severalStudentsAndGoalsIn:
    'Several students and goals in one go, saved to use again. A round with a day and a time comes up on Today.',
  rounds: 'Rounds',
  makeARound: 'Make a round',
  theRoundIsRemoved: 'The round is removed. Its entries stay.',
  putItBack: 'Put it back',
  noRoundIsKeptYet: 'No rounds yet. Make one for a class or a part of the day.',
  goThrough: (name: string) => `Go through ${name}`,
  goThroughIt: 'Go through it',
  editNamed: (name: string) => `Edit ${name}`,
  edit: 'Edit',
  removeNamed: (name: string) => `Remove ${name}`,
  remove: 'Remove',
};
