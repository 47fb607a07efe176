// What the screens of this room say, together: to be read in one go, and one day translated.

/** `rubric-sheet.tsx` */
export const rubricSheetWords = {
  from: (levels: readonly { points: number; words: string }[]) => {
    const [first, last] = [levels[0], levels.at(-1)];
    return first && last ? `${first.points} ${first.words} … ${last.points} ${last.words}` : '';
  },
};

/** `rubric-fields.tsx` */
export const rubricFieldsWords = {
  whatIsLookedAtAnd: 'What is looked at, and what each level looks like',
  criterion: 'Criterion',
  overallMark: 'A mark for the whole: it stands beside the others and is not in the figure',
  points: 'Points',
  whatItLooksLike: 'What it looks like',
  sameLevels: 'Copy these levels to the other criteria',
  theValueIs: 'The value is',
  theMeanOfTheCriteria: 'the mean of the criteria',
  theSumOfTheirPoints: 'the sum of their points',
  theShareOfThePossible: 'the share of the possible points',
};
