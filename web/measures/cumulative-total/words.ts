// What the screens of this room say, together: to be read in one go, and one day translated.

/** `cumulative-total-sheet.tsx` */
export const cumulativeTotalSheetWords = {
  whatWasIt: 'What was it?',
  amount: (at: number) => `amount ${at}`,
  of: ' of ',
  another: 'Amount',
  title: (at: number) => `Title of amount ${at} (optional)`,
  titleShort: 'Title (optional)',
};

/** `cumulative-total-fields.tsx` */
export const cumulativeTotalFieldsWords = {
  whatItShouldComeTo: 'What it should come to',
  amountsAre: 'Amounts are',
  onlyAdded: 'only added',
  addedAndTakenOff: 'added and taken off (a balance)',
  categoriesOptional: 'Categories (optional)',
};
