import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { schoolDays } from '../calendar/school-days';
import { timetableDefinition } from '../calendar/timetable';
import { type Incident, incidentDefinition, watchedStretch } from '../entries/incidents/incident';
import { wilsonInterval } from '../statistics/wilson';
import { analyseBehavior } from './analysis';
import { chainsThrough } from './chains';
import { conditionalProbabilities } from './conditional';
import { functionWeights } from './hypotheses';
import { durationsOf, intensitiesOf } from './magnitude';
import { compareRates, rateOf, ratePerHourObserved, ratesByMonth, ratesByWeekday } from './rates';
import { countFacet, facetShares } from './shares';
import { byPart, byQuarterHour, whenGrid } from './when';

const incident = (changes: object = {}): Incident =>
  incidentDefinition.parse({
    on: '2026-09-01',
    time: '09:30',
    behaviors: ['Calling out'],
    antecedents: ['Asked to begin'],
    consequences: ['Peers laugh'],
    ...changes,
  });
const incidents = (n: number, changes: object = {}) => Array.from({ length: n }, () => incident(changes));
const calendar = { weekdays: [1, 2, 3, 4, 5], closures: [] };
// 1 September 2026 was a Tuesday: 22 school days in the month, four of them Mondays.
const september = schoolDays('2026-09-01', '2026-09-30', calendar);
const timetable = timetableDefinition.parse(
  [1, 2, 3, 4, 5].flatMap((weekday) => [
    { weekday, part: 'Workshop', from: '09:00', to: '11:00' },
    { weekday, part: 'Snack', from: '11:00', to: '11:30' },
  ]),
);

describe('rates', () => {
  it('are per school day or hour, and none without any', () => {
    expect(rateOf(6, 20).rate).toBe(0.3);
    expect(rateOf(0, 20).rate).toBe(0);
    expect(rateOf(6, 0).rate).toBeNull();
  });

  it('count “observed, none occurred” as time observed', () => {
    const watched = [
      { on: '2026-09-01', behavior: 'Calling out', count: 6, minutes: 60 },
      { on: '2026-09-02', behavior: 'Calling out', count: 0, minutes: 120 },
    ].map((stretch) => watchedStretch.parse(stretch));
    expect(ratePerHourObserved(watched)).toEqual({ n: 6, exposure: 3, rate: 2 });
    expect(ratePerHourObserved(watched.slice(0, 1)).rate).toBe(6);
  });

  it('compare months per school day, not by count', () => {
    const days = [...september, ...schoolDays('2026-10-01', '2026-10-09', calendar)];
    const dates = [...Array(11).fill('2026-09-15'), ...Array(7).fill('2026-10-02')];
    expect(ratesByMonth(dates, days)).toEqual([
      { month: '2026-09', n: 11, exposure: 22, rate: 0.5 },
      { month: '2026-10', n: 7, exposure: 7, rate: 1 },
    ]);
    const [monday, tuesday] = ratesByWeekday(['2026-09-07', '2026-09-14', '2026-09-08'], september);
    expect(monday).toEqual({ weekday: 1, n: 2, exposure: 4, rate: 0.5 });
    expect(tuesday).toEqual({ weekday: 2, n: 1, exposure: 5, rate: 0.2 });
  });

  it('compare two ranges by their ratio, with the interval of the share that falls into the later one', () => {
    const { ratio, low, high } = compareRates({ n: 12, exposure: 21 }, { n: 4, exposure: 20 });
    expect(ratio).toBeCloseTo(4 / 20 / (12 / 21), 12);
    // Wilson of 4 in 16 is .1018 to .4950; as a ratio (p / (1 − p)) · 21/20.
    const share = wilsonInterval(4, 16);
    expect(low).toBeCloseTo((share.low / (1 - share.low)) * 1.05, 12);
    expect(high).toBeCloseTo((share.high / (1 - share.high)) * 1.05, 12);
    expect(compareRates({ n: 0, exposure: 20 }, { n: 4, exposure: 20 })).toMatchObject({ ratio: null, high: null });
    expect(compareRates({ n: 4, exposure: 20 }, { n: 0, exposure: 20 })).toMatchObject({ ratio: 0, low: 0 });
    expect(compareRates({ n: 0, exposure: 20 }, { n: 0, exposure: 20 }).low).toBeNull();
    expect(compareRates({ n: 3, exposure: 0 }, { n: 4, exposure: 20 }).ratio).toBeNull();
  });

  it('turn over when the ranges change places', () => {
    const range = fc.record({ n: fc.integer({ min: 1, max: 60 }), exposure: fc.integer({ min: 1, max: 80 }) });
    fc.assert(
      fc.property(range, range, (a, b) => {
        const [there, back] = [compareRates(a, b), compareRates(b, a)];
        expect((there.ratio ?? 0) * (back.ratio ?? 0)).toBeCloseTo(1, 9);
        expect((there.low ?? 0) * (back.high ?? 0)).toBeCloseTo(1, 6);
        expect(there.ratio ?? 0).toBeGreaterThanOrEqual((there.low ?? 0) - 1e-9);
        expect(there.ratio ?? 0).toBeLessThanOrEqual((there.high ?? 0) + 1e-9);
      }),
    );
  });
});

describe('when (the scatter plot of Touchette, MacDonald & Langer 1985)', () => {
  const some = [
    incident({ on: '2026-09-07', time: '10:59' }),
    incident({ on: '2026-09-07', time: '11:00' }),
    incident({ on: '2026-09-14', time: '11:29' }),
    incident({ on: '2026-09-08', time: '12:00' }),
  ];

  it('counts incidents in cells of weekday and part of the day, with their hours', () => {
    const { cells, outside } = whenGrid(some, timetable, september);
    expect(outside).toBe(1);
    expect(cells.find((cell) => cell.weekday === 1 && cell.part === 'Snack')).toEqual({
      weekday: 1,
      part: 'Snack',
      n: 2,
      exposure: 2,
      rate: 1,
    });
    expect(cells.find((cell) => cell.weekday === 1 && cell.part === 'Workshop')).toMatchObject({ n: 1, exposure: 8 });
    expect(byPart(cells)).toEqual([
      { part: 'Workshop', n: 1, exposure: 44, rate: 1 / 44 },
      { part: 'Snack', n: 2, exposure: 11, rate: 2 / 11 },
    ]);
  });

  it('can look closer, by quarter of an hour', () => {
    expect(byQuarterHour(some)).toEqual([
      { from: '10:45', n: 1 },
      { from: '11:00', n: 1 },
      { from: '11:15', n: 1 },
      { from: '12:00', n: 1 },
    ]);
  });
});

describe('before and after', () => {
  const own = [
    ...incidents(6),
    ...incidents(2, { antecedents: ['Waiting', 'Asked to begin'] }),
    ...incidents(2, { antecedents: [] }),
  ];
  const others = [
    ...incidents(1, { behaviors: ['Leaving'] }),
    ...incidents(4, { behaviors: ['Leaving'], antecedents: ['Waiting'] }),
  ];

  it('is a share of this behavior’s incidents, with its interval and held against the other behaviors', () => {
    const [asked, waiting] = facetShares(own, countFacet([...own, ...others], 'antecedents'));
    expect(asked).toMatchObject({ name: 'Asked to begin', n: 8, of: 10, share: 0.8, others: { n: 1, of: 5 } });
    expect(asked).toMatchObject(wilsonInterval(8, 10));
    expect(asked?.oddsRatio).toBeCloseTo((8.5 * 4.5) / (2.5 * 1.5), 12);
    expect(asked?.yulesQ).toBeCloseTo((8 * 4 - 2 * 1) / (8 * 4 + 2 * 1), 12);
    // Tables with margins 10, 5 and 9, 6: the first cell is 4 to 9. C(10,k)·C(5,9−k) over C(15,9) = 5005:
    // 4: 210, 5: 1260, 6: 2100, 7: 1200, 8: 225, 9: 10. No likelier than 8: 4, 8 and 9.
    expect(asked?.p).toBeCloseTo((210 + 225 + 10) / 5005, 12);
    expect(waiting).toMatchObject({ n: 2, others: { n: 4, of: 5 } });
  });

  it('counts a name once in an incident, and compares with nothing where there is nothing', () => {
    const twice = [incident({ antecedents: ['Asked to begin', 'Asked to begin'] })];
    const [asked] = facetShares(twice, countFacet(twice, 'antecedents'));
    expect(asked).toMatchObject({ n: 1, of: 1, oddsRatio: null, yulesQ: null, p: null });
  });

  it('makes whole chains of every antecedent and consequence of an incident', () => {
    const chains = chainsThrough('Calling out', [
      incident({ consequences: ['Peers laugh', 'Sent back'] }),
      incident(),
      incident({ antecedents: [] }),
      incident({ behaviors: ['Leaving', 'Calling out'] }),
    ]);
    expect(chains).toMatchObject([
      { antecedent: 'Asked to begin', behavior: 'Calling out', consequence: 'Peers laugh', n: 3, of: 4, share: 0.75 },
      { consequence: 'Sent back', n: 1, of: 4 },
    ]);
    expect(chains[0]).toMatchObject(wilsonInterval(3, 4));
    const { chains: all } = analyseBehavior([...incidents(2), ...incidents(3, { behaviors: ['Leaving'] })], {
      days: september,
      timetable: [],
      watched: [],
    });
    expect(all.map(({ behavior, n }) => [behavior, n])).toEqual([
      ['Leaving', 3],
      ['Calling out', 2],
    ]);
  });

  it('weighs hypotheses of function equally within an incident, so that they add up', () => {
    const weights = functionWeights([
      { functions: ['attention', 'escape'] },
      { functions: ['escape'] },
      { functions: [] },
    ]);
    expect(weights).toEqual([
      { name: 'escape', n: 2, weight: 1.5, share: 0.75 },
      { name: 'attention', n: 1, weight: 0.5, share: 0.25 },
    ]);
    const some = fc.array(fc.record({ functions: fc.subarray(['attention', 'escape', 'access', 'sensory']) }));
    fc.assert(
      fc.property(some, (all) => {
        const total = functionWeights(all).reduce((sum, { weight }) => sum + weight, 0);
        expect(total).toBeCloseTo(all.filter(({ functions }) => functions.length > 0).length, 9);
      }),
    );
  });
});

describe('duration and intensity', () => {
  it('look at the incidents that say so, and at nothing else', () => {
    const seconds = [null, 60, 240, 90].map((one) => ({ seconds: one }));
    // One minute is no longer than one minute.
    const bands = [{ upTo: 60, n: 1 }, { upTo: 300, n: 2 }, ...[900, 1800, null].map((upTo) => ({ upTo, n: 0 }))];
    expect(durationsOf(seconds)).toEqual({ n: 3, medianSeconds: 90, longestSeconds: 240, totalSeconds: 390, bands });
    expect(durationsOf([{ seconds: null }])).toBeNull();
    expect(intensitiesOf([3, 1, 3, null].map((intensity) => ({ intensity })))).toEqual({
      n: 3,
      median: 3,
      levels: [
        { level: 1, n: 1, share: 1 / 3 },
        { level: 3, n: 2, share: 2 / 3 },
      ],
    });
    expect(intensitiesOf([])).toBeNull();
  });
});

describe('conditional against base probability', () => {
  it('is told where occasions without the behavior were recorded too: by hand', () => {
    const occasion = (occurred: boolean, ...antecedents: string[]) => ({ occurred, antecedents });
    const { base, antecedents } = conditionalProbabilities([
      ...Array(6).fill(occasion(true, 'Asked to begin')),
      ...Array(2).fill(occasion(false, 'Asked to begin')),
      ...Array(1).fill(occasion(true)),
      ...Array(11).fill(occasion(false)),
    ]);
    expect(base).toMatchObject({ n: 7, of: 20, p: 0.35 });
    expect(antecedents[0]).toMatchObject({
      antecedent: 'Asked to begin',
      after: { n: 6, of: 8, p: 0.75 },
      without: { n: 1, of: 12 },
    });
    // Margins 8, 12 and 7, 13: P(6) + P(7), the other side being likelier: (28·12 + 8·1) / C(20,7) = 344/77520.
    expect(antecedents[0]?.p).toBeCloseTo(344 / 77_520, 9);
    expect(conditionalProbabilities([])).toEqual({ base: null, antecedents: [] });
    expect(conditionalProbabilities([occasion(true, 'Always')]).antecedents[0]?.without).toBeNull();
  });
});

describe('what stands out', () => {
  const exposure = { days: september, timetable, watched: [] };
  const mondaySnack = { on: '2026-09-07', time: '11:10' };

  /** An incident on each of some days, at a time of its own: no burst. */
  const spread = (days: readonly string[], changes: Partial<Incident> = {}) =>
    days.map((on) => incident({ on, time: '09:30', ...changes }));

  it('names its counts, the surest first, and leads to the incidents behind it', () => {
    const { findings } = analyseBehavior(
      [
        ...spread(september.slice(0, 12), { time: '11:10', antecedents: ['Waiting'] }),
        ...spread(september.slice(12, 16)),
        ...spread(september.slice(0, 16), { behaviors: ['Leaving'], time: '10:00', antecedents: ['Noise'] }),
      ],
      exposure,
    );
    const calling = findings.filter(({ about }) => about.behavior === 'Calling out');
    const snack = calling.find(({ about }) => about.part === 'Snack');
    // Snack takes a fifth of the hours: 3.2 of 16 would be expected, with a spread of √(16 · .2 · .8) = 1.6.
    expect(snack).toMatchObject({ n: 12, of: 16, expected: expect.closeTo(0.2, 1) });
    expect(snack?.strength).toBeCloseTo((12 - 3.2) / 1.6, 0);
    expect(snack?.sentence).toBe(
      '12 of 16 incidents of Calling out fall in Snack, which takes 20% of the hours: 1.1 an hour there, 0.1 an hour at other times.',
    );
    const waiting = calling.find(({ about }) => about.antecedent === 'Waiting');
    expect(waiting?.sentence).toBe(
      `“Waiting” came before 12 of 16 incidents of Calling out (75%); of the other behaviors' incidents, 0 of 16.`,
    );
    const strengths = findings.map(({ strength }) => strength);
    expect(strengths).toEqual(strengths.toSorted((a, b) => b - a));
    // Seeded: the same incidents say the same.
    expect(analyseBehavior([...spread(september.slice(0, 12), { time: '11:10' })], exposure).findings).toEqual(
      analyseBehavior([...spread(september.slice(0, 12), { time: '11:10' })], exposure).findings,
    );
  });

  it('is only said with five incidents behind it, and only beyond what luck brings', () => {
    const four = analyseBehavior(incidents(4, mondaySnack), exposure);
    expect(four.findings).toEqual([]);
    expect(four.tooFew.map(({ sentence }) => sentence)).toEqual([
      'Too few to say: 4 incidents of Calling out; 5 are needed.',
    ]);
    // As many in each part as its hours give it.
    const even = [...spread(september.slice(0, 16)), ...spread(september.slice(16, 20), { time: '11:10' })];
    expect(analyseBehavior(even, exposure).findings).toEqual([]);
  });

  it('takes what lies within a quarter of an hour for one burst: it is no pattern', () => {
    const times = Array.from({ length: 12 }, (_, i) => `11:${String(5 + 2 * i).padStart(2, '0')}`);
    const burst = times.map((time) => incident({ on: '2026-09-07', time }));
    expect(analyseBehavior(burst, exposure).findings).toEqual([]);
  });

  it('has nothing to say of antecedents where there is one behavior', () => {
    const one = analyseBehavior(spread(september, { antecedents: ['Waiting'] }), exposure);
    expect(one.findings.filter(({ about }) => about.antecedent)).toEqual([]);
  });

  it('counts what was noted on a day without school beside, in no rate', () => {
    const [calling] = analyseBehavior(
      [incident({ on: '2026-09-05' }), incident({ on: '2026-09-07' })],
      exposure,
    ).behaviors;
    expect(calling).toMatchObject({ n: 2, onOtherDays: 1, perSchoolDay: { n: 1, exposure: september.length } });
  });

  it('puts the commonest first: behaviors, and what stands beside them', () => {
    const { behaviors } = analyseBehavior(
      [
        ...incidents(2, { behaviors: ['Hiding'] }),
        ...incidents(5, { behaviors: ['Leaving'], antecedents: ['Waiting'] }),
        ...incidents(1, { behaviors: ['Leaving'], antecedents: ['Noise'] }),
        ...incidents(3, { behaviors: ['Leaving'] }),
        ...incidents(4),
      ],
      exposure,
    );
    expect(behaviors.map(({ name, n }) => [name, n])).toEqual([
      ['Leaving', 9],
      ['Calling out', 4],
      ['Hiding', 2],
    ]);
    expect(behaviors[0]?.antecedents.map(({ name, n }) => [name, n])).toEqual([
      ['Waiting', 5],
      ['Asked to begin', 3],
      ['Noise', 1],
    ]);
  });

  it('holds a month against the one before, per school day, up and down', () => {
    const october = schoolDays('2026-10-01', '2026-10-30', calendar);
    const both = (first: number, second: number) =>
      analyseBehavior([...spread(september.slice(0, first)), ...spread(october.slice(0, second))], {
        ...exposure,
        days: [...september, ...october],
      }).findings.find(({ about }) => about.month)?.sentence;
    expect(both(22, 4)).toBe(
      'Fewer incidents of Calling out in October than in September: 4 in 22 school days (0.2 a day) against 22 in 22 school days (1 a day).',
    );
    expect(both(4, 22)).toContain('More incidents of Calling out in October');
    expect(both(10, 11)).toBeUndefined();
  });

  it('never gives a figure that is none, and keeps its shares within their intervals', () => {
    const choice = fc.subarray(['Asked to begin', 'Waiting', 'Noise']);
    const any = fc.record({
      on: fc.constantFrom('2026-09-01', '2026-09-07', '2026-09-11'),
      time: fc.constantFrom('09:30', '11:10', '14:00'),
      behaviors: fc.subarray(['Calling out', 'Leaving', 'Hiding'], { minLength: 1 }),
      antecedents: choice,
      consequences: choice,
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 40 }), (all) => {
        const parsed = all.map((one) => incidentDefinition.parse(one));
        const analysis = analyseBehavior(parsed, exposure);
        expect(
          JSON.stringify(analysis, (_, value) =>
            Number.isFinite(value ?? 0) || typeof value !== 'number' ? value : 'NONE',
          ),
        ).not.toContain('NONE');
        for (const { n, antecedents, when } of analysis.behaviors) {
          expect(when.cells.reduce((sum, cell) => sum + cell.n, when.outside)).toBe(n);
          for (const { share, low, high } of antecedents) expect(low <= share && share <= high).toBe(true);
        }
        const reversed = analyseBehavior(parsed.toReversed(), exposure);
        expect(reversed.chains).toEqual(analysis.chains);
      }),
    );
  });
});
