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
  thisIsLargerThanAn: 'This is larger than an entry can be. Nothing was changed.',
};

/** `form-of.ts` */
export const formOfWords = {
  thisFormCannotBeRead: 'This form cannot be read: its fields are not those of any form here. Nothing was changed.',
};
