import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import {
  accessTo,
  actorOf,
  addGoal,
  addStudent,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
} from '~/tests/database/small-school';
import { Invalid, NotFound } from '../../platform/failures';
import { partAt, plannedOn } from '../../students/timetable';
import { observable, roundOf, roundsOf, saveRound, setRoundRemoved } from './rounds';

const fresh = freshDatabase();
let school: SmallSchool;
let bens: string;
let ben: string;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  ben = await addStudent(fresh.db, 'Ben', [[school.manager, 'caseManager']]);
  bens = await addGoal(fresh.db, ben);
});
const manager = () => actorOf(school.manager);
const round = (changes: object = {}) => ({
  ...{
    id: randomUUID(),
    name: 'Monday kitchen',
    weekday: 1,
    startsAt: '09:00',
    goalIds: [bens, school.goal],
    formIds: [],
  },
  ...changes,
});

describe('a round', () => {
  it('is kept once, student by student, and is nobody else’s', async () => {
    const kept = round();
    await Promise.all([saveRound(fresh.db, manager(), kept), saveRound(fresh.db, manager(), kept)]);
    expect(await roundsOf(fresh.db, manager())).toMatchObject([{ name: 'Monday kitchen', startsAt: '09:00' }]);
    expect((await roundOf(fresh.db, manager(), kept.id)).goals.map(({ id }) => id)).toHaveLength(2);
    await saveRound(fresh.db, manager(), { ...kept, name: 'Monday bakery', goalIds: [bens] });
    expect(await roundOf(fresh.db, manager(), kept.id)).toMatchObject({
      name: 'Monday bakery',
      goals: [{ studentId: ben }],
    });
    await expect(roundOf(fresh.db, actorOf(school.aide), kept.id)).rejects.toThrow(NotFound);
    const theirs = { ...kept, goalIds: [school.goal] };
    await expect(saveRound(fresh.db, actorOf(school.aide), theirs)).rejects.toThrow(NotFound);
  });

  it('holds only what one may observe now', async () => {
    await expect(saveRound(fresh.db, actorOf(school.aide), round())).rejects.toThrow(Invalid);
    await expect(observable(fresh.db, actorOf(school.stranger), [bens])).rejects.toThrow(NotFound);
    expect(await observable(fresh.db, actorOf(school.aide), [bens, school.goal])).toEqual([
      { id: school.goal, studentId: school.student },
    ]);
    const kept = round({ goalIds: [bens] });
    await saveRound(fresh.db, manager(), kept);
    await fresh.db('goals').where({ id: bens }).update({ retired_on: '2026-11-20', retired_how: 'met' });
    expect((await roundOf(fresh.db, manager(), kept.id)).goals).toEqual([]);
  });

  it('is taken away and put back by its own maker', async () => {
    const kept = round({ goalIds: [school.goal] });
    await saveRound(fresh.db, manager(), kept);
    const set = (isRemoved: boolean, person = school.manager) =>
      setRoundRemoved(fresh.db, actorOf(person), { id: kept.id, isRemoved }, now);
    await expect(set(true, school.aide)).rejects.toThrow(NotFound);
    await set(true);
    await expect(roundOf(fresh.db, manager(), kept.id)).rejects.toThrow(NotFound);
    await set(false);
    expect((await roundOf(fresh.db, manager(), kept.id)).name).toBe('Monday kitchen');
  });
});

describe('the timetable', () => {
  it('gives a class group’s own part of the day before one of the whole school', async () => {
    const group = randomUUID();
    await fresh.db('class_groups').insert({ id: group, school_id: schoolId, name: 'Kitchen group', position: 0 });
    await fresh.db('student_groups').insert({ student_id: school.student, group_id: group, school_id: schoolId });
    const block = { school_id: schoolId, weekday: 2, starts_at: '09:00', ends_at: '10:00' };
    await fresh.db('timetable_blocks').insert([
      { ...block, id: randomUUID(), group_id: null, part: 'Assembly', location_id: null },
      { ...block, id: randomUUID(), group_id: group, part: 'Kitchen', location_id: school.kitchen },
    ]);
    const parts = await plannedOn(fresh.db, [school.student, accessTo(ben)], '2026-11-24');
    const at = (student: string, time: string) => partAt(parts, student, { on: '2026-11-24', time })?.part ?? null;
    expect([at(school.student, '09:00'), at(ben, '09:59'), at(ben, '10:00')]).toEqual(['Kitchen', 'Assembly', null]);
    expect(await plannedOn(fresh.db, [accessTo(ben)], '2026-11-25')).toEqual([]);
  });
});
