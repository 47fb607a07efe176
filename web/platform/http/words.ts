// What the screens of this room say, together: to be read in one go, and one day translated.

/** `request-person.ts` */
export const requestPersonWords = {
  noSuchAddress: 'No such address.',
};

/** `in-turn.ts` */
export const inTurnWords = {
  manyPeopleAreAskingFor: 'Many people are asking for large pages at the moment.',
};

/** `security.ts` */
export const securityWords = {
  thisWasSentFromAnother: 'This was sent from another site. Nothing was changed.',
  theLengthOfWhatIs: 'The length of what is sent must be given.',
  tooLarge: (most: string) => `This is larger than ${most}, the most that is taken here. Nothing was changed.`,
};

/** `form-of.ts` */
export const formOfWords = {
  thisFormCannotBeRead: 'This form cannot be read: its fields are not those of any form here. Nothing was changed.',
};

/** `bodies.ts` */
export const bodiesWords = {
  muchAtOnce: 'Too much is being sent at once. Nothing was changed; try again in a few seconds.',
  tooSlow: 'This was sent too slowly. Nothing was changed; try again.',
  signInFirst: 'Sign in first. Nothing was changed.',
  notWhole: 'This did not arrive whole. Nothing was changed; try again.',
};

/** `pages.ts` */
export const pagesWords = {
  muchAtOnce: 'Too many pages are being asked for at once. Try again in a few seconds.',
};
