// What the screens of this room say, together: to be read in one go, and one day translated.

/** `entry-evidence.ts` */
export const entryEvidenceWords = {
  chooseAPhotographOrA: 'Choose a photograph or a PDF.',
  tryItAgainInA: (message: string) => `${message} Try it again in a moment.`,
  thisFileCannotBeKept: 'This file cannot be kept.',
  theFileDidNotGet: 'The file did not get through. Try it again in a moment.',
};

/** `photographs.tsx` */
export const photographsWords = {
  take: 'Photograph',
  of: (of: string) => `of ${of}`,
  number: (n: number) => `Photograph ${n}`,
  remove: (n: number, of: string) => `Remove photograph ${n} of ${of}`,
  cannotBeRead: 'This picture cannot be read. Choose a JPEG, PNG or WebP.',
  thatIsAll: 'No more fit into one save. Save, and add it on the entry’s page.',
  counted: (n: number) => (n === 1 ? '1 photograph' : `${n} photographs`),
};

/** `entry-evidence-section.tsx` */
export const entryEvidenceSectionWords = {
  picturesAndFiles: 'Pictures and files',
  takeOut: (name: string) => `Remove ${name}`,
  addAPhotographOrA: 'Add a photograph or a PDF',
  beingAdded: 'Being added …',
  itWaits: 'The server cannot be reached. The photograph is kept on this device, and sent by itself.',
  aFileCannotWait: 'The server cannot be reached. Only a photograph can wait on this device: add the PDF again later.',
  whereAPictureWasTaken:
    'The place where a picture was taken is removed from the file. Readers see pictures only if What each reader sees says so.',
};
