// What the screens of this room say, together: to be read in one go, and one day translated.

/** `file-answer.ts` */
export const fileAnswerWords = {
  noSuchFormat: 'No such format.',
};

/** `draft-file.ts` */
export const draftFileWords = {
  noSuchPeriod: 'No such period.',
  draftOfAProgressReport: (format: string) => `draft of a progress report (${format})`,
};

/** `report-file.ts` */
export const reportFileWords = {
  thatIsSoLongA: (size: string) =>
    `That is ${size}: a report this long is made as a PDF in the background and appears here when it is ready.`,
  with: (find: string) => `with “${find}”`,
  report: (format: string) => `report (${format})`,
};
