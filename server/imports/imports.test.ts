import { randomUUID } from 'node:crypto';
import JSZip from 'jszip';
import { beforeAll, describe, expect, it } from 'vitest';
import type { ImportKindName } from '~/core/imports/kinds';
import { fateCounts } from '~/core/imports/preview';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addGoal,
  addPerson,
  addStudent,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
} from '~/tests/database/small-school';
import { choicesOf } from '../entries/incidents/choices';
import { goalsOf, goalsWorkedOn } from '../goals/goals';
import { joinSchool } from '../people/join';
import { Invalid, NotFound } from '../platform/failures';
import { requireSchoolAdmin } from '../school/administrators';
import { joinAwaitedTeams } from '../students/awaited';
import { roster, setCaseManager } from '../students/roster';
import { studentsOf } from '../students/students';
import { forgetImport, importPage, importsOf, saveMapping, takeOver, uploadImport } from './imports';
import { undoImport } from './undo';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  await makeAdmin(fresh.db, school.manager);
});
const moment = { now, readsOut: true };

/** Hands a file over. @returns its import */
async function upload(kind: ImportKindName, text: string | Buffer, by = school.manager, name = 'file.csv') {
  const id = randomUUID();
  await uploadImport(fresh.db, actorOf(by), { id, kind }, { name, bytes: Buffer.from(text) }, now);
  return id;
}
const previewOf = async (id: string, by = school.manager) =>
  (await importPage(fresh.db, actorOf(by), id)).open?.planned;
const entries = () => fresh.db('entries').where({ student_id: school.student, kind: 'goal', withdrawn: false });
const count = async (table: string) => Number((await fresh.db(table).count('* as n').first())?.n);

describe('past entries', () => {
  const csv = `Student,Goal,Date,Score
Ada Example,1,10/5/2026,3/5
Ada Example,1,10/6/2026,4/5
Ada Example,1,10/7/2026,Absent
Ada Example,1,10/8/2026,wonderful`;

  it('are saved only when it is said, once, and nobody is told of them', async () => {
    const id = await upload('entries', csv);
    expect(fateCounts((await previewOf(id))?.rows ?? [])).toMatchObject({ new: 3, wrong: 1 });
    expect(await entries()).toHaveLength(0);
    await fresh.db('team_members').where({ person_id: school.aide }).update({ frequency: 'entry' });
    const rule = { id: randomUUID(), school_id: schoolId, is_of_school: true, made_by: school.manager, made_at: now };
    await fresh.db('rules').insert({ ...rule, on_since: now });
    await takeOver(fresh.db, actorOf(school.manager), id, moment);
    await takeOver(fresh.db, actorOf(school.manager), id, moment);
    const written = await entries().orderBy('observed_on');
    expect(written.map(({ observed_on, data, reason }) => [observed_on, data, reason])).toEqual([
      ['2026-10-05', { counts: { gesture: 3, incorrect: 2 }, opportunities: 5 }, null],
      ['2026-10-06', { counts: { gesture: 4, incorrect: 1 }, opportunities: 5 }, null],
      ['2026-10-07', null, 'absent'],
    ]);
    expect(written[0]).toMatchObject({ observer_id: school.manager, recorded_by: school.manager });
    expect([await count('entry_events'), await count('rule_looks')]).toEqual([0, 0]);
    const page = await importPage(fresh.db, actorOf(school.manager), id);
    expect(page).toMatchObject({ open: null, listed: { parts: 3, doneAt: now } });
    const change = await fresh.db('changes').where({ what: 'import' }).first('after');
    expect(change?.after).toEqual({ file: 'file.csv', kind: 'entries', rows: 3 });
  });

  it('are not doubled by another file, nor by somebody else’s', async () => {
    const again = await upload('entries', csv);
    const aides = await upload('entries', `${csv}\nAda Example,1,10/9/2026,5/5`, school.aide);
    expect(fateCounts((await previewOf(again))?.rows ?? [])).toMatchObject({ new: 0, there: 3 });
    await expect(takeOver(fresh.db, actorOf(school.manager), again, moment)).rejects.toThrow(Invalid);
    await takeOver(fresh.db, actorOf(school.aide), aides, moment);
    expect(await entries()).toHaveLength(4);
  });

  it('are taken back as a whole; what was corrected since stays', async () => {
    const [first] = await importsOf(fresh.db, actorOf(school.manager)).then((all) =>
      all.filter(({ doneAt }) => doneAt),
    );
    const [corrected] = await entries().orderBy('observed_on');
    await fresh
      .db('entries')
      .where({ id: corrected?.id })
      .update({ note: 'Better.', version: 2, changed_by: school.manager, changed_at: now, change_reason: 'A slip.' });
    const undone = await undoImport(fresh.db, actorOf(school.manager), first?.id ?? '', now);
    expect(undone).toEqual({ takenBack: 2, stay: 1 });
    expect(await undoImport(fresh.db, actorOf(school.manager), first?.id ?? '', now)).toEqual({
      takenBack: 0,
      stay: 0,
    });
    expect((await entries().orderBy('observed_on')).map(({ observed_on }) => observed_on)).toEqual([
      '2026-10-05',
      '2026-10-09',
    ]);
    const kept = await fresh.db('entry_revisions').where({ student_id: school.student });
    expect(kept).toHaveLength(3);
  });

  it('are of those whom one observes, and an import is its maker’s', async () => {
    const id = await upload('entries', csv, school.stranger);
    expect((await previewOf(id, school.stranger))?.rows[0]?.messages[0]).toContain('nobody whom you observe');
    await expect(importPage(fresh.db, actorOf(school.manager), id)).rejects.toThrow(NotFound);
    await expect(undoImport(fresh.db, actorOf(school.manager), id, now)).rejects.toThrow(NotFound);
    await forgetImport(fresh.db, actorOf(school.stranger), id);
    await expect(importPage(fresh.db, actorOf(school.stranger), id)).rejects.toThrow(NotFound);
  });

  it('are taken back by a paraprofessional for a week, as entries one by one are', async () => {
    const id = await upload('entries', 'Student,Date,Score\nAda Example,10/15/2026,2/5', school.aide);
    await takeOver(fresh.db, actorOf(school.aide), id, moment);
    const late = new Date(now.getTime() + 8 * 864e5);
    expect(await undoImport(fresh.db, actorOf(school.aide), id, late)).toEqual({ takenBack: 0, stay: 1 });
  });

  it('wait to be looked through, and not any number of files', async () => {
    const greedy = await addPerson(fresh.db, 'greedy');
    for (let n = 0; n < 20; n++) await upload('entries', 'Student,Date,Score\nA,B,C', greedy);
    await expect(upload('entries', 'Student,Date,Score\nA,B,C', greedy)).rejects.toThrow(Invalid);
  });

  it('remember what the columns hold, for the next file with the same headings', async () => {
    const odd = 'Kid,When,Got\nAda Example,10/20/2026,2/5';
    const id = await upload('entries', odd);
    expect(await previewOf(id)).toMatchObject({ rows: [] });
    await saveMapping(fresh.db, actorOf(school.manager), id, { columns: ['student', 'on', 'score'] }, now);
    expect(fateCounts((await previewOf(id))?.rows ?? [])).toMatchObject({ new: 1 });
    const next = await upload('entries', odd.replace('10/20', '10/21'));
    expect(fateCounts((await previewOf(next))?.rows ?? [])).toMatchObject({ new: 1 });
  });

  it('of days before a goal that goes on from another plan belong to that plan, and are not judged with it', async () => {
    const student = await addStudent(fresh.db, 'Flo', [[school.manager, 'caseManager']]);
    const old = await addGoal(fresh.db, student, '1', { retired_on: '2026-10-11', retired_how: 'replaced' });
    await addGoal(fresh.db, student, '1', { continues: old, starts_on: '2026-10-12' });
    const id = await upload(
      'entries',
      'Student,Goal,Date,Score\nFlo Example,1,10/5/2026,3/5\nFlo Example,1,10/13/2026,3/5',
    );
    const rows = (await previewOf(id))?.rows ?? [];
    expect(rows.map(({ fate }) => fate)).toEqual(['wrong', 'new']);
    expect(rows[0]?.messages[0]).toContain('The plan began on Mon, Oct 12, 2026');
  });

  it('of a whole class for a year come in at once', async () => {
    const days = Array.from({ length: 40 }, (_, week) =>
      new Date(Date.UTC(2026, 0, 5 + 7 * week)).toISOString().slice(0, 10),
    );
    const names: string[] = [];
    for (let n = 0; n < 30; n++) {
      const name = `Kid${String.fromCharCode(65 + (n % 26))}${n}`;
      names.push(name);
      const student = await addStudent(fresh.db, name, [[school.manager, 'caseManager']]);
      await addGoal(fresh.db, student, '1', { starts_on: '2026-01-05' });
    }
    const rows = days.map((day, week) => [day, ...names.map((_, n) => `${(week + n) % 6}/5`)].join(','));
    const id = await upload(
      'entries',
      [['Date', ...names.map((name) => `${name} Example`)].join(','), ...rows].join('\n'),
    );
    expect(fateCounts((await previewOf(id))?.rows ?? [])).toMatchObject({ new: 1200, wrong: 0 });
    await takeOver(fresh.db, actorOf(school.manager), id, moment);
    expect((await importPage(fresh.db, actorOf(school.manager), id)).listed.parts).toBe(1200);
    expect(await undoImport(fresh.db, actorOf(school.manager), id, now)).toEqual({ takenBack: 1200, stay: 0 });
  });
});

describe('goals', () => {
  it('come in with their plan, and are retired when it is undone, unless something was recorded for them', async () => {
    const student = await addStudent(fresh.db, 'Bo', [[school.manager, 'caseManager']]);
    const id = await upload(
      'goals',
      `Student,Number,Wording,Measure,Criterion,Plan start,Plan end
Bo Example,1,Bo will ask for help 4 of 5 times.,trials,80% in 3 of 4 sessions,9/1/2026,8/31/2027
Bo Example,2,Bo will begin within 20 seconds.,latency,at most 20,,`,
    );
    await takeOver(fresh.db, actorOf(school.manager), id, moment);
    const goals = await goalsOf(fresh.db, [student]);
    expect(
      goals.map(({ number, measure, criterion, targetOn }) => [number, measure.kind, criterion.value, targetOn]),
    ).toEqual([
      ['1', 'trials', 80, '2027-08-31'],
      ['2', 'latency', 20, '2027-08-31'],
    ]);
    const past = await upload('entries', 'Student,Goal,Date,Score\nBo Example,1,10/5/2026,4/5');
    await takeOver(fresh.db, actorOf(school.manager), past, moment);
    expect(await undoImport(fresh.db, actorOf(school.manager), id, now)).toEqual({ takenBack: 1, stay: 1 });
    expect(goalsWorkedOn(await goalsOf(fresh.db, [student])).map(({ number }) => number)).toEqual(['1']);
  });
  it('are not for somebody who only observes', async () => {
    const id = await upload('goals', 'Student,Number,Wording\nAda Example,7,Ada reads.', school.aide);
    expect((await previewOf(id, school.aide))?.rows[0]?.messages.join()).toContain('nobody whose goals you set up');
  });
});

describe('incidents', () => {
  it('come in with choices that are new, and leave with them', async () => {
    const student = await addStudent(fresh.db, 'Cy', [[school.manager, 'caseManager']]);
    const csv = `Student,Date,Time,Antecedent,Behavior,Consequence,Location,Duration (min)
Cy Example,10/5/2026,9:15,Loud saw,Runs off,Redirected,Workshop,2
Cy Example,10/6/2026,9:40,Loud saw; Wait,Runs off,,,`;
    const id = await upload('incidents', csv);
    await takeOver(fresh.db, actorOf(school.manager), id, moment);
    const there = await choicesOf(fresh.db, student);
    expect(there.map(({ kind, name, state }) => [kind, name, state])).toEqual(
      expect.arrayContaining([
        ['behavior', 'Runs off', 'offered'],
        ['antecedent', 'Loud saw', 'offered'],
        ['antecedent', 'Wait', 'offered'],
        ['location', 'Workshop', 'offered'],
      ]),
    );
    const written = await fresh.db('entries').where({ student_id: student, kind: 'incident' }).orderBy('observed_on');
    expect(written.map(({ observed_time, seconds }) => [observed_time, seconds])).toEqual([
      ['09:15', 120],
      ['09:40', null],
    ]);
    const again = await upload('incidents', csv);
    expect(fateCounts((await previewOf(again))?.rows ?? [])).toMatchObject({ new: 0, there: 2 });
    expect(await undoImport(fresh.db, actorOf(school.manager), id, now)).toEqual({ takenBack: 2, stay: 0 });
    expect((await choicesOf(fresh.db, student)).every(({ state }) => state === 'retired')).toBe(true);
  });
});

describe('incidents of somebody who only observes', () => {
  it('come in, and what is new is on no list', async () => {
    const student = await addStudent(fresh.db, 'Di', [
      [school.manager, 'caseManager'],
      [school.aide, 'educator'],
    ]);
    const csv = 'Student,Date,Time,Antecedent,Behavior\nDi Example,10/5/2026,9:15,Loud saw,Runs off';
    const id = await upload('incidents', csv, school.aide);
    await takeOver(fresh.db, actorOf(school.aide), id, moment);
    const states = (await choicesOf(fresh.db, student)).map(({ name, state }) => [name, state]);
    expect(states.sort()).toEqual([
      ['Loud saw', 'other'],
      ['Runs off', 'other'],
    ]);
  });
  it('a choice that another incident names since stays offered', async () => {
    const student = await addStudent(fresh.db, 'Ed', [[school.manager, 'caseManager']]);
    const head = 'Student,Date,Time,Antecedent,Behavior';
    const first = await upload('incidents', `${head}\nEd Example,10/5/2026,9:15,Loud saw,Runs off`);
    await takeOver(fresh.db, actorOf(school.manager), first, moment);
    const next = await upload('incidents', `${head}\nEd Example,10/6/2026,9:15,Wait,Runs off`);
    await takeOver(fresh.db, actorOf(school.manager), next, moment);
    await undoImport(fresh.db, actorOf(school.manager), first, now);
    const states = (await choicesOf(fresh.db, student)).map(({ name, state }) => [name, state]);
    expect(states.sort()).toEqual([
      ['Loud saw', 'retired'],
      ['Runs off', 'offered'],
      ['Wait', 'offered'],
    ]);
  });
});

describe('a roster', () => {
  const head = 'First name,Last name,Student id,Grade,Groups,Case manager,Case manager email';
  const rosterOf = () =>
    fresh.db('students').where({ school_id: schoolId }).whereNotNull('sourced_id').orderBy('sourced_id');
  /** Says of an address in the file that it is a member of staff's. */
  const invite = async (id: string, ...invites: string[]) => {
    const { mapping } = (await fresh.db('imports').where({ id }).first('mapping'))!;
    await saveMapping(fresh.db, actorOf(school.manager), id, { ...(mapping as object), invites }, now);
  };

  it('comes in with groups and staff who are asked to join, and have their students when they do', async () => {
    const id = await upload(
      'roster',
      `${head}
Nell,Zapata,s-1,5,Oaks; Garden,Lena Ortiz,lena@school.example
Emrys,Vale,s-2,4,Oaks,Lena Ortiz,lena@school.example`,
    );
    // Nobody is asked who was not said to be staff, and nobody has the students until then.
    await invite(id, 'lena@school.example');
    const passOn = await takeOver(fresh.db, actorOf(school.manager), id, moment);
    expect(passOn.map(({ name }) => name)).toEqual(['Lena Ortiz']);
    expect(
      await fresh.db('team_members as m').join('students as s', 's.id', 'm.student_id').whereNotNull('s.sourced_id'),
    ).toEqual([]);
    expect((await rosterOf()).map(({ first_name, grade }) => [first_name, grade])).toEqual([
      ['Nell', 'Grade 5'],
      ['Emrys', 'Grade 4'],
    ]);
    expect(await fresh.db('class_groups').orderBy('position').pluck('name')).toEqual(['Oaks', 'Garden']);
    const account = { name: 'Lena Ortiz', work: 'Teacher', password: 'violet anvil parsley tin' };
    const lena = await joinSchool(fresh.db, passOn[0]?.code ?? '', { account, signedIn: null }, now);
    await fresh.db('people').where({ id: lena }).update({ email_proven_at: now });
    expect(await joinAwaitedTeams(fresh.db, actorOf(lena), now)).toBe(2);
    expect(await joinAwaitedTeams(fresh.db, actorOf(lena), now)).toBe(0);
    const theirs = await studentsOf(fresh.db, actorOf(lena));
    expect(theirs.map(({ firstName, role }) => [firstName, role])).toEqual([
      ['Emrys', 'caseManager'],
      ['Nell', 'caseManager'],
    ]);
  });

  it('does not take a student from somebody who was given them meanwhile', async () => {
    const id = await upload('roster', `${head}\nWren,Ashby,s-20,5,,Tamsin Roe,tamsin@school.example`);
    await invite(id, 'tamsin@school.example');
    const [passOn] = await takeOver(fresh.db, actorOf(school.manager), id, moment);
    const { id: wren } = (await fresh.db('students').where({ sourced_id: 's-20' }).first('id'))!;
    const admin = await requireSchoolAdmin(fresh.db, actorOf(school.manager));
    await setCaseManager(fresh.db, { id: wren, caseManagerId: school.aide }, admin, { now, isNew: false });
    const account = { name: 'Tamsin Roe', work: 'Teacher', password: 'violet anvil parsley tin' };
    const tamsin = await joinSchool(fresh.db, passOn?.code ?? '', { account, signedIn: null }, now);
    expect(await joinAwaitedTeams(fresh.db, actorOf(tamsin), now)).toBe(1);
    const team = await fresh
      .db('team_members')
      .where({ student_id: wren, until_date: null })
      .orderBy('role')
      .select('person_id', 'role');
    expect(team).toEqual(
      expect.arrayContaining([
        { person_id: school.aide, role: 'caseManager' },
        { person_id: tamsin, role: 'educator' },
      ]),
    );
    await undoImport(fresh.db, actorOf(school.manager), id, now);
  });

  it('again is an update: who is new, changed and gone; and all of it can be taken back', async () => {
    await fresh.db('students').where({ sourced_id: 's-1' }).update({ short_name: 'Nellie' });
    const id = await upload('roster', `${head}\nNell,Zapata,s-1,6,Oaks,,\nJory,Whitlock,s-3,4,,,`);
    const table = ['firstName', 'lastName', 'sourcedId', 'grade', 'groups', 'manager', 'managerEmail'];
    await saveMapping(
      fresh.db,
      actorOf(school.manager),
      id,
      { columns: table, managerId: school.manager, isWhole: true },
      now,
    );
    expect(fateCounts((await previewOf(id))?.rows ?? [])).toMatchObject({ new: 1, changed: 1, gone: 1 });
    await takeOver(fresh.db, actorOf(school.manager), id, moment);
    const after = (await rosterOf()).map(({ first_name, grade, archived_at }) => [
      first_name,
      grade,
      archived_at !== null,
    ]);
    expect(after).toEqual([
      ['Nell', 'Grade 6', false],
      ['Emrys', 'Grade 4', true],
      ['Jory', 'Grade 4', false],
    ]);
    expect(await undoImport(fresh.db, actorOf(school.manager), id, now)).toEqual({ takenBack: 3, stay: 0 });
    expect((await rosterOf()).map(({ short_name }) => short_name)).toEqual(['Nellie', 'Emrys V.']);
    const back = (await rosterOf()).map(({ first_name, grade, archived_at }) => [
      first_name,
      grade,
      archived_at !== null,
    ]);
    expect(back).toEqual([
      ['Nell', 'Grade 5', false],
      ['Emrys', 'Grade 4', false],
    ]);
    const jory = await fresh.db('students').where({ first_name: 'Jory' }).first('archived_at');
    expect(jory?.archived_at).not.toBeNull();
    // Nobody whom it brought is on any list, nor anybody's namesake.
    const admin = await requireSchoolAdmin(fresh.db, actorOf(school.manager));
    expect(
      (await roster(fresh.db, admin, { isArchived: true })).students.map(({ firstName }) => firstName),
    ).not.toContain('Jory');
    const again = await upload('roster', `${head}\nJory,Whitlock,s-3,4,,,`);
    expect((await previewOf(again))?.rows[0]).toMatchObject({ fate: 'new', messages: [] });
    const groups = await fresh
      .db('student_groups as m')
      .join('students as s', 's.id', 'm.student_id')
      .where({ 's.sourced_id': 's-1' });
    expect(groups).toHaveLength(2);
  });

  it('is read from OneRoster 1.2, and only by who sets up the school', async () => {
    const zip = new JSZip();
    const files = {
      'manifest.csv': 'propertyName,value\noneroster.version,1.2',
      'orgs.csv': 'sourcedId,name,type\no1,Test School,school',
      'academicSessions.csv': 'sourcedId,title,startDate,endDate\nt1,Fall,2026-09-01,2027-01-31',
      'classes.csv': 'sourcedId,title,schoolSourcedId,termSourcedIds\nc1,Workshop A,o1,t1',
      'users.csv': `sourcedId,status,enabledUser,givenName,familyName,email,grades
u1,,true,Fenna,Ostrow,,03\nu2,,true,Maeve,Rourke,maeve@school.example,\nu3,,true,Tove,Lund,tove@school.example,`,
      'roles.csv': 'sourcedId,userSourcedId,role,orgSourcedId\nr1,u1,student,o1\nr2,u2,teacher,o1\nr3,u3,teacher,o1',
      'enrollments.csv': `sourcedId,classSourcedId,userSourcedId,role,primary
e1,c1,u1,student,\ne2,c1,u2,teacher,false\ne3,c1,u3,teacher,true`,
    };
    for (const [name, text] of Object.entries(files)) zip.file(name, text);
    const bytes = await zip.generateAsync({ type: 'nodebuffer' });
    const aide = await addPerson(fresh.db, 'noadmin');
    await expect(upload('roster', bytes, aide, 'roster.zip')).rejects.toThrow(NotFound);
    await expect(upload('entries', bytes, school.manager, 'roster.zip')).rejects.toThrow(Invalid);
    const id = await upload('roster', bytes, school.manager, 'roster.zip');
    const rows = (await previewOf(id))?.rows ?? [];
    expect(rows.find(({ about }) => about === 'Fenna Ostrow')).toMatchObject({
      fate: 'new',
      says: 'Grade 3 · Workshop A · Tove Lund',
    });
    await invite(id, 'tove@school.example', 'maeve@school.example');
    const passOn = await takeOver(fresh.db, actorOf(school.manager), id, moment);
    expect(passOn.map(({ name }) => name)).toEqual(['Tove Lund', 'Maeve Rourke']);
    const awaited = await fresh.db('awaited_members').orderBy('role').select('email', 'role');
    expect(awaited).toEqual([
      { email: 'tove@school.example', role: 'caseManager' },
      { email: 'maeve@school.example', role: 'educator' },
    ]);
  });
});
