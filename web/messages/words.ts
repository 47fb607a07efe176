// What the screens of this room say, together: to be read in one go, and one day translated.

/** `message-templates.tsx` */
export const messageTemplatesWords = {
  theStandardTextIsBack: 'The standard text is back.',
  savedNewMessagesUseThis: 'Saved. New messages use this template.',
  pageTitle: 'Message templates · Gentle Margin',
  aboutTemplates: 'About templates',
  messageTemplates: 'Message templates',
  laidOutOnceForThe: 'Laid out once, for the whole school; the fields are filled in for each message.',
  kindsOfMessage: 'Kinds of message',
  previewFor: 'Preview for',
  withAnEntryOf: 'with an entry of',
  asItWouldArrive: 'As it would arrive',
  withTheNewestEntryThat: 'with the newest entry that this reader may see',
  toLookAt: 'To look at',
  subject: 'Subject',
  body: 'Body',
  thereIsNoEntryYet: 'There is no entry yet that this reader may see.',
  fieldsThatCanBeFilled: 'Fields that can be filled in',
  saveTemplate: 'Save template',
  useTheStandardText: 'Use the standard text',
};

/** `messages.tsx` */
export const messagesWords = {
  aReader: 'A reader',
  typeANumber: 'Type a number.',
  typeAWholeNumber: 'Type a whole number.',
  atLeast1: 'At least 1.',
  atMost100000: 'At most 100,000.',
  pageTitle: 'Messages · Gentle Margin',
  aboutMessages: 'About messages',
  atMostLeaveInA: (limit: string) => `At most ${limit} leave in a day; what is over waits until the next morning.`,
  howOftenAReaderGets:
    'How often a reader gets an email is set at their share link; members of the team set it for themselves, on the report.',
  post: 'Messages',
  noMessageHasBeenMade: 'No message has been made yet',
  aboutTheStudentsWhoseReport: (total: string) => `${total} about the students whose report you share`,
  messagesByState: 'Messages by state',
  all: 'All',
  sentAgain: 'Sent again',
  leaves: (next: string) => `leaves ${next}`,
  whatItSaid: 'What it said',
  sendAgain: 'Send again',
  to: (toName: string) => ` to ${toName}`,
  itArrived: 'It arrived',
  cancelMessage: 'Cancel message',
  theMessageTo: (toName: string) => `: the message to ${toName}`,
  sendItAgainTo: (toName: string) => `Send it again to ${toName}?`,
  theMailServerSaid: (reason: string) => `The mail server said: ${reason}`,
  toThisAddress: 'To this address',
  aCorrectedAddressIsKept: 'A corrected address is kept for this reader.',
  leaveIt: 'Leave it',
  sendItAgain: 'Send it again',
  messagesInADay: 'Messages in a day',
  set: 'Set',
};

/** `stop.tsx` */
export const stopWords = {
  pageTitle: 'No more messages · Gentle Margin',
  noMoreMessages: 'No more messages',
  stopTheseMessages: 'Stop these messages?',
  getsNoMoreMessagesAbout: (readerName: string) =>
    `${readerName} gets no more messages about this report. The share link still works.`,
  wouldGetNoMoreMessages: (readerName: string) =>
    `${readerName} would get no more messages about this report. The share link still works.`,
  stopThem: 'Stop them',
  theCaseManagerCanBegin: 'The case manager can begin them again when you ask for it.',
};

/** `test-mail.tsx` */
export const testMailWords = {
  does: { bounce: 'sends it back', defer: 'takes it later', delay: 'takes it slowly' },
  aRealMailServerHas: 'A real mail server has no inbox here.',
  typePartOfAnAddress: 'Type part of an address.',
  keepItTo100Characters: 'Keep it to 100 characters.',
  aRealMailServerHasNo: 'A real mail server has no rules here.',
  pageTitle: 'Test mail server · Gentle Margin',
  testMail: 'Test mail',
  itsRules: 'Its rules',
  itTakesEverythingButFor: 'It takes everything, but for addresses that one of these fits.',
  removeTheRuleFor: (address: string) => `Remove the rule for ${address}`,
  remove: 'Remove',
  school: 'School',
  testMailServer: 'Test mail server',
  nothingLeavesThisMachineMessages:
    'Nothing leaves this machine: messages go to a small mail server that ships with Gentle Margin, and this is what it got, without links and passcodes. A real one is set with SMTP_URL.',
  nothingHasArrivedYet: 'Nothing has arrived yet.',
  forInstance: '@bounce.example',
  addressesWithThisInThem: 'Addresses with this in them',
  whatItDoes: 'What it does',
  sendsItBack: 'Sends it back',
  takesItLater: 'Takes it later',
  takesItSlowly: 'Takes it slowly',
  secondsWhenSlowly: 'Seconds, when slowly',
  itsWords: 'Its words',
  noSuchMailboxHere: 'No such mailbox here',
  addTheRule: 'Add the rule',
};

/** `write.tsx` */
export const writeWords = {
  theMessageWillBeSent: 'The message will be sent.',
  notSent: 'Saved, but not sent: email is not set up.',
  seeMessages: 'See messages',
  pageTitle: (shortName: string) => `A message about ${shortName} · Gentle Margin`,
  aMessage: 'A message',
  asItWouldArrive: 'As it would arrive',
  writeAMessage: 'Write a message',
  noReaderHasAnEmail: 'No reader has an email address yet.',
  addOneAtTheirShare: 'Add one at their share link',
  to: 'To',
  subject: 'Subject',
  message: 'Message',
  sendMessage: 'Send message',
};
