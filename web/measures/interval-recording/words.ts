// What the screens of this room say, together: to be read in one go, and one day translated.

/** `interval-recording-sheet.tsx` */
export const intervalRecordingSheetWords = {
  wasItThereTheWhole: 'Was it there the whole time?',
  wasItThereAtAny: 'Was it there at any moment?',
  wasItThereJustNow: 'Was it there just now?',
  intervalsHaveEnded: (ended: number) => `${ended} intervals have ended`,
  watchTheFirstQuestionComes: (seconds: number) => `Watch: the first question comes after ${seconds} seconds.`,
  interval: (asked: number, question: string) => `Interval ${asked}: ${question}`,
  yes: 'Yes',
  no: 'No',
  startAgainFromTheBeginning: 'Start again from the beginning',
  startEverySeconds: (seconds: number) => `Start: every ${seconds} seconds`,
  finish: 'Finish',
  stopHere: 'Stop here',
  softToneAndBuzz: ' soft tone and buzz',
  missed: (n: number) => `${n} missed`,
};

/** `interval-recording-fields.tsx` */
export const intervalRecordingFieldsWords = {
  countsWhenItWasThere: 'Counts when it was there',
  atTheEndOfThe: 'at the end of the interval',
  atAnyTimeInIt: 'at any time in it',
  allThroughIt: 'all through it',
  lengthOfAnInterval: 'Length of an interval',
  intervalsInASession: 'Intervals in a session',
};
