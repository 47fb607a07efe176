// What the screens of this room say, together: to be read in one go, and one day translated.

/** `read-rating.ts` */
export const readRatingWords = {
  rateAtLeastOneCriterion: 'Rate at least one criterion.',
};

/** `rate-form.tsx` */
export const rateFormWords = {
  inYourOwnWords: 'In your own words',
  changeMyRating: 'Change my rating',
  rateIt: 'Rate it',
};

/** `rate.tsx` */
export const rateWords = {
  rateAWorkSample: 'Rate a work sample',
  thankYouYourRatingIs: 'Thank you. Your rating is in; you can close this page.',
};

/** `work-sample-forms.tsx` */
export const workSampleFormsWords = {
  whatIsRated: 'What is being rated',
  theBirdHouseFirstCoat: 'The bird house, first coat',
  madeOn: 'Made on',
  begin: 'Begin',
  theLinkWorksOnceFor: (hours: number) => `The link works once, for ${hours} hours. It is shown only now.`,
  theRatersLink: 'The rater’s link',
  who: 'Who',
  aPeer: 'A peer',
  theStudent: 'The student',
  ratersNameOnlyPeopleWho: 'Rater’s name (only people who manage sharing see it)',
  makeTheLink: 'Make the link',
  makeItAnEntry: 'Save as an entry',
  thenItCountsForThe: 'It then counts for the goal, from staff ratings only, and rating ends.',
};

/** `ratings.tsx` */
export const ratingsWords = {
  asked: (labels: string[]) => ` · asked: ${labels.join(', ')}`,
  linkEnded: (label: string) => `${label} (the link has ended)`,
  goal: (number: string) => `Goal ${number}`,
  noSuchWorkSample: 'No such work sample.',
  noSuchAddress: 'No such address.',
  theRatingsAreAnEntry: 'The ratings are saved as an entry of the goal.',
  thisWorkSampleIsAn: 'This work sample is an entry already; it is not rated any more.',
  pageTitle: (shortName: string) => `Rated by several, ${shortName} · Gentle Margin`,
  anotherWorkSample: 'Another work sample',
  oneWorkSampleRatedBy: 'One work sample, rated by several people by the same rubric.',
  ratedBySeveral: 'Rated by several',
  noWorkSampleHasBeen: 'No work sample has been rated by several people yet.',
  itsEntry: 'its entry',
  changeMyRating: 'Change my rating',
  rateItMyself: 'Rate it myself',
  askAPeerOrThe: 'Ask a peer or the student',
  toRate: (title: string) => ` to rate ${title}`,
  sideBySide: (title: string) => `${title}, side by side`,
  together: 'Together',
  notRated: 'not rated',
  inTheirWords: 'In their words',
};

/** `stack-list.tsx` */
export const stackListWords = {
  pageTitle: 'Work samples to rate · Gentle Margin',
  rated: (n: number, of: number) => `${n} of ${of} rated`,
  sample: (n: number) => `Work sample No. ${n}`,
  isRated: 'rated · change',
  open: 'rate',
  closed: 'It is closed: nothing is rated any more. Thank you.',
  thanks: 'All are rated. Thank you. You can change a rating until it is closed.',
};

/** `stack-sample.tsx` */
export const stackSampleWords = {
  allOf: (title: string) => `${title} · all`,
  notKept: 'This rating could not be kept.',
};

/** `the-work.tsx` */
export const theWorkWords = {
  photograph: 'The work, as a photograph',
  openPdf: 'Open the work (PDF)',
  none: (number: number) =>
    `This sample is on paper. Look for No. ${number}. If no paper has that number, ask the person who gave you the link.`,
};
