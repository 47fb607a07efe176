import { describe, expect, it } from 'vitest';
import { progressOf } from '~/core/progress/progress';
import type { Goal } from '~/server/goals/goals';
import type { Student } from '~/server/students/students';
import { accessTo } from '~/tests/database/small-school';
import { calendar, goalOf, session } from '~/tests/examples/series';
import { headerStudent } from '../students/header-student';
import { byGroup, summaryOf } from './summary';

const student: Student = {
  id: accessTo('s1'),
  firstName: 'Ada',
  lastName: 'Example',
  shortName: 'Ada E.',
  initials: 'AE',
  grade: 'Grade 4',
  number: null,
  groups: ['Kitchen group'],
  plan: null,
  role: 'paraprofessional',
  rights: null,
  isArchived: false,
};
const goal = (id: string, changes: object = {}): Goal => ({
  selfCounts: true,
  ...goalOf({ baseline: { value: 20, on: '2026-09-01' }, targetOn: '2026-10-31', ...changes }),
  id,
  studentId: accessTo('s1'),
  number: id,
  area: '',
  shortName: id,
  wording: '',
  version: 1,
  formerMeasures: {},
  observerIds: [],
  locationIds: [],
  retired: null,
  editedAt: null,
});
const days = ['2026-09-02', '2026-09-03', '2026-09-04', '2026-09-05'];
const summary = (goals: Goal[], rights: Record<string, number>, options = { discreet: false }) => {
  const today = '2026-09-07';
  const progress = new Map(
    goals.map((g) => {
      const sessions = days.map((on) => session(on, rights[g.id] ?? 0)).filter(() => g.id in rights);
      const { decision, points } = progressOf(g, sessions, { calendar, today });
      return [g.id, { decision, lastOn: points.at(-1)?.on ?? null }];
    }),
  );
  return summaryOf(student, goals, progress, options);
};

describe('a student of a caseload in a line', () => {
  it('needs a closer look when a goal is behind its aim line, not when it is met or young', () => {
    expect(summary([goal('1')], { 1: 1 }).needsAttention).toBe(true);
    expect(summary([goal('1')], { 1: 9 })).toMatchObject({
      needsAttention: false,
      goals: [{ decision: 'metHolding' }],
    });
    expect(summary([goal('1')], {})).toMatchObject({
      needsAttention: false,
      lastOn: null,
      goals: [{ decision: 'tooEarly' }],
    });
  });

  it('was seen when any goal was, and shows no other student’s goals', () => {
    const other = { ...goal('2'), studentId: accessTo('s2') };
    const seen = summary([goal('1'), other], { 1: 3, 2: 3 });
    expect(seen.lastOn).toBe('2026-09-05');
    expect(seen.goals.map(({ number }) => number)).toEqual(['1']);
  });

  it('shows initials in the discreet view', () => {
    expect(summary([], {}, { discreet: true }).name).toBe('AE');
    expect(headerStudent(student, { discreet: true }).shortName).toBe('AE');
  });
});

describe('class groups', () => {
  it('stand in order of their names; a student of two stands in both, one of none at least somewhere', () => {
    const one = { ...summary([], {}), id: 'one', groups: ['Workshop group', 'Garden group'] };
    const two = { ...summary([], {}), id: 'two', groups: [] };
    expect(byGroup([one, two]).map(({ group, students }) => [group, students.map(({ id }) => id)])).toEqual([
      ['Garden group', ['one']],
      ['No group yet', ['two']],
      ['Workshop group', ['one']],
    ]);
  });
});

describe('the header', () => {
  it('offers what the role allows', () => {
    expect(headerStudent(student, { discreet: false })).toMatchObject({ mayObserve: true, mayShare: false });
    expect(headerStudent({ ...student, role: 'caseManager' }, { discreet: false }).mayShare).toBe(true);
  });
});
