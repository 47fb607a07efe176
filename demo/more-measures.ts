import { type CriterionDefinition, usualCriterion } from '~/core/measures/criterion-definition';
import type { MeasureData } from '~/core/measures/measure';
import type { Random } from './random';
import type { LocationName } from './school';

/** A goal of the demo that is measured otherwise than by trials. */
export interface MoreMeasures {
  /** Whose goal it is. */
  student: string;
  area: string;
  shortName: string;
  wording: (name: string) => string;
  measure: object;
  criterion: CriterionDefinition;
  baseline: number;
  target: number;
  location: LocationName;
  /** One session, with how much of the way is travelled, 0 … 1. */
  session: (random: Random, way: number) => MeasureData;
}

const named = (...labels: string[]) =>
  labels.map((label) => ({ key: label.toLowerCase().replace(/[^a-z]/g, ''), label }));
const levels = [
  { key: 'independent', label: 'Alone', words: 'alone' },
  { key: 'gesture', label: 'Gesture', words: 'a gesture' },
  { key: 'spoken', label: 'Spoken', words: 'a spoken prompt' },
];
const words = named('flour', 'knead', 'bowl', 'measure', 'oven', 'timer');
const washing = named('Water on', 'Soap', 'Scrub inside', 'Scrub outside', 'Rinse', 'Rack');
const between = (random: Random, from: number, to: number) => random.whole(Math.round(from), Math.round(to));
/** The garden group’s logs of plants, each with a target of its own. */
const potting = (
  [
    ['Ione', 140, 9],
    ['Jory', 100, 4],
    ['Kestrel', 120, 6],
    ['Linnea', 80, 3],
  ] as const
).map(
  ([student, total, most]): MoreMeasures => ({
    ...{ student, area: 'Garden', shortName: 'Pots plants', baseline: 0, target: 100, location: 'Garden' },
    wording: (n) => `By the end of the plan ${n} will have potted ${total} plants for the spring sale.`,
    measure: {
      kind: 'cumulativeTotal',
      unit: { one: 'plant', many: 'plants' },
      total,
      categories: named('Herbs', 'Vegetables'),
    },
    criterion: { ...usualCriterion('atLeast', 100), rule: { kind: 'inARow', n: 1 } },
    session: (random) => ({
      amounts: [{ amount: random.whole(0, most), category: random.pick(['herbs', 'herbs', 'vegetables']) }],
    }),
  }),
);

/** The same rubric for several: their pages are rated as one stack. */
const writesUpTheDay: Omit<MoreMeasures, 'student'> = {
  area: 'Writing',
  shortName: 'Writes up the day',
  wording: (n) => `${n} will write up the day's work with a mean of 3 on the rubric, in 3 of the last 4 pieces.`,
  measure: {
    kind: 'rubric',
    criteria: [
      {
        key: 'what',
        label: 'What was done',
        levels: [
          { points: 1, words: 'names one thing' },
          { points: 2, words: 'names what was done' },
          { points: 3, words: 'tells it in order' },
          { points: 4, words: 'in order, with why' },
        ],
      },
      {
        key: 'sentences',
        label: 'Sentences',
        levels: [
          { points: 1, words: 'single words' },
          { points: 2, words: 'some sentences' },
          { points: 3, words: 'whole sentences' },
          { points: 4, words: 'sentences that join' },
        ],
      },
    ],
  },
  criterion: usualCriterion('atLeast', 3),
  baseline: 1.5,
  target: 3,
  location: 'Classroom',
  session: (random, way) => ({
    ratings: ['what', 'sentences'].map((criterion) => ({
      criterion,
      points: Math.min(4, Math.max(1, between(random, 1 + 1.5 * way, 2.2 + 1.5 * way))),
      rater: null,
    })),
  }),
};

/** One goal of each kind of measure besides trials, and a log that a whole group has. */
export const moreMeasures: MoreMeasures[] = [
  {
    student: 'Fenna',
    area: 'Reading',
    shortName: 'Reads recipe words',
    wording: (n) => `${n} will read six words of the kitchen's recipe cards, 5 of 6 right in 3 of the last 4 checks.`,
    measure: { kind: 'itemCheck', items: words, item: { one: 'word', many: 'words' } },
    criterion: usualCriterion('atLeast', 83),
    baseline: 33,
    target: 83,
    location: 'Kitchen',
    session: (random, way) => ({
      items: words.map(({ key }, i) => {
        // The later words come later.
        const isRight = random.happens(Math.min(0.95, Math.max(0.08, 0.55 + way - i * 0.12)));
        return { item: key, outcome: isRight ? 'right' : random.happens(0.8) ? 'incorrect' : 'noResponse' };
      }),
    }),
  },
  {
    student: 'Hollis',
    area: 'Social',
    shortName: 'Calls across the room',
    wording: (n) =>
      `During work blocks ${n} will call across the room at most 3 times an hour, in 3 of the last 4 days.`,
    measure: { kind: 'frequency', per: 'hour', counted: { one: 'call', many: 'calls' } },
    criterion: usualCriterion('atMost', 3),
    baseline: 14,
    target: 3,
    location: 'Workshop',
    session: (random, way) => ({ count: between(random, 4 - 3 * way, 9 - 7 * way), minutes: 5 * random.whole(6, 9) }),
  },
  {
    student: 'Ione',
    area: 'Workshop',
    shortName: 'Stays with the work',
    wording: (n) => `${n} will stay with a task at the bench for 12 minutes altogether, in 3 of the last 4 sessions.`,
    measure: { kind: 'duration', of: 'total', episode: { one: 'stretch', many: 'stretches' } },
    criterion: usualCriterion('atLeast', 12),
    baseline: 4,
    target: 12,
    location: 'Workshop',
    session: (random, way) => ({
      episodes: Array.from({ length: random.whole(1, 3) }, () => between(random, 70 + 120 * way, 190 + 240 * way)),
      sessionSeconds: 1500,
    }),
  },
  {
    student: 'Jory',
    area: 'Work habits',
    shortName: 'Begins when asked',
    wording: (n) => `When asked to begin, ${n} will start within 10 seconds, in 3 of the last 4 days.`,
    measure: { kind: 'latency' },
    criterion: usualCriterion('atMost', 10),
    baseline: 42,
    target: 10,
    location: 'Garden',
    session: (random, way) => ({
      responses: Array.from({ length: random.whole(3, 5) }, () =>
        random.happens(0.1) ? null : between(random, 8, 46 - 32 * way),
      ),
    }),
  },
  {
    student: 'Kestrel',
    area: 'Work habits',
    shortName: 'Hands on the task',
    wording: (n) =>
      `In five minutes of watching ${n}'s hands will be on the task in 80% of intervals, 3 of the last 4 times.`,
    measure: { kind: 'intervalRecording', method: 'momentary', seconds: 15, planned: 20 },
    criterion: usualCriterion('atLeast', 80),
    baseline: 40,
    target: 80,
    location: 'Kitchen',
    session: (random, way) => ({
      intervals: Array.from({ length: 20 }, () => (random.happens(0.04) ? null : random.happens(0.42 + 0.42 * way))),
    }),
  },
  { student: 'Linnea', ...writesUpTheDay },
  {
    student: 'Marlow',
    area: 'Work experience',
    shortName: 'Hours of work',
    wording: (n) => `By the end of the plan ${n} will have worked 40 hours in the garden and the kitchen.`,
    measure: {
      kind: 'cumulativeTotal',
      unit: { one: 'hour', many: 'hours' },
      total: 40,
      categories: named('Garden', 'Kitchen'),
    },
    criterion: { ...usualCriterion('atLeast', 100), rule: { kind: 'inARow', n: 1 } },
    baseline: 0,
    target: 100,
    location: 'Garden',
    session: (random) => ({
      amounts: [{ amount: random.pick([0.5, 0.5, 1]), category: random.pick(['garden', 'garden', 'kitchen']) }],
    }),
  },
  {
    student: 'Nell',
    area: 'Kitchen',
    shortName: 'Washes a pot',
    wording: (n) => `${n} will wash a pot in six steps alone, all six in 3 of the last 4 days.`,
    measure: { kind: 'taskAnalysis', steps: washing, levels, mostSupport: 'independent', chaining: 'forward' },
    criterion: usualCriterion('atLeast', 100),
    baseline: 17,
    target: 100,
    location: 'Kitchen',
    session: (random, way) => ({
      steps: washing.map(({ key }, i) => {
        const isAlone = random.happens(Math.min(0.97, Math.max(0.05, 0.6 + way - i * 0.14)));
        return {
          step: key,
          outcome: isAlone ? 'independent' : random.pick(['gesture', 'spoken', 'spoken', 'notDone']),
        };
      }),
    }),
  },
  {
    student: 'Casimir',
    area: 'Reading',
    shortName: 'Reads aloud',
    wording: (n) =>
      `${n} will read a page of the garden book aloud at 70 words correct per minute, in 3 of the last 4 readings.`,
    measure: { kind: 'oralReading', seconds: 60 },
    criterion: usualCriterion('atLeast', 70),
    baseline: 41,
    target: 70,
    location: 'Garden',
    session: (random, way) => {
      const read = between(random, 40 + 24 * way, 52 + 26 * way);
      return { words: read, errors: random.whole(1, Math.max(2, Math.round(6 - 4 * way))), seconds: 60 };
    },
  },
  {
    student: 'Hollis',
    area: 'Garden',
    shortName: 'Digs to depth',
    wording: (n) =>
      `${n} will dig a seed bed to a mean depth of 25 cm, measured at three spots, in 3 of the last 4 sessions.`,
    measure: { kind: 'measurement', unit: 'cm', reading: { one: 'spot', many: 'spots' } },
    criterion: { ...usualCriterion('atLeast', 25), minimumOpportunities: 3 },
    baseline: 14,
    target: 25,
    location: 'Garden',
    session: (random, way) => ({
      readings: Array.from({ length: 3 }, () => between(random, 13 + 8 * way, 18 + 11 * way)),
    }),
  },
  ...potting,
  // Last, so that the days of those above stay what they are.
  { student: 'Gideon', ...writesUpTheDay },
  { student: 'Kestrel', ...writesUpTheDay },
];
