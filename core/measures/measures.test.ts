import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { criterionDefinition } from '~/core/measures/criterion-definition';
import { cumulativeTotalDefinition } from '~/core/measures/cumulative-total/cumulative-total';
import { durationDefinition } from '~/core/measures/duration/duration';
import { frequencyDefinition } from '~/core/measures/frequency/frequency';
import {
  kinds,
  type MeasureData,
  type MeasureDefinition,
  measureDefinition,
  measureKinds,
  measureOf,
} from '~/core/measures/measure';
import { rubricDefinition } from '~/core/measures/rubric/rubric';
import { trialsDefinition } from '~/core/measures/trials/trials';
import {
  asCount,
  calls,
  duration,
  hours,
  intervals,
  items,
  latency,
  levels,
  message,
  pooled,
  reading,
  rubric,
  steps,
  words,
} from '~/tests/examples/measures';

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
