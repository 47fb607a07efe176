// What the pages say by which somebody comes to their account, or keeps it: to be read in one go, and one day translated.

/** `sign-in-code.tsx` */
export const codeWords = {
  pageTitle: 'Your code · Gentle Margin',
  title: 'And your code',
  about: 'Type the six digits that your authenticator shows. Without your phone, type one of your recovery codes.',
  code: 'Code',
  goOn: 'Go on',
  again: 'Begin again',
  type: 'Type the code.',
  wrong: 'This code is not right, or was used already. Wait for the next one.',
  wait: (minutes: number) => `Too many tries. Wait ${minutes} min, then try again.`,
};

/** `forgotten.tsx` */
export const forgottenWords = {
  pageTitle: 'A new password · Gentle Margin',
  title: 'A new password',
  byMessage: 'By a message',
  about: 'If there is an account with this address, a message with a link goes to it. It works once, for an hour.',
  noMail: 'No mail leaves this installation. Ask an administrator of your school for a code, and type it below.',
  email: 'Email address',
  send: 'Send the link',
  sent: 'If there is an account with this address, the message is on its way.',
  wait: (minutes: number) => `Too often. Wait ${minutes} min, then try again.`,
  byCode: 'By a code',
  aCode: 'The code that an administrator gave you',
  useCode: 'Use the code',
  typeCode: 'Type the code.',
  back: 'Back to signing in',
};

/** `by-link.tsx` */
export const byLinkWords = {
  pageTitle: 'Your account · Gentle Margin',
  join: (school: string) => `Join ${school}`,
  asksYou: (name: string, school: string) => `${name} asks you to join the staff of ${school}.`,
  asAdmin: 'As an administrator you keep the roster and the set-up, and see nothing of what is observed.',
  yourAccount: (email: string) => `Your account, with which you sign in as ${email}:`,
  yourName: 'Your name',
  whatYouDo: 'What you do, in a few words',
  makeAccount: 'Make my account',
  thereIs: (email: string) => `There is an account for ${email} already. Sign in to answer.`,
  signIn: 'Sign in',
  signedInAs: (email: string) => `You are signed in as ${email}.`,
  joinNow: 'Join',
  newPassword: 'Choose a new password',
  newPasswordFor: (name: string) => `For ${name}. All your sign-ins end, and you sign in with the new one.`,
  savePassword: 'Save the password',
  passwordIsNew: 'The password is saved. Sign in with it.',
  proveEmail: 'Is this your address?',
  signInWith: (email: string) => `From now on you sign in with ${email}.`,
  yesMine: 'Yes, it is mine',
  emailIsNew: 'The address is yours. Sign in with it from now on.',
};

/** `own-account.tsx` and `second-factor.tsx` */
export const ownAccountWords = {
  you: 'You',
  name: 'Name',
  work: 'What you do',
  saveName: 'Save',
  nameSaved: 'Saved.',
  email: 'Email',
  emailIs: (email: string) =>
    `You sign in with ${email}. Another address is yours once you have answered a message there.`,
  newEmail: 'New address',
  currentPassword: 'Your password',
  askEmail: 'Change the address',
  emailAsked: (email: string) => `A message is on its way to ${email}. Until it is answered nothing changes.`,
  emailCode: 'No mail leaves this installation: use this code instead.',
  password: 'Password',
  changePassword: 'Change the password',
  passwordChanged: 'The password is changed. All other sign-ins have ended.',
  signedInOn: 'Where you are signed in',
  thisOne: 'this device',
  shared: 'a shared tablet',
  own: 'a device of your own',
  since: (since: string, seen: string) => `since ${since}, last used ${seen}`,
  end: 'End',
  endOf: (since: string) => `End the sign-in of ${since}`,
  ended: 'The sign-in has ended.',
  factor: 'A code beside the password',
  factorIs:
    'An authenticator on your phone shows a code that changes every half minute. Whoever learns your password cannot sign in without it.',
  whatItIs: 'What it is',
  anyAuthenticator:
    'Any application or password manager that shows time-based codes (TOTP) will do. It works without network.',
  factorOn: (codes: string) => `It is on. ${codes} left.`,
  recoveryCode: 'recovery code is',
  recoveryCodes: 'recovery codes are',
  setUp: 'Set it up',
  pageTitle: 'A code beside the password · Gentle Margin',
  asked: 'Your school asks for this from whoever shares reports or administers. Set it up to go on.',
  step1: '1. Scan this with the authenticator on your phone',
  picture: 'A picture to be scanned by an authenticator',
  orType: 'Or type this there:',
  step2: '2. Type the code that it shows',
  code: 'Code',
  turnOn: 'Turn it on',
  isOn: 'It is on from now on',
  keepCodes:
    'Keep these recovery codes where nobody else looks. Each stands in for a code once, when your phone is not there. They are not shown again.',
  print: 'Print them',
  toAccount: 'To your account',
  turnOff: 'Turn it off',
  turnedOff: 'It is off: your password alone signs you in.',
};
