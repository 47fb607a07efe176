// What the screens of this room say, together: to be read in one go, and one day translated.

/** `latency-sheet.tsx` */
export const latencySheetWords = {
  theResponseCame: 'the response came',
  noResponse: 'No response',
  giveThe: (one: string) => `Give the ${one}`,
  noResponseAt: (at: number) => `${at}. no response`,
};

/** `latency-fields.tsx` */
export const latencyFieldsWords = {
  noResponseAfter: 'No response after',
};
