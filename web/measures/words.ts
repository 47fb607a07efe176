// What the screens of this room say, together: to be read in one go, and one day translated.

/** `sheet.tsx` */
export const sheetWords = {
  stillOpen: (names: string) => `Still open: ${names}`,
  needs: (target: string) => `needs ${target}`,
  atMost: (target: string) => `at most ${target}`,
  takeBack: ' Take back ',
  takeOut: (what: string) => `Remove ${what}`,
};

/** `length-field.tsx` */
export const lengthFieldWords = {
  writeMinutesAndSecondsSuch: 'Write minutes and seconds, such as 1:30.',
};

/** `lists.tsx` */
export const listsWords = {
  nameForOne: 'Name for one',
  nameForOneOf: (what: string) => `Name for one ${what}`,
  nameForSeveral: 'Name for several',
  nameOf: (what: string, at: number) => `Name of ${what} ${at}`,
  supportLevelsFromTheLeast: 'Support levels, from the least help to the most',
  onItsButton: 'On its button',
  inSentences: 'In sentences',
  aGesture: 'a gesture',
  reads: (words: string, isAlone: boolean) => (isAlone ? `“5 of 8 ${words}.”` : `“5 of 8 with ${words} or less help.”`),
  right: 'Right',
  whatIsNoted: 'What is noted of each one',
  rightOrWrong: 'right or wrong',
  howMuchHelp: 'how much help it took',
  countsAsASuccessUp: 'Counts as a success up to',
};

/** `measure-fields.tsx` */
export const measureFieldsWords = {
  whatDoYouWantTo: 'What do you want to know?',
};
