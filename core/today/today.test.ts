import { describe, expect, it } from 'vitest';
import { noSchoolWords } from '../calendar/school-days';
import { isDueFor } from '../progress/due';
import { dayPlan, type PlannedGoal } from './today';

const calendar = { weekdays: [1, 2, 3, 4, 5], closures: [{ first: '2026-11-26', last: '2026-11-27' }] };
const goal = (id: string, changes: Partial<PlannedGoal> = {}): PlannedGoal => ({
  id,
  studentId: 'ada',
  startsOn: '2026-09-08',
  plannedGap: 2,
  lastOn: '2026-11-20',
  locationIds: [],
  observerIds: [],
  ...changes,
});
const parts = [
  { studentId: 'ada', part: 'Kitchen', from: '09:00', to: '10:00', locationId: 'kitchen' },
  { studentId: 'ben', part: 'Kitchen', from: '09:00', to: '10:00', locationId: 'kitchen' },
  { studentId: 'ada', part: 'Garden', from: '10:00', to: '11:00', locationId: 'garden' },
];
// 2026-11-24 is a Tuesday: after Friday the 20th two school days have come.
const plan = (goals: PlannedGoal[], time = '09:30', on = '2026-11-24') =>
  dayPlan(parts, goals, { personId: 'me', wall: { on, time }, calendar });

describe('a day without school', () => {
  it('says its name', () => {
    const closures = [{ first: '2026-11-26', last: '2026-11-27', label: 'Thanksgiving' }];
    expect(noSchoolWords('2026-11-26', { ...calendar, closures })).toBe('Thanksgiving');
    expect(noSchoolWords('2026-11-26', calendar)).toBe('the school is closed');
    expect(noSchoolWords('2026-11-28', calendar)).toBe('it is Saturday');
    expect(noSchoolWords('2026-11-24', calendar)).toBeNull();
  });

  it('has nothing due for anybody; on others, what the plan wants from oneself or from anyone', () => {
    const due = (one: PlannedGoal, today = '2026-11-24') => isDueFor(one, { calendar, today, personId: 'me' });
    expect(due(goal('a'))).toBe(true);
    expect(due(goal('a'), '2026-11-26')).toBe(false);
    expect(due(goal('a', { observerIds: ['me', 'other'] }))).toBe(true);
    expect(due(goal('a', { observerIds: ['other'] }))).toBe(false);
  });
});

describe('what there is to observe today', () => {
  it('is what is due, in the parts that are on or to come, where the plan wants it', () => {
    const { parts: day, elsewhere } = plan([
      goal('anywhere'),
      goal('garden', { locationIds: ['garden'] }),
      goal('hall', { locationIds: ['hall'] }),
      goal('fresh', { lastOn: '2026-11-23' }),
      goal('ben', { studentId: 'ben' }),
    ]);
    expect(day.map(({ part, isNow }) => [part, isNow])).toEqual([
      ['Kitchen', true],
      ['Garden', false],
    ]);
    expect(day[0]?.students).toEqual([
      { studentId: 'ada', due: ['anywhere'] },
      { studentId: 'ben', due: ['ben'] },
    ]);
    expect(day[1]?.students).toEqual([{ studentId: 'ada', due: ['anywhere', 'garden'] }]);
    expect(elsewhere).toEqual([{ studentId: 'ada', due: ['hall'] }]);
  });

  it('is not what somebody else is to observe', () => {
    const { parts: day } = plan([
      goal('theirs', { observerIds: ['you'] }),
      goal('mine', { observerIds: ['you', 'me'] }),
    ]);
    expect(day[0]?.students[0]?.due).toEqual(['mine']);
  });

  it('leaves out what is over, and a part ends with its last minute', () => {
    expect(plan([goal('a')], '10:00').parts.map(({ part }) => part)).toEqual(['Garden']);
    expect(plan([goal('a')], '11:00')).toEqual({ parts: [], elsewhere: [{ studentId: 'ada', due: ['a'] }] });
  });

  it('is nothing on a day without school', () => {
    expect(plan([goal('a')], '09:30', '2026-11-28')).toEqual({ parts: [], elsewhere: [] });
    expect(plan([goal('a')], '09:30', '2026-11-26')).toEqual({ parts: [], elsewhere: [] });
  });
});
