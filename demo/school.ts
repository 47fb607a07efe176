import type { IsoDate } from '~/core/calendar/iso-date';
import type { Role } from '~/core/students/roles';

/** The made-up school. Everybody in it is invented. */
export const schoolName = 'Quince Lane School';
export const timeZone = 'America/New_York';
export const weekdays = [1, 2, 3, 4, 5];
export const locations = ['Workshop', 'Kitchen', 'Garden', 'Classroom', 'Hallway'] as const;
export type LocationName = (typeof locations)[number];
export const classGroups = ['Workshop group', 'Kitchen group', 'Garden group'] as const;
export type ClassGroup = (typeof classGroups)[number];

/** The password of all demo people: it opens made-up data on one's own machine. */
export const demoPassword = 'quince-and-thyme';
/** The PIN of everybody in the demo. */
export const demoPin = '246813';

export const staff = {
  hanneke: { name: 'Hanneke Bruun', work: 'Special education teacher' },
  samir: { name: 'Samir Tadesse', work: 'Special education teacher' },
  lotte: { name: 'Lotte Varga', work: 'Workshop teacher' },
  pilar: { name: 'Pilar Ibarra', work: 'Kitchen teacher' },
  jun: { name: 'Jun Akiyama', work: 'Garden teacher' },
  noor: { name: 'Noor Haddad', work: 'Paraprofessional' },
  eli: { name: 'Eli Ferreira', work: 'Paraprofessional' },
  maeve: { name: 'Maeve Rourke', work: 'Speech specialist' },
} as const;
export type StaffKey = keyof typeof staff;

export type Team = Partial<Record<StaffKey, Role>>;

const workshopTeam: Team = { hanneke: 'caseManager', lotte: 'educator', noor: 'paraprofessional' };
const kitchenTeam: Team = { hanneke: 'caseManager', pilar: 'educator', eli: 'paraprofessional' };
const gardenTeam: Team = { hanneke: 'caseManager', jun: 'educator', noor: 'paraprofessional' };

/** How a goal goes over the year. */
export type CourseShape = 'rising' | 'ahead' | 'flat' | 'met' | 'lost' | 'unchecked' | 'tooEarly' | 'silent';

export interface DemoStudent {
  first: string;
  last: string;
  grade: string;
  group: ClassGroup;
  team: Team;
  /** Number in the plan, the goal (a key of `goalPatterns`) and how it goes. */
  goals: [number: string, pattern: string, shape: CourseShape][];
}

export const students: DemoStudent[] = [
  {
    first: 'Ansel',
    last: 'Dorsey',
    grade: 'Grade 4',
    group: 'Workshop group',
    team: { ...workshopTeam, maeve: 'specialist' },
    goals: [
      ['1', 'sandsToLine', 'rising'],
      ['2a', 'asksForTool', 'ahead'],
      ['2b', 'asksForPause', 'met'],
      ['3', 'laysOutJob', 'flat'],
    ],
  },
  {
    first: 'Briar',
    last: 'Quillen',
    grade: 'Grade 5',
    group: 'Workshop group',
    team: workshopTeam,
    goals: [
      ['1', 'measuresBoard', 'rising'],
      ['2', 'waitsForTurn', 'flat'],
      ['3', 'putsToolsBack', 'met'],
    ],
  },
  {
    first: 'Casimir',
    last: 'Holt',
    grade: 'Grade 3',
    group: 'Workshop group',
    team: workshopTeam,
    goals: [
      ['1', 'sandsToLine', 'flat'],
      ['2', 'followsTwoSteps', 'rising'],
      ['3', 'servesAtStall', 'tooEarly'],
    ],
  },
  {
    first: 'Dahlia',
    last: 'Nakano',
    grade: 'Grade 6',
    group: 'Workshop group',
    team: { ...workshopTeam, maeve: 'specialist' },
    goals: [
      ['1', 'measuresBoard', 'ahead'],
      ['2', 'asksForHelp', 'rising'],
      ['3', 'readsSafetySigns', 'silent'],
    ],
  },
  {
    first: 'Emrys',
    last: 'Vale',
    grade: 'Grade 4',
    group: 'Kitchen group',
    team: { ...kitchenTeam, maeve: 'specialist' },
    goals: [
      ['1a', 'measuresIngredients', 'rising'],
      ['1b', 'readsRecipe', 'flat'],
      ['2', 'asksForHelp', 'ahead'],
      ['3', 'fetchesFromShed', 'tooEarly'],
    ],
  },
  {
    first: 'Fenna',
    last: 'Ostrow',
    grade: 'Grade 5',
    group: 'Kitchen group',
    team: kitchenTeam,
    goals: [
      ['1', 'setsTable', 'met'],
      ['2', 'countsCoins', 'rising'],
      ['3', 'waitsForTurn', 'rising'],
    ],
  },
  {
    first: 'Gideon',
    last: 'Amari',
    grade: 'Grade 3',
    group: 'Kitchen group',
    team: kitchenTeam,
    goals: [
      ['1', 'washesHands', 'ahead'],
      ['2', 'followsTwoSteps', 'flat'],
      ['3', 'servesAtStall', 'rising'],
    ],
  },
  {
    first: 'Hollis',
    last: 'Brandvold',
    grade: 'Grade 6',
    group: 'Kitchen group',
    team: kitchenTeam,
    goals: [
      ['1', 'readsRecipe', 'rising'],
      ['2', 'countsCoins', 'silent'],
      ['3', 'asksForPause', 'rising'],
    ],
  },
  {
    first: 'Ione',
    last: 'Castellan',
    grade: 'Grade 4',
    group: 'Garden group',
    team: { ...gardenTeam, maeve: 'specialist' },
    goals: [
      ['1', 'plantsRow', 'rising'],
      ['2a', 'namesPlants', 'ahead'],
      ['2b', 'fetchesFromShed', 'rising'],
      ['4', 'asksForPause', 'flat'],
    ],
  },
  {
    first: 'Jory',
    last: 'Whitlock',
    grade: 'Grade 5',
    group: 'Garden group',
    team: gardenTeam,
    goals: [
      ['1', 'plantsRow', 'met'],
      ['2', 'writesLog', 'flat'],
      ['3', 'waitsForTurn', 'ahead'],
    ],
  },
  {
    first: 'Kestrel',
    last: 'Adeyemi',
    grade: 'Grade 3',
    group: 'Garden group',
    team: gardenTeam,
    goals: [
      ['1', 'namesPlants', 'rising'],
      ['2', 'followsTwoSteps', 'rising'],
      ['3', 'washesHands', 'met'],
    ],
  },
  {
    first: 'Linnea',
    last: 'Povey',
    grade: 'Grade 6',
    group: 'Garden group',
    team: gardenTeam,
    goals: [
      ['1', 'writesLog', 'rising'],
      ['2', 'servesAtStall', 'silent'],
      ['3', 'asksForHelp', 'flat'],
    ],
  },
  {
    first: 'Marlow',
    last: 'Sefton',
    grade: 'Grade 5',
    group: 'Workshop group',
    team: { samir: 'caseManager', lotte: 'educator', eli: 'paraprofessional' },
    goals: [
      ['1', 'putsToolsBack', 'lost'],
      ['2', 'readsSafetySigns', 'rising'],
      ['3', 'asksForTool', 'flat'],
    ],
  },
  {
    first: 'Nell',
    last: 'Zapata',
    grade: 'Grade 4',
    group: 'Kitchen group',
    team: { samir: 'caseManager', pilar: 'educator', eli: 'paraprofessional' },
    goals: [
      ['1', 'setsTable', 'unchecked'],
      ['2', 'measuresIngredients', 'ahead'],
      ['3', 'laysOutJob', 'rising'],
    ],
  },
];

interface DemoDayPart {
  /** Null: the whole school. */
  group: ClassGroup | null;
  part: string;
  from: string;
  to: string;
  location: LocationName;
}

/** The timetable of a school day. */
export const dayParts: DemoDayPart[] = [
  { group: null, part: 'Arrival', from: '08:15', to: '08:45', location: 'Hallway' },
  { group: 'Workshop group', part: 'Workshop', from: '08:45', to: '10:45', location: 'Workshop' },
  { group: 'Kitchen group', part: 'Kitchen', from: '08:45', to: '10:45', location: 'Kitchen' },
  { group: 'Garden group', part: 'Garden', from: '08:45', to: '10:45', location: 'Garden' },
  { group: 'Workshop group', part: 'Lessons', from: '11:00', to: '12:00', location: 'Classroom' },
  { group: 'Kitchen group', part: 'Lessons', from: '11:00', to: '12:00', location: 'Classroom' },
  { group: 'Garden group', part: 'Lessons', from: '11:00', to: '12:00', location: 'Classroom' },
  { group: null, part: 'Lunch', from: '12:00', to: '12:45', location: 'Kitchen' },
  { group: 'Workshop group', part: 'Afternoon work', from: '12:45', to: '14:45', location: 'Workshop' },
  { group: 'Kitchen group', part: 'Afternoon work', from: '12:45', to: '14:45', location: 'Kitchen' },
  { group: 'Garden group', part: 'Afternoon work', from: '12:45', to: '14:45', location: 'Garden' },
];

/** The rounds that Hanneke keeps. */
export const dayRounds = [
  { name: 'Monday kitchen', group: 'Kitchen group', weekday: 1, startsAt: '09:00' },
  { name: 'Tuesday workshop', group: 'Workshop group', weekday: 2, startsAt: '09:00' },
  { name: 'Wednesday garden', group: 'Garden group', weekday: 3, startsAt: '09:00' },
];

/** Stretches without school in the year that began in this calendar year. */
export function closuresFor(year: number): { first_day: IsoDate; last_day: IsoDate; label: string }[] {
  const next = year + 1;
  return [
    { first_day: `${year}-10-12`, last_day: `${year}-10-12`, label: 'Autumn holiday' },
    { first_day: `${year}-11-11`, last_day: `${year}-11-11`, label: 'Staff day' },
    { first_day: `${year}-11-26`, last_day: `${year}-11-27`, label: 'Thanksgiving' },
    { first_day: `${year}-12-21`, last_day: `${next}-01-01`, label: 'Winter break' },
    { first_day: `${next}-02-15`, last_day: `${next}-02-19`, label: 'February break' },
    { first_day: `${next}-04-05`, last_day: `${next}-04-09`, label: 'Spring break' },
  ];
}
