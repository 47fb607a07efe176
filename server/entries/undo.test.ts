import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { accessTo, actorOf, now, type SmallSchool, smallSchool, today, wall } from '~/tests/database/small-school';
import { NotFound } from '../platform/failures';
import { observationsOf } from './read';
import { recordSession } from './record';
import { undoSaved } from './undo';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
});
const later = (seconds: number) => new Date(now.getTime() + seconds * 1000);

async function saved(person = school.aide) {
  const id = randomUUID();
  const outcome = { data: { trials: ['independent'] }, reason: null };
  const session = { on: today, time: '09:00', observerId: person, locationId: null };
  const entries = [{ id, goalId: school.goal, outcome, note: '' }];
  await recordSession(fresh.db, actorOf(person), school.student, { ...session, entries }, { wall, now });
  return id;
}
const undo = (ids: string[], at = later(8), person = school.aide) =>
  undoSaved(fresh.db, actorOf(person), school.student, ids, at);
const stands = async (id: string) =>
  (await observationsOf(fresh.db, [accessTo(school.student)])).some((entry) => entry.id === id);

describe('what was saved a moment ago', () => {
  it('is taken back with one tap, once, and stays readable as what was withdrawn', async () => {
    const [one, other] = [await saved(), await saved()];
    expect(await undo([one, other])).toBe(2);
    expect([await stands(one), await stands(other)]).toEqual([false, false]);
    expect(await undo([one, other])).toBe(0);
    const row = await fresh.db('entries').where({ id: one }).first('withdrawn', 'version', 'change_reason');
    expect(row).toEqual({ withdrawn: true, version: 2, change_reason: 'Undone right after saving.' });
  });

  it('is one’s own and of a moment ago; else it is withdrawn with a reason, on its page', async () => {
    const id = await saved();
    await expect(undo([id], later(200))).rejects.toThrow(NotFound);
    await expect(undo([id], later(8), school.manager)).rejects.toThrow(NotFound);
    await expect(undo([id], later(8), school.stranger)).rejects.toThrow(NotFound);
    await expect(undo([randomUUID()])).rejects.toThrow(NotFound);
    expect(await stands(id)).toBe(true);
  });
});
