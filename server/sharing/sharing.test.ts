import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  carefulRules,
  everything,
  type ReportField,
  shownFields,
  type VisibilityInput,
} from '~/core/sharing/visibility-rule';
import { emptied } from '~/tests/database/emptied';
import { follow } from '~/tests/database/followed';
import { freshDatabase } from '~/tests/database/fresh';
import { rewriting } from '~/tests/database/rewriting';
import {
  actorOf,
  addIncident,
  addStudent,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
  wall,
} from '~/tests/database/small-school';
import { addEvidence } from '../entries/evidence/add';
import { recordSession } from '../entries/record';
import { goalsOf } from '../goals/goals';
import {
  canReadEntry,
  individualReport,
  PAGE_SIZE,
  type Reader,
  type ReportWanted,
} from '../individual-report/individual-report';
import type { Database } from '../platform/db/database';
import { Invalid, NotAllowed, NotFound } from '../platform/failures';
import { studentTabs } from '../students/students';
import { hideComment, sayComment, showComment } from './comments';
import { entriesNamingOthers, letNamesStand, namesIn } from './other-children';
import { makeShareLink } from './share-links';
import { saveVisibilityRules, schoolRules, visibilityRules } from './visibility';

const fresh = freshDatabase();
let school: SmallSchool;
let familyLink: string;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  await addStudent(fresh.db, 'Wren', []);
  familyLink = randomUUID();
  const way = { id: familyLink, readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2026-12-31' };
  await makeShareLink(fresh.db, actorOf(school.manager), school.student, way, now);
});

const team: Reader = { kind: 'team', linkId: null, shows: everything, discreet: false };
const family = (shows: ReportField[] = ['numbers', 'breakdown', 'note']): Reader => ({
  ...{ kind: 'family', linkId: familyLink, discreet: false },
  shows: shownFields(shows),
});
const report = async (reader: Reader, wanted: Partial<ReportWanted> = {}) =>
  individualReport(fresh.db, school.student, await goalsOf(fresh.db, [school.student]), reader, {
    ...{ only: null, find: '', page: 1, day: null, oldestFirst: false },
    ...wanted,
  });

async function observe(note = '', on = '2026-11-24') {
  const id = randomUUID();
  const outcome = { data: { trials: ['independent', 'incorrect'] }, reason: null };
  const entries = [{ id, goalId: school.goal, outcome, note }];
  const session = { on, time: '09:00', observerId: school.manager, locationId: school.kitchen, entries };
  await recordSession(fresh.db, actorOf(school.manager), school.student, session, { wall, now });
  return id;
}

const speak = async (
  speaker: Parameters<typeof sayComment>[2],
  entryId: string | null,
  text: string,
  { id = randomUUID(), reader = team } = {},
) => {
  const goals = await goalsOf(fresh.db, [school.student]);
  const mayRead = (db: Database, entry: string) => canReadEntry(db, school.student, goals, reader, entry);
  await sayComment(fresh.db, school.student, speaker, { id, entryId, text }, { wall, now, mayRead });
  return id;
};
const byFamily = () => ({ kind: 'family', linkId: familyLink }) as const;
const byTeam = () => ({ kind: 'team', personId: school.manager }) as const;

describe('what whom', () => {
  const rules = (changes: Partial<VisibilityInput>): VisibilityInput => ({ ...carefulRules, ...changes });

  it('is the school’s until a student has an own; saying the same again is none of their own', async () => {
    await makeAdmin(fresh.db, school.manager);
    const noted = { ...carefulRules.family, shows: ['numbers', 'note'] as ReportField[] };
    await saveVisibilityRules(fresh.db, actorOf(school.manager), null, rules({ family: noted }), now);
    expect((await visibilityRules(fresh.db, school.student)).rules.family.shows).toEqual(['numbers', 'note']);
    await saveVisibilityRules(fresh.db, actorOf(school.manager), school.student, rules({ family: noted }), now);
    expect((await visibilityRules(fresh.db, school.student)).own).toEqual([]);
    await saveVisibilityRules(fresh.db, actorOf(school.manager), school.student, rules({}), now);
    expect(await visibilityRules(fresh.db, school.student)).toMatchObject({ own: ['family'] });
    expect((await schoolRules(fresh.db, schoolId)).rules.family.shows).toEqual(['numbers', 'note']);
  });

  it('is for whom may share, and of the school for who sets it up', async () => {
    const save = (person: string, student: string | null) =>
      saveVisibilityRules(fresh.db, actorOf(person), student, rules({}), now);
    await expect(save(school.aide, school.student)).rejects.toThrow(NotFound);
    await expect(save(school.aide, null)).rejects.toThrow(NotFound);
  });
});

describe('the individual report', () => {
  beforeEach(async () => {
    await emptied(fresh.db, 'entries', 'comments');
  });

  it('holds what a reader may see of an entry, and no more', async () => {
    await observe('He sat beside Wren.');
    const [whole] = (await report(team)).entries;
    expect(whole).toMatchObject({ observer: 'manager', location: 'Kitchen', note: 'He sat beside Wren.' });
    const [shown] = (await report(family())).entries;
    expect(shown).toMatchObject({ observer: null, location: null, note: 'He sat beside a classmate.' });
    expect(shown?.sentence).toContain('1 of 2 seedlings');
    const [figure] = (await report(family(['numbers']))).entries;
    expect(figure).toMatchObject({ sentence: '1 of 2 (50%).', outcome: null, note: null });
    expect((await report(family([]))).entries[0]?.sentence).toBe('Observed.');
  });

  it('is of a stretch of days, both ends with it, where one is asked for', async () => {
    const entries = async (more: object) => {
      const goals = await goalsOf(fresh.db, [school.student]);
      const wanted = { ...{ only: null, find: '', page: 1, day: null, oldestFirst: false }, ...more };
      return (await individualReport(fresh.db, school.student, goals, team, wanted)).entries.map(({ on }) => on);
    };
    await observe('On this day.');
    const days = new Set(await entries({}));
    const [newest] = [...days].sort().reverse() as [string];
    expect(await entries({ from: newest, to: newest })).not.toEqual([]);
    expect(new Set(await entries({ from: newest }))).toEqual(new Set([newest]));
    expect(await entries({ to: '2020-01-01' })).toEqual([]);
    expect(new Set(await entries({ from: '2020-01-01', to: '2030-01-01' }))).toEqual(days);
  });

  it('holds no incident that is still going for who only reads, nor for readers from outside; nor its id, nor its files', async () => {
    const behavior = {
      id: randomUUID(),
      school_id: schoolId,
      student_id: school.student,
      name: 'Runs off',
      position: 0,
    };
    await fresh.db('behavior_targets').insert(behavior);
    const incident = (isGoing: boolean) =>
      addIncident(fresh.db, {
        ...{ student_id: school.student, observer_id: school.manager, is_going: isGoing },
        named: { behavior: [behavior.id] },
      });
    const [over, going] = [await incident(false), await incident(true)];
    const readsOnly: Reader = { ...team, shows: shownFields([...everything]) };
    const goals = await goalsOf(fresh.db, [school.student]);
    for (const [reader, ids] of [
      [team, [over, going]],
      [readsOnly, [over]],
      [family(['numbers', 'abc', 'pictures']), [over]],
    ] as [Reader, string[]][]) {
      const shown = await report(reader, { only: 'behavior' });
      expect(shown.entries.map((entry) => entry.id).sort()).toEqual([...ids].sort());
      expect(shown.total).toBe(ids.length);
      const reads = (entry: string) => canReadEntry(fresh.db, school.student, goals, reader, entry);
      expect([await reads(over), await reads(going)]).toEqual([true, reader === team]);
    }
    await fresh.db('team_members').where({ person_id: school.aide }).update({ rights: [] });
    const [tab] = await studentTabs(fresh.db, actorOf(school.aide));
    expect([tab?.going, tab?.goals]).toEqual([[], []]);
    await fresh.db('team_members').where({ person_id: school.aide }).update({ rights: null });
    expect((await studentTabs(fresh.db, actorOf(school.aide)))[0]?.going).toMatchObject([{ id: going }]);
    await emptied(fresh.db, 'entries', 'comments');
  });

  it('comes in pages, in either order, at a day, and only with what is looked for', async () => {
    for (let i = 0; i < PAGE_SIZE + 5; i++)
      await observe(i === 3 ? 'A red scarf' : '', i < 4 ? '2026-10-01' : '2026-11-20');
    expect(await report(team)).toMatchObject({ page: 1, pages: 2, total: PAGE_SIZE + 5 });
    expect((await report(team)).entries).toHaveLength(PAGE_SIZE);
    expect((await report(team, { page: 2 })).entries.map(({ on }) => on)).toEqual([
      '2026-11-20',
      ...Array(4).fill('2026-10-01'),
    ]);
    expect((await report(team, { page: 99 })).page).toBe(2);
    expect((await report(team, { day: '2026-10-15' })).page).toBe(2);
    expect((await report(team, { page: 'all' })).entries).toHaveLength(PAGE_SIZE + 5);
    expect((await report(team, { oldestFirst: true })).entries[0]?.on).toBe('2026-10-01');
    expect((await report(team, { find: 'RED scarf' })).total).toBe(1);
    // What is not shown is not found either: else it could be guessed word by word.
    expect((await report(family(['numbers']), { find: 'red scarf' })).total).toBe(0);
    expect((await report(team, { only: 'behavior' })).total).toBe(0);
  });

  it('shows each reader what the team answered and what they said themselves; other children’s names stay inside', async () => {
    const entry = await observe();
    await speak(byFamily(), entry, 'She told us about Wren.', { reader: family() });
    await speak(byTeam(), entry, 'Thank you.');
    const hidden = await speak(byTeam(), entry, 'Too much.');
    await hideComment(
      fresh.db,
      actorOf(school.manager),
      school.student,
      { id: hidden, reason: 'Not for everyone' },
      now,
    );
    const said = async (reader: Reader) =>
      ((await report(reader)).threads[entry] ?? []).map(({ by, text }) => `${by.name}: ${text}`);
    expect(await said(team)).toEqual([
      'Aunt Ida: She told us about Wren.',
      'manager: Thank you.',
      'manager: Too much.',
    ]);
    expect(await said(family())).toEqual(['Aunt Ida: She told us about a classmate.', 'The team: Thank you.']);
    expect(await said({ ...family(), kind: 'specialist', linkId: randomUUID() })).toEqual([]);
    await showComment(fresh.db, actorOf(school.manager), school.student, hidden);
    expect(await said(family(['observer']))).toContain('manager: Too much.');
  });

  it('takes an answer once, from whom may answer, to what they may read, until the thread is full', async () => {
    const entry = await observe();
    const id = await speak(byTeam(), entry, 'Once');
    await speak(byTeam(), entry, 'Once', { id });
    expect(await fresh.db('comments').where({ entry_id: entry })).toHaveLength(1);
    await expect(speak(byFamily(), entry, 'Another’s id', { id })).rejects.toThrow(NotFound);
    await expect(speak({ kind: 'specialist', linkId: familyLink }, entry, 'x')).rejects.toThrow(NotAllowed);
    await expect(speak(byTeam(), randomUUID(), 'x')).rejects.toThrow(NotFound);
    await expect(speak(byFamily(), null, 'No entry')).rejects.toThrow(NotFound);
    for (let i = 1; i < 12; i++) await speak(byTeam(), entry, `Answer ${i}`);
    await expect(speak(byTeam(), entry, 'One too many')).rejects.toThrow(Invalid);
    await expect(fresh.db('comments').delete()).rejects.toThrow('not removed');
  });

  it('holds the student’s reflections, for the team, the family and the student', async () => {
    const link = randomUUID();
    const way = { id: link, readerName: 'Ada', kind: 'student' as const, endsOn: '2026-12-31' };
    await makeShareLink(fresh.db, actorOf(school.manager), school.student, way, now);
    const id = await speak({ kind: 'student', linkId: link }, null, 'I like planting.');
    for (const reader of [team, family(), { ...family(), kind: 'student', linkId: link } as Reader]) {
      const { entries, threads } = await report(reader);
      expect(entries).toMatchObject([{ id, kind: 'reflection' }]);
      expect(threads[id]).toMatchObject([{ text: 'I like planting.', kind: 'reflection' }]);
    }
    const specialist = { ...family(), kind: 'specialist' } as Reader;
    expect((await report(specialist)).entries).toEqual([]);
    // Who knows its id reads no more than that, and answers nothing that is hidden.
    const goals = await goalsOf(fresh.db, [school.student]);
    const reads = (reader: Reader) => canReadEntry(fresh.db, school.student, goals, reader, id);
    expect([await reads(team), await reads(family()), await reads(specialist)]).toEqual([true, true, false]);
    const hidden = { hidden_at: now, hidden_by: school.manager, hidden_reason: 'Names another child.' };
    await fresh.db('comments').where({ id }).update(hidden);
    expect([await reads(team), await reads(family())]).toEqual([true, false]);
    await expect(speak(byFamily(), id, 'I heard of it', { reader: family() })).rejects.toThrow(NotFound);
    await fresh.db('comments').where({ id }).update({ hidden_at: null, hidden_by: null, hidden_reason: null });
  });
});

describe('other children’s names', () => {
  it('are not read outside in the choices of an ABC note either, nor in what a file is called', async () => {
    await emptied(fresh.db, 'entries', 'comments');
    const { id } = await follow(fresh.db, school);
    await fresh
      .db('behavior_options')
      .where({ id: id('Noise') })
      .update({ label: 'Wren laughed' });
    const note = await addIncident(fresh.db, {
      ...{ student_id: school.student, observer_id: school.manager },
      named: { behavior: [id('Leaves')], antecedent: [id('Noise')] },
    });
    const content = await sharp({ create: { width: 8, height: 8, channels: 3, background: 'teal' } })
      .png()
      .toBuffer();
    const file = { id: randomUUID(), entryId: note, name: 'Wren and Ada.png', content };
    await addEvidence(fresh.db, actorOf(school.manager), school.student, file, now);

    const inside = await report(team);
    expect(inside.entries[0]?.sentence).toContain('“Wren laughed”');
    expect(inside.evidence[note]).toMatchObject([{ name: 'Wren and Ada.png' }]);
    expect(await entriesNamingOthers(fresh.db, school.student, inside.entries)).toMatchObject([{ names: ['Wren'] }]);
    const outside = await report(family(['abc', 'pictures']));
    expect(outside.entries[0]?.sentence).toContain('“a classmate laughed”');
    expect(outside.evidence[note]).toMatchObject([{ name: 'A classmate and Ada.png' }]);
    expect(JSON.stringify(outside)).not.toContain('Wren');
    expect((await report(family(['numbers']))).entries).toEqual([]);
    await emptied(fresh.db, 'entries', 'comments');
  });

  it('are pointed out while writing and before anyone reads, until they are let stand; a correction asks anew', async () => {
    await emptied(fresh.db, 'entries', 'comments');
    const id = await observe('Wren helped.');
    const asked = (text: string, person = school.aide) => namesIn(fresh.db, actorOf(person), school.student, text);
    // Of a child whom the one who writes has nothing to do with, nobody is told that there is one.
    expect(await asked('with Wren and WE today')).toEqual([]);
    const [group, wren] = [randomUUID(), await fresh.db('students').where({ first_name: 'Wren' }).first('id')];
    await fresh.db('class_groups').insert({ id: group, school_id: schoolId, name: 'Garden group', position: 0 });
    const inGroup = [school.student, wren!.id].map((student_id) => ({
      student_id,
      group_id: group,
      school_id: schoolId,
    }));
    await fresh.db('student_groups').insert(inGroup);
    expect(await asked('with Wren and WE today')).toEqual(['Wren', 'WE']);
    for (let i = 0; i < 118; i++) await asked('Wren');
    await expect(asked('Wren')).rejects.toThrow(Invalid);
    await fresh.db('rate_limits').delete();
    await fresh.db('team_members').where({ person_id: school.aide }).update({ rights: [] });
    await expect(asked('Wren')).rejects.toThrow(NotFound);
    await fresh.db('team_members').where({ person_id: school.aide }).update({ rights: null });
    await expect(namesIn(fresh.db, actorOf(school.stranger), school.student, 'Wren')).rejects.toThrow(NotFound);
    const naming = async () => entriesNamingOthers(fresh.db, school.student, (await report(team)).entries);
    expect(await naming()).toMatchObject([{ id, names: ['Wren'] }]);
    const stand = (person: string, version = 1) =>
      letNamesStand(fresh.db, actorOf(person), school.student, { entryId: id, version }, now);
    await expect(stand(school.aide)).rejects.toThrow(NotFound);
    await expect(stand(school.manager, 7)).rejects.toThrow(NotFound);
    await stand(school.manager);
    expect(await naming()).toEqual([]);
    expect((await report(family())).entries[0]?.note).toBe('Wren helped.');
    await fresh
      .db('entries')
      .where({ id })
      .update({
        ...{ version: 2, note: 'Wren helped, and Wren E. watched.' },
        ...{ changed_by: school.manager, changed_at: now, change_reason: 'More of it' },
      });
    expect((await report(family())).entries[0]?.note).toBe('A classmate helped, and a classmate watched.');
    // Who comes to the school is found from then on.
    await rewriting(fresh.db, (trx) => trx('entries').where({ id }).update({ note: 'Zebedee helped.' }));
    expect((await report(family())).entries[0]?.note).toBe('Zebedee helped.');
    await addStudent(fresh.db, 'Zebedee', []);
    expect((await report(family())).entries[0]?.note).toBe('A classmate helped.');
  });
});
