// The second line of defence: with every check of the program taken out, the database itself shows no other student's row, and lets
// nothing that was written down be taken away.
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dropDatabase, newName, urlOf } from '~/tests/database/databases';
import { follow, incidentInputOf } from '~/tests/database/followed';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addGoal,
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
import { correctObservation } from '../../entries/change';
import { recordIncident } from '../../entries/incidents/record-incident';
import { recordSession } from '../../entries/record';
import { doorOf } from '../../sharing/doors';
import { makeShareLink } from '../../sharing/share-links';
import { tell } from './asking';
import { connect, type Database } from './database';
import { guard, kept, roles, visible, writtenOnce } from './guard';
import { migrate } from './migrate';

const fresh = freshDatabase();
let app: Database;
let worker: Database;
let school: SmallSchool;
let ben: string;
let bens: { goal: string; entry: string };

beforeAll(async () => {
  school = await smallSchool(fresh.db);
  app = connect(fresh.url, { poolSize: 1, as: 'app' });
  worker = connect(fresh.url, { poolSize: 1, as: 'worker' });
  // Ben is the stranger's student: nobody of Ada's team has to do with him.
  ben = await addStudent(fresh.db, 'Ben', [[school.stranger, 'caseManager']]);
  const goal = await addGoal(fresh.db, ben);
  for (const [person, student, of] of [
    [school.manager, school.student, school.goal],
    [school.stranger, ben, goal],
  ] as const) {
    const session = sessionOf({ ...school, goal: of, manager: person }, ['independent', 'gesture']);
    const [entry] = (await recordSession(fresh.db, actorOf(person), student, session, { wall, now })).ids as [string];
    const outcome = { data: { trials: ['gesture'] }, reason: null };
    const why = { version: 1, why: 'Counted anew.' };
    await correctObservation(
      fresh.db,
      actorOf(person),
      { studentId: student, entryId: entry },
      { ...session, outcome, note: '', ...why },
      { wall, now },
    );
    if (student === ben) bens = { goal, entry };
  }
  const { id } = await follow(fresh.db, school);
  const moment = { wall, now, timeZone: 'America/New_York' };
  const note = incidentInputOf(school, [id('Leaves')], { antecedents: [id('Noise')] });
  await recordIncident(fresh.db, actorOf(school.manager), school.student, note, moment);
});
afterAll(() => Promise.all([app.destroy(), worker.destroy()]));

const as = <Result>(person: string, work: (db: Database) => Promise<Result>) =>
  app.transaction(async (trx) => {
    await tell(trx, actorOf(person));
    return work(trx);
  });

describe('a row of a student', () => {
  it('is guarded in every table that has one', async () => {
    const found = await fresh.db.raw<{ rows: { table: string; guarded: boolean; forced: boolean }[] }>(
      `select c.relname as table, c.relrowsecurity as guarded, c.relforcerowsecurity as forced
         from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind = 'r'`,
    );
    const columns = await fresh
      .db('information_schema.columns')
      .where({ table_schema: 'public', column_name: 'student_id' });
    const isView = ({ table_name }: { table_name: string }) => table_name === 'behavior_choices';
    const withStudents = columns.filter((one) => !isView(one)).map(({ table_name }) => table_name as string);
    expect(withStudents.filter((table) => !(table in visible))).toEqual([]);
    const open = found.rows.filter(({ table, guarded, forced }) => table in visible && !(guarded && forced));
    expect(open).toEqual([]);
    // What is not guarded holds nothing of a student.
    const rest = found.rows
      .map(({ table }) => table)
      .filter((table) => !(table in visible))
      .sort();
    expect(rest).toEqual(
      [
        ...[
          'account_links',
          'account_link_tokens',
          'calendar_addresses',
          'device_factors',
          'district_accounts',
          'half_sign_ins',
          'recovery_codes',
          'second_factors',
        ],
        ...['class_groups', 'closures', 'goal_bank', 'heartbeats', 'knex_migrations', 'knex_migrations_lock'],
        ...[
          'known_devices',
          'locations',
          'message_templates',
          'people',
          'opened_devices',
          'rate_limits',
          'rounds',
          'rule_nights',
          'school_staff',
          'schools',
          'sealing_keys',
        ],
        ...['set_up_codes', 'sign_in_sessions', 'test_mail_rules'],
      ].sort(),
    );
  });

  it('is seen by whoever is on the team that day, and by nobody else, with no check of the program at all', async () => {
    const everything = async (db: Database) => {
      const seen: Record<string, Set<string>> = {};
      for (const table of ['entries', 'entry_revisions', 'goals', 'incident_choices', 'behavior_targets']) {
        seen[table] = new Set((await db(table).select('student_id')).map(({ student_id }) => student_id as string));
      }
      return seen;
    };
    const ada = new Set([school.student]);
    expect(await as(school.manager, everything)).toEqual({
      ...{ entries: ada, entry_revisions: ada, goals: ada, incident_choices: ada, behavior_targets: ada },
    });
    expect(await as(school.stranger, async (db) => new Set(await db('entries').pluck('student_id')))).toEqual(
      new Set([ben]),
    );
    // Who has not said who they are sees nothing.
    expect(await app('entries')).toEqual([]);
    expect(await app('students')).toEqual([]);
    // What is seen through another table, too.
    expect(await as(school.manager, (db) => db('goal_measures').where({ goal_id: bens.goal }))).toEqual([]);
    expect(await as(school.stranger, (db) => db('goal_measures').where({ goal_id: bens.goal }))).toHaveLength(1);
    // Outside of their time they see nothing.
    const later = { personId: school.manager, today: '2026-08-31' };
    const before = await app.transaction(async (trx) => {
      await tell(trx, later);
      return trx('entries');
    });
    expect(before).toEqual([]);
  });

  it('is written for one’s own students only', async () => {
    const row = {
      ...{ id: randomUUID(), kind: 'goal' as const, goal_id: bens.goal, measure_version: 1, student_id: ben, note: '' },
      ...{ observed_on: today, observed_time: '09:00', observer_id: school.manager, recorded_by: school.manager },
      ...{ recorded_at: now, reason: 'absent' as const },
    };
    await expect(as(school.manager, (db) => db('entries').insert(row))).rejects.toThrow('row-level security');
    await as(school.stranger, (db) => db('entries').insert(row));
    const changed = await as(school.manager, (db) => db('goals').where({ id: bens.goal }).update({ area: 'Mine' }));
    expect(changed).toBe(0);
  });

  it('is on the roster of an administrator, and nothing that was observed', async () => {
    const admin = school.aide;
    await fresh.db('team_members').where({ person_id: admin }).update({ until_date: '2026-11-01' });
    await makeAdmin(fresh.db, admin);
    const names = await as(admin, (db) => db('students').orderBy('first_name').pluck('first_name'));
    expect(names).toEqual(['Ada', 'Ben']);
    expect(await as(admin, (db) => db('team_members').where({ role: 'caseManager' }))).toHaveLength(2);
    expect(await as(admin, (db) => db('entries'))).toEqual([]);
    expect(await as(admin, (db) => db('goals'))).toEqual([]);
    expect(await as(admin, (db) => db('share_links'))).toEqual([]);
  });

  it('is seen by whoever comes by a link to this student, and no other', async () => {
    const way = { id: randomUUID(), readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2026-12-31' };
    const token = (await makeShareLink(fresh.db, actorOf(school.manager), school.student, way, now)) as string;
    const door = await doorOf(app, token);
    expect(door).toMatchObject({ studentId: school.student, school: { name: 'Test School' } });
    expect(await doorOf(app, `${token}x`)).toBeNull();
    const seen = await app.transaction(async (trx) => {
      await tell(trx, { doorTo: door?.studentId as string });
      return trx('entries').distinct('student_id').pluck('student_id');
    });
    expect(seen).toEqual([school.student]);
  });

  it('is not read in what it stands in by name: a file that somebody else asked for, or a message, where it is no demo', async () => {
    const batch = {
      id: randomUUID(),
      school_id: schoolId,
      label: 'All',
      students: ['Ada E.'],
      what: 'running' as const,
    };
    await fresh.db('document_batches').insert({ ...batch, made_by: school.manager, made_at: now });
    const mail = {
      message_id: '<1>',
      recipient: 'ida@home.example',
      subject: 'Ada',
      body: 'Ada laughed.',
      headers: {},
    };
    await fresh.db('test_mail_inbox').insert({ ...mail, arrived_at: now });
    const seen = (person: string, table: string) => as(person, async (db) => (await db(table)).length);
    expect([await seen(school.manager, 'document_batches'), await seen(school.stranger, 'document_batches')]).toEqual([
      1, 0,
    ]);
    // The aide administers the school by now.
    expect([await seen(school.aide, 'test_mail_inbox'), await seen(school.manager, 'test_mail_inbox')]).toEqual([0, 0]);
    await fresh.db('schools').update({ is_demo: true });
    expect([await seen(school.aide, 'test_mail_inbox'), await seen(school.manager, 'test_mail_inbox')]).toEqual([1, 0]);
    await fresh.db('schools').update({ is_demo: false });
  });

  it('is seen by the worker, who is no person', async () => {
    expect(new Set(await worker('entries').pluck('student_id'))).toEqual(new Set([school.student, ben]));
  });
});

describe('the application’s role', () => {
  it.each(writtenOnce)('adds to %s, and neither changes nor removes what is there', async (table) => {
    for (const attempt of ['delete from ??', 'truncate ??']) {
      await expect(as(school.manager, (db) => db.raw(attempt, [table]))).rejects.toThrow('permission denied');
    }
    const { column_name: column } = await fresh
      .db('information_schema.columns')
      .where({ table_schema: 'public', table_name: table, is_identity: 'NO' })
      .first();
    await expect(as(school.manager, (db) => db.raw('update ?? set ?? = ??', [table, column, column]))).rejects.toThrow(
      'permission denied',
    );
  });

  it.each(kept)('removes nothing from %s', async (table) => {
    for (const attempt of ['delete from ??', 'truncate ?? cascade']) {
      await expect(as(school.manager, (db) => db.raw(attempt, [table]))).rejects.toThrow('permission denied');
    }
  });

  it('runs what runs as the owner with names looked up in our own tables first, and is the only one who may', async () => {
    const { rows } = await fresh.db.raw<{ rows: { name: string; path: string[] | null; rights: string[] }[] }>(
      `select p.proname as name, p.proconfig as path, array(select case when grantee = 0 then 'public' else grantee::regrole::text end
                from aclexplode(p.proacl) where grantee <> p.proowner order by 1) as rights
         from pg_proc p where p.pronamespace = 'public'::regnamespace and p.prosecdef`,
    );
    expect(rows.length).toBeGreaterThan(20);
    for (const { name, path, rights } of rows) {
      expect(path, name).toEqual(['search_path=public, pg_temp']);
      expect(rights, name).toEqual([...Object.values(roles)].sort());
    }
  });

  it('sees the forms of schools where the one who asks works, and of no other', async () => {
    const elsewhere = randomUUID();
    await fresh
      .db('schools')
      .insert({ id: elsewhere, name: 'Elsewhere', time_zone: 'America/New_York', weekdays: [1] });
    const form = (school_id: string) => ({
      ...{ id: randomUUID(), school_id, side: 'staff' as const, made_by: school.manager, made_at: now },
    });
    const [own, foreign] = [form(schoolId), form(elsewhere)];
    await fresh.db('forms').insert([own, foreign]);
    const seen = await as(school.manager, (db) => db('forms').whereIn('id', [own.id, foreign.id]).pluck('id'));
    expect(seen).toEqual([own.id]);
    expect(await as(school.manager, (db) => db('forms').where({ id: foreign.id }).update({ closed_at: now }))).toBe(0);
  });

  it('changes an entry by a new version only', async () => {
    const id = await as(
      school.manager,
      async (db) => (await db('entries').where({ kind: 'goal' }).first('id'))!.id as string,
    );
    const silently = as(school.manager, (db) => db('entries').where({ id }).update({ note: 'Never said.' }));
    await expect(silently).rejects.toThrow('by a new version only');
    await expect(
      as(school.manager, (db) => db('entries').where({ id }).update({ recorded_by: school.aide })),
    ).rejects.toThrow();
  });

  it('is no superuser, makes no tables, and cannot read who has migrated what', async () => {
    const [{ super: isSuper, bypasses }] = (
      await app.raw(`select rolsuper as super, rolbypassrls as bypasses from pg_roles where rolname = current_user`)
    ).rows;
    expect([isSuper, bypasses]).toEqual([false, false]);
    await expect(app.raw('create table mine (id int)')).rejects.toThrow('permission denied');
    await expect(app('knex_migrations')).rejects.toThrow('permission denied');
  });
});

describe('a database whose user may not make roles', () => {
  const [user, name] = [`gm_plain_${randomUUID().slice(0, 8)}`, newName('plain')];
  const url = () => Object.assign(new URL(urlOf(name)), { username: user, password: 'plain' }).href;
  let owner: Database;
  beforeAll(async () => {
    owner = connect(urlOf('postgres'), { poolSize: 1 });
    await owner.raw(`create role ${user} login password 'plain'`);
    await owner.raw(`grant ${user} to current_user`);
    await owner.raw(`create database ${name} owner ${user}`);
  });
  afterAll(async () => {
    await dropDatabase(name);
    await owner.raw(`drop role ${user}`);
    await owner.destroy();
  });

  it('is told of in a sentence, and is used with the program’s checks alone only where somebody has said so', async () => {
    await expect(migrate(url())).rejects.toThrow(/may not make roles.*ROW_SECURITY=off/);
    await migrate(url(), { hasGuard: false });
    const db = connect(url(), { poolSize: 1 });
    expect(await db('schools')).toEqual([]);
    await db.destroy();
  });
});

it('the guard is put up once, and again where its owner is another one or it is not as this version has it', async () => {
  const markOf = async () =>
    (await fresh.db.raw(`select obj_description('visible_students()'::regprocedure, 'pg_proc') as mark`)).rows[0].mark;
  const before = await markOf();
  await guard(fresh.db);
  expect(await markOf()).toBe(before);
  await fresh.db.raw('drop policy app_theirs on entries');
  await fresh.db.raw(`comment on function visible_students() is 'of another version'`);
  expect(await as(school.manager, (db) => db('entries'))).toEqual([]);
  await guard(fresh.db);
  expect(await markOf()).toBe(before);
  expect((await as(school.manager, (db) => db('entries'))).length).toBeGreaterThan(0);
});
