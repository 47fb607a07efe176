import { describe, expect, it } from 'vitest';
import { type NewYearFacts, newYearInput, newYearPlan, nextGrade } from './new-year';

describe('the grade after one', () => {
  it.each([
    ['PK', 'K'],
    ['K', 'Grade 1'],
    ['Kindergarten', 'Grade 1'],
    ['Grade 4', 'Grade 5'],
    ['9', 'Grade 10'],
    ['1st grade', 'Grade 2'],
    ['Grade 11', 'Grade 12'],
    ['Grade 12', null],
    ['13+', null],
    // What is none is not guessed.
    ['Ungraded', ''],
    ['−1', ''],
    ['Red group', ''],
  ])('%s: %s', (grade, next) => expect(nextGrade(grade)).toBe(next));
});

const [oaks, elms] = ['0a000000-0000-4000-8000-000000000001', '0a000000-0000-4000-8000-000000000002'];
const facts: NewYearFacts = {
  students: [
    { id: 'ada', name: 'Ada Ash', grade: 'Grade 4', groupIds: [oaks] },
    { id: 'ben', name: 'Ben Birch', grade: 'Grade 5', groupIds: [oaks, elms] },
    { id: 'cem', name: 'Cem Cole', grade: 'Grade 12', groupIds: [elms] },
  ],
  groups: [
    { id: oaks, name: 'Oaks' },
    { id: elms, name: 'Elms' },
  ],
  stays: [
    { id: 'x', personName: 'Lotte' },
    { id: 'y', personName: 'Lotte' },
  ],
  plansWithout: new Map([['2027-01-29', 2]]),
};
const planned = (input: object) => newYearPlan(facts, newYearInput.parse(input));

it('says all that it will do, and moves only those of whom something changes', () => {
  const { moves, sentences } = planned({
    grades: [
      { from: 'Grade 4', to: '5' },
      // Two grades that change at once do not meet: each student moves once.
      { from: 'Grade 5', to: '6' },
      { from: 'Grade 12', leaves: true },
    ],
    groups: [
      { id: oaks, to: elms },
      { id: elms, to: 'stays' },
    ],
    teamsUntil: '2027-06-11',
    periods: [
      { label: 'Quarter 2', endsOn: '2027-01-29' },
      { label: 'Quarter 9', endsOn: '2031-01-29' },
    ],
  });
  expect(moves).toEqual([
    { id: 'ada', grade: 'Grade 5', groupIds: [elms] },
    { id: 'ben', grade: 'Grade 6', groupIds: [elms] },
    { id: 'cem', grade: null, groupIds: [elms] },
  ]);
  expect(sentences).toEqual([
    '1 student of Grade 4: Grade 5.',
    '1 student of Grade 5: Grade 6.',
    '1 student leaves and is archived: Cem Cole.',
    '2 students: from Oaks to Elms.',
    '2 places of 1 person on teams end on Fri, Jun 11, 2027; case managers stay.',
    '2 plans get the reporting period Quarter 2, to Fri, Jan 29, 2027.',
  ]);
});

it('does nothing where nothing changes, and leaves those alone of whom nothing is said', () => {
  expect(planned({ grades: [{ from: 'Grade 4', to: 'grade 4' }], groups: [{ id: oaks, to: 'stays' }] })).toEqual({
    ...{ moves: [], sentences: [], remarks: [] },
  });
  // A period that no plan reaches is said, and is no change.
  const late = planned({ periods: [{ label: 'Summer', endsOn: '2031-07-31' }] });
  expect([late.sentences, late.remarks]).toEqual([
    [],
    [
      'No plan gets the reporting period Summer, to Thu, Jul 31, 2031: each has it already, or does not reach that day.',
    ],
  ]);
  expect(planned({ groups: [{ id: oaks, to: 'leaves' }] }).moves).toEqual([
    { id: 'ada', grade: 'Grade 4', groupIds: [] },
    { id: 'ben', grade: 'Grade 5', groupIds: [elms] },
  ]);
});

it('asks for a grade, and for periods that end on different days', () => {
  const messages = (input: object) =>
    newYearInput.safeParse(input).error?.issues.map(({ path, message }) => `${path.join('.')}: ${message}`);
  expect(messages({ grades: [{ from: 'Grade 4', to: ' ' }] })).toEqual([
    'grades.0.to: Type the next grade, or say that they leave.',
  ]);
  expect(messages({ grades: [{ from: 'Grade 4', to: '-2' }] })).toEqual([expect.stringContaining('PK, K, 1 to 12')]);
  const period = { label: 'Q', endsOn: '2027-01-29' };
  expect(messages({ periods: [period, period] })).toEqual(['periods.1.endsOn: Another period ends on that day.']);
});
