import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { everything, type Shows, shownFields } from '~/core/sharing/visibility-rule';
import { freshDatabase } from '~/tests/database/fresh';
import {
  accessTo,
  actorOf,
  addStudent,
  now,
  type SmallSchool,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { goalsOf } from '../../goals/goals';
import { entriesAsSeen } from '../../individual-report/individual-report';
import { Conflict, Invalid, NotFound } from '../../platform/failures';
import { requireStudent } from '../../students/students';
import { observationOf } from '../read';
import { ownWorkSamples, rateOwn } from './own';
import { addWorkSample, askRater, findRating, makeEntry, rateAsStaff, rateByLink, workSamplesOf } from './ratings';

const fresh = freshDatabase();
let school: SmallSchool;
const levels = [1, 2, 3].map((points) => ({ points, words: `at ${points}` }));
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  const measure = { kind: 'rubric', of: 'mean', criteria: [{ key: 'order', label: 'Order', levels }] };
  await fresh
    .db('goal_measures')
    .where({ goal_id: school.goal })
    .update({ measure: JSON.stringify(measure) });
});

const ids = () => ({ studentId: school.student, goalId: school.goal });
async function begin(madeOn = today) {
  const id = randomUUID();
  await addWorkSample(fresh.db, actorOf(school.aide), ids(), { id, title: 'The bird house', madeOn }, now);
  return id;
}
const rate = (person: string, workSample: string, points: number, id = randomUUID()) =>
  rateAsStaff(
    fresh.db,
    actorOf(person),
    school.student,
    workSample,
    { id, points: { order: points }, words: 'Well made' },
    now,
  );
const ask = (workSample: string, id = randomUUID(), at = now) =>
  askRater(fresh.db, actorOf(school.aide), school.student, workSample, { id, kind: 'peer', label: 'Wren' }, at);
const seenBy = async (person: string) =>
  workSamplesOf(fresh.db, await requireStudent(fresh.db, actorOf(person), school.student, 'see'), school.goal, now);

describe('one work sample, rated by several', () => {
  it('is rated by staff, and by a peer through a link that works once and for a day', async () => {
    const workSample = await begin();
    await rate(school.manager, workSample, 3);
    await rate(school.aide, workSample, 1);
    await rate(school.aide, workSample, 2);
    const token = (await ask(workSample)) as string;
    const found = await findRating(fresh.db, token, now);
    expect(found).toMatchObject({ title: 'The bird house', kind: 'peer' });
    expect(JSON.stringify(found)).not.toContain('Ada');
    expect(await findRating(fresh.db, token, new Date(now.getTime() + 25 * 3_600_000))).toBeNull();
    const by = { id: randomUUID(), points: { order: 1 }, words: '' };
    for (const id of [by.id, randomUUID()]) await rateByLink(fresh.db, found as never, { ...by, id }, now);
    expect(await findRating(fresh.db, token, now)).toBeNull();

    const [own] = await seenBy(school.manager);
    expect(own?.ratings.map(({ kind, name, points }) => [kind, name, points.order])).toEqual([
      ['staff', 'manager', 3],
      ['staff', 'aide', 2],
      ['peer', 'Wren', 1],
    ]);
    // Who of the peers said what is not for everybody.
    const [others] = await seenBy(school.aide);
    expect(others?.ratings.map(({ name }) => name)).toEqual(['manager', 'aide', null]);
  });

  it('becomes one entry, and is not rated any more', async () => {
    const workSample = await begin('2026-11-20');
    const entryId = randomUUID();
    const make = (person = school.aide) =>
      makeEntry(fresh.db, actorOf(person), school.student, { workSampleId: workSample, entryId }, { wall, now });
    await expect(make()).rejects.toThrow(Invalid);
    await rate(school.manager, workSample, 3);
    const token = (await ask(workSample)) as string;
    await expect(make(school.stranger)).rejects.toThrow(NotFound);
    await make();
    await make();
    const entry = await observationOf(fresh.db, school.student, entryId);
    expect(entry).toMatchObject({
      on: '2026-11-20',
      outcome: { data: { ratings: [{ criterion: 'order', points: 3, rater: 'Staff' }] } },
    });
    await expect(rate(school.aide, workSample, 1)).rejects.toThrow(Conflict);
    expect(await findRating(fresh.db, token, now)).toBeNull();
    await expect(fresh.db('work_sample_ratings').delete()).rejects.toThrow('not removed');
  });

  it('carries what its raters said in words, in the note, for whom notes are shown', async () => {
    const workSample = await begin('2026-11-19');
    const say = { id: randomUUID(), points: { order: 2 }, words: 'Beside Wren he kept at it.' };
    await rateAsStaff(fresh.db, actorOf(school.manager), school.student, workSample, say, now);
    const token = (await ask(workSample)) as string;
    const found = await findRating(fresh.db, token, now);
    const peer = { id: randomUUID(), points: { order: 3 }, words: 'I liked the lid.' };
    await rateByLink(fresh.db, found as NonNullable<typeof found>, peer, now);
    const late = (await ask(workSample)) as string;
    const lateFound = await findRating(fresh.db, late, now);
    // Two people make it an entry at the same moment: one entry is made.
    const make = (entryId: string, person: string) =>
      makeEntry(fresh.db, actorOf(person), school.student, { workSampleId: workSample, entryId }, { wall, now });
    const two = [randomUUID(), randomUUID()] as const;
    await Promise.all([make(two[0], school.manager), make(two[1], school.aide)]);
    const made = await fresh.db('entries').whereIn('id', two).select('id');
    expect(made).toHaveLength(1);
    // Whoever rates too late is told, and nothing of theirs is lost without a word.
    await expect(
      rateByLink(fresh.db, lateFound as NonNullable<typeof lateFound>, { ...peer, id: randomUUID() }, now),
    ).rejects.toThrow(NotFound);

    await addStudent(fresh.db, 'Wren', []);
    const goals = await goalsOf(fresh.db, [school.student]);
    const seenAs = async (kind: 'team' | 'family', shows: Shows) =>
      (
        await entriesAsSeen(fresh.db, school.student, goals, { kind, shows, discreet: false }, [made[0]?.id as string])
      )[0];
    const inside = await seenAs('team', everything);
    expect(inside?.note).toContain('Staff: Beside Wren he kept at it.\nPeer: I liked the lid.');
    expect((await seenAs('family', shownFields(['numbers', 'breakdown', 'note'])))?.note).toContain(
      'Staff: Beside a classmate he kept at it.',
    );
    const careful = await seenAs('family', shownFields(['numbers', 'breakdown']));
    expect(careful?.note).toBeNull();
    expect(JSON.stringify(careful)).not.toContain('kept at it');
  });

  it('is for whom may observe this student, and for goals with a rubric', async () => {
    const workSample = await begin();
    await expect(rate(school.stranger, workSample, 1)).rejects.toThrow(NotFound);
    await expect(rate(school.aide, randomUUID(), 1)).rejects.toThrow(NotFound);
    const tomorrow = { id: randomUUID(), title: 'x', madeOn: '2026-11-25' };
    await expect(addWorkSample(fresh.db, actorOf(school.aide), ids(), tomorrow, now)).rejects.toThrow(Invalid);
    expect(await ask(workSample, '7f0f2c1e-5a0f-4d0c-8a43-999999999999')).toHaveLength(43);
    expect(await ask(workSample, '7f0f2c1e-5a0f-4d0c-8a43-999999999999')).toBeNull();
  });

  it('asks the student first: what staff said is not shown before, and what they said stays beside the score', async () => {
    const card = { id: randomUUID(), student_id: school.student, made_by: school.manager, made_at: now };
    await fresh.db('cards').insert({ ...card, token_hash: Buffer.from('t'), code_hash: Buffer.from('c') });
    const desk = { studentId: school.student, cardId: card.id };
    const workSample = await begin();
    await rate(school.manager, workSample, 3);
    const seen = async () =>
      (await ownWorkSamples(fresh.db, school.student, today)).find(({ id }) => id === workSample);
    expect(await seen()).toMatchObject({ own: null, staff: [] });
    const key = (await seen())!.rubric.criteria[0]!.key;
    const own = { id: randomUUID(), points: { [key]: 1 }, words: 'I rushed.' };
    await Promise.all([rateOwn(fresh.db, desk, workSample, own, now), rateOwn(fresh.db, desk, workSample, own, now)]);
    expect(await seen()).toMatchObject({ own: { points: own.points, kind: 'student' }, staff: [{ name: null }] });
    await expect(rateOwn(fresh.db, desk, workSample, { ...own, id: randomUUID() }, now)).rejects.toThrow(Conflict);
    const strange = { ...desk, studentId: accessTo(await addStudent(fresh.db, 'Ida', [])) };
    await expect(rateOwn(fresh.db, strange, workSample, { ...own, id: randomUUID() }, now)).rejects.toThrow(NotFound);
    expect(await ownWorkSamples(fresh.db, strange.studentId, today)).toEqual([]);
    // Old pieces are not asked about any more.
    expect(await ownWorkSamples(fresh.db, school.student, '2027-06-01')).toEqual([]);
    const [listed] = (
      await workSamplesOf(
        fresh.db,
        await requireStudent(fresh.db, actorOf(school.manager), school.student, 'see'),
        school.goal,
        now,
      )
    ).filter(({ id }) => id === workSample);
    expect(listed?.ratings.map(({ kind }) => kind).sort()).toEqual(['staff', 'student']);
  });
});
