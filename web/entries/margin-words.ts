// `words.ts` says what this room says; this is the part of it that is loaded first.
//
// The margin's entries stand on pages on which nothing is recorded, Today and a student's goals: these words come without all those of
// recording, which are ten times as many, and the first load stays as small as it is asked to be.

/** `margin-entries.tsx` */
export const marginEntriesWords = {
  nothingHasBeenWrittenDown: 'Nothing has been recorded yet.',
  today: 'Today',
};
