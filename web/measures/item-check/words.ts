// What the screens of this room say, together: to be read in one go, and one day translated.

/** `item-check-sheet.tsx` */
export const itemCheckSheetWords = {
  theRestIncorrect: 'The rest: incorrect',
  clearAll: 'Clear all',
  of: (amount: number, weight: number) => `${amount} of ${weight} · `,
};

/** `item-check-fields.tsx` */
export const itemCheckFieldsWords = {
  theItems: 'The items',
  everyItem: 'Every item is asked: saving asks first when one is open',
};
