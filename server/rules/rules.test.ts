import { randomUUID } from 'node:crypto';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Rule, RuleScope } from '~/core/rules/rule';
import { follow } from '~/tests/database/followed';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addGoal,
  addIncident,
  addPerson,
  addStudent,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  sessionOf,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { correctObservation } from '../entries/change';
import { recordSession } from '../entries/record';
import { collectMessages } from '../messages/collect';
import { composeMessage } from '../messages/compose';
import { Conflict, Invalid, NotAllowed, NotFound } from '../platform/failures';
import { allSchools, type School } from '../school/school';
import { readStudent } from '../students/access';
import { lookByNight } from '../worker/rules-by-night';
import { applyRules } from './apply';
import { changeFollowUp, changesOfFollowUps, followUpsOf, makeFollowUp } from './follow-ups';
import { marksFor } from './marks';
import { previewOf } from './preview';
import { rulesOf, rulesReaching, saveRule, switchRule, versionsOf } from './rules';

const fresh = freshDatabase();
let school: SmallSchool;
let whole: School;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  whole = (await allSchools(fresh.db))[0]!;
});
/** What an earlier test left, which none removes. */
let earlier: string[] = [];
beforeEach(async () => {
  await fresh.db('rules').update({ switched_off_at: now });
  await fresh.db('rule_looks').delete();
  await fresh.db('rule_nights').delete();
  await fresh.db('messages').update({ state: 'stopped' });
  earlier = await fresh.db('follow_ups').pluck('id');
});

const manager = () => actorOf(school.manager);
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
const low: Rule = {
  when: { trigger: 'goalEntry', fulfils: 'all', conditions: [{ is: 'figure', comparison: 'below', value: 50 }] },
  does: {
    mark: { word: 'Low', look: 'line' },
    followUp: { what: 'Look at the prompts', forWhom: 'caseManager', inDays: 1 },
    message: { forWhom: 'recorder' },
  },
};
const followUpOnly = { mark: null, followUp: low.does.followUp, message: null };

async function ruled(rule: Rule = low, scope: RuleScope = { of: 'mine' }, by = school.manager, at = now) {
  const id = randomUUID();
  await saveRule(fresh.db, actorOf(by), { id, name: 'Low figures', scope, rule, mayTellOften: false }, at);
  return id;
}
async function recorded(trials: string[], at = later(1), by = school.manager) {
  const session = sessionOf(school, trials);
  await recordSession(fresh.db, actorOf(by), school.student, session, { wall, now: at });
  return session.entries[0]!.id;
}
const correct = (id: string, trials: string[], version = 1) =>
  correctObservation(
    fresh.db,
    manager(),
    { studentId: school.student, entryId: id },
    {
      ...{ version, on: today, time: '09:30', observerId: school.manager, locationId: null, note: '' },
      ...{ outcome: { data: { trials }, reason: null }, why: 'A slip.' },
    },
    { wall, now: later(5) },
  );
const marks = async (id: string) =>
  ((await marksFor(fresh.db, manager(), [{ id, studentId: school.student }], [school.student]))[id] ?? []).map(
    ({ word }) => word,
  );
const followUps = async (student = school.student) =>
  (await followUpsOf(fresh.db, [student])).filter(({ id }) => !earlier.includes(id));
const apply = (at = later(10)) => applyRules(fresh.db, whole, at);

describe('a rule', () => {
  it('marks an old and a new entry, makes one follow-up and one message of the new one; a correction takes the mark away, and doubles nothing', async () => {
    const old = await recorded(['spoken'], later(-60));
    await ruled();
    const fresh1 = await recorded(['spoken', 'incorrect']);
    const fine = await recorded(['independent']);
    expect([await marks(old), await marks(fresh1), await marks(fine)]).toEqual([['Low'], ['Low'], []]);
    await apply();
    await apply();
    const [only, ...others] = await followUps();
    expect(others).toEqual([]);
    expect(only).toMatchObject({
      ...{ entryId: fresh1, entryKind: 'goal', what: 'Look at the prompts', forName: 'manager', dueOn: '2026-11-25' },
      ...{ rule: 'Low figures', madeBy: null, isDone: false, goal: '1 · Plants a row' },
    });
    expect(await collectMessages(fresh.db, whole, later(11))).toBe(1);
    expect(await collectMessages(fresh.db, whole, later(12))).toBe(0);
    const message = (await fresh.db('messages').where({ state: 'waiting' }).first())!;
    expect(message).toMatchObject({ kind: 'rule', person_id: school.manager, to_email: 'manager@school.example' });
    const composed = await composeMessage(
      fresh.db,
      {
        ...{ id: message.id, kind: 'rule', studentId: readStudent.parse(message.student_id), linkId: null },
        ...{ personId: school.manager, invitationId: null, toName: 'manager', toEmail: 'manager@school.example' },
        ...{ ownSubject: null, ownBody: null, attempts: 0 },
      },
      { school: whole, publicUrl: 'https://gentle.example', now },
    );
    expect(composed?.subject).toBe('A rule was fulfilled');
    expect(composed?.body).toContain('“Low figures” was fulfilled for Ada E.');
    expect(composed?.body).toContain('1 · Plants a row');
    expect(composed?.body).toContain(`https://gentle.example/students/${school.student}/follow-ups`);

    await correct(fresh1, ['independent', 'independent']);
    expect(await marks(fresh1)).toEqual([]);
    await correct(fresh1, ['incorrect'], 2);
    expect(await marks(fresh1)).toEqual(['Low']);
    await apply(later(20));
    expect(await followUps()).toHaveLength(1);
    // A correction can fulfil a rule for the first time: then it follows, once.
    await correct(fine, ['incorrect']);
    await apply(later(21));
    await apply(later(22));
    expect(await followUps()).toHaveLength(2);
    expect(Number((await fresh.db('rule_looks').count().first())?.count)).toBe(0);
  });

  it('does nothing for what was recorded before it was there, or while it was off', async () => {
    await recorded(['incorrect'], later(-60));
    const id = await ruled();
    await switchRule(fresh.db, manager(), { id, isOff: true }, later(2));
    const whileOff = await recorded(['incorrect'], later(3));
    expect(await marks(whileOff)).toEqual([]);
    await switchRule(fresh.db, manager(), { id, isOff: false }, later(4));
    expect(await marks(whileOff)).toEqual(['Low']);
    await correct(whileOff, ['spoken']);
    await apply();
    expect(await followUps()).toEqual([]);
    expect((await versionsOf(fresh.db, id)).map(({ version }) => version)).toEqual([1]);
  });

  it('is kept in versions; sent twice it is there once; and is its maker’s', async () => {
    const id = randomUUID();
    const input = { id, name: 'Low', scope: { of: 'mine' as const }, rule: low, mayTellOften: false };
    await saveRule(fresh.db, manager(), input, now);
    await saveRule(fresh.db, manager(), input, now);
    await saveRule(fresh.db, manager(), { ...input, name: 'Very low' }, later(1));
    expect((await versionsOf(fresh.db, id)).map(({ name }) => name)).toEqual(['Very low', 'Low']);
    const theirs = saveRule(fresh.db, actorOf(school.aide), { ...input, name: 'Mine' }, now);
    await expect(theirs).rejects.toThrow(NotFound);
    await expect(switchRule(fresh.db, actorOf(school.aide), { id, isOff: true }, now)).rejects.toThrow(NotFound);
    expect((await rulesOf(fresh.db, actorOf(school.aide))).find((one) => one.id === id)?.name).toBe('Very low');
    expect(await rulesOf(fresh.db, actorOf(school.stranger))).toEqual([]);
  });

  it('reaches whom its maker edits goals of, for as long as they do; one of the school only from an administrator', async () => {
    const reach = async () =>
      (await rulesReaching(fresh.db, schoolId, [school.student], today)).flatMap(({ reaches }) => [...reaches]);
    await expect(ruled(low, { of: 'student', studentId: school.student }, school.aide)).rejects.toThrow(NotFound);
    await expect(ruled(low, { of: 'school' })).rejects.toThrow(NotAllowed);
    await expect(ruled(low, { of: 'group', groupId: randomUUID() })).rejects.toThrow(Invalid);
    await ruled(low, { of: 'mine' }, school.aide);
    expect(await reach()).toEqual([]);
    const group = randomUUID();
    await fresh.db('class_groups').insert({ id: group, school_id: schoolId, name: 'Garden', position: 0 });
    await ruled(low, { of: 'group', groupId: group });
    expect(await reach()).toEqual([]);
    await fresh.db('student_groups').insert({ student_id: school.student, group_id: group, school_id: schoolId });
    expect(await reach()).toEqual([school.student]);
    // Whoever loses the right to edit goals marks nothing any more.
    const staff = { student_id: school.student, person_id: school.manager };
    await fresh.db('team_members').where(staff).update({ role: 'educator' });
    expect(await reach()).toEqual([]);
    await fresh.db('team_members').where(staff).update({ role: 'caseManager' });
    const admin = await addPerson(fresh.db, 'head');
    await makeAdmin(fresh.db, admin);
    await fresh.db('rules').update({ switched_off_at: now });
    const ofSchool = await ruled(low, { of: 'school' }, admin);
    expect(await reach()).toEqual([school.student]);
    await fresh.db('school_staff').where({ person_id: admin }).update({ is_admin: false });
    expect(await reach()).toEqual([]);
    // Another administrator takes it over by changing it.
    const next = await addPerson(fresh.db, 'deputy');
    await makeAdmin(fresh.db, next);
    const input = {
      id: ofSchool,
      name: 'Low in school',
      scope: { of: 'school' as const },
      rule: low,
      mayTellOften: false,
    };
    await saveRule(fresh.db, actorOf(next), input, later(3));
    expect(await reach()).toEqual([school.student]);
  });

  it('says before it is saved what it would have done, of students whom one sees', async () => {
    const there = await previewOf(fresh.db, manager(), { rule: low, scope: { of: 'mine' } }, whole.calendar);
    await recorded(['incorrect']);
    const then = await previewOf(fresh.db, manager(), { rule: low, scope: { of: 'mine' } }, whole.calendar);
    expect(then.looked).toBe(there.looked + 1);
    expect(then.found.length).toBe(there.found.length + 1);
    // Twenty school days that end today, a Tuesday.
    expect(then.from).toBe('2026-10-28');
    const strange = await previewOf(
      fresh.db,
      actorOf(school.stranger),
      { rule: low, scope: { of: 'mine' } },
      whole.calendar,
    );
    expect(strange).toMatchObject({ students: 0, looked: 0, found: [] });
  });
});

describe('what needs several entries, or none', () => {
  it('counts incidents as they come, four in a row too, and says it once', async () => {
    const { id } = await follow(fresh.db, school);
    await ruled({
      when: { trigger: 'often', of: 'incidents', behavior: ' LEAVES', times: 3, days: 5 },
      does: followUpOnly,
    });
    const add = (at: number) =>
      addIncident(fresh.db, {
        ...{ named: { behavior: [id('Leaves')] }, student_id: school.student, observer_id: school.manager },
        ...{ recorded_at: later(at), observed_time: `09:${10 + at}` },
      });
    await add(1);
    await add(2);
    await apply();
    expect(await followUps()).toEqual([]);
    const third = await add(3);
    await add(4);
    await apply();
    await add(5);
    await apply();
    expect((await followUps()).map(({ entryId }) => entryId)).toEqual([third]);
  });

  it('counts the times that were counted while watching, and no incident beside them', async () => {
    const student = await addStudent(fresh.db, 'Cy', [[school.manager, 'caseManager']]);
    const choices = await follow(fresh.db, { ...school, student });
    await ruled(
      { when: { trigger: 'often', of: 'counts', behavior: 'leaves', times: 5, days: 5 }, does: followUpOnly },
      { of: 'student', studentId: student },
    );
    const add = async (at: number, count: number) => {
      const id = randomUUID();
      await fresh.db('entries').insert({
        ...{ id, kind: 'count', student_id: student, target_id: choices.id('Leaves'), minutes: 30, count, note: '' },
        ...{ observed_on: today, observed_time: `09:${10 + at}`, observer_id: school.manager },
        ...{ recorded_by: school.manager, recorded_at: later(at) },
      });
      return id;
    };
    await addIncident(fresh.db, {
      ...{ named: { behavior: [choices.id('Leaves')] }, student_id: student, observer_id: school.manager },
      recorded_at: later(1),
    });
    await add(1, 2);
    await add(2, 2);
    await apply();
    expect(await followUpsOf(fresh.db, [student])).toEqual([]);
    const third = await add(3, 1);
    await apply();
    expect((await followUpsOf(fresh.db, [student])).map(({ entryId }) => entryId)).toEqual([third]);
    const { looked, found } = await previewOf(
      fresh.db,
      manager(),
      {
        rule: { when: { trigger: 'often', of: 'counts', behavior: null, times: 5, days: 5 } },
        scope: { of: 'student', studentId: student },
      },
      whole.calendar,
    );
    expect([looked, found.map(({ entryId }) => entryId)]).toEqual([3, [third]]);
  });

  it('looks once a night: quiet goals, and decisions that have changed', async () => {
    const student = await addStudent(fresh.db, 'Bo', [[school.manager, 'caseManager']]);
    const goal = await addGoal(fresh.db, student, '7');
    await ruled({ when: { trigger: 'quiet', days: 10 }, does: followUpOnly }, { of: 'student', studentId: student });
    await ruled(
      {
        when: { trigger: 'decision', decisions: ['noRecentData'] },
        does: { ...followUpOnly, followUp: { what: 'Decide', forWhom: 'maker', inDays: 0 } },
      },
      { of: 'student', studentId: student },
    );
    const whats = async () => (await followUpsOf(fresh.db, [student])).map(({ what, goalId }) => [what, goalId]);
    await lookByNight(fresh.db, whole, now);
    expect(await whats()).toEqual([]);
    const evening = new Date('2026-11-24T23:30:00Z');
    await lookByNight(fresh.db, whole, evening);
    await lookByNight(fresh.db, whole, evening);
    // Of the decision, looked at for the first time, nothing has changed.
    expect(await whats()).toEqual([['Look at the prompts', goal]]);
    await fresh.db('goal_decisions').where({ goal_id: goal }).update({ is_now: 'noChange' });
    await lookByNight(fresh.db, whole, new Date('2026-11-25T23:30:00Z'));
    expect(await whats()).toEqual(expect.arrayContaining([['Decide', goal]]));
    expect(await whats()).toHaveLength(2);
  });
});

describe('a follow-up', () => {
  const made = async (forPerson = school.aide, dueOn = today) => {
    const id = randomUUID();
    const input = {
      id,
      studentId: school.student,
      entryId: null,
      what: 'Call home',
      forPerson,
      dueOn,
      inReport: false,
    };
    await makeFollowUp(fresh.db, manager(), input, now);
    await makeFollowUp(fresh.db, manager(), input, now);
    return id;
  };

  it('is made once, handed on, put off, done with a word and reopened; and keeps what was done', async () => {
    const id = await made();
    const aide = actorOf(school.aide);
    const change = (what: object) => changeFollowUp(fresh.db, aide, id, what as never, later(1));
    await change({ what: 'handedOn', forPerson: school.manager, word: 'I am away', version: 1 });
    await change({ what: 'putOff', dueOn: '2026-12-01', word: '', version: 2 });
    await change({ what: 'done', word: 'Spoke with his aunt', version: 3 });
    await expect(change({ what: 'done', word: '', version: 3 })).rejects.toThrow(Conflict);
    expect(await followUps()).toMatchObject([{ isDone: true, forName: 'manager', dueOn: '2026-12-01', version: 4 }]);
    await change({ what: 'reopened', word: '', version: 4 });
    expect(await followUps()).toMatchObject([{ isDone: false, madeBy: 'manager', rule: null }]);
    const said = (await changesOfFollowUps(fresh.db, [id])).map(({ what, word, forName }) => [what, word, forName]);
    expect(said).toEqual([
      ['handedOn', 'I am away', 'manager'],
      ['putOff', '', null],
      ['done', 'Spoke with his aunt', null],
      ['reopened', '', null],
    ]);
  });

  it('is reminded of once, on the morning of its day, while it is open', async () => {
    const tomorrow = new Date('2026-11-25T13:00:00Z');
    const [open, done] = [await made(school.aide, '2026-11-25'), await made(school.aide, '2026-11-25')];
    await changeFollowUp(fresh.db, manager(), done, { what: 'done', word: '', version: 1 }, later(1));
    const keys = async () =>
      (await fresh.db('messages').where({ kind: 'reminder' }).pluck('key')).filter((key) =>
        [open, done].some((id) => key?.includes(id)),
      );
    await collectMessages(fresh.db, whole, later(60));
    await collectMessages(fresh.db, whole, new Date('2026-11-25T11:00:00Z'));
    expect(await keys()).toEqual([]);
    await collectMessages(fresh.db, whole, tomorrow);
    await collectMessages(fresh.db, whole, tomorrow);
    expect(await keys()).toEqual([`reminder:${open}:2026-11-25`]);
  });

  it('is for somebody on the team, and changed only by those who observe the student', async () => {
    await expect(made(school.stranger)).rejects.toThrow(Invalid);
    const id = await made();
    const change = { what: 'done' as const, word: '', version: 1 };
    await expect(changeFollowUp(fresh.db, actorOf(school.stranger), id, change, now)).rejects.toThrow(NotFound);
    await expect(changeFollowUp(fresh.db, manager(), randomUUID(), change, now)).rejects.toThrow(NotFound);
  });
});
