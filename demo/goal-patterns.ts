import type { SupportLevel } from '~/core/measures/support-levels';
import type { LocationName } from './school';

const alone = { key: 'independent', label: 'Independent', words: 'alone' };
const gesture = { key: 'gesture', label: 'Gesture', words: 'a gesture' };
const picture = { key: 'picture', label: 'Picture', words: 'a picture cue' };
const spoken = { key: 'spoken', label: 'Spoken', words: 'a spoken prompt' };
const model = { key: 'model', label: 'Shown how', words: 'being shown how' };
const hands = { key: 'hands', label: 'Hands on', words: 'hand-over-hand help' };

const ladder = [alone, gesture, spoken, model];
const withPictures = [alone, picture, spoken, model, hands];
const short = [alone, gesture, spoken];

export interface GoalPattern {
  area: string;
  shortName: string;
  wording: (name: string) => string;
  levels: SupportLevel[];
  mostSupport: string;
  opportunity: [one: string, many: string];
  planned: number;
  target: number;
  /** [k, n] for k of the last n; n alone for n in a row. */
  run: [number, number] | number;
  location: LocationName;
  /** What adults do to help, where it has steps of its own. */
  support?: { label: string; steps: string[] };
}

/** The demo's goals, each in the words of a plan. */
export const goalPatterns: Record<string, GoalPattern> = {
  sandsToLine: {
    area: 'Workshop',
    shortName: 'Sands to the line',
    levels: ladder,
    mostSupport: 'gesture',
    wording: (n) =>
      `Given a board marked in pencil, ${n} will sand each edge to the line with no more than one gesture, on 80% of edges in 3 of the last 4 days of work.`,
    opportunity: ['edge', 'edges'],
    planned: 6,
    target: 80,
    run: [3, 4],
    location: 'Workshop',
  },
  measuresBoard: {
    area: 'Math',
    shortName: 'Measures a board',
    levels: ladder,
    mostSupport: 'independent',
    wording: (n) =>
      `${n} will measure and mark boards to the nearest half inch without help, 4 of 5 boards, on 3 days in a row.`,
    opportunity: ['board', 'boards'],
    planned: 5,
    target: 80,
    run: 3,
    location: 'Workshop',
  },
  putsToolsBack: {
    area: 'Workshop',
    shortName: 'Puts tools back',
    levels: short,
    mostSupport: 'gesture',
    wording: (n) =>
      `At the end of a work block ${n} will return each tool to its outline on the wall, with at most a gesture, for 90% of tools in 3 of 4 days.`,
    opportunity: ['tool', 'tools'],
    planned: 8,
    target: 90,
    run: [3, 4],
    location: 'Workshop',
  },
  asksForTool: {
    area: 'Communication',
    shortName: 'Asks for a tool',
    levels: withPictures,
    mostSupport: 'picture',
    wording: (n) =>
      `When a tool is out of reach, ${n} will ask a person for it by name, with no more than a picture cue, in 4 of 5 requests, on 3 of the last 4 days.`,
    opportunity: ['request', 'requests'],
    planned: 5,
    target: 80,
    run: [3, 4],
    location: 'Workshop',
  },
  readsSafetySigns: {
    area: 'Reading',
    shortName: 'Reads safety signs',
    levels: short,
    mostSupport: 'independent',
    wording: (n) =>
      `${n} will read ten signs from the workshop and the kitchen and show what each asks for, 9 of 10 signs, on 2 days in a row.`,
    opportunity: ['sign', 'signs'],
    planned: 10,
    target: 90,
    run: 2,
    location: 'Workshop',
  },
  measuresIngredients: {
    area: 'Math',
    shortName: 'Measures ingredients',
    levels: ladder,
    mostSupport: 'gesture',
    wording: (n) =>
      `Given a recipe of six ingredients, ${n} will measure each to the marked line with at most a gesture, for 80% of ingredients in 3 of the last 4 sessions.`,
    opportunity: ['ingredient', 'ingredients'],
    planned: 6,
    target: 80,
    run: [3, 4],
    location: 'Kitchen',
  },
  readsRecipe: {
    area: 'Reading',
    shortName: 'Reads a recipe',
    levels: withPictures,
    mostSupport: 'picture',
    wording: (n) =>
      `${n} will read each line of a short recipe and do what it says, with no more than a picture cue, on 80% of lines, 3 days in a row.`,
    opportunity: ['line', 'lines'],
    planned: 8,
    target: 80,
    run: 3,
    location: 'Kitchen',
  },
  setsTable: {
    area: 'Kitchen',
    shortName: 'Sets the table',
    levels: ladder,
    mostSupport: 'independent',
    wording: (n) =>
      `${n} will set a place at the long table by the placemat outline without help, 5 of 6 places, in 3 of the last 4 days.`,
    opportunity: ['place', 'places'],
    planned: 6,
    target: 83,
    run: [3, 4],
    location: 'Kitchen',
  },
  countsCoins: {
    area: 'Math',
    shortName: 'Counts coins',
    levels: ladder,
    mostSupport: 'gesture',
    wording: (n) =>
      `At the Friday stall and in practice ${n} will count out amounts up to one dollar with at most a gesture, 8 of 10 amounts, in 2 of 3 sessions.`,
    opportunity: ['amount', 'amounts'],
    planned: 10,
    target: 80,
    run: [2, 3],
    location: 'Classroom',
  },
  washesHands: {
    area: 'Self-care',
    shortName: 'Washes hands',
    levels: withPictures,
    mostSupport: 'picture',
    wording: (n) =>
      `${n} will wash hands before food and after the garden, following the picture strip, with no more than a picture cue, 9 of 10 times, 4 days in a row.`,
    opportunity: ['time', 'times'],
    planned: 4,
    target: 90,
    run: 4,
    location: 'Kitchen',
  },
  plantsRow: {
    area: 'Garden',
    shortName: 'Plants a row',
    levels: ladder,
    mostSupport: 'gesture',
    wording: (n) =>
      `${n} will plant along a string, one seedling to each mark, with at most a gesture, for 80% of seedlings on 3 of the last 4 garden days.`,
    opportunity: ['seedling', 'seedlings'],
    planned: 8,
    target: 80,
    run: [3, 4],
    location: 'Garden',
  },
  namesPlants: {
    area: 'Communication',
    shortName: 'Names plants',
    levels: short,
    mostSupport: 'independent',
    wording: (n) =>
      `Walking the beds with an adult, ${n} will name the plant that is pointed to, 4 of 5 plants without a prompt, on 3 days in a row.`,
    opportunity: ['plant', 'plants'],
    planned: 5,
    target: 80,
    run: 3,
    location: 'Garden',
  },
  writesLog: {
    area: 'Writing',
    shortName: 'Writes the garden log',
    levels: ladder,
    mostSupport: 'spoken',
    wording: (n) =>
      `${n} will fill in the garden log (date, weather, bed, work, next) with no more than a spoken prompt, for 4 of its 5 parts, in 3 of the last 4 days.`,
    opportunity: ['part', 'parts'],
    planned: 5,
    target: 80,
    run: [3, 4],
    location: 'Garden',
  },
  asksForPause: {
    area: 'Self-advocacy',
    shortName: 'Asks for a pause',
    levels: short,
    mostSupport: 'independent',
    wording: (n) =>
      `When work gets hard ${n} will hand over the pause card before leaving the place, without a prompt, 4 of 5 times, on 3 days in a row.`,
    opportunity: ['time', 'times'],
    planned: 5,
    target: 80,
    run: 3,
    location: 'Classroom',
  },
  asksForHelp: {
    area: 'Self-advocacy',
    shortName: 'Asks for help',
    levels: ladder,
    mostSupport: 'gesture',
    wording: (n) =>
      `When stuck for more than a minute, ${n} will ask an adult or a partner for help with at most a gesture, 8 of 10 times, in 3 of the last 4 days.`,
    opportunity: ['time', 'times'],
    planned: 5,
    target: 80,
    run: [3, 4],
    location: 'Classroom',
  },
  waitsForTurn: {
    area: 'Social',
    shortName: 'Waits for a turn',
    levels: short,
    mostSupport: 'gesture',
    wording: (n) =>
      `In group work ${n} will wait for the turn to come round with at most a gesture, 4 of 5 turns, in 3 of the last 4 days.`,
    opportunity: ['turn', 'turns'],
    planned: 5,
    target: 80,
    run: [3, 4],
    location: 'Classroom',
  },
  followsTwoSteps: {
    area: 'Listening',
    shortName: 'Follows two steps',
    levels: withPictures,
    mostSupport: 'picture',
    wording: (n) =>
      `${n} will carry out spoken directions of two steps with no more than a picture cue, 8 of 10 directions, in 2 of 3 days.`,
    opportunity: ['direction', 'directions'],
    planned: 10,
    target: 80,
    run: [2, 3],
    location: 'Classroom',
  },
  servesAtStall: {
    area: 'Work experience',
    shortName: 'Serves at the stall',
    levels: short,
    mostSupport: 'gesture',
    wording: (n) =>
      `At the Friday stall ${n} will hand over what was asked for and name its price with no more than a gesture, in 7 of 10 sales, on 3 of the last 4 days.`,
    opportunity: ['sale', 'sales'],
    planned: 10,
    target: 70,
    run: [3, 4],
    location: 'Garden',
  },
  fetchesFromShed: {
    area: 'Communication',
    shortName: 'Fetches from the shed',
    levels: withPictures,
    mostSupport: 'picture',
    wording: (n) =>
      `Sent to the garden shed, ${n} will bring what was named with no more than a picture cue, 8 of 10 times, in 3 of the last 4 sessions.`,
    opportunity: ['errand', 'errands'],
    planned: 10,
    target: 80,
    run: [3, 4],
    location: 'Garden',
  },
  laysOutJob: {
    area: 'Work habits',
    shortName: 'Lays out a job',
    levels: ladder,
    mostSupport: 'spoken',
    wording: (n) =>
      `Before a job ${n} will lay out its tools and parts in the order of the job card, with no more than a spoken prompt, for 80% of the pieces in 3 of the last 4 sessions.`,
    opportunity: ['piece', 'pieces'],
    planned: 6,
    target: 80,
    run: [3, 4],
    location: 'Workshop',
    support: {
      label: 'Job card',
      steps: ['Card on the bench', 'Waits 5 seconds', 'Points to the next picture', 'Says what went right'],
    },
  },
};

/** What people write beside an entry, whatever the goal. `{name}` is the student's first name. */
export const noteBank = [
  'Started before I said anything.',
  'The first two were quick; tired toward the end.',
  '{name} put one right without being asked.',
  'Noisy room. Still came back to it each time.',
  'Needed the longest wait so far, then did it.',
  'Said “my turn now” and pointed at the list.',
  'Substitute in the room, so a little slower than usual.',
  '{name} showed a partner how it goes.',
  'Wind outside; stopped early and picked it up after break.',
  'Chose the order of the work, which helped.',
  'Hands were cold. We warmed them first.',
  'Two prompts on the third one, none after that.',
  'Laughed when it worked. Wanted to do it again.',
  'We moved to the quiet corner halfway.',
  'Did it in a second room for the first time.',
  'Fire drill in between; I counted only what came after.',
];
