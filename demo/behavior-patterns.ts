import type { ChoiceKind } from '~/core/entries/incidents/choice';

/** Names with how often each comes up. */
type Weighted = Record<string, number>;

interface DemoBehavior {
  name: string;
  words: string;
  unlike: string;
  counted?: boolean;
  timed?: boolean;
  /** Incidents a school day, before and since the change. */
  aDay: [before: number, since: number];
  /** How much likelier than its share of the hours each part of the day is; `Monday Workshop` for one weekday. */
  parts: Weighted;
  /** How much likelier it is on a weekday than on others. */
  weekdays?: Weighted;
  antecedents: Weighted;
  consequences: Weighted;
  functions: Weighted;
  /** Usual length in seconds; none where nobody times it. */
  seconds?: number;
}

export interface DemoFollowed {
  student: string;
  behaviors: DemoBehavior[];
  /** What changed, how many weeks ago, for the first behavior. */
  change?: { label: string; weeksAgo: number };
}

/** What the made-up school begins from. */
export const startingLists: Record<Exclude<ChoiceKind, 'behavior' | 'location'>, [name: string, words: string][]> = {
  antecedent: [
    ['Asked to begin', ''],
    ['Waiting for a turn', ''],
    ['A change of plan', ''],
    ['A tool started nearby', ''],
    ['An adult stepped away', ''],
    ['A peer came close', ''],
  ],
  consequence: [
    ['Reminded in words', ''],
    ['A walk away from the task', ''],
    ['Peers laughed', ''],
    ['Helped to begin', ''],
    ['Nothing followed', ''],
  ],
  intensity: [
    ['1', 'it passes by itself'],
    ['2', 'others look up'],
    ['3', 'the lesson stops'],
  ],
  function: [
    ['attention', ''],
    ['escape', ''],
    ['access to something', ''],
    ['sensory', ''],
  ],
};

/** Three patterns that differ, and one student whose notes hold none. */
export const followed: DemoFollowed[] = [
  {
    student: 'Ansel',
    change: { label: 'Ear defenders', weeksAgo: 5 },
    behaviors: [
      {
        name: 'Leaves the bench',
        words: 'Steps more than an arm’s length away from the bench during work, without asking.',
        unlike: 'Fetching a tool, or a pause that was asked for.',
        aDay: [0.95, 0.3],
        weekdays: { Monday: 2.6 },
        parts: { 'Monday Workshop': 16, Workshop: 0.9, 'Afternoon work': 1, Lessons: 0.8, Lunch: 0.6, Arrival: 0.6 },
        antecedents: {
          'A tool started nearby': 9,
          'Asked to begin': 4,
          'A peer came close': 2,
          'An adult stepped away': 2,
        },
        consequences: { 'A walk away from the task': 11, 'Reminded in words': 4, 'Helped to begin': 2 },
        functions: { escape: 7, sensory: 3, attention: 1 },
        seconds: 240,
      },
      {
        name: 'Covers ears and shouts',
        words: 'Both hands on the ears with a voice that is heard outside the room.',
        unlike: 'Covering the ears alone.',
        aDay: [0.22, 0.18],
        parts: { Workshop: 2, Lunch: 1, Lessons: 1 },
        antecedents: { 'A peer came close': 5, 'A change of plan': 4 },
        consequences: { 'Reminded in words': 5, 'Nothing followed': 2 },
        functions: { sensory: 3, escape: 1 },
      },
    ],
  },
  {
    student: 'Emrys',
    behaviors: [
      {
        name: 'Calls out',
        words: 'Speaks to the whole room without a raised hand while somebody else speaks.',
        unlike: 'An answer to a question put to him.',
        counted: true,
        aDay: [0.9, 0.9],
        parts: { Lunch: 6, Kitchen: 1, Lessons: 1.2, 'Afternoon work': 0.6 },
        antecedents: { 'Waiting for a turn': 9, 'An adult stepped away': 3, 'Asked to begin': 2 },
        consequences: { 'Peers laughed': 10, 'Reminded in words': 4, 'Nothing followed': 2 },
        functions: { attention: 9, 'access to something': 2 },
      },
      {
        name: 'Pushes the tray away',
        words: 'Moves the tray or plate more than a hand’s width away.',
        unlike: 'Handing it to somebody.',
        aDay: [0.2, 0.2],
        parts: { Lunch: 2, Kitchen: 2 },
        antecedents: { 'Asked to begin': 6, 'A change of plan': 2 },
        consequences: { 'Helped to begin': 6, 'A walk away from the task': 2 },
        functions: { escape: 4 },
      },
    ],
  },
  {
    student: 'Ione',
    change: { label: 'Picture plan', weeksAgo: 4 },
    behaviors: [
      {
        name: 'Sits down on the path',
        words: 'Sits or lies on the ground for ten seconds or more while the group moves on.',
        unlike: 'Kneeling to plant.',
        timed: true,
        aDay: [0.65, 0.6],
        weekdays: { Thursday: 2.2, Monday: 0.6 },
        parts: { 'Thursday Afternoon work': 6, 'Afternoon work': 2.5, Garden: 0.5, Lessons: 0.2 },
        antecedents: { 'A change of plan': 10, 'Asked to begin': 3, 'Waiting for a turn': 2 },
        consequences: { 'Helped to begin': 6, 'A walk away from the task': 5, 'Reminded in words': 4 },
        functions: { escape: 6, 'access to something': 2 },
        seconds: 420,
      },
    ],
  },
  {
    student: 'Linnea',
    behaviors: [
      {
        name: 'Hums loudly',
        words: 'Hums so that it is heard at the next table.',
        unlike: 'Singing with the group.',
        aDay: [0.55, 0.55],
        parts: { Arrival: 1, Garden: 1, Lessons: 1, Lunch: 1, 'Afternoon work': 1 },
        antecedents: {
          'Asked to begin': 1,
          'Waiting for a turn': 1,
          'A change of plan': 1,
          'An adult stepped away': 1,
          'A peer came close': 1,
        },
        consequences: { 'Reminded in words': 1, 'Nothing followed': 1, 'Peers laughed': 1, 'Helped to begin': 1 },
        functions: {},
      },
    ],
  },
];

/** What somebody wrote beside a note. */
export const noteWords = [
  'The planer had just been switched on.',
  'Calm again after a drink of water.',
  'We had started late today.',
  'Came back without being asked.',
];
