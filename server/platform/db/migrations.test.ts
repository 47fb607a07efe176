// Each migration is tested from a dump of the schema before it, with data: nothing is lost, and all of it can be read.
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import pg from 'pg';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { dropDatabase, makeDatabase, newName, urlOf } from '~/tests/database/databases';
import { accessTo, today } from '~/tests/database/small-school';
import { countsOf } from '../../entries/incidents/counts';
import { newestIncidents } from '../../entries/incidents/incidents';
import { observationOf, observationRevisions, observationsOf } from '../../entries/read';
import { goalsOf } from '../../goals/goals';
import { issuedOf, issuedReport } from '../../progress-report/issued';
import { allSchools } from '../../school/school';
import { visibilityRules } from '../../sharing/visibility';
import { planOf } from '../../students/plan';
import { connect, type Database } from './database';
import { migrate, migrations } from './migrate';

const folder = 'tests/database/dumps';
const dumps = readdirSync(folder).filter((file) => file.endsWith('.sql'));

async function restore(name: string, dump: string): Promise<void> {
  await makeDatabase(name);
  const client = new pg.Client({ connectionString: urlOf(name) });
  await client.connect();
  await client.query('create extension if not exists btree_gist');
  await client.query(readFileSync(`${folder}/${dump}`, 'utf8'));
  await client.end();
}

it('there is a dump of each migration, for the next one to begin from', () => {
  expect(dumps.map((file) => file.replace('.sql', ''))).toEqual(Object.keys(migrations));
});

describe.each(dumps)('from %s', (dump) => {
  const name = newName('migrated');
  let db: Database;
  let before: Record<string, number>;

  const counts = async () => {
    const tables: string[] = await db('pg_tables')
      .where({ schemaname: 'public' })
      .whereLike('tablename', '%')
      .pluck('tablename');
    const counted: Record<string, number> = {};
    for (const table of tables.filter((one) => !one.startsWith('knex_')).sort()) {
      counted[table] = Number((await db(table).count('* as n').first())?.n);
    }
    return counted;
  };

  beforeAll(async () => {
    await restore(name, dump);
    db = connect(urlOf(name));
    before = await counts();
    await migrate(urlOf(name));
  });
  afterAll(async () => {
    await db.destroy();
    await dropDatabase(name);
  });

  it('loses no row of what lasts', async () => {
    const after = await counts();
    const lasting = [
      'entries',
      'entry_revisions',
      'incident_choices',
      'goals',
      'comments',
      'issued_reports',
      'access_log',
      'changes',
    ];
    for (const table of lasting) {
      expect(before[table], table).toBeGreaterThan(0);
      expect(after[table], table).toBe(before[table]);
    }
  });

  it('reads all of it: goals, entries of each kind, what they said before, rules, plans and reports', async () => {
    const [school] = await allSchools(db);
    const student = accessTo((await db('students').first('id'))!.id);
    const goals = await goalsOf(db, [student]);
    expect(goals).toMatchObject([{ version: 1, measure: { kind: 'trials' }, criterion: { value: 80 } }]);
    expect((await observationsOf(db, [student])).map(({ on, version }) => [on, version])).toEqual([
      ['2026-11-19', 2],
      ['2026-11-18', 1],
    ]);
    const { entry_id: corrected } = (await db('entry_revisions').where({ reason: 'From paper.' }).first('entry_id'))!;
    expect((await observationOf(db, student, corrected)).outcome.data).toEqual({
      trials: ['independent', 'independent'],
    });
    expect((await observationRevisions(db, corrected)).map(({ outcome }) => outcome.data)).toEqual([
      { trials: ['independent', 'spoken'] },
    ]);
    const [incident] = await newestIncidents(db, [student]);
    expect(incident).toMatchObject({ on: today, seconds: 40, note: 'By the door.' });
    expect([incident?.behaviors.length, incident?.antecedents.length]).toEqual([1, 1]);
    expect(await countsOf(db, [student])).toMatchObject([{ minutes: 30, count: 0 }]);
    expect((await visibilityRules(db, student)).own).toEqual(['family']);
    expect((await planOf(db, student, today))?.periods).toMatchObject([{ label: 'Quarter 1' }]);
    if (!school) throw new Error('The dump has no school.');
    const [issued] = await issuedOf(db, student, school);
    expect((await issuedReport(db, student, issued?.id as string, school)).correctedSince).toBe(0);
  });
});

describe('the step to', () => {
  const name = newName('step');
  let db: Database;
  const from = async (dump: string) => {
    await restore(name, dump);
    db = connect(urlOf(name));
  };
  afterEach(async () => {
    await db.destroy();
    await dropDatabase(name);
  });

  it('0002-names calls measures and rights otherwise, and keeps all else that they say', async () => {
    await from('0001-beginning.sql');
    const of = async (table: string) => (await db(table).first('*')) as { id: string; goal_id: string };
    const was = ['items', 'count', 'intervals', 'runningTotal', 'steps', 'readingAloud', 'duration', 'rubric'];
    const { goal_id } = await of('goal_measures');
    await db('goal_measures').insert(
      was.map((kind, i) => ({
        goal_id,
        version: i + 10,
        measure: { kind, kept: { kind: 'count' } },
        from_date: today,
      })),
    );
    await db('goal_bank').insert({
      ...{
        id: randomUUID(),
        school_id: (await of('schools')).id,
        made_by: (await of('people')).id,
        made_at: new Date(),
      },
      goal: { name: 'Calls', measure: { kind: 'count' } },
    });
    await db.raw("update team_members set rights = array['observe', 'setUp']");
    await db('visibility_rules').update({ fields: ['numbers', 'setting'] });
    const shown = JSON.stringify({ family: { shows: ['numbers', 'setting'] } });
    await db.raw(
      `insert into changes (school_id, what, before, after, changed_at) select id, 'visibility', null, ?, now() from schools limit 1`,
      [shown],
    );

    await migrate(urlOf(name));

    const measures = await db('goal_measures').where('version', '>=', 10).orderBy('version').pluck('measure');
    expect(measures).toEqual(
      [
        ...['itemCheck', 'frequency', 'intervalRecording', 'cumulativeTotal', 'taskAnalysis', 'oralReading'],
        ...['duration', 'rubric'],
      ].map((kind) => ({ kind, kept: { kind: 'count' } })),
    );
    expect(await db('goal_bank').pluck('goal')).toEqual([{ name: 'Calls', measure: { kind: 'frequency' } }]);
    expect(await db('team_members').first('rights')).toEqual({ rights: ['observe', 'editGoals'] });
    // What a family could see in October is read from what was written down then.
    expect(await db('visibility_rules').first('fields')).toEqual({ fields: ['numbers', 'location'] });
    const [written] = await db('changes').where({ what: 'visibility' }).orderBy('id', 'desc').limit(1).pluck('after');
    expect(written).toEqual({ family: { shows: ['numbers', 'location'] } });
    await expect(db('changes').update({ what: 'plan' })).rejects.toThrow('is not removed');
  });

  it('0006-forms leaves every entry as it was, and the team sees forms where it saw everything', async () => {
    await from('0005-desk.sql');
    const kinds = ['id', 'kind', 'data', 'version'];
    const before = await db('entries').orderBy('id').select(kinds);
    const family = await db('visibility_rules').where({ kind: 'family' }).select('fields');
    await migrate(urlOf(name));
    expect(await db('entries').orderBy('id').select(kinds)).toEqual(before);
    expect(await db('entries').whereNotNull('form_id').pluck('id')).toEqual([]);
    for (const { fields } of await db('visibility_rules').where({ kind: 'team' }).select('fields')) {
      expect(fields).toContain('forms');
    }
    expect(await db('visibility_rules').where({ kind: 'family' }).select('fields')).toEqual(family);
  });

  it('0005-desk leaves every entry as it was: none is a student’s own, and none is set aside', async () => {
    await from('0004-fidelity.sql');
    const before = await db('entries').orderBy('id').select('id', 'data', 'version');
    expect(before.length).toBeGreaterThan(0);
    await migrate(urlOf(name));
    expect(await db('entries').orderBy('id').select('id', 'data', 'version')).toEqual(before);
    expect(await db('entries').where({ self_recorded: true }).pluck('id')).toEqual([]);
    expect(await db('desk_goals').pluck('goal_id')).toEqual([]);
  });

  it('0004-fidelity says nothing of supports of what was recorded before', async () => {
    await from('0003-terms.sql');
    await migrate(urlOf(name));
    expect(await db('entries').whereNotNull('fidelity').pluck('id')).toEqual([]);
    expect(await db('goal_phases').whereRaw("steps <> '[]'").pluck('label')).toEqual([]);
  });

  it('0003-terms renames what one time is called, a refused session, in what was corrected too, and an issued aim line', async () => {
    await from('0002-names.sql');
    const { id } = (await db('entries').where({ kind: 'goal', version: 1 }).first('id'))!;
    await db.raw(`
      alter table entries disable trigger user;
      update entries set reason = 'declined', data = null where id = '${id}';
      alter table entries enable trigger user;
      insert into entry_revisions select id, 9, student_id, to_jsonb(entries), recorded_by, recorded_at, 'A slip.' from entries where id = '${id}';`);

    const { goal_id } = (await db('goal_measures').first('goal_id'))!;
    await db.raw(`insert into goal_revisions (goal_id, row, changed_by, changed_at)
      select id, '{"measures": {"1": {"chance": {"one": "bean"}}}}', (select id from people limit 1), now() from goals limit 1`);
    const rated = (await db('entries').where({ kind: 'goal', version: 2 }).first('id'))!.id;
    const ratings = ['Staff', 'Peer 1', 'Student'].map((rater) => ({ criterion: 'order', points: 2, rater }));
    await db.raw(
      `alter table entries disable trigger user; update entries set data = '${JSON.stringify({ ratings })}' where id = '${rated}';
       alter table entries enable trigger user;`,
    );
    await db('goal_measures').insert({ goal_id, version: 9, measure: { kind: 'latency' }, from_date: today });

    await migrate(urlOf(name));

    const { measure } = (await db('goal_measures').where({ version: 1 }).first('measure'))!;
    const soon = await db('goal_measures').where({ version: 9 }).first('measure');
    expect(soon).toEqual({ measure: { kind: 'latency', limitSeconds: 30 } });
    expect(measure).toMatchObject({ kind: 'trials', opportunity: { one: 'seedling', many: 'seedlings' } });
    expect(measure).not.toHaveProperty('chance');
    expect(await db('entries').whereNotNull('reason').select('id', 'reason', 'version')).toEqual([
      { id, reason: 'refused', version: 1 },
    ]);
    const kept = await db('entry_revisions').where({ entry_id: id, version: 9 }).first('row');
    expect(kept?.row).toMatchObject({ id, reason: 'refused' });
    expect((await db('entries').where({ id: rated }).first('data'))?.data).toEqual({
      ratings: ratings.map((one) => (one.rater === 'Staff' ? one : { ...one, isBeside: true })),
    });
    const said = await db('goal_revisions').orderBy('id', 'desc').first('row');
    expect(said?.row).toEqual({ measures: { 1: { opportunity: { one: 'bean' } } } });
    const issued = JSON.stringify((await db('issued_reports').first('content'))!.content);
    expect(issued).toContain('"aimLine":');
    expect(issued).not.toContain('"course":');
    await expect(db('entry_revisions').update({ reason: 'Another.' })).rejects.toThrow('is not removed');
  });
});
