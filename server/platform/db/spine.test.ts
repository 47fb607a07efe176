// What the tables themselves refuse, whatever the program does.
import { randomBytes, randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { follow } from '~/tests/database/followed';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addGoal,
  addIncident,
  addStudent,
  now,
  type SmallSchool,
  schoolId,
  sessionOf,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { recordSession } from '../../entries/record';
import { makeShareLink } from '../../sharing/share-links';

const fresh = freshDatabase();
let school: SmallSchool;
/** Another student of the same case manager, with a goal and an entry. */
let ben: { id: string; goal: string; entry: string };
let entry: string;
let id: (name: string) => string;

const record = async (student: string, goal: string) => {
  const session = sessionOf({ ...school, goal }, ['independent']);
  return (await recordSession(fresh.db, actorOf(school.manager), student, session, { wall, now })).ids[0] as string;
};

beforeAll(async () => {
  school = await smallSchool(fresh.db);
  const other = await addStudent(fresh.db, 'Ben', []);
  await fresh.db('team_members').insert({
    ...{ student_id: other, person_id: school.manager, role: 'caseManager', from_date: '2026-09-01' },
  });
  const goal = await addGoal(fresh.db, other);
  ben = { id: other, goal, entry: await record(other, goal) };
  entry = await record(school.student, school.goal);
  ({ id } = await follow(fresh.db, school));
});

/** Which rule a statement breaks. */
const broken = (statement: PromiseLike<unknown>) =>
  Promise.resolve(statement).then(
    () => 'nothing',
    ({ code, constraint }) => constraint ?? code,
  );
const insert = (table: string, row: object) => broken(fresh.db(table).insert(row));

describe('plans', () => {
  const plan = (starts_on: string, ends_on: string) => ({
    id: randomUUID(),
    student_id: school.student,
    starts_on,
    ends_on,
  });
  it('stand in a row: the next year’s begins after this year’s, and none overlaps', async () => {
    const thisYear = plan('2026-09-08', '2027-06-11');
    expect(await insert('plans', thisYear)).toBe('nothing');
    expect(await insert('plans', plan('2027-06-11', '2028-06-09'))).toBe('plans_overlap');
    expect(await insert('plans', plan('2027-06-12', '2028-06-09'))).toBe('nothing');
    expect(await insert('plans', plan('2026-12-01', '2026-11-01'))).toBe('plans_check');
    // Another student's is another matter.
    expect(await insert('plans', { ...thisYear, id: randomUUID(), student_id: ben.id })).toBe('nothing');
  });

  it('hold their reporting periods, also when their dates are moved', async () => {
    const { id: planId } = (await fresh
      .db('plans')
      .where({ student_id: school.student, starts_on: '2026-09-08' })
      .first('id'))!;
    const period = { plan_id: planId, label: 'Quarter 1' };
    expect(await insert('reporting_periods', { ...period, ends_on: '2026-12-04' })).toBe('nothing');
    expect(await insert('reporting_periods', { ...period, ends_on: '2027-07-01' })).toBe('reporting_periods_in_plan');
    expect(await insert('reporting_periods', { ...period, ends_on: '2026-12-04' })).toBe('reporting_periods_end');
    const shorter = fresh.db('plans').where({ id: planId }).update({ ends_on: '2026-12-01' });
    expect(await broken(shorter)).toBe('reporting_periods_in_plan');
    // One that was removed is in nobody's way.
    await fresh.db('reporting_periods').where({ plan_id: planId }).update({ removed_at: now });
    expect(await broken(fresh.db('plans').where({ id: planId }).update({ ends_on: '2026-12-01' }))).toBe('nothing');
  });

  it('are those of the goal’s own student', async () => {
    const { id: bens } = (await fresh.db('plans').where({ student_id: ben.id }).first('id'))!;
    expect(await broken(fresh.db('goals').where({ id: school.goal }).update({ plan_id: bens }))).toMatch(/plan_id/);
    expect(await broken(fresh.db('goals').where({ id: ben.goal }).update({ plan_id: bens }))).toBe('nothing');
  });
});

describe('a support team', () => {
  const stay = (person_id: string, role: string, from_date: string, until_date: string | null = null) => ({
    ...{ student_id: school.student, person_id, role, from_date, until_date },
  });
  it('has one case manager on each day', async () => {
    expect(await insert('team_members', stay(school.stranger, 'caseManager', '2026-12-01'))).toBe('one_case_manager');
    expect(await insert('team_members', stay(school.stranger, 'caseManager', '2025-09-01', '2026-08-31'))).toBe(
      'nothing',
    );
  });
  it('has each of its members once on each day, who may leave and come back', async () => {
    expect(await insert('team_members', stay(school.aide, 'educator', '2026-12-01'))).toBe('team_members_once');
    await fresh.db('team_members').where({ person_id: school.aide }).update({ until_date: '2026-10-31' });
    expect(await insert('team_members', stay(school.aide, 'educator', '2026-12-01'))).toBe('nothing');
  });
});

describe('a goal', () => {
  it('has the measure that it says it is measured by', async () => {
    const missing = fresh.db('goals').where({ id: school.goal }).update({ measure_version: 2 });
    expect(await broken(missing)).toBe('goals_measure');
    const { id: _, ...row } = (await fresh.db('goals').where({ id: school.goal }).first())!;
    expect(await insert('goals', { ...row, id: randomUUID(), number: '9' })).toBe('goals_measure');
  });
  it('asks in its criterion for no more points than it looks at', async () => {
    const change = (columns: object) => broken(fresh.db('goals').where({ id: school.goal }).update(columns));
    expect(await change({ rule_k: 5, rule_n: 4 })).toMatch(/check/);
    expect(await change({ rule: 'inARow', rule_k: 3, rule_n: 4 })).toMatch(/check/);
    expect(await change({ rule: 'inARow', rule_k: 3, rule_n: 3 })).toBe('nothing');
  });
});

describe('the starting lists of a school', () => {
  it('name nothing twice, and a student’s own may repeat them', async () => {
    const target = { school_id: schoolId, student_id: null, name: 'Runs off', position: 0 };
    expect(await insert('behavior_targets', { ...target, id: randomUUID() })).toBe('nothing');
    expect(await insert('behavior_targets', { ...target, id: randomUUID() })).toBe('behavior_targets_name');
    expect(await insert('behavior_targets', { ...target, id: randomUUID(), student_id: ben.id })).toBe('nothing');
    const option = { school_id: schoolId, student_id: null, facet: 'antecedent', label: 'Noise', position: 0 };
    expect(await insert('behavior_options', { ...option, id: randomUUID() })).toBe('nothing');
    expect(await insert('behavior_options', { ...option, id: randomUUID() })).toBe('behavior_options_label');
    expect(await insert('behavior_options', { ...option, id: randomUUID(), facet: 'consequence' })).toBe('nothing');
  });
});

describe('an incident', () => {
  const observed = () => ({ student_id: school.student, observer_id: school.manager });
  it('names a behavior, of its student’s own lists, and each thing once', async () => {
    const named = { behavior: [id('Leaves')] };
    expect(await broken(addIncident(fresh.db, { ...observed(), named }))).toBe('nothing');
    const nothing = { antecedent: [id('Noise')] };
    expect(await broken(addIncident(fresh.db, { ...observed(), named: nothing }))).toBe('incidents_name_a_behavior');
    const bens = await fresh.db('behavior_targets').where({ student_id: ben.id }).first('id');
    expect(await broken(addIncident(fresh.db, { ...observed(), named: { behavior: [bens!.id] } }))).toMatch(
      /target_id/,
    );
    const facet = { ...named, consequence: [id('Noise')] };
    expect(await broken(addIncident(fresh.db, { ...observed(), named: facet }))).toMatch(/option_id/);
    const twice = { ...named, antecedent: [id('Noise'), id('Noise')] };
    expect(await broken(addIncident(fresh.db, { ...observed(), named: twice }))).toMatch(/key/);
    const strong = { ...named, intensity: [id('1'), id('2')] };
    expect(await broken(addIncident(fresh.db, { ...observed(), named: strong }))).toMatch(/check/);
  });
  it('has a length or is still going, and was resolved after some time only where it was', async () => {
    const named = { behavior: [id('Leaves')] };
    const incident = (more: object) => broken(addIncident(fresh.db, { ...observed(), named, ...more }));
    expect(await incident({ is_going: true, seconds: 30 })).toBe('entries_incident');
    expect(await incident({ seconds: 0 })).toBe('entries_incident');
    expect(await incident({ resolved: false, resolved_after: 60 })).toBe('entries_incident');
    expect(await incident({ beside_id: school.manager })).toBe('entries_check');
  });
});

describe('a count', () => {
  it('is of a behavior, in a window of watching; none is a count too', async () => {
    const row = {
      ...{ kind: 'count', student_id: school.student, target_id: id('Leaves'), minutes: 30, count: 0, note: '' },
      ...{ observed_on: today, observed_time: '09:00', observer_id: school.manager, recorded_by: school.manager },
      recorded_at: now,
    };
    const count = (more: object) => insert('entries', { id: randomUUID(), ...row, ...more });
    expect(await count({})).toBe('nothing');
    expect(await count({ minutes: null })).toBe('entries_count');
    expect(await count({ minutes: 0 })).toMatch(/minutes/);
    expect(await count({ count: -1 })).toMatch(/count/);
    expect(await count({ target_id: null })).toBe('entries_count');
    expect(await count({ data: { trials: [] } })).toBe('entries_goal');
  });
});

describe('what hangs on an entry', () => {
  it('is of the entry’s own student', async () => {
    const way = { id: randomUUID(), readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2026-12-31' };
    await makeShareLink(fresh.db, actorOf(school.manager), school.student, way, now);
    const said = { said_on: today, said_time: '09:00', said_at: now, text: 'Well done.', kind: 'comment' };
    const comment = { ...said, student_id: school.student, person_id: school.manager };
    expect(await insert('comments', { id: randomUUID(), ...comment, entry_id: entry })).toBe('nothing');
    expect(await insert('comments', { id: randomUUID(), ...comment, entry_id: ben.entry })).toMatch(/entry_id/);
    expect(await insert('comments', { id: randomUUID(), ...comment, entry_id: randomUUID() })).toMatch(/entry_id/);
    const byLink = { ...said, student_id: ben.id, entry_id: ben.entry, link_id: way.id };
    expect(await insert('comments', { id: randomUUID(), ...byLink })).toMatch(/link_id/);

    const file = {
      name: 'plan.pdf',
      type: 'application/pdf',
      bytes: 1,
      content: Buffer.from('x'),
      added_by: school.manager,
    };
    const evidence = { ...file, added_at: now, student_id: school.student };
    expect(await insert('evidence', { id: randomUUID(), ...evidence, entry_id: entry })).toBe('nothing');
    expect(await insert('evidence', { id: randomUUID(), ...evidence, entry_id: ben.entry })).toMatch(/entry_id/);

    const kept = { version: 1, student_id: school.student, kept_by: school.manager, kept_at: now };
    expect(await insert('kept_names', { ...kept, entry_id: ben.entry })).toMatch(/entry_id/);
    expect(await insert('kept_names', { ...kept, entry_id: entry })).toBe('nothing');

    const read = { student_id: ben.id, link_id: way.id, what: 'report', how: 'opened', at: now, day: today };
    expect(await insert('access_log', read)).toMatch(/link_id/);
    expect(await insert('entry_events', { student_id: ben.id, entry_id: entry, made_at: now })).toMatch(/entry_id/);
  });

  it('is told of by messages and issued reports of the same student', async () => {
    const message = {
      ...{
        id: randomUUID(),
        key: 'one',
        kind: 'entry' as const,
        student_id: school.student,
        person_id: school.manager,
      },
      ...{ to_name: 'x', to_email: 'x@school.example', state: 'waiting' as const, not_before: now, made_at: now },
    };
    await fresh.db('messages').insert(message);
    const told = { message_id: message.id, position: 0 };
    expect(await insert('message_entries', { ...told, student_id: school.student, entry_id: entry })).toBe('nothing');
    expect(await insert('message_entries', { ...told, student_id: school.student, entry_id: ben.entry })).toMatch(
      /entry_id/,
    );
    expect(await insert('message_entries', { ...told, student_id: ben.id, entry_id: ben.entry })).toMatch(/message_id/);
  });

  it('is a link to a door that is hashed', async () => {
    const link = await fresh.db('share_links').first('id');
    const token = { link_id: link!.id, made_at: now };
    expect(await insert('share_link_tokens', { ...token, token_hash: Buffer.from('short') })).toMatch(/token_hash/);
    expect(await insert('share_link_tokens', { ...token, token_hash: randomBytes(32) })).toBe('nothing');
  });
});

describe('what was recorded', () => {
  it('keeps its row as it was with each new version, and says who changed it and why', async () => {
    const before = await fresh.db('entries').where({ id: entry }).first();
    const change = {
      version: 2,
      note: 'More.',
      changed_by: school.manager,
      changed_at: now,
      change_reason: 'Forgotten.',
    };
    await fresh.db('entries').where({ id: entry }).update(change);
    const [revision] = await fresh.db('entry_revisions').where({ entry_id: entry });
    expect(revision).toMatchObject({
      version: 1,
      changed_by: school.manager,
      reason: 'Forgotten.',
      student_id: school.student,
    });
    expect(revision!.row).toMatchObject({ note: '', version: 1, data: before!.data, observed_on: before!.observed_on });
  });
  it('is changed by its next version only, which says why', async () => {
    const change = (columns: object) => broken(fresh.db('entries').where({ id: entry }).update(columns));
    expect(await change({ note: 'Silently.' })).toBe('23001');
    expect(await change({ version: 9, changed_by: school.manager, changed_at: now, change_reason: 'x' })).toBe('23001');
    expect(await change({ version: 3, change_reason: null })).toMatch(/check|null|not-null|23502/);
    expect(await change({ student_id: ben.id, version: 3 })).not.toBe('nothing');
    expect(await broken(fresh.db('entries').where({ id: entry }).delete())).toBe('23001');
    expect(await broken(fresh.db.raw('truncate entries cascade'))).toBe('23001');
  });
});
