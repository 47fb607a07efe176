// What the screens of this room say, together: to be read in one go, and one day translated.

/** `entry-evidence.ts` */
export const entryEvidenceWords = {
  chooseAPhotographOrA: 'Choose a photograph or a PDF.',
  tryItAgainInA: (message: string) => `${message} Try it again in a moment.`,
  thisFileCannotBeKept: 'This file cannot be kept.',
  theFileDidNotGet: 'The file did not get through. Try it again in a moment.',
};

/** `entry-evidence-section.tsx` */
export const entryEvidenceSectionWords = {
  picturesAndFiles: 'Pictures and files',
  takeOut: (name: string) => `Remove ${name}`,
  addAPhotographOrA: 'Add a photograph or a PDF',
  beingAdded: 'Being added …',
  whereAPictureWasTaken:
    'The place where a picture was taken is removed from the file. Readers see pictures only if What each reader sees says so.',
};
