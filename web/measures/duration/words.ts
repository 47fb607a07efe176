// What the screens of this room say, together: to be read in one go, and one day translated.

/** `duration-sheet.tsx` */
export const durationSheetWords = {
  stopThis: (one: string) => `stop this ${one}`,
  startThe: (one: string) => `start the ${one}`,
  watchedNo: (many: string) => `Watched, no ${many}`,
  session: 'Session',
};

/** `duration-fields.tsx` */
export const durationFieldsWords = {
  theValueIs: 'The value is',
  allEpisodesTogether: 'all episodes together',
  theMeanOfAnEpisode: 'the mean of an episode',
  theShareOfTheSession: 'the share of the session',
  in: 'In',
};
