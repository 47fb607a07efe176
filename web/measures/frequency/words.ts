// What the screens of this room say, together: to be read in one go, and one day translated.

/** `frequency-sheet.tsx` */
export const frequencySheetWords = {
  oneMore: (one: string) => `one more ${one}`,
  watchedNo: (many: string) => `Watched, no ${many}`,
  watchingFor: 'Watching for ',
  stopTheClock: 'stop the clock',
  watchedFor: 'Watched for',
  in: 'in ',
  minutes: ' minutes',
};

/** `frequency-fields.tsx` */
export const frequencyFieldsWords = {
  ofWhatIsCounted: 'of what is counted',
  saidAs: 'Said as',
  howManyAnHour: 'how many an hour',
  howManyAMinute: 'how many a minute',
  howManyASession: 'how many a session',
  lengthOfASessionWhere: 'Length of a session, where it is fixed',
};
