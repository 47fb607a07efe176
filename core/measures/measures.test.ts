import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { criterionDefinition } from './criterion-definition';
import { cumulativeTotalDefinition, neededSentence } from './cumulative-total/cumulative-total';
import { durationDefinition } from './duration/duration';
import { frequencyDefinition } from './frequency/frequency';
import { intervalRecordingDefinition, methodWords } from './interval-recording/interval-recording';
import { itemCheckDefinition, itemHistory } from './item-check/item-check';
import { latencyDefinition } from './latency/latency';
import {
  kinds,
  type MeasureData,
  type MeasureDefinition,
  measureDefinition,
  measureKinds,
  measureOf,
  readData,
} from './measure';
import { accuracyOf } from './oral-reading/oral-reading';
import { ratersSideBySide, rubricDefinition } from './rubric/rubric';
import { stepsToTeach, taskAnalysisDefinition } from './task-analysis/task-analysis';
import { trialsDefinition } from './trials/trials';

const levels = [
  { key: 'independent', label: 'Independent', words: 'alone' },
  { key: 'gesture', label: 'Gesture', words: 'a gesture' },
];
const named = (...labels: string[]) => labels.map((label) => ({ key: label.toLowerCase().replace(/\W/g, ''), label }));

const items = itemCheckDefinition.parse({
  kind: 'itemCheck',
  items: named('rain', 'their', 'said', 'soil'),
  item: { one: 'word', many: 'words' },
});
const calls = frequencyDefinition.parse({ kind: 'frequency', per: 'hour', counted: { one: 'call', many: 'calls' } });
const duration = durationDefinition.parse({ kind: 'duration', of: 'total' });
const latency = latencyDefinition.parse({ kind: 'latency' });
const intervals = intervalRecordingDefinition.parse({
  kind: 'intervalRecording',
  method: 'partial',
  seconds: 10,
  planned: 30,
});
const rubric = rubricDefinition.parse({
  kind: 'rubric',
  criteria: named('Ideas', 'Order').map((one) => ({
    ...one,
    levels: [1, 2, 3, 4].map((points) => ({ points, words: `${one.label} at ${points}` })),
  })),
});
const hours = cumulativeTotalDefinition.parse({
  kind: 'cumulativeTotal',
  unit: { one: 'hour', many: 'hours' },
  total: 40,
  categories: named('garden', 'kitchen'),
});
const steps = taskAnalysisDefinition.parse({
  kind: 'taskAnalysis',
  steps: named('water on', 'soap', 'rub', 'rinse'),
  levels,
  mostSupport: 'independent',
  chaining: 'forward',
});
const reading = measureDefinition.parse({ kind: 'oralReading' });

const score = (definition: MeasureDefinition, data: MeasureData) => measureOf(definition).score(data);
const pooled = (definition: MeasureDefinition, ...data: [MeasureData, ...MeasureData[]]) =>
  score(definition, measureOf(definition).pool(data));
const sentence = (definition: MeasureDefinition, data: MeasureData) => measureOf(definition).sentence(data);
const message = (definition: MeasureDefinition, data: unknown) => {
  const read = readData(definition, data);
  return read.ok ? undefined : read.message;
};
const asCount = (definition: MeasureDefinition, value: number, comparison: 'atLeast' | 'atMost' = 'atLeast') =>
  measureOf(definition).asCount(value, comparison);
const words = (...outcomes: [string, string][]) => ({ items: outcomes.map(([item, outcome]) => ({ item, outcome })) });

describe('item check', () => {
  const day = words(['rain', 'right'], ['their', 'incorrect'], ['said', 'right']);

  it('says what help each item took, and refuses an item that is marked twice', () => {
    const helped = measureDefinition.parse({
      ...{ kind: 'itemCheck', item: { one: 'ingredient', many: 'ingredients' }, mostSupport: 'spoken' },
      items: ['flour', 'bowl', 'oven', 'salt'].map((label) => ({ key: label, label })),
      levels: [
        { key: 'independent', label: 'Alone', words: 'alone' },
        { key: 'spoken', label: 'Prompt', words: 'one prompt' },
      ],
    });
    const marked = (item: string, outcome: string) => ({ item, outcome });
    const data = { items: [marked('flour', 'independent'), marked('bowl', 'spoken'), marked('oven', 'refused')] };
    expect(sentence(helped, data)).toBe(
      '2 of 3 ingredients with one prompt or less help (67%). Alone: flour. With one prompt: bowl. Refused: oven. Not asked: salt.',
    );
    const twice = { items: [marked('flour', 'independent'), marked('flour', 'refused')] };
    expect(message(helped, twice)).toBe('“flour” is marked twice in one entry.');
  });

  it('is the share of the items that were asked: what was not is blank', () => {
    expect(score(items, day)).toEqual({ value: (100 * 2) / 3, amount: 2, weight: 3 });
    expect(sentence(items, day)).toBe('2 of 3 words right (67%). Incorrect: their. Not asked: soil.');
    expect(sentence(items, words(['rain', 'right']))).toBe(
      '1 of 1 word right (100%). Not asked: their, said and soil.',
    );
    expect(asCount(items, 75)).toBe('3 of 4');
    expect(pooled(items, words(['rain', 'incorrect']), day)).toMatchObject({ amount: 2, weight: 4 });
  });

  it('knows each item over time: known after two right in a row, missed after two wrong, coming between', () => {
    const sessions = [
      { on: '2026-09-01', data: words(['rain', 'right'], ['their', 'incorrect'], ['said', 'right']) },
      { on: '2026-09-02', data: words(['rain', 'right'], ['their', 'noResponse'], ['said', 'incorrect']) },
    ];
    const [rain, their, said, soil] = itemHistory(items, sessions);
    expect(rain).toMatchObject({ asked: 2, right: 2, state: 'known', neverKnown: false, lastRight: '2026-09-02' });
    expect(their).toMatchObject({ state: 'missed', neverKnown: true, lastRight: null });
    expect(said).toMatchObject({ state: 'coming', lastRight: '2026-09-01' });
    expect(soil).toMatchObject({ asked: 0, state: 'notAsked', neverKnown: false });
  });

  it('refuses an item or a level that is not the goal’s', () => {
    expect(message(items, words(['cloud', 'right']))).toBe('This is not one of the goal’s words.');
    expect(message(items, words(['rain', 'gesture']))).toBe('This is not one of the goal’s support levels.');
    expect(message(items, { items: [] })).toBe('Mark at least one word, or say why there is no score.');
  });
});

describe('frequency', () => {
  it('is a rate: 7 in 30 minutes are 14 an hour; two sessions pool their counts and their minutes', () => {
    expect(score(calls, { count: 7, minutes: 30 })).toEqual({ value: 14, amount: 7, weight: 30 });
    // 10 in 10 and 2 in 50 minutes are 12 an hour, where the mean of 60 and 2.4 would be 31.
    expect(pooled(calls, { count: 10, minutes: 10 }, { count: 2, minutes: 50 })).toMatchObject({ value: 12 });
    expect(sentence(calls, { count: 7, minutes: 30 })).toBe('7 calls in 30 minutes (a rate of 14 per hour).');
    expect(sentence(calls, { count: 1, minutes: 1 })).toBe('1 call in 1 minute (a rate of 60 per hour).');
  });

  it('has none as a count like any other, and refuses a rate without a time', () => {
    expect(score(calls, { count: 0, minutes: 20 })).toMatchObject({ value: 0 });
    expect(sentence(calls, { count: 0, minutes: 20 })).toBe('No calls in 20 minutes.');
    expect(message(calls, { count: 3 })).toBe('Say how many minutes you watched; a rate needs them.');
    expect(message(calls, { count: 3, minutes: 0 })).toContain('more than nothing');
    expect(message(calls, { count: 2.5, minutes: 10 })).toBe('A count is a whole number.');
  });

  it('is the bare count where sessions are equally long: a day is the count of one of them', () => {
    const perSession = frequencyDefinition.parse({ kind: 'frequency', per: 'session', sessionMinutes: 10 });
    expect(pooled(perSession, { count: 3, minutes: 10 }, { count: 5, minutes: 10 })).toMatchObject({ value: 4 });
    expect(message(perSession, { count: 3, minutes: 12 })).toBe('This goal counts sessions of 10 minutes.');
    expect(() => frequencyDefinition.parse({ kind: 'frequency', per: 'session' })).toThrow('equal length');
  });

  it('restates a rate for the goal’s own session: at most 5 an hour are 2 in 30 minutes, at least 5 are 3', () => {
    const halfHour = frequencyDefinition.parse({ kind: 'frequency', per: 'hour', sessionMinutes: 30 });
    expect(asCount(halfHour, 5, 'atMost')).toBe('2 in 30 minutes');
    expect(asCount(halfHour, 5, 'atLeast')).toBe('3 in 30 minutes');
    expect(asCount(calls, 5)).toBeNull();
  });
});

describe('duration', () => {
  const data = { episodes: [60, 120, 90], sessionSeconds: 1800 };
  const of = (kind: string) => durationDefinition.parse({ kind: 'duration', of: kind });

  it('is the total, the mean of an episode, or the share of the session', () => {
    expect(score(duration, data)).toMatchObject({ value: 4.5, amount: 270 });
    expect(score(of('episode'), data)).toMatchObject({ value: 1.5, weight: 3 });
    expect(score(of('share'), data)).toMatchObject({ value: 15, weight: 1800 });
    expect(pooled(of('episode'), data, { episodes: [30], sessionSeconds: null })).toMatchObject({
      value: 300 / 4 / 60,
    });
    expect(pooled(of('share'), data, { episodes: [], sessionSeconds: 1800 })).toMatchObject({ value: 7.5 });
  });

  it('has a total of 0 without an episode, and no mean', () => {
    const none = { episodes: [], sessionSeconds: 600 };
    expect(score(duration, none)).toMatchObject({ value: 0 });
    expect(score(of('episode'), none)).toEqual({ value: null, reason: 'noOpportunity' });
    expect(score(of('share'), { episodes: [5], sessionSeconds: null })).toMatchObject({ value: null });
    expect(sentence(duration, none)).toBe('No episodes in 10 min.');
  });

  it('says its episodes, singular and plural', () => {
    expect(sentence(duration, { ...data, sessionSeconds: null })).toBe(
      '3 episodes, 4 min 30 s in all. Average 1 min 30 s; longest 2 min.',
    );
    expect(sentence(of('share'), data)).toBe(
      '3 episodes, 4 min 30 s of 30 min in all (15%). Average 1 min 30 s; longest 2 min.',
    );
    expect(sentence(duration, { episodes: [45], sessionSeconds: null })).toBe('1 episode, 45 s.');
  });

  it('refuses episodes longer than their session, and a share without one', () => {
    expect(message(duration, { episodes: [700], sessionSeconds: 600 })).toBe(
      'The episodes add up to 11 min 40 s, longer than the session of 10 min.',
    );
    expect(message(of('share'), { episodes: [7], sessionSeconds: null })).toContain('a share needs it');
  });
});

describe('latency', () => {
  it('is the median over all cues: one without a response took longer than the limit', () => {
    const data = { responses: [4, null, 12, 8, 6, 30] };
    // 4, 6, 8, 12, 30, longer: between 8 and 12.
    expect(score(latency, data)).toEqual({ value: 10, amount: 5, weight: 6 });
    expect(sentence(latency, data)).toBe(
      'Usually began after 10 seconds (6 cues; range 4 to 30). No response to 1 cue.',
    );
    expect(pooled(latency, { responses: [2] }, { responses: [4, 100] })).toMatchObject({ value: 4 });
    expect(sentence(latency, { responses: [9] })).toBe('Began after 9 seconds (1 cue).');
  });

  it('lies beyond the limit where most cues went unanswered, which is not the same as no cue', () => {
    const beyond = { value: 30, amount: 1, weight: 3, isBeyond: true };
    expect(score(latency, { responses: [null, 3, null] })).toEqual(beyond);
    expect(sentence(latency, { responses: [null, 3, null] })).toBe(
      'No response within 30 seconds to 2 of 3 cues. One began after 3 seconds.',
    );
    expect(sentence(latency, { responses: [null] })).toBe('No response within 30 seconds (1 cue).');
    expect(score(latency, { responses: [] })).toEqual({ value: null, reason: 'noOpportunity' });
    expect(message(latency, { responses: [-1] })).toBe('A response cannot come before its cue.');
  });
});

describe('interval recording', () => {
  it('is the share of the intervals that could be scored: a missed one is not a no', () => {
    const data = { intervals: [true, true, false, null, false, null] };
    expect(score(intervals, data)).toEqual({ value: 50, amount: 2, weight: 4 });
    expect(sentence(intervals, data)).toBe('Seen during 2 of 4 intervals of 10 s (50%). 2 intervals were skipped.');
    expect(asCount(intervals, 80)).toBe('24 of 30');
    expect(message(intervals, { intervals: [null, null] })).toContain('Every interval was missed');
    expect(score(intervals, { intervals: [null] })).toEqual({ value: null, reason: 'nothingScored' });
  });

  it('says what each method does to the estimate (Cooper, Heron & Heward)', () => {
    expect(methodWords.partial.caution).toContain('overestimate');
    expect(methodWords.whole.caution).toContain('underestimate');
  });
});

describe('rubric', () => {
  const rate = (ideas: number, order: number | null, rater: string | null = null) => ({
    ratings: [
      { criterion: 'ideas', points: ideas, rater },
      ...(order === null ? [] : [{ criterion: 'order', points: order, rater }]),
    ],
  });
  const sum = rubricDefinition.parse({ ...rubric, of: 'sum' });

  it('is the mean, the sum, or the share of the possible; each rating with its words', () => {
    expect(score(rubric, rate(3, 2))).toEqual({ value: 2.5, amount: 5, weight: 2 });
    expect(score(sum, rate(3, 2))).toMatchObject({ value: 5 });
    expect(score(rubricDefinition.parse({ ...rubric, of: 'percent' }), rate(3, 2))).toMatchObject({ value: 62.5 });
    expect(sentence(rubric, rate(3, 2))).toBe(
      'Average 2.5 out of 4 points (63%). Ideas: 3, “Ideas at 3”. Order: 2, “Order at 2”.',
    );
    expect(asCount(rubric, 2.75)).toBe('6 of 8 points');
  });

  it('says the sum of several, or the points of a single one', () => {
    expect(sentence(sum, rate(3, 2))).toMatch(/^5 out of 8 points \(63%\)\./);
    expect(sentence(rubric, rate(3, null))).toBe('3 out of 4 points (75%). Ideas: 3, “Ideas at 3”.');
  });

  it('weighs each criterion the same, however often it was rated', () => {
    // Ideas 4, 4, 1 is 3; with Order 2 the mean is 2.5, where that of all four ratings would be 2.75.
    const several = {
      ratings: [...rate(4, 2, 'A').ratings, ...rate(4, null, 'B').ratings, ...rate(1, null, 'C').ratings],
    };
    expect(score(rubric, several)).toMatchObject({ value: 2.5 });
    const { raters, spread } = ratersSideBySide(rubric, several);
    expect(raters.map(({ rater, value, points }) => [rater, value, points])).toEqual([
      ['A', 3, [4, 2]],
      ['B', 4, [4, null]],
      ['C', 1, [1, null]],
    ]);
    expect(spread.map(({ low, high }) => [low, high])).toEqual([
      [1, 4],
      [2, 2],
    ]);
  });

  it('leaves a criterion that was not rated out of a mean, and refuses it in a sum', () => {
    expect(score(rubric, rate(3, null))).toMatchObject({ value: 3, weight: 1 });
    expect(message(rubric, rate(3, null))).toBeUndefined();
    expect(message(sum, rate(3, null))).toBe('A sum needs every criterion; “Order” is not rated.');
    expect(message(sum, rate(3, 2))).toBeUndefined();
    expect(message(rubric, rate(5, 2))).toBe('“Ideas” has no level of 5.');
    expect(message(rubric, { ratings: [...rate(3, 2).ratings, ...rate(2, null).ratings] })).toBe(
      '“Ideas” is rated twice by the same person.',
    );
  });
});

describe('cumulative total', () => {
  const calendar = { weekdays: [1, 2, 3, 4, 5], closures: [] };
  const when = { startsOn: '2026-09-01', targetOn: '2026-10-05', today: '2026-09-14', calendar };

  it('adds up, with its categories in words', () => {
    const data = {
      amounts: [
        { amount: 2.5, category: 'garden' },
        { amount: 1, category: 'kitchen' },
      ],
    };
    expect(score(hours, data)).toEqual({ value: 8.75, amount: 3.5, weight: 2 });
    expect(measureOf(hours).sentence(data, 14)).toBe(
      'garden 2.5 hours, kitchen 1 hour. That day 3.5; so far 14 of 40 hours (35%).',
    );
    const plain = { amounts: [{ amount: 3, category: null }] };
    expect(measureOf(hours).sentence(plain, 14)).toBe('3 hours, 14 of 40 so far (35%).');
    // While it is recorded, what came before is not at hand.
    expect(sentence(hours, plain)).toBe('3 hours.');
    expect(message(hours, { amounts: [{ amount: -1, category: null }] })).toContain('cannot be below nothing');
    expect(asCount(hours, 90)).toBe('36 of 40 hours');
  });

  it('says what is needed a school day, and nothing at the end or after the last day', () => {
    // Fifteen school days from 15 September to 5 October.
    expect(neededSentence(hours, 25, when)).toBe('2 hours a school day needed; 15 school days are left');
    expect(neededSentence(hours, 100, when)).toBeNull();
    expect(neededSentence(hours, 25, { ...when, today: '2026-10-06' })).toBeNull();
  });
});

describe('task analysis', () => {
  const done = (...outcomes: string[]) => ({
    steps: outcomes.map((outcome, i) => ({ step: steps.steps[i]?.key ?? '', outcome })),
  });

  it('is the share of the steps done with the support that counts, and says what is next', () => {
    const data = done('independent', 'gesture', 'independent', 'notDone');
    expect(score(steps, data)).toEqual({ value: 50, amount: 2, weight: 4 });
    expect(sentence(steps, data)).toBe('2 of 4 steps done alone (50%). Next step: soap.');
    expect(asCount(steps, 60)).toBe('3 of 4');
  });

  it('teaches forward the first step, backward the last, else all of those not done', () => {
    const data = done('independent', 'gesture', 'independent', 'notDone');
    const next = (chaining: string) =>
      stepsToTeach(taskAnalysisDefinition.parse({ ...steps, chaining }), data).map(({ label }) => label);
    expect([next('forward'), next('backward'), next('whole')]).toEqual([['soap'], ['rinse'], ['soap', 'rinse']]);
    expect(stepsToTeach(steps, done('independent')).map(({ label }) => label)).toEqual(['soap']);
    expect(stepsToTeach(steps, done(...Array(4).fill('independent')))).toEqual([]);
  });

  it('keeps the outcomes of the others apart', () => {
    expect(message(steps, { steps: [{ step: 'soap', outcome: 'incorrect' }] })).toContain('support levels');
    expect(() => taskAnalysisDefinition.parse({ ...steps, levels: [{ ...levels[0], key: 'notDone' }] })).toThrow(
      'may not be',
    );
  });
});

describe('oral reading', () => {
  it('is words correct per minute: (words − errors) · 60 / seconds; two readings pool their words and seconds', () => {
    expect(score(reading, { words: 92, errors: 4, seconds: 60 })).toEqual({ value: 88, amount: 88, weight: 60 });
    expect(score(reading, { words: 50, errors: 5, seconds: 30 })).toMatchObject({ value: 90 });
    expect(pooled(reading, { words: 92, errors: 4, seconds: 60 }, { words: 50, errors: 5, seconds: 30 })).toMatchObject(
      { value: (133 * 60) / 90 },
    );
    expect(sentence(reading, { words: 92, errors: 4, seconds: 60 })).toBe(
      '92 words in 1 min, 4 errors: 88 words correct per minute. 96% of words correct: a good text for practice with help.',
    );
    expect(message(reading, { words: 3, errors: 4, seconds: 60 })).toBe('There are more errors than words read.');
  });

  it('puts the accuracy into bands: 97 and more, 90 to 96, under 90 (common practice)', () => {
    const band = (errors: number) => accuracyOf({ words: 100, errors })?.band;
    expect([3, 4, 10, 11].map(band)).toEqual(['independent', 'instructional', 'instructional', 'hard']);
    expect(accuracyOf({ words: 0, errors: 0 })).toBeNull();
    expect(sentence(reading, { words: 0, errors: 0, seconds: 60 })).toBe(
      '0 words in 1 min, no errors: 0 words correct per minute.',
    );
  });
});

describe('what lies behind a score, line by line', () => {
  const lines = (definition: MeasureDefinition, data: MeasureData) =>
    measureOf(definition)
      .breakdown(data)
      .map(({ label, value, said }) => [label, value, said]);

  it('trials: each outcome with its share', () => {
    expect(lines(trials, { trials: ['independent', 'independent', 'gesture', 'refused'] })).toEqual([
      ['Independent', 2, '2, 50%'],
      ['Gesture', 1, '1, 25%'],
      ['Incorrect', 0, '0, 0%'],
      ['No response', 0, '0, 0%'],
      ['Refused', 1, '1, 25%'],
    ]);
  });

  it('items and steps: what was not asked is neither right nor wrong', () => {
    expect(lines(items, words(['rain', 'right'], ['their', 'noResponse'], ['rain', 'incorrect']))).toEqual([
      ['rain', 1, 'right, incorrect'],
      ['their', 0, 'no response'],
      ['said', null, 'not asked'],
      ['soil', null, 'not asked'],
    ]);
    expect(
      lines(steps, {
        steps: [
          { step: 'soap', outcome: 'gesture' },
          { step: 'rub', outcome: 'notDone' },
        ],
      }),
    ).toEqual([
      ['water on', null, 'not looked at'],
      ['soap', 0, 'Gesture'],
      ['rub', 0, 'Not done'],
      ['rinse', null, 'not looked at'],
    ]);
  });

  it('count, duration, latency: figures with their units', () => {
    expect(lines(calls, { count: 7, minutes: 30 })).toEqual([
      ['Total', 7, '7'],
      ['Watched', 30, '30 minutes'],
      ['Rate', 14, '14 an hour'],
    ]);
    expect(lines(duration, { episodes: [60, 120, 90], sessionSeconds: 1800 })).toEqual([
      ['Episodes', 3, '3'],
      ['Altogether', 270, '4 min 30 s'],
      ['On average', 90, '1 min 30 s'],
      ['Longest', 120, '2 min'],
      ['Session', 1800, '30 min'],
    ]);
    expect(lines(duration, { episodes: [], sessionSeconds: null })).toEqual([
      ['Episodes', 0, '0'],
      ['Altogether', 0, '0 s'],
      ['On average', null, 'none'],
      ['Longest', null, 'none'],
    ]);
    expect(lines(latency, { responses: [4, null, 12] })).toEqual([
      ['Median', 12, '12 s'],
      ['Shortest', 4, '4 s'],
      ['Longest', 12, '12 s'],
      ['Without a response', 1, '1'],
    ]);
  });

  it('intervals, rubric, cumulative total, oral reading', () => {
    expect(lines(intervals, { intervals: [true, null, false, true] })).toEqual([
      ['Yes', 2, '2'],
      ['No', 1, '1'],
      ['Missed', 1, '1'],
    ]);
    const ratings = [
      { criterion: 'ideas', points: 4, rater: 'A' },
      { criterion: 'ideas', points: 1, rater: 'B' },
    ];
    expect(lines(rubric, { ratings })).toEqual([
      ['Ideas', 2.5, '4, “Ideas at 4” (A); 1, “Ideas at 1” (B)'],
      ['Order', null, 'not rated'],
    ]);
    const amounts = [
      { amount: 2, category: 'garden' },
      { amount: 1, category: 'garden' },
      { amount: 1, category: null },
    ];
    expect(lines(hours, { amounts })).toEqual([
      ['garden', 3, '3 hours in 2'],
      ['kitchen', null, '0 hours in 0'],
      ['Other', 1, '1 hour in 1'],
    ]);
    expect(lines(cumulativeTotalDefinition.parse({ ...hours, categories: [] }), { amounts: amounts.slice(2) })).toEqual(
      [['Altogether', 1, '1 hour in 1']],
    );
    expect(lines(reading, { words: 92, errors: 4, seconds: 60 })).toEqual([
      ['Words correct per minute', 88, '88'],
      ['Words read', 92, '92'],
      ['Errors', 4, '4'],
      ['Accuracy', (100 * 88) / 92, '96%, a good text for practice with help'],
      ['Time', 60, '1 min'],
    ]);
  });
});

describe('what a value is called', () => {
  const said = (definition: MeasureDefinition, value: number) => measureOf(definition).said(value);
  const basis = (definition: MeasureDefinition, amount: number, weight: number) =>
    measureOf(definition).basis({ value: 0, amount, weight });
  const axis = (definition: MeasureDefinition) => measureOf(definition).axis;
  const perSession = frequencyDefinition.parse({
    kind: 'frequency',
    per: 'session',
    sessionMinutes: 10,
    counted: { one: 'call', many: 'calls' },
  });
  const of = (kind: string) => durationDefinition.parse({ kind: 'duration', of: kind });

  it('carries its unit, one and many', () => {
    expect([said(calls, 14), said(perSession, 1), said(perSession, 2.5)]).toEqual([
      '14 an hour',
      '1 call',
      '2.5 calls',
    ]);
    expect([said(duration, 4.5), said(of('share'), 15), said(latency, 8)]).toEqual(['4 min 30 s', '15%', '8 s']);
    expect([said(rubric, 2.75), said(reading, 88), said(hours, 8.75)]).toEqual([
      '2.8',
      '88 words correct per minute',
      '9%',
    ]);
  });

  it('comes from what was counted', () => {
    expect([basis(calls, 7, 30), basis(items, 3, 4), basis(hours, 3.5, 2)]).toEqual([
      '7 in 30 min',
      '3 of 4',
      '3.5 of 40 hours',
    ]);
    expect([basis(duration, 270, 1), basis(of('share'), 270, 1800), basis(of('episode'), 270, 1)]).toEqual([
      '4 min 30 s',
      '4 min 30 s of 30 min',
      '4 min 30 s in 1 episode',
    ]);
    expect([basis(latency, 5, 6), basis(latency, 6, 6), basis(reading, 1, 60)]).toEqual([
      '5 of 6 answered',
      '6 timed',
      '1 word correct in 1 min',
    ]);
    expect([basis(rubric, 5, 2), basis(rubric, 3, 1)]).toEqual(['5 of 8 points', '3 points on 1 of 2']);
  });

  it('changes in its own unit, and has a criterion as a count where one can be told beforehand', () => {
    expect([axis(calls).change, axis(perSession).change, axis(duration).unit]).toEqual([
      'calls an hour',
      'calls',
      ' min',
    ]);
    expect([axis(rubric).max, axis(rubricDefinition.parse({ ...rubric, of: 'sum' })).max]).toEqual([4, 8]);
    expect(asCount(rubricDefinition.parse({ ...rubric, of: 'percent' }), 75)).toBe('6 of 8 points');
    expect(asCount(rubricDefinition.parse({ ...rubric, of: 'sum' }), 6)).toBeNull();
    const half = measureDefinition.parse({ kind: 'oralReading', seconds: 30 });
    expect([asCount(half, 91), asCount(half, 91, 'atMost'), asCount(half, 90, 'atMost')]).toEqual([
      '46 words correct in 30 s',
      '45 words correct in 30 s',
      '45 words correct in 30 s',
    ]);
    expect(asCount(reading, 91)).toBeNull();
  });
});

const trials = trialsDefinition.parse({ kind: 'trials', levels, mostSupport: 'gesture', planned: 6 });
const fromLevels = fc.constantFrom('independent', 'gesture', 'incorrect', 'noResponse', 'refused');
const several = <T>(one: fc.Arbitrary<T>) => fc.array(one, { minLength: 1, maxLength: 12 });
const seconds = fc.double({ min: 0.5, max: 900, noNaN: true });
const anySession: [string, MeasureDefinition, fc.Arbitrary<MeasureData>][] = [
  ['trials', trials, fc.record({ trials: several(fromLevels) })],
  [
    'trials counted',
    trials,
    several(fromLevels).map((all) => ({
      counts: Object.fromEntries([...new Set(all)].map((key) => [key, all.filter((one) => one === key).length])),
      opportunities: all.length,
    })),
  ],
  [
    'items',
    items,
    fc.uniqueArray(fc.constantFrom(...items.items.map(({ key }) => key)), { minLength: 1 }).chain((keys) =>
      fc.record({
        items: fc.tuple(
          ...keys.map((item) =>
            fc.record({
              item: fc.constant(item),
              outcome: fc.constantFrom('right', 'incorrect', 'noResponse', 'refused'),
            }),
          ),
        ),
      }),
    ),
  ],
  ['count', calls, fc.record({ count: fc.nat(200), minutes: fc.integer({ min: 1, max: 400 }) })],
  ['duration', duration, fc.record({ episodes: fc.array(seconds), sessionSeconds: fc.constantFrom(null, 80_000) })],
  ['latency', latency, fc.record({ responses: several(fc.option(seconds)) })],
  [
    'intervals',
    intervals,
    fc.record({ intervals: several(fc.option(fc.boolean())).filter((all) => all.some((one) => one !== null)) }),
  ],
  [
    'rubric',
    rubric,
    fc.tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 4 })).map(([a, b]) => ({
      ratings: [
        { criterion: 'ideas', points: a, rater: null },
        { criterion: 'order', points: b, rater: null },
      ],
    })),
  ],
  [
    'cumulative total',
    hours,
    fc.record({
      amounts: several(
        fc.record({
          amount: fc.double({ min: 0, max: 50, noNaN: true }),
          category: fc.constantFrom(null, 'garden', 'kitchen'),
        }),
      ),
    }),
  ],
  [
    'steps',
    steps,
    fc.record({
      steps: several(
        fc.record({
          step: fc.constantFrom(...steps.steps.map(({ key }) => key)),
          outcome: fc.constantFrom('independent', 'gesture', 'notDone'),
        }),
      ),
    }),
  ],
  [
    'oral reading',
    reading,
    fc
      .tuple(fc.nat(300), fc.nat(300), fc.integer({ min: 1, max: 600 }))
      .map(([a, b, time]) => ({ words: Math.max(a, b), errors: Math.min(a, b), seconds: time })),
  ],
  [
    'measurement',
    measureDefinition.parse({ kind: 'measurement', unit: 'cm', reading: { one: 'call', many: 'calls' } }),
    fc.record({ readings: several(fc.double({ min: 0, max: 1000, noNaN: true })) }),
  ],
];

it('has them all', () => {
  expect([...new Set(anySession.map(([, { kind }]) => kind))]).toEqual(measureKinds);
});

describe.each(anySession)('every measure: %s', (_, definition, session) => {
  const measure = measureOf(definition);

  it('takes what its own schema lets through, and gives figures and a sentence without a gap', () => {
    fc.assert(
      fc.property(session, (data) => {
        expect(measure.data.safeParse(data).success).toBe(true);
        const result = measure.score(data);
        if (result.value !== null) {
          for (const figure of [result.value, result.amount, result.weight]) expect(Number.isFinite(figure)).toBe(true);
          expect(measure.basis(result)).not.toMatch(/NaN|Infinity|undefined|null/);
          if (measure.isShare) expect(result.value).toBeCloseTo((100 * result.amount) / result.weight, 9);
        }
        const lines = measure.breakdown(data);
        const text = [measure.sentence(data), ...lines.map(({ label, said }) => `${label}: ${said}.`)];
        for (const one of text) expect(one).toMatch(/^[\w“][^\n]*[.”]$/);
        expect(text.join(' ')).not.toMatch(/NaN|Infinity|undefined|null/);
      }),
    );
  });

  it('pools sessions from what was counted: in any order, and all at once or one after the other', () => {
    fc.assert(
      fc.property(session, session, session, (a, b, c) => {
        const together = pooled(definition, a, b, c);
        const stepwise = pooled(definition, measure.pool([a, b]), c);
        expect(stepwise).toEqual(together);
        const turned = pooled(definition, c, b, a);
        if (together.value === null || turned.value === null) return expect(turned).toEqual(together);
        expect(turned.value).toBeCloseTo(together.value, 9);
        const parts = [a, b, c].flatMap((data) => {
          const part = measure.score(data);
          return part.value === null ? [] : part;
        });
        if (measure.isShare) {
          expect(together.amount).toBe(parts.reduce((total, part) => total + part.amount, 0));
          expect(together.weight).toBe(parts.reduce((total, part) => total + part.weight, 0));
        }
      }),
    );
  });

  it('refuses what is no data of its kind in words, not in the terms of a program', () => {
    const own = Object.keys(fc.sample(session, 1)[0] as object);
    const none = Object.fromEntries(own.map((key) => [key, null]));
    const text = Object.fromEntries(own.map((key) => [key, 'many']));
    for (const wrong of [{}, null, 'three', [], none, text, Object.fromEntries(own.map((key) => [key, ['x']]))]) {
      const said = message(definition, wrong);
      expect(said, JSON.stringify(wrong)).toMatch(/^[A-Z“].*\.$/);
      expect(said).not.toMatch(/Invalid|expected|received|undefined|object|array|string/);
    }
  });

  it('is told from every other by its data', () => {
    for (const [, { kind }, other] of anySession) {
      const data = fc.sample(other, 1)[0] as MeasureData;
      expect(kinds[definition.kind].holds(data), kind).toBe(kind === definition.kind);
    }
  });

  it('has a default criterion that is one, an axis, and a neutral self for the discreet view', () => {
    expect(criterionDefinition.safeParse(measure.defaultCriterion()).success).toBe(true);
    const { max, change } = measure.axis;
    expect(max === null || max > 0).toBe(true);
    expect(change).not.toBe('');
    const neutral = JSON.stringify(measure.discreet()).replace(/"(key|per|mostSupport)":"\w+"/g, '');
    expect(neutral).not.toMatch(/rain|their|call|Ideas|garden|soap|hour/);
    expect(measure.discreet().kind).toBe(definition.kind);
  });
});
