// What the screens of this room say, together: to be read in one go, and one day translated.

/** `send.ts` */
export const sendWords = {
  theServerCannotBeReached: 'The server cannot be reached.',
  itIsSentByItself: 'It is sent by itself as soon as it can be.',
  youAreSignedOut: 'You are signed out.',
  signInAgainOnThis: 'Sign in again on this device, and it is sent by itself.',
  somebodyElseIsSignedIn: 'Somebody else is signed in on this device.',
  itIsSentWhenYou: 'It is sent when you sign in here again.',
  theServerAsksForA: 'The server asks for a pause.',
  itIsSentByItselfIn: 'It is sent by itself in a moment.',
  theServerFailedOnThis: 'The server failed on this one.',
  itIsTriedAgainEverything: 'It is tried again; everything else goes on.',
  thisIsNotYoursTo: 'This is not yours to record.',
  thisStudentOrWhatIt: 'This student, or what it names, is not there for you any more.',
  thisIsLargerThanAn: 'This is larger than an entry can be. Make the note shorter.',
  somethingInItCannotBe: 'Something in it cannot be kept. Change it, and it is sent again.',
  thisCannotBeRead: 'This cannot be read.',
  itWasChangedMeanwhile:
    'Somebody changed this record in the meantime. Nothing was overwritten: open it, see what it says now, and change it there.',
  thisChangeCannotBe: 'This change is not taken as it is. Open the record, and change it there.',
};

/** `waiting.tsx` */
export const waitingWords = {
  theServerCannotBeReached:
    'The server cannot be reached, and this browser keeps nothing. Leave this page open and save again.',
};

/** `save-bar.tsx` */
export const saveBarWords = {
  nothingIsLostOnThis: (happened: string, waits: string, next: string) =>
    `${happened} Nothing is lost: ${waits} on this device. ${next} You can go on.`,
  recordWaits: 'record waits',
  recordsWait: 'records wait',
  saving: 'Saving …',
  save: 'Save',
  saveAndAddAnother: 'Save and add another',
  another: '+ another',
};

/** `opening.tsx` */
export const openingWords = {
  pageTitle: 'Gentle Margin',
  gentleMargin: 'Gentle Margin',
  openingWhatIsKept: 'Opening what is kept on this device …',
  goOn: 'Go on',
};

/** `kept-notice.tsx` */
export const keptNoticeWords = {
  noConnection: 'No connection.',
  thisIsAsOf: (moment: string) =>
    `This page is as it was at ${moment}. What you record is kept on this device, and sent by itself later.`,
  tryAgain: 'Try again',
  aNewVersionIsReady: 'A new version is ready. This page is loaded anew with it.',
  useItNow: 'Use it now',
};

/** `kept-here.tsx` */
export const keptHereWords = {
  thisBrowserCannot: 'This browser keeps nothing: it needs a secure address (https).',
  nothing: 'Nothing is kept on this device at the moment.',
  pages: (count: number, size: string) =>
    `${count} ${count === 1 ? 'page' : 'pages'} of your students, locked (${size}). They go when you sign out.`,
};
