import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, addGoal, addStudent, type SmallSchool, smallSchool } from '~/tests/database/small-school';
import { Invalid, NotFound } from '../platform/failures';
import { giveToGroup } from './for-group';
import { goalsOf } from './goals';

const fresh = freshDatabase();
let school: SmallSchool;
let source: string;
const plants = {
  ...{ kind: 'cumulativeTotal', unit: { one: 'plant', many: 'plants' }, total: 140, amounts: 'added', categories: [] },
};
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  source = await addGoal(fresh.db, school.student, '7', { measure: plants, wording: 'Ada will pot 140 plants.' });
});
const manager = () => actorOf(school.manager);
const pupil = (name: string) => addStudent(fresh.db, name, [[school.manager, 'caseManager']]);
const row = (studentId: string, target = 80) => ({ id: randomUUID(), studentId, target });

describe('a goal for a group', () => {
  it('is each student’s own, with their name, their target and the next number of their plan; sent twice it is there once', async () => {
    const [ben, ida] = [await pupil('Ben'), await pupil('Ida')];
    await addGoal(fresh.db, ida, '3');
    const rows = [row(ben, 60), row(ida, 90)];
    expect(await giveToGroup(fresh.db, manager(), source, { rows })).toBe(2);
    await giveToGroup(fresh.db, manager(), source, { rows });
    const [bens] = await goalsOf(fresh.db, [ben]);
    expect(bens).toMatchObject({
      number: '1',
      wording: 'Ben will pot 60 plants.',
      measure: { total: 60 },
      baseline: null,
    });
    const idas = await goalsOf(fresh.db, [ida]);
    expect(idas.map(({ number }) => number)).toEqual(['3', '4']);
    expect(idas[1]).toMatchObject({ wording: 'Ida will pot 90 plants.', measure: { total: 90 }, phases: [] });
    // The first student's goal is as it was.
    const own = (await goalsOf(fresh.db, [school.student])).find(({ id }) => id === source);
    expect(own).toMatchObject({ wording: 'Ada will pot 140 plants.', measure: { total: 140 } });
  });

  it('is given to all or to none, and says whose target does not fit', async () => {
    const [ben, ida] = [await pupil('Ben'), await pupil('Ida')];
    const refused = giveToGroup(fresh.db, manager(), source, { rows: [row(ben), row(ida, 0)] });
    await expect(refused).rejects.toThrow(Invalid);
    await expect(refused).rejects.toMatchObject({ fields: { [ida]: expect.any(String) } });
    expect(await goalsOf(fresh.db, [ben, ida])).toEqual([]);
  });

  it('is not given by, to or from anybody whose goals one may not edit', async () => {
    const ben = await pupil('Ben');
    const stranger = await addStudent(fresh.db, 'Stan', [[school.stranger, 'caseManager']]);
    const give = (person: string, to: string, from = source) =>
      giveToGroup(fresh.db, actorOf(person), from, { rows: [row(to)] });
    await expect(give(school.aide, ben)).rejects.toThrow(NotFound);
    await expect(give(school.manager, stranger)).rejects.toThrow(NotFound);
    await expect(give(school.stranger, stranger)).rejects.toThrow(NotFound);
    await expect(give(school.manager, ben, randomUUID())).rejects.toThrow(NotFound);
    expect(await goalsOf(fresh.db, [ben, stranger])).toEqual([]);
  });
});
