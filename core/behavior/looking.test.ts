import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../calendar/iso-date';
import { schoolDays } from '../calendar/school-days';
import { timetableDefinition } from '../calendar/timetable';
import { type Incident, incidentDefinition, watchedStretch } from '../entries/incidents/incident';
import { nonoverlapOfAllPairs, tauU } from '../progress/phases/nonoverlap';
import { analyseBehavior } from './analysis';
import { likelihoodByPart } from './conditional';
import { didItHelp, helpSentence, perHourObserved, perSchoolDay, withinPhase } from './did-it-help';
import { incidentsBehind } from './filter';
import { carriedByFew, findingTitle } from './findings';
import { changeSentence, patternsAcross } from './patterns';
import { compareRates, ratesByWeek, timesAsMany } from './rates';

const incident = (changes: object = {}): Incident =>
  incidentDefinition.parse({
    ...{
      on: '2026-09-01',
      time: '09:30',
      behaviors: ['Calling out'],
      antecedents: ['Waiting'],
      consequences: ['Peers laugh'],
    },
    ...changes,
  });
const calendar = { weekdays: [1, 2, 3, 4, 5], closures: [{ first: '2026-09-14', last: '2026-09-18' }] };
const days = schoolDays('2026-08-31', '2026-10-09', calendar);
const timetable = timetableDefinition.parse(
  [1, 2, 3, 4, 5].flatMap((weekday) => [
    { weekday, part: 'Workshop', from: '09:00', to: '11:00', location: 'Shop' },
    { weekday, part: 'Snack', from: '11:00', to: '11:30', location: 'Kitchen' },
  ]),
);

describe('the incidents behind a figure', () => {
  it('are as many as the figure counts, whichever figure it is', () => {
    const choice = fc.subarray(['Waiting', 'Noise', 'Asked']);
    const any = fc.record({
      on: fc.constantFrom('2026-08-31', '2026-09-02', '2026-09-08', '2026-10-01'),
      time: fc.constantFrom('08:10', '09:30', '10:59', '11:00', '11:29', '14:00'),
      behaviors: fc.subarray(['Calling out', 'Leaving'], { minLength: 1 }),
      antecedents: choice,
      consequences: choice,
      location: fc.constantFrom('Shop', 'Kitchen', null),
      observer: fc.constantFrom('H', 'N', null),
      functions: fc.subarray(['escape', 'attention']),
      intensity: fc.constantFrom(1, 2, null),
      seconds: fc.constantFrom(30, null),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 30 }), (all) => {
        const incidents = all.map((one) => incidentDefinition.parse(one));
        const { behaviors } = analyseBehavior(incidents, { days, timetable, watched: [] });
        for (const figures of behaviors) {
          const behind = (filter: Parameters<typeof incidentsBehind>[1]) =>
            incidentsBehind(incidents, { behavior: figures.name, ...filter }, timetable).length;
          expect(behind({})).toBe(figures.n);
          expect(behind({ outside: true })).toBe(figures.when.outside);
          for (const { part, weekday, n } of figures.when.cells) expect(behind({ part, weekday })).toBe(n);
          for (const { name, n } of figures.antecedents) expect(behind({ antecedent: name })).toBe(n);
          for (const { name, n } of figures.consequences) expect(behind({ consequence: name })).toBe(n);
          for (const { name, n } of figures.settings) expect(behind({ location: name })).toBe(n);
          for (const { antecedent, consequence, n } of figures.chains)
            expect(behind({ antecedent, consequence })).toBe(n);
          for (const { month, n } of figures.months) expect(behind({ month })).toBe(n);
          for (const { monday, n } of figures.weeks) expect(behind({ week: monday })).toBe(n);
          for (const { from, n } of figures.quarterHours) expect(behind({ quarter: from })).toBe(n);
          for (const { name, n } of figures.functions) expect(behind({ function: name })).toBe(n);
          for (const { observer, n } of figures.observers) expect(behind({ observer })).toBe(n);
          for (const { level, n } of figures.intensities?.levels ?? []) expect(behind({ intensity: level })).toBe(n);
          expect(behind({ isTimed: true })).toBe(figures.durations?.n ?? 0);
        }
      }),
    );
  });

  it('lie within dates, both ends with them, and two of the same minute are two', () => {
    const incidents = [
      incident({ on: '2026-09-01' }),
      incident({ on: '2026-09-02' }),
      incident({ on: '2026-09-02' }),
      incident({ on: '2026-09-03' }),
    ];
    expect(incidentsBehind(incidents, { from: '2026-09-02', to: '2026-09-02' }, timetable)).toHaveLength(2);
  });
});

describe('weeks', () => {
  it('without a school day have no rate, not an infinite one', () => {
    const weeks = ratesByWeek(['2026-09-15', '2026-09-02', '2026-09-03'], days);
    expect(weeks.find(({ monday }) => monday === '2026-09-14')).toEqual({
      monday: '2026-09-14',
      n: 1,
      exposure: 0,
      rate: null,
    });
    expect(weeks.find(({ monday }) => monday === '2026-08-31')).toMatchObject({ n: 2, exposure: 5, rate: 0.4 });
    expect(weeks.find(({ monday }) => monday === '2026-09-07')).toMatchObject({ n: 0, rate: 0 });
    // The closed week has no school day and no incident: it is not there at all.
    expect(ratesByWeek([], days).map(({ monday }) => monday)).not.toContain('2026-09-14');
  });
});

describe('what stands out', () => {
  const exposure = { days, timetable, watched: [] };

  it('holds a place against its hours in the timetable, and says it only where it says more than a part of the day', () => {
    const settings = (changes: object) =>
      analyseBehavior(
        days.slice(0, 20).map((on) => incident({ on, ...changes })),
        exposure,
      )
        .findings.filter(({ about }) => about.location)
        .map(({ sentence }) => sentence);
    // A fifth of the hours is in the kitchen; the time says the shop.
    expect(settings({ time: '09:30', location: 'Kitchen' })).toEqual([
      expect.stringMatching(
        /^“Kitchen” was the place of \d+ of \d+ incidents of Calling out \(100%\); it takes 20% of the hours\.$/,
      ),
    ]);
    expect(settings({ time: '11:10', location: 'Kitchen' })).toEqual([]);
  });

  it('has a heading for whatever it is about', () => {
    const about = { behavior: 'Calling out' };
    expect(
      [
        { part: 'Workshop', weekday: 1 },
        { weekday: 4 },
        { antecedent: 'A', consequence: 'C' },
        { antecedent: 'A' },
        { consequence: 'C' },
        { location: 'Shop' },
        { month: '2026-10' },
      ].map((one) => findingTitle({ ...about, ...one })),
    ).toEqual(['Workshop on Mondays', 'Thursdays', 'A → C', 'A before it', 'C after it', 'In: Shop', 'In October']);
  });
});

describe('did it help?', () => {
  const dates = ['2026-08-31', '2026-08-31', '2026-09-01', '2026-09-01', '2026-09-02', '2026-09-08'];
  const some = schoolDays('2026-08-31', '2026-09-09', calendar);
  const phases = [{ label: 'Ear defenders', startsOn: '2026-09-03' }];

  it('compares each school day before with each since: by hand', () => {
    const amounts = perSchoolDay([...dates, '2026-09-05'], some);
    // Before: 2, 2, 1; since: 0, 0, 0, 1, 0. An incident on a Saturday makes no school day.
    expect(amounts.map(({ n }) => n)).toEqual([2, 2, 1, 0, 0, 0, 1, 0]);
    const help = didItHelp(amounts, phases, 'decrease', 'schoolDay');
    expect(help.phases.map(({ name, n }) => [name, n])).toEqual([
      ['Before', 3],
      ['Ear defenders', 5],
    ]);
    const [a, b] = [
      [2, 2, 1],
      [0, 0, 0, 1, 0],
    ];
    expect(help.comparisons[0]).toMatchObject({
      nap: nonoverlapOfAllPairs(a as number[], b as number[], 'decrease'),
      tauU: tauU(a as number[], b as number[], 'decrease'),
      immediate: 2,
      enough: 'withReservations',
    });
    // 14.5 of 15 pairs: one tie.
    expect(help.comparisons[0]?.nap).toBeCloseTo(14.5 / 15, 12);
    expect(help.rates[0]).toMatchObject({ before: { n: 5, exposure: 3 }, after: { n: 1, exposure: 5, rate: 0.2 } });
    expect(helpSentence(help, 0)).toMatch(
      /^Fewer since “Ear defenders”: 1\.7 a school day before, 0\.2 since \(0\.12 times as many; likely .* to .*\)\. 97% of the pairs/,
    );
    expect(helpSentence(help, 0)).toContain('with reservations');
  });

  it('says that it is too little to say, and nothing where there is only one side', () => {
    const two = didItHelp(perSchoolDay(dates, some.slice(0, 5)), phases, 'decrease', 'schoolDay');
    expect(helpSentence(two, 0)).toBe('Too few to say: each side of “Ear defenders” needs three school days or more.');
    const one = didItHelp(perSchoolDay(dates, some), [], 'decrease', 'schoolDay');
    expect(one.comparisons).toEqual([]);
    expect(helpSentence(one, 0)).toContain('cannot be compared');
  });

  it('goes by the hours of watching where they are known: watching without an occurrence is a point of 0', () => {
    const watched = [
      { on: '2026-09-02', count: 3, minutes: 90 },
      { on: '2026-09-02', count: 0, minutes: 30 },
      { on: '2026-09-01', count: 0, minutes: 60 },
    ].map((one) => watchedStretch.parse({ behavior: 'Calling out', ...one }));
    expect(perHourObserved(watched)).toEqual([
      { on: '2026-09-01', n: 0, exposure: 1 },
      { on: '2026-09-02', n: 3, exposure: 2 },
    ]);
    expect(didItHelp(perHourObserved(watched), [], 'decrease', 'hour').points.map(({ value }) => value)).toEqual([
      0, 1.5,
    ]);
  });
});

describe('patterns across students', () => {
  const range = schoolDays('2026-08-31', '2026-10-09', { weekdays: [1, 2, 3, 4, 5], closures: [] });
  const early = (n: number) => range.slice(0, n).map((on) => incident({ on }));
  const late = (n: number) => range.slice(-n).map((on) => incident({ on, time: '11:10', antecedents: ['Noise'] }));
  const students = [
    { id: 'more', incidents: [...early(2), ...late(12)], timetable, absences: [] },
    { id: 'same', incidents: [...early(6), ...late(6)], timetable, absences: [] },
    { id: 'few', incidents: late(3), timetable: [], absences: [] },
    { id: 'none', incidents: [incident({ on: '2026-01-01' })], timetable, absences: [] },
  ];
  const patterns = patternsAcross(students, range, { recentDays: 15 });

  it('take the days on which a student was away out of that student’s rates, and of nobody else’s', () => {
    const [first = ''] = range;
    const rateOf = (absences: string[]) =>
      patternsAcross(
        students.map((student) => ({ ...student, absences: student.id === 'same' ? absences : [] })),
        range,
        { recentDays: 15 },
      ).students.map(({ id, weeks }) => [id, weeks[0]?.exposure] as const);
    expect(rateOf([])).toContainEqual(['same', 5]);
    expect(rateOf([first])).toContainEqual(['same', 4]);
    expect(rateOf([first])).toContainEqual(['more', 5]);
  });

  it('put weeks on one scale, and say whose rate changed beyond chance', () => {
    expect(patterns.students.map(({ id, n }) => [id, n])).toEqual([
      ['more', 14],
      ['same', 12],
      ['few', 3],
      ['none', 0],
    ]);
    // One a day in the week of 5 October.
    expect(patterns.highest).toBeCloseTo(1, 12);
    expect(patterns.changed.map(({ id }) => id)).toEqual(['more']);
    expect(patterns.changed[0]?.change).toMatchObject({
      before: { n: 2, exposure: 15 },
      after: { n: 12, exposure: 15 },
      ratio: 6,
    });
    // Followed for three days only: nothing is known of before.
    expect(patterns.students.find(({ id }) => id === 'few')?.change).toBeNull();
  });

  it('add parts of the day up with the hours of those who have them', () => {
    const snack = patterns.parts.find(({ part }) => part === 'Snack');
    // Three timetables, 30 school days of half an hour.
    expect(snack).toMatchObject({ n: 18, hours: 45, rate: 0.4, students: 2, of: 3 });
  });

  it('find what came before with two students or more', () => {
    expect(patterns.shared.antecedents).toEqual([
      { name: 'Noise', n: 21, students: ['more', 'same', 'few'] },
      { name: 'Waiting', n: 8, students: ['more', 'same'] },
    ]);
  });

  it('and what they did, where, and on which days: a day of one student alone is none of several', () => {
    const { behaviors, dates, locations } = patterns.shared;
    expect(behaviors.map(({ n, students: of }) => [n, of.length])).toEqual([[29, 3]]);
    // The last three school days have one of each of three students, the three before them of two.
    expect(dates.slice(0, 3).map(({ name, n }) => [name, n])).toEqual([
      ['2026-10-07', 3],
      ['2026-10-08', 3],
      ['2026-10-09', 3],
    ]);
    expect(dates.every(({ students: of }) => of.length > 1)).toBe(true);
    expect(dates.map(({ name }) => name)).not.toContain('2026-09-07');
    expect(locations).toEqual([]);
  });
});

describe('a range of dates within a phase', () => {
  const phases = [
    { label: 'Cards', startsOn: '2026-10-05' },
    { label: 'Corner', startsOn: '2026-11-02' },
  ];
  const range = { from: '2026-09-08', to: '2026-11-24' };

  it('ends on the day before the next begins, and never leaves what was asked for', () => {
    expect([-1, 0, 1].map((at) => withinPhase(phases, at, range))).toEqual([
      { from: '2026-09-08', to: '2026-10-04' },
      { from: '2026-10-05', to: '2026-11-01' },
      { from: '2026-11-02', to: '2026-11-24' },
    ]);
    expect(withinPhase(phases, 0, { from: '2026-10-12', to: '2026-10-16' })).toEqual({
      from: '2026-10-12',
      to: '2026-10-16',
    });
  });

  it('holds no day where the phase lies outside of it, and is the whole without a phase', () => {
    const { from, to } = withinPhase(phases, 1, { from: '2026-09-08', to: '2026-09-30' });
    expect(from > to).toBe(true);
    expect(withinPhase([], -1, range)).toEqual(range);
  });

  it('holds each day once, whatever the phases', () => {
    const dates = fc.uniqueArray(fc.integer({ min: 0, max: 60 }), { maxLength: 5 });
    fc.assert(
      fc.property(dates, (found) => {
        const starts = found.sort((a, b) => a - b).map((day) => ({ label: 'P', startsOn: addDays('2026-09-08', day) }));
        const parts = Array.from({ length: starts.length + 1 }, (_, i) => withinPhase(starts, i - 1, range));
        for (let day = 0; day <= 77; day++) {
          const on = addDays('2026-09-08', day);
          expect(parts.filter(({ from, to }) => from <= on && on <= to)).toHaveLength(1);
        }
      }),
    );
  });
});

describe('sentences of rates', () => {
  it('say how many times as many with the interval, or nothing where that is not defined', () => {
    const fewer = compareRates({ n: 12, exposure: 21 }, { n: 4, exposure: 20 });
    expect(timesAsMany(fewer)).toBe('0.35 times as many; likely 0.12 to 1.03');
    expect(timesAsMany(fewer, 'a school day')).toMatch(/^0\.35 times as many a school day; likely/);
    expect(timesAsMany(compareRates({ n: 0, exposure: 20 }, { n: 4, exposure: 20 }))).toBeNull();
    expect(timesAsMany(compareRates({ n: 4, exposure: 0 }, { n: 4, exposure: 20 }))).toBeNull();
  });

  it('say which way a student’s incidents went', () => {
    expect(changeSentence(compareRates({ n: 12, exposure: 20 }, { n: 4, exposure: 20 }))).toMatch(
      /^Fewer\. 0\.6 a school day before, 0\.2 now: 0\.33 times as many; likely [\d.]+ to [\d.]+\.$/,
    );
    expect(changeSentence(compareRates({ n: 0, exposure: 20 }, { n: 8, exposure: 20 }))).toBe(
      'More. 0 a school day before, 0.4 now.',
    );
  });

  it('say what too few incidents carry: from one to four, of how many', () => {
    const carried = (durations: number, intensities: number, functions: number) =>
      carriedByFew({
        n: 12,
        durations:
          durations === 0 ? null : { n: durations, medianSeconds: 1, longestSeconds: 1, totalSeconds: 1, bands: [] },
        intensities: intensities === 0 ? null : { n: intensities, median: 1, levels: [] },
        functions: functions === 0 ? [] : [{ name: 'escape', n: functions, weight: functions, share: 1 }],
      });
    expect(carried(0, 0, 0)).toEqual([]);
    expect(carried(5, 6, 7)).toEqual([]);
    expect(carried(1, 4, 2)).toEqual([
      'Duration: 1 incident has one, of 12.',
      'Intensity: 4 incidents have one, of 12.',
      'Function: 2 incidents have one, of 12.',
    ]);
  });
});

describe('how likely a behavior is in a part of the day', () => {
  it('counts stretches, those without an occurrence too; one outside of the day counts for the whole only', () => {
    const stretch = (part: string | null, count: number) => ({ part, count });
    const { base, antecedents } = likelihoodByPart([
      ...[stretch('Lunch', 3), stretch('Lunch', 0), stretch('Lunch', 1), stretch('Lessons', 0)],
      stretch(null, 2),
    ]);
    expect(base).toMatchObject({ n: 3, of: 5 });
    expect(antecedents.map(({ antecedent, after }) => [antecedent, after.n, after.of])).toEqual([
      ['Lunch', 2, 3],
      ['Lessons', 0, 1],
    ]);
    expect(likelihoodByPart([]).base).toBeNull();
  });
});
