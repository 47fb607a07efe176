// What the screens of this room say, together: to be read in one go, and one day translated.

/** `answer-fields.tsx` */
export const answerFieldsWords = {
  wanted: '(required)',
};

/** `photograph-field.tsx` */
export const photographFieldWords = {
  take: 'Take a photograph',
  another: 'Take another',
  without: 'Without a photograph',
  taken: 'The photograph that comes along',
  cannotBeRead: 'This picture cannot be read. Choose a JPEG, PNG or WebP.',
};

/** `note-fields.tsx` */
export const noteFieldsWords = {
  change: 'Change',
};

/** `when-inputs.tsx` */
export const whenInputsWords = {
  date: 'Date',
  time: 'Time',
  observer: 'Observer',
};

/** `notes.ts` */
export const notesWords = {
  thisCannotBeRead: 'This cannot be read.',
  savedFor: (name: string) => `Saved for ${name}: a note.`,
  seeIt: 'See it',
  onlySent: 'There is only something to send here.',
};

/** `new-note.tsx` */
export const newNoteWords = {
  pageTitle: 'Note · Gentle Margin',
  about: 'Notes',
  noteOf: (name: string) => `A note about ${name}`,
  of: (name: string) => ` · ${name}`,
  noForm: 'Your school has no form for staff yet.',
  makeOne: 'Make one, or begin from one that ships.',
  noGoalNeeded:
    'A note belongs to no goal: a skill, a level in words, a sentence, a picture. It stands in the student’s report, under what each reader sees.',
  howItWillRead: 'How it will read',
  inReportOf: (name: string) => `in ${name}’s report`,
  nothingYet: 'Nothing is answered yet. What you leave open stays open.',
};

/** `open-questions.tsx` */
export const openQuestionsWords = {
  leaveOpen: 'Save and leave open',
};

/** `round-note.tsx` */
export const roundNoteWords = {
  saved: (n: number) => (n === 1 ? 'saved' : `saved ${n} times`),
  save: (name: string) => `Save note for ${name}`,
};
