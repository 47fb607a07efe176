// What the screens of this room say, together: to be read in one go, and one day translated.

/** `account.tsx` */
export const accountWords = {
  pin: 'PIN',
  pinIsFor:
    'Four to eight digits. With them you open a device that has locked itself, and begin on one that was opened for several adults.',
  youHaveOne: 'You have a PIN. A new one takes its place.',
  newPin: 'New PIN',
  yourPassword: 'Your password',
  savePin: 'Save the PIN',
  pinSaved: 'Your PIN is saved.',
  youAreOnTheTeam: 'You are on the team.',
  youWillNotJoinThis: 'You will not join this team. Whoever asked you can see that.',
  pageTitle: 'Account · Gentle Margin',
  aboutThisDevice: 'About this device',
  withoutNetwork: 'Without network',
  whatYouNeedToGoOn:
    'This device keeps what you need to go on recording where there is no network. On one that others use too, you may want it to keep nothing.',
  onThisDevice: 'On this device',
  theLookAndTheDiscreet:
    'The look and the discreet view are kept on this device only. What you mark while observing is kept here too until the server has it, seen by nobody else who signs in on this device.',
  invitations: 'Invitations',
  asksYouToJoinThe: (madeByName: string, role: string) =>
    `${madeByName} asks you to join the support team of a student, as ${role}.`,
  joinTheTeam: 'Join the team',
  decline: 'Decline',
  look: 'Look',
  keyboardShortcuts: 'Keyboard shortcuts',
  singleKeysSuchAsO: 'Single keys such as O for Observe. Enter and the arrow keys always work.',
  on: 'On',
  off: 'Off',
  leaving: 'Leaving',
  signOut: 'Sign out',
  signOutEverywhere: 'Sign out everywhere',
  everywhereEndsTheSignIn: 'Everywhere ends the sign-in on every device at once.',
  somethingWaitsToBeSent: 'Something waits to be sent',
  everythingIsSentNow: 'Everything is sent now',
  toBeSent: (n: string) => `${n} to be sent`,
  recordWaits: 'record waits',
  recordsWait: 'records wait',
  whatWaitsStaysOnThis:
    'What waits stays on this device, hidden from everybody else. It is sent when you sign in here again, not before.',
  staySignedIn: 'Stay signed in',
};

/** `new-password.tsx` */
export const newPasswordWords = {
  aPasswordOf12Characters: 'A password, of 12 characters or more',
  onceMore: 'Once more',
};

/** `set-up.tsx` */
export const setUpWords = {
  thereIsASchoolAlready: 'There is a school already.',
  setUpTheSchoolGentle: 'Set up the school · Gentle Margin',
  setUpTheSchool: 'Set up the school',
  nobodyHasBegunHereYet:
    'Nobody has begun here yet. The start command printed a code in its window; whoever types it here names the school and becomes its first administrator. Everything else can be changed later.',
  codeFromTheStartCommand: 'Code from the start command',
  theSchool: 'The school',
  nameOfTheSchool: 'Name of the school',
  timeZone: 'Time zone',
  choose: 'Choose …',
  youItsFirstAdministrator: 'You, its first administrator',
  yourName: 'Your name',
  whatYouDo: 'What you do',
  specialEducationCoordinator: 'Special education coordinator',
  emailWithWhichYouSign: 'Email, with which you sign in',
};

/** `sign-in.tsx` */
export const districtRefusals = [
  'unreachable',
  'begunElsewhere',
  'refused',
  'notVerified',
  'uninvited',
  'another',
] as const;

export const signInWords = {
  signInWith: (name: string) => `Sign in with ${name}`,
  district: {
    unreachable: 'The district’s sign-in cannot be reached just now. Try again, or sign in with your password.',
    begunElsewhere: 'This sign-in was begun in another browser, or too long ago. Begin again.',
    refused: 'The district’s sign-in did not let you in. Try again, or sign in with your password.',
    notVerified: 'The district has not verified your email address. Ask whoever looks after accounts there.',
    uninvited: 'Nobody has asked you to join a school here with this address. Ask an administrator of your school.',
    another:
      'Another account of the district is connected with yours. Sign in with your password, and ask an administrator.',
  },
  typeYourEmailAddress: 'Type your email address.',
  typeYourPassword: 'Type your password.',
  of: (roleWords: string, students: number) => `${roleWords} of ${students}`,
  tooManyTriesWaitMin: (waitMinutes: number) => `Too many tries. Wait ${waitMinutes} min, then try again.`,
  emailOrPasswordIsWrong: 'Email or password is wrong.',
  worksNowhere:
    'Your work at the school has ended here, so there is nothing to sign in to. An administrator can bring you back.',
  forgotten: 'Forgotten your password?',
  theDatabaseCannotBeReached: 'The database cannot be reached at the moment. Try again shortly.',
  signInGentleMargin: 'Sign in · Gentle Margin',
  thisIsTheDemoWhich:
    'This is the demo, which everyone can sign in to, and it is offered to other machines. Start it with DEMO=1 to allow that.',
  gentleMargin: 'Gentle Margin',
  whatWasSeenWhatIt: 'What was seen, what it adds up to, and who should know.',
  emailAddress: 'Email address',
  password: 'Password',
  thisIsASharedTablet: 'This is a shared tablet ',
  signsOutSooner: '(signs out sooner)',
  signIn: 'Sign in',
  demoPeople: 'Demo people',
  lookAroundAs: 'Look around as',
  thisInstallationRunsWithMade: 'This installation runs with made-up data. Everyone here is invented.',
};

/** `locked.tsx` and `lock-cover.tsx` */
export const lockedWords = {
  pageTitle: 'Locked · Gentle Margin',
  title: 'Locked',
  itIs: (name: string) => `Nobody used this device for a while. It is ${name}’s. What is being recorded is kept.`,
  secret: 'PIN, or password',
  open: 'Open',
  somebodyElse: 'Somebody else',
  type: 'Type your PIN, or your password.',
  wrong: 'This is neither your PIN nor your password.',
  notWithoutNetwork: 'The server cannot be reached, and this device does not know your PIN yet.',
  tooOften: 'Too many tries without network. It opens again when the server is reached.',
};

/** `device.tsx` */
export const deviceWords = {
  pageTitle: 'Who is it? · Gentle Margin',
  who: 'Who is it?',
  nobodyYet: 'Nobody has a PIN yet. Each sets one on their account page, signed in on a device of their own.',
  pin: 'PIN',
  begin: 'Begin',
  type: 'Tap your name, and type your PIN.',
  wrong: 'This is not the PIN of whom you tapped.',
  locked:
    'Too many wrong PINs: it is locked. Choose a new one on your account page, signed in with your password, or ask an administrator.',
  needsPassword:
    'Your school asks you for two-step verification. Sign in with your password on a device of your own and set it up first.',
  wait: (minutes: number) => `Too many tries. Wait ${minutes} min, or sign in on a device of your own.`,
};

/** `open-device.tsx` */
export const openDeviceWords = {
  pageTitle: 'A device for several adults · Gentle Margin',
  title: 'A device for several adults',
  about:
    'For a tablet that stays in the room. It offers the names of the staff; whoever takes it taps theirs and types their PIN, and is the observer from then on.',
  whoMay: 'Administrators open shared devices, and whoever they let, under School › People.',
  youHaveNoPin: 'You have no PIN yet: set one on your account page first, or you cannot begin here yourself.',
  howItWorks: 'How it works',
  howItWorksWords:
    'You are signed out here, and nobody is filled in until somebody says who they are. “Hand over” at the top makes room for the next one; so does a while without use. Each sees their own students, no others.',
  forWhom: 'Whose staff it offers',
  allOf: (school: string) => `All of ${school}`,
  open: 'Open this device',
  openNow: 'Open now',
  none: 'No device is open.',
  by: (name: string, since: string) => `opened by ${name} on ${since}`,
  close: 'Close',
  closed: 'The device is closed: nobody begins there any more.',
};
