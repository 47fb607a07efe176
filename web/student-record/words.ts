export const takeOutWords = {
  pageTitle: (name: string) => `The record of ${name} · Gentle Margin`,
  heading: 'The whole record',
  about:
    'Everything that is held of the student, in one archive: for a family that asks to see it, and for the next school, which can read it in.',
  holds: 'What is in it',
  parts: [
    [
      'For people',
      'Entries, corrections, changes and the access log as tables (XLSX and CSV); progress reports as they were issued (PDF); photographs and files.',
    ],
    [
      'For another installation',
      'The same with all histories as JSON, with its schema. Names of people stand in it; no address, password, code or link does.',
    ],
    [
      'Other children',
      'In notes, answers and comments they are “a classmate”, unless the case manager let a name stand.',
    ],
  ] as const,
  asks: 'Federal rules give parents the right to see the record within 45 days (34 CFR 99.10), and ask a school to keep who received it and why (34 CFR 99.32).',
  carryOut: 'Carry it out',
  forWhom: 'For whom, and what for',
  example: 'e.g. the family, who asked on Nov 20',
  logged: 'This stands in the access log, and in the record itself.',
  make: 'Make the archive',
  making: 'Making the archive …',
  download: 'Download the archive',
  takesAWhile: 'It is made while you wait: a few seconds for a year of entries.',
  keepSafe: 'Whoever has the file can read all of it. Hand it over by a way that only its reader has.',
  hidden: 'Names are hidden at the moment, and the record is full of them. Show names to carry it out.',
};

export const arrivalsWords = {
  pageTitle: 'Records that arrive · Gentle Margin',
  title: 'Records that arrive',
  about:
    'A student who comes from another school may bring their whole record. You see whose it is and what is in it before anything is read in.',
  aRecord: 'A record',
  aboutRecord: 'The archive (ZIP) that the other school carried out, as it is',
  file: 'Archive',
  chooseFile: 'Choose the archive of the record.',
  lookAt: 'Look at it',
  reading: 'Reading the archive …',
  none: 'No record has arrived yet.',
  waits: (day: string) => `Waits to be read in, ${day}`,
  wasReadIn: (day: string) => `read in on ${day}`,
  hidden: 'A record',
};

export const arrivalWords = {
  pageTitle: 'A record · Gentle Margin',
  recordOf: (name: string) => `The record of ${name}`,
  from: (school: string, day: string) => `From ${school}, as it stood on ${day}`,
  holds: 'What is in it',
  people: 'People who are named in it',
  peopleAre: 'They come as names only: nobody gets an account by it, and nobody of them is on the team here.',
  locations: 'Locations that are added to the school’s list',
  changes: 'What is not as it was',
  changesAre:
    'The team and its rights end before today. Share links, cards and forms are closed, and rules switched off. Open follow-ups go to the case manager here. Nobody gets a message.',
  again:
    'A record of this student was read in before. It would be a second student: archive the one who is there first, if it is the same.',
  readIn: 'Read it in',
  grade: 'Grade here',
  caseManager: 'Case manager',
  choose: 'Choose',
  groups: 'Class groups',
  someoneElse: 'Yes, this is someone else',
  reading: 'Reading it in …',
  forget: 'Forget this record',
  forgotten: 'The record is forgotten.',
  isHere: (name: string) => `${name}’s record is read in.`,
  done: (name: string, day: string) => `Read in on ${day}: ${name} is on the roster.`,
  takeBack: 'To take it back, archive the student in the roster.',
  toRoster: 'To the roster',
  toAll: 'All records',
  hidden: 'Names are hidden at the moment. Show names to look at the record.',
};
