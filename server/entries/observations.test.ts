import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { entryField } from '~/core/entries/observation';
import { reportFields, type Shows, shownFields } from '~/core/sharing/visibility-rule';
import { freshDatabase } from '~/tests/database/fresh';
import { rewriting } from '~/tests/database/rewriting';
import {
  accessTo,
  actorOf,
  addGoal,
  addStudent,
  now,
  type SmallSchool,
  sessionOf,
  smallSchool,
  wall,
} from '~/tests/database/small-school';
import { goalsOf } from '../goals/goals';
import { reportEntries } from '../individual-report/entries-said';
import { Conflict, Invalid, NotAllowed, NotFound } from '../platform/failures';
import { correctObservation, withdrawObservation } from './change';
import { observationOf, observationRevisions, observationsOf, sessionsByGoal } from './read';
import { recordSession } from './record';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
});

const record = (input: ReturnType<typeof sessionOf>, person = school.manager, student = school.student) =>
  recordSession(fresh.db, actorOf(person), student, input, { wall, now });
const recordOne = async (trials = ['independent', 'gesture'], person = school.manager) =>
  (await record(sessionOf(school, trials, { observerId: person }), person)).ids[0] as string;
const count = async () => Number((await fresh.db('entries').count())[0]?.count);
const messagesOf = (promise: Promise<unknown>) =>
  promise.then(
    () => 'nothing was refused',
    (error) => (error instanceof Invalid ? error.fields : error),
  );

describe('recording', () => {
  it('keeps what was seen and both times', async () => {
    const id = await recordOne(['independent', 'spoken']);
    const entry = await observationOf(fresh.db, school.student, id);
    expect(entry).toMatchObject({
      on: '2026-11-24',
      time: '09:30',
      observerName: 'manager',
      locationName: 'Kitchen',
      outcome: { data: { trials: ['independent', 'spoken'] }, reason: null },
      recordedAt: now,
      version: 1,
    });
  });

  it('does nothing the second time the same submission arrives, at once or later', async () => {
    const input = sessionOf(school, ['independent']);
    const before = await count();
    const [a, b] = await Promise.all([record(input), record(input)]);
    expect(a).toEqual(b);
    expect(await record(input)).toEqual(a);
    expect(await count()).toBe(before + 1);
  });

  it('takes what is new beside what was sent before, and says so when a repeat says something else', async () => {
    const second = await addGoal(fresh.db, school.student, '9');
    const input = sessionOf(school, ['independent']);
    await record(input);
    const before = await count();
    const first = input.entries[0] as (typeof input.entries)[0];
    const added = { ...first, id: randomUUID(), goalId: second };
    await record({ ...input, entries: [first, added] });
    expect(await count()).toBe(before + 1);
    const changed = { ...first, outcome: { data: { trials: ['independent', 'gesture'] }, reason: null } };
    expect(await messagesOf(record({ ...input, entries: [changed] }))).toEqual({
      [entryField(school.goal)]: expect.stringContaining('An earlier try was saved already'),
    });
    expect(await messagesOf(record({ ...input, locationId: null as never }))).toHaveProperty(entryField(school.goal));
    expect((await observationOf(fresh.db, school.student, first.id)).outcome).toEqual(first.outcome);
  });

  it('does not let one entry’s id be used by another person', async () => {
    const input = sessionOf(school, ['independent']);
    await record(input);
    await expect(record(input, school.aide)).rejects.toThrow(NotFound);
  });

  it('records several goals in one go, all or none', async () => {
    const second = await addGoal(fresh.db, school.student, '2');
    const input = sessionOf(school, ['independent']);
    const other = { ...(input.entries[0] as (typeof input.entries)[0]), id: randomUUID(), goalId: second };
    const wrong = { ...other, outcome: { data: { trials: ['shouted'] }, reason: null } };
    const before = await count();
    expect(await messagesOf(record({ ...input, entries: [...input.entries, wrong] }))).toEqual({
      [entryField(second)]: 'This is not one of the goal’s support levels.',
    });
    expect(await count()).toBe(before);
    await record({ ...input, entries: [...input.entries, other] });
    expect(await count()).toBe(before + 2);
  });

  it('refuses the future, a stranger as observer, an unknown place, too many chances: each at its field', async () => {
    const many = sessionOf(school, Array<string>(41).fill('independent'));
    expect(await messagesOf(record(many))).toHaveProperty(entryField(school.goal));
    const wrong = { on: '2026-11-25', observerId: school.stranger, locationId: randomUUID() };
    expect(Object.keys(await messagesOf(record(sessionOf(school, ['gesture'], wrong))))).toEqual([
      'on',
      'observerId',
      'locationId',
    ]);
    const soon = sessionOf(school, ['gesture'], { time: '10:30' });
    expect(await messagesOf(record(soon))).toHaveProperty('time');
  });

  it('is back-dated to a time when the observer was on the team, and no further', async () => {
    await record(sessionOf(school, ['gesture'], { on: '2026-09-02' }));
    expect(await messagesOf(record(sessionOf(school, ['gesture'], { on: '2026-08-30' })))).toHaveProperty('observerId');
  });

  it('is for the team only, and only for this student’s goals', async () => {
    await expect(record(sessionOf(school, ['gesture']), school.stranger)).rejects.toThrow(NotFound);
    const other = await addStudent(fresh.db, 'Ben', [[school.manager, 'caseManager']]);
    await expect(record(sessionOf(school, ['gesture']), school.manager, other)).rejects.toThrow(NotFound);
    await expect(record(sessionOf(school, ['gesture']), school.manager, accessTo(randomUUID()))).rejects.toThrow(
      NotFound,
    );
  });
});

const correct = (id: string, changes: object = {}, person = school.manager) => {
  const { entries: _, ...session } = sessionOf(school, []);
  const input = {
    version: 1,
    ...session,
    outcome: { data: { trials: ['spoken'] }, reason: null } as const,
    note: 'new',
    why: 'Miscounted.',
    ...changes,
  };
  return correctObservation(fresh.db, actorOf(person), { studentId: school.student, entryId: id }, input, {
    wall,
    now,
  });
};
const withdraw = (id: string, version = 1, person = school.manager, why = 'Wrong student.') =>
  withdrawObservation(fresh.db, actorOf(person), { studentId: school.student, entryId: id }, { version, why }, now);

describe('correcting', () => {
  it('replaces the entry in every view and keeps what it said, with the reason', async () => {
    const id = await recordOne(['independent']);
    await correct(id);
    expect(await observationOf(fresh.db, school.student, id)).toMatchObject({
      version: 2,
      note: 'new',
      changeReason: 'Miscounted.',
    });
    expect((await observationRevisions(fresh.db, id)).map((old) => old.outcome)).toEqual([
      { data: { trials: ['independent'] }, reason: null },
    ]);
    const all = await observationsOf(fresh.db, [school.student]);
    expect(all.filter((entry) => entry.id === id)).toHaveLength(1);
    const goals = await goalsOf(fresh.db, [school.student]);
    const line = (await reportEntries(fresh.db, goals)).filter((entry) => entry.id === id);
    expect(line).toMatchObject([
      { isCorrected: true, sentence: '0 of 1 seedling with a gesture or less help (0%). With a spoken prompt: 1.' },
    ]);
  });

  it('shows the second of two people what the first changed', async () => {
    const id = await recordOne();
    await correct(id, { note: 'first' });
    const conflict = await correct(id, { note: 'second' }).catch((error) => error);
    expect(conflict).toBeInstanceOf(Conflict);
    expect(conflict.current).toMatchObject({ note: 'first', version: 2 });
    expect((await correct(id, { note: 'second', version: 2 })).version).toBe(3);
    expect(await observationRevisions(fresh.db, id)).toHaveLength(2);
  });

  it('sent twice is done once', async () => {
    const id = await recordOne();
    await correct(id);
    expect((await correct(id)).version).toBe(2);
    expect(await observationRevisions(fresh.db, id)).toHaveLength(1);
  });

  it('checks what arrives like a new entry', async () => {
    const id = await recordOne();
    expect(await messagesOf(correct(id, { on: '2026-12-01' }))).toHaveProperty('on');
    expect(await messagesOf(correct(id, { outcome: { data: { trials: ['x'] }, reason: null } }))).toHaveProperty(
      'outcome',
    );
  });

  it('is for one’s own entries; for an aide for seven days; for a case manager always', async () => {
    const managers = await recordOne(['gesture'], school.manager);
    await expect(correct(managers, {}, school.aide)).rejects.toThrow(NotAllowed);
    await expect(correct(managers, {}, school.stranger)).rejects.toThrow(NotFound);
    const aides = await recordOne(['gesture'], school.aide);
    expect((await correct(aides, { why: 'Own entry.' }, school.aide)).version).toBe(2);
    const old = await recordOne(['gesture'], school.aide);
    const weekAgo = new Date(now.getTime() - 8 * 86_400_000);
    await rewriting(fresh.db, (trx) => trx('entries').where({ id: old }).update({ recorded_at: weekAgo }));
    await expect(correct(old, {}, school.aide)).rejects.toThrow(NotAllowed);
    expect((await correct(old)).version).toBe(2);
  });
});

describe('fidelity', () => {
  const marks = (...done: boolean[]) =>
    done.map((isDone, i) => ({ key: `step${i + 1}`, label: `Step ${i + 1}`, isDone }));
  const recordWith = async (fidelity: ReturnType<typeof marks> | null) => {
    const input = sessionOf(school, ['independent']);
    const entries = input.entries.map((entry) => ({ ...entry, fidelity }));
    return { input: { ...input, entries }, id: (await record({ ...input, entries })).ids[0] as string };
  };

  it('is kept as it was said, blank where nobody said anything, and a repeat has to say the same', async () => {
    const { id, input } = await recordWith(marks(true, false));
    expect((await observationOf(fresh.db, school.student, id)).fidelity).toEqual(marks(true, false));
    expect((await observationOf(fresh.db, school.student, await recordOne())).fidelity).toBeNull();
    await record(input);
    const changed = input.entries.map((entry) => ({ ...entry, fidelity: marks(true, true) }));
    expect(await messagesOf(record({ ...input, entries: changed }))).toEqual({
      [entryField(school.goal)]: expect.stringContaining('says something else'),
    });
  });

  it('stays in a correction that says nothing of it, and is replaced or taken back in one that does', async () => {
    const { id } = await recordWith(marks(true, false));
    const fidelityOfEntry = async () => (await observationOf(fresh.db, school.student, id)).fidelity;
    await correct(id);
    expect(await fidelityOfEntry()).toEqual(marks(true, false));
    await correct(id, { version: 2, fidelity: marks(true, true) });
    expect(await fidelityOfEntry()).toEqual(marks(true, true));
    await correct(id, { version: 3, fidelity: null });
    expect(await fidelityOfEntry()).toBeNull();
    const history = await observationRevisions(fresh.db, id);
    expect(history.map(({ fidelity }) => fidelity)).toEqual([
      marks(true, false),
      marks(true, false),
      marks(true, true),
    ]);
  });

  it('is read by the team beside the note, and by no reader from outside', async () => {
    const { id } = await recordWith(marks(true, false));
    const goals = await goalsOf(fresh.db, [school.student]);
    const noteFor = async (shows?: Shows) =>
      (await reportEntries(fresh.db, goals, { ids: [id], shows })).map(({ note }) => note);
    expect(await noteFor()).toEqual(['1 of 2 support steps done (50%); not done: Step 2.']);
    expect(await noteFor(shownFields(reportFields))).toEqual(['']);
  });
});

describe('withdrawing', () => {
  it('takes the entry out of every figure and keeps it readable', async () => {
    const id = await recordOne();
    await withdraw(id);
    expect((await observationsOf(fresh.db, [school.student])).map((entry) => entry.id)).not.toContain(id);
    const sessions = await sessionsByGoal(
      fresh.db,
      [{ id: school.goal, studentId: school.student, selfCounts: true }],
      {
        inDetail: true,
      },
    );
    expect([...sessions.values()].flat().map((session) => session.id)).not.toContain(id);
    expect(await observationOf(fresh.db, school.student, id)).toMatchObject({
      isWithdrawn: true,
      changeReason: 'Wrong student.',
    });
  });

  it('cannot be corrected afterwards, and is done once when sent twice', async () => {
    const id = await recordOne();
    await withdraw(id);
    expect((await withdraw(id)).version).toBe(2);
    await expect(correct(id, { version: 2 })).rejects.toThrow(Conflict);
  });
});

describe('the database itself', () => {
  it('lets nothing that was recorded be removed, nor history be rewritten', async () => {
    const id = await recordOne();
    await correct(id);
    await expect(fresh.db('entries').where({ id }).delete()).rejects.toThrow('not removed');
    await expect(fresh.db('entry_revisions').where({ entry_id: id }).delete()).rejects.toThrow('not removed');
    await expect(fresh.db('entry_revisions').where({ entry_id: id }).update({ version: 9 })).rejects.toThrow(
      'not removed',
    );
  });

  it.each([
    ['a score and a reason at once', { reason: 'absent' }],
    ['neither a score nor a reason', { data: null }],
    ['an unknown reason', { data: null, reason: 'bored' }],
    ['a change without its reason', { version: 2 }],
    ['a goal of another student', { student_id: randomUUID() }],
    ['a note that is too long', { note: 'x'.repeat(4001) }],
    ['a version of the measure that there has not been', { measure_version: 2 }],
    ['a goal’s entry without a goal', { goal_id: null, measure_version: null }],
    ['what belongs to an incident', { resolved: true }],
    ['what belongs to a count', { minutes: 20, count: 3 }],
    ['steps of a support of which nothing is said', { fidelity: '[]' }],
  ])('refuses %s', async (_, changes) => {
    const row = {
      id: randomUUID(),
      kind: 'goal' as const,
      goal_id: school.goal,
      measure_version: 1,
      student_id: school.student,
      observed_on: '2026-11-24',
      observed_time: '09:00',
      observer_id: school.manager,
      data: JSON.stringify({ trials: ['gesture'] }),
      note: '',
      recorded_by: school.manager,
      recorded_at: now,
    };
    await expect(fresh.db('entries').insert({ ...row, ...(changes as object) })).rejects.toMatchObject({
      code: expect.stringMatching(/^23/),
    });
    await fresh.db.transaction((trx) => trx('entries').insert({ ...row, id: randomUUID() }));
  });
});
