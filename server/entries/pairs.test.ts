import { beforeEach, describe, expect, it } from 'vitest';
import { emptied } from '~/tests/database/emptied';
import { freshDatabase } from '~/tests/database/fresh';
import { rewriting } from '~/tests/database/rewriting';
import {
  actorOf,
  now,
  type SmallSchool,
  schoolId,
  sessionOf,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { goalsOf } from '../goals/goals';
import { Invalid, NotFound } from '../platform/failures';
import { progressOfGoals } from '../progress/progress';
import { schoolOf } from '../school/school';
import { correctObservation, withdrawObservation } from './change';
import { markPair, pairable, pairBeside, pairsAmong, partnerOf, unmarkPair } from './pairs';
import { observationOf, observationsOf } from './read';
import { recordSession } from './record';

const fresh = freshDatabase();
let school: SmallSchool;
let recorded = now;
beforeEach(async () => {
  await emptied(fresh.db);
  school = await smallSchool(fresh.db);
});
const record = async (person: string, trials: string[], time = '09:30') => {
  const session = sessionOf(school, trials, { observerId: person, time });
  recorded = new Date(recorded.getTime() + 60_000);
  const { ids } = await recordSession(fresh.db, actorOf(person), school.student, session, { wall, now: recorded });
  return ids[0] as string;
};
const entry = (id: string) => observationOf(fresh.db, school.student, id);
const mark = (entryId: string, otherId: string, person = school.manager) =>
  markPair(fresh.db, actorOf(person), { studentId: school.student, entryId, otherId }, now);

describe('two observers of one session', () => {
  it('are a pair, of which the first counts; taken apart, both do', async () => {
    const first = await record(school.manager, ['independent', 'spoken']);
    const second = await record(school.aide, ['independent', 'independent']);
    expect((await pairable(fresh.db, await entry(first))).map(({ id }) => id)).toEqual([second]);
    await mark(second, first);
    await mark(first, second);
    expect((await partnerOf(fresh.db, await entry(first)))?.id).toBe(second);
    expect((await partnerOf(fresh.db, await entry(second)))?.id).toBe(first);
    const day = async () => {
      const goals = await goalsOf(fresh.db, [school.student]);
      const progress = await progressOfGoals(fresh.db, goals, { school: await schoolOf(fresh.db, schoolId), today });
      return progress.get(school.goal)?.points.map(({ amount, weight }) => [amount, weight]);
    };
    expect(await day()).toEqual([[1, 2]]);
    expect(pairsAmong(await observationsOf(fresh.db, [school.student])).map(([a, b]) => [a.id, b.id])).toEqual([
      [first, second],
    ]);
    await unmarkPair(fresh.db, actorOf(school.aide), { studentId: school.student, entryId: first }, now);
    expect(await day()).toEqual([[3, 4]]);
  });

  it('are two people, and each entry is in one pair only', async () => {
    const [a, b] = [await record(school.manager, ['spoken']), await record(school.manager, ['spoken'], '09:40')];
    const [c, d] = [await record(school.aide, ['spoken']), await record(school.aide, ['spoken'], '09:40')];
    await expect(mark(a, b)).rejects.toThrow(Invalid);
    await mark(a, c);
    await expect(mark(a, d)).rejects.toThrow(Invalid);
    await expect(mark(b, d, school.stranger)).rejects.toThrow(NotFound);
    await mark(b, d);
    expect(await pairable(fresh.db, await entry(b))).toEqual([]);
  });

  it('find each other at entry, each goal with the nearest in time', async () => {
    await record(school.manager, ['spoken'], '08:00');
    const near = await record(school.manager, ['spoken'], '09:25');
    const second = await record(school.aide, ['spoken'], '09:30');
    const beside = { studentId: school.student, ids: [second], besideId: school.manager };
    expect(await pairBeside(fresh.db, actorOf(school.aide), beside, now)).toBe(1);
    expect((await entry(second)).pairsWith).toBe(near);
    const early = await record(school.aide, ['spoken'], '07:00');
    await rewriting(fresh.db, (trx) => trx('entries').where({ id: early }).update({ observed_on: '2026-11-20' }));
    expect(await pairBeside(fresh.db, actorOf(school.aide), { ...beside, ids: [early] }, now)).toBe(0);
  });

  it('are no pair any more when one is withdrawn, or turns out to be of another day', async () => {
    const pairUp = async () => {
      const [first, second] = [await record(school.manager, ['spoken']), await record(school.aide, ['spoken'])];
      await mark(first, second);
      return { first, second };
    };
    const change = { version: 1, why: 'Written down twice.' };
    const { first, second } = await pairUp();
    const ids = { studentId: school.student, entryId: first };
    await withdrawObservation(fresh.db, actorOf(school.manager), ids, change, now);
    expect((await entry(second)).pairsWith).toBeNull();

    const other = await pairUp();
    const session = { on: '2026-11-23', time: '09:30', observerId: school.aide, locationId: null, note: '' };
    const outcome = { data: { trials: ['spoken'] }, reason: null } as const;
    const corrected = { studentId: school.student, entryId: other.second };
    await correctObservation(
      fresh.db,
      actorOf(school.manager),
      corrected,
      { ...change, ...session, outcome },
      { wall, now },
    );
    expect((await entry(other.second)).pairsWith).toBeNull();
    // What was left alone in the first pair is free, and nothing else is.
    expect((await pairable(fresh.db, await entry(other.first))).map(({ id }) => id)).toEqual([second]);
  });
});
