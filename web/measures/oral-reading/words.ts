// What the screens of this room say, together: to be read in one go, and one day translated.

/** `oral-reading-sheet.tsx` */
export const oralReadingSheetWords = {
  stopReading: 'stop reading',
  startReading: 'start reading',
  oneMoreError: 'one more error',
  wordsRead: 'Words read',
  time: 'Time',
  wordsCorrectPerMinute: 'words correct per minute · ',
};

/** `oral-reading-fields.tsx` */
export const oralReadingFieldsWords = {
  severalPassages: 'Several passages on one day',
  together: 'all their words together',
  median: 'the median passage',
  lengthOfAReadingIf: 'Length of a reading, if the goal says',
};
