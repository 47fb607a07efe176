// What the screens of this room say, together: to be read in one go, and one day translated.

/** `measurement-sheet.tsx` */
export const measurementSheetWords = {
  the: 'The',
  another: 'Another',
};

/** `measurement-fields.tsx` */
export const measurementFieldsWords = {
  unitSuchAsCmOr: 'Unit, such as cm or kg',
  ofSeveralTheValueIs: 'Of several, the value is',
  theirMean: 'their mean',
  theHighest: 'the highest',
  theLowest: 'the lowest',
  theLast: 'the last',
};
