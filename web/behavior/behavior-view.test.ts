import { describe, expect, it } from 'vitest';
import { incidentsBehind } from '~/core/behavior/filter';
import { withoutDays } from '~/core/calendar/school-days';
import type { Choice, ChoiceKind } from '~/core/entries/incidents/choice';
import { watchedStretch } from '~/core/entries/incidents/incident';
import type { AnalysedIncident } from '~/server/behavior/analysed';
import type { StudentBehavior } from '~/server/behavior/behavior';
import type { BehaviorCount } from '~/server/entries/incidents/counts';
import { namingOf } from '~/server/entries/incidents/incidents';
import { type BehaviorAsked, behaviorView } from './behavior-view';
import { filterFrom, type IncidentSearch, idsByName, searchFrom, searchText } from './search';

const uuid = (n: number) => `7f0f2c1e-5a0f-4d0c-8a43-${String(n).padStart(12, '0')}`;
let count = 0;
const choice = (kind: ChoiceKind, name: string, more: Partial<Choice> = {}): Choice => ({
  ...{
    id: uuid(++count),
    kind,
    name,
    words: '',
    unlike: '',
    discreetWord: '',
    direction: 'decrease',
    abc: true,
    counted: true,
    timed: false,
  },
  ...{ state: 'offered', mergedInto: null, locationId: null, ...more },
});
const leaves = choice('behavior', 'Leaves', { words: 'Steps away' });
const shouts = choice('behavior', 'Shouts');
const retired = choice('behavior', 'Hides', { state: 'retired' });
const noise = choice('antecedent', 'Noise');
const wait = choice('antecedent', 'Waiting');
const merged = choice('antecedent', 'Wait', { mergedInto: wait.id, state: 'retired' });
const rest = choice('consequence', 'A rest');
const choices = [leaves, shouts, retired, noise, wait, merged, rest, choice('intensity', '1', { words: 'quiet' })];
const naming = namingOf(choices);

const incident = (on: string, changes: Partial<AnalysedIncident> = {}): AnalysedIncident => ({
  ...{
    id: uuid(1000 + ++count),
    on,
    time: '09:30',
    behaviors: ['Leaves'],
    antecedents: ['Noise'],
    consequences: ['A rest'],
  },
  ...{ location: null, observer: uuid(80), functions: [], seconds: null, intensity: null, ...changes },
});
const incidents = [
  ...['2026-09-08', '2026-09-09', '2026-09-10', '2026-09-11', '2026-09-14'].map((on) => incident(on)),
  incident('2026-09-15', { antecedents: ['Waiting'], seconds: 60, intensity: 1, time: '07:10' }),
  incident('2026-10-06', { observer: uuid(81) }),
  incident('2026-10-07', { behaviors: ['Shouts'] }),
];
const stretch = (on: string, part: string, n: number) =>
  watchedStretch.parse({ on, part, behavior: 'Leaves', count: n, minutes: 30 });
const of: StudentBehavior = {
  ...{ choices, naming, incidents, counts: [] as BehaviorCount[], phases: [] },
  watched: [
    stretch('2026-09-08', 'Workshop', 2),
    stretch('2026-09-09', 'Workshop', 0),
    stretch('2026-09-09', 'Lunch', 0),
  ],
  timetable: [1, 2, 3, 4, 5].map((weekday) => ({
    weekday,
    part: 'Workshop',
    from: '09:00',
    to: '10:00',
    location: null,
  })),
  absences: [],
  people: new Map([
    [uuid(80), 'H. Bruun'],
    [uuid(81), 'N. Haddad'],
  ]),
  since: '2026-09-08',
};
const when = { calendar: { weekdays: [1, 2, 3, 4, 5], closures: [] }, today: '2026-10-09' };
const asked = (search: Partial<IncidentSearch> = {}, more: Partial<BehaviorAsked> = {}): BehaviorAsked => ({
  ...{ studentId: 'ada', search: search as IncidentSearch, phase: null, beside: null, per: 'schoolDay', ...more },
});
const view = (search: Partial<IncidentSearch> = {}, more: Partial<BehaviorAsked> = {}, what = of) =>
  behaviorView(what, asked(search, more), when);
const requestOf = (address: string) => new Request(`http://localhost${address}`);
/** How many incidents an address lists. */
const listed = (address: string) =>
  incidentsBehind(incidents, filterFrom(searchFrom(requestOf(address)), naming), of.timetable).length;

describe('the page of a student’s behavior', () => {
  it('shows the commonest behavior from the first note on, and offers those that are offered or were noted', () => {
    const shown = view();
    expect(shown.behaviors.map(({ name, n }) => [name, n])).toEqual([
      ['Leaves', 7],
      ['Shouts', 1],
    ]);
    expect(shown).toMatchObject({
      incidents: 7,
      all: 8,
      range: { from: '2026-09-08', to: '2026-10-09' },
      schoolDays: 24,
    });
    expect(shown.chosen).toMatchObject({ name: 'Leaves', words: 'Steps away' });
    expect(view({ behavior: shouts.id }).incidents).toBe(1);
    // An address from before two were merged leads to the one that stands.
    expect(view({ behavior: uuid(999) }).chosen?.name).toBe('Leaves');
  });

  it('leads from each figure to its incidents', () => {
    const { figures, toAll } = view();
    expect(listed(toAll)).toBe(7);
    const rows = [...(figures?.antecedents ?? []), ...(figures?.consequences ?? []), ...(figures?.chains ?? [])];
    expect(rows).not.toHaveLength(0);
    for (const { n, to } of [
      ...rows,
      ...(figures?.months ?? []),
      ...(figures?.weeks ?? []),
      ...(figures?.quarters ?? []),
    ]) {
      expect(listed(to), to).toBe(n);
    }
    for (const { cells } of figures?.when ?? [])
      for (const cell of cells) if (cell) expect(listed(cell.to)).toBe(cell.n);
    expect(listed(figures?.outside.to as string)).toBe(1);
    expect(listed(figures?.durations?.to as string)).toBe(1);
    expect(figures?.intensities?.levels).toMatchObject([{ name: '1, quiet', n: 1 }]);
  });

  it('keeps what is filtered in every address, and filters by person, dates and place', () => {
    const shown = view({ observer: uuid(81), from: '2026-10-01', to: '2026-10-08' });
    // How long that person watched is not known: there are counts, and no rate.
    expect(shown).toMatchObject({ incidents: 1, schoolDays: 0, figures: { perSchoolDay: { n: 1, rate: null } } });
    expect(view({ from: '2026-10-01', to: '2026-10-08' }).schoolDays).toBe(6);
    expect(listed(shown.toAll)).toBe(1);
    expect(shown.figures?.observers.map(({ name }) => name)).toEqual(['N. Haddad']);
    expect(view({ from: '2026-12-01', to: '2026-11-01' })).toMatchObject({
      incidents: 0,
      schoolDays: 0,
      figures: null,
    });
  });

  it('cuts the dates to a phase, and compares its two sides', () => {
    const phase = { id: uuid(70), behaviorId: null, label: 'Quiet corner', startsOn: '2026-09-21' };
    const changed = { ...of, phases: [phase] };
    expect(view({}, { phase: 'before' }, changed)).toMatchObject({
      incidents: 6,
      range: { from: '2026-09-08', to: '2026-09-20' },
    });
    expect(view({}, { phase: phase.id }, changed)).toMatchObject({
      incidents: 1,
      range: { from: '2026-09-21', to: '2026-10-09' },
    });
    expect(view({}, { phase: 'no such' }, changed).incidents).toBe(7);
    const { help, figures } = view({}, {}, changed);
    expect(help?.comparisons).toHaveLength(1);
    expect(help?.comparisons[0]?.sentence).toMatch(/^Fewer since “Quiet corner”: 0\.7 a school day before, 0\.1 since/);
    expect(figures?.phaseLines).toEqual([{ label: 'Quiet corner', on: '2026-09-21' }]);
    // One of another behavior does not concern this one.
    expect(view({}, {}, { ...of, phases: [{ ...phase, behaviorId: shouts.id }] }).help?.phases).toEqual([]);
  });

  it('tells how likely it is where watching without an occurrence was recorded', () => {
    expect(view().watched).toMatchObject({ stretches: 3, none: 2 });
    expect(view().watched?.base).toMatch(/^1 of 3 \(33%; likely/);
    expect(view().watched?.parts).toEqual([
      { part: 'Workshop', said: '1 of 2 (50%)' },
      { part: 'Lunch', said: '0 of 1 (0%)' },
    ]);
    expect(view().figures?.perHourObserved).toMatchObject({ n: 2, exposure: 1.5 });
    expect(view({}, { per: 'hour' }).help?.per).toBe('hour');
    expect(view({ behavior: shouts.id }, { per: 'hour' }).help?.per).toBe('schoolDay');
    expect(view({ behavior: shouts.id }).watched).toBeNull();
  });

  it('puts two stretches of dates side by side', () => {
    const { beside } = view(
      { from: '2026-09-08', to: '2026-09-14' },
      { beside: { from: '2026-10-05', to: '2026-10-09' } },
    );
    expect(beside?.sides.map(({ n, days, rate }) => [n, days, rate])).toEqual([
      [5, 5, '1'],
      [1, 5, '0.2'],
    ]);
    expect(beside?.sentence).toMatch(/^In the second period 0\.2 times as many a school day; likely/);
    const never = view({ from: '2026-09-19', to: '2026-09-20' }, { beside: { from: '2026-10-05', to: '2026-10-09' } });
    expect(never.beside?.sentence).toContain('cannot be held against each other');
  });

  it('says what carries too little, and nothing of a student without incidents', () => {
    expect(view().tooFew).toEqual(['Duration: 1 incident has one, of 7.', 'Intensity: 1 incident has one, of 7.']);
    expect(view({ behavior: shouts.id }).tooFew[0]).toBe('Too few to say: 1 incident of Shouts; 5 are needed.');
    const nothing = view({}, {}, { ...of, choices: [], naming: namingOf([]), incidents: [], watched: [], since: null });
    expect(nothing).toMatchObject({ chosen: undefined, figures: null, help: null, watched: null, behaviors: [] });
  });

  it('says how its figures are computed from its data: with what takes days out, and not where nobody knows who watched', () => {
    const { check } = view({ from: '2026-09-08', to: '2026-10-09' });
    expect(check).toEqual({
      incidents: '/students/ada/incidents.csv?from=2026-09-08&to=2026-10-09',
      options: '--from 2026-09-08 --to 2026-10-09 --timetable timetable.csv --windows windows.csv',
    });
    expect(view({ observer: uuid(81) }).check).toBeNull();
    const away = { ...of, absences: ['2026-09-10', '2027-01-01'] };
    const closures = [
      { first: '2026-09-07', last: '2026-09-08' },
      { first: '2026-12-21', last: '2027-01-01' },
    ];
    const calendar = withoutDays({ ...when.calendar, closures }, away.absences);
    const shown = behaviorView(away, asked(), { ...when, calendar });
    expect(shown.check?.options).toContain('--closures 2026-09-07..2026-09-08 --absences 2026-09-10 ');
    expect(shown).toMatchObject({ daysAway: 1, schoolDays: view().schoolDays - 2 });
  });
});

describe('addresses of incidents', () => {
  it('say what is asked for, and pass over what cannot be read', () => {
    const search = searchFrom(
      requestOf(`/n?behavior=${leaves.id}&weekday=9&month=2026-10&part=Workshop&from=never&quarter=09:15`),
    );
    expect(search).toMatchObject({ behavior: leaves.id, month: '2026-10', part: 'Workshop', quarter: '09:15' });
    expect([search.weekday, search.from]).toEqual([undefined, undefined]);
    expect(searchFrom(requestOf(`/n?${searchText(search)}`))).toEqual(search);
  });

  it('find a merged choice under the one that stands for it, and nothing for one that is not there', () => {
    expect(filterFrom({ antecedent: merged.id } as IncidentSearch, naming).antecedent).toBe('Waiting');
    expect(incidentsBehind(incidents, filterFrom({ antecedent: uuid(999) } as IncidentSearch, naming), [])).toEqual([]);
    const idOf = idsByName(choices);
    expect([idOf('antecedent', 'Waiting'), idOf('antecedent', 'Wait'), idOf('behavior', 'Waiting')]).toEqual([
      wait.id,
      undefined,
      undefined,
    ]);
  });
});
