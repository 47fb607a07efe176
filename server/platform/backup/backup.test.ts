import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { asPerson } from '~/tests/database/as-person';
import { dropDatabase, makeDatabase, newName, urlOf } from '~/tests/database/databases';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, type SmallSchool, sessionOf, smallSchool, wall } from '~/tests/database/small-school';
import { recordSession } from '../../entries/record';
import { connect } from '../db/database';
import { backupProblem, healthOf, noteBackup } from '../db/health';
import { backUp, backUpNight, backupFailure, KEPT, manifestPath, nightsIn } from './backup';
import { restore } from './restore';
import { differing, sumsOf } from './sums';

const fresh = freshDatabase();
let school: SmallSchool;
let folder: string;
const made: string[] = [];
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  await recordSession(
    fresh.db,
    actorOf(school.manager),
    school.student,
    sessionOf(school, ['independent', 'gesture']),
    {
      wall,
      now,
    },
  );
  // A file with every byte there is, and a name in several scripts.
  const entry = (await fresh.db('entries').first('id'))!;
  await fresh.db('evidence').insert({
    ...{
      id: randomUUID(),
      student_id: school.student,
      entry_id: entry.id,
      name: 'Ζωή, Нина, Nguyễn.jpg',
      type: 'image/jpeg',
    },
    ...{
      content: Buffer.from(Array.from({ length: 256 }, (_, n) => n)),
      bytes: 256,
      added_by: school.manager,
      added_at: now,
    },
    ...{ width: 16, height: 16, thumbnail: Buffer.from([1]) },
  });
  folder = await mkdtemp(join(tmpdir(), 'gm-backup-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
  for (const name of made) await dropDatabase(name);
});

async function emptyDatabase(): Promise<string> {
  const name = newName('restored');
  await makeDatabase(name);
  made.push(name);
  return urlOf(name);
}

async function sums(url: string) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query('begin');
  const found = await sumsOf(client);
  await client.end();
  return found;
}

describe('a copy', () => {
  it('put back into an empty database holds every row of every table, and guards them', async () => {
    const file = await backUp(fresh.url, { path: join(folder, 'plain'), now });
    const url = await emptyDatabase();
    const { tables, rows } = await restore(url, file);
    const [before, after] = [await sums(fresh.url), await sums(url)];
    expect(differing(before, after)).toEqual([]);
    expect([tables, rows]).toEqual([
      Object.keys(before).length,
      Object.values(before).reduce((n, one) => n + one.rows, 0),
    ]);
    expect(before.entries?.rows).toBe(1);
    const again = connect(url, { poolSize: 1, as: 'app' });
    const seen = (person: string) => asPerson(again, person, (trx) => trx('entries').select('id'));
    expect(await seen(school.manager)).toHaveLength(1);
    expect(await seen(school.stranger)).toEqual([]);
    // What is never taken away is not, there either.
    await expect(again('entries').delete()).rejects.toThrow();
    await again.destroy();
  });

  it('is encrypted where a passphrase is given, and opened by no other; nothing is put back then', async () => {
    const passphrase = 'nine brown hills roll';
    const file = await backUp(fresh.url, { path: join(folder, 'sealed'), passphrase, now });
    // As age-encryption.org/v1 begins, from memory.
    expect((await readFile(file)).subarray(0, 21).toString()).toBe('age-encryption.org/v1');
    expect((await readFile(file)).includes(Buffer.from('PGDMP'))).toBe(false);
    const url = await emptyDatabase();
    await expect(restore(url, file)).rejects.toThrow('BACKUP_PASSPHRASE');
    await expect(restore(url, file, { passphrase: 'a guess' })).rejects.toThrow('passphrase is not the one');
    expect(await sums(url)).toEqual({});
    await restore(url, file, { passphrase });
    expect(differing(await sums(fresh.url), await sums(url))).toEqual([]);
  });

  it('is not put back over data, nor from a file that was changed, or without what it is verified by', async () => {
    const file = await backUp(fresh.url, { path: join(folder, 'other'), now });
    await expect(restore(fresh.url, file)).rejects.toThrow('into an empty one only');
    const url = await emptyDatabase();
    const about = JSON.parse(await readFile(manifestPath(file), 'utf8'));
    about.tables.entries.rows = 2;
    await writeFile(manifestPath(file), JSON.stringify(about));
    await expect(restore(url, file)).rejects.toThrow('not what was copied, in entries');
    const whole = await readFile(file);
    whole[whole.length - 1] = (whole.at(-1) ?? 0) ^ 1;
    await writeFile(file, whole);
    await expect(restore(await emptyDatabase(), file)).rejects.toThrow('its sum is another');
    await rm(manifestPath(file));
    await expect(restore(await emptyDatabase(), file)).rejects.toThrow('by which it is verified');
    await expect(restore(await emptyDatabase(), join(folder, 'nothing.dump'))).rejects.toThrow('There is no');
  });

  it('that fails leaves nothing behind', async () => {
    const before = await readdir(folder);
    await expect(backUp(urlOf('no_such_database'), { path: join(folder, 'gone'), now })).rejects.toThrow();
    expect(await readdir(folder)).toEqual(before);
  });

  it('of a night that was ended in the middle leaves halves, which the next one clears; what fails is said in words', async () => {
    const nights = join(folder, 'ended');
    const night = (name: string) => join(nights, `gentle-margin-night-2026-11-0${name}`);
    await mkdir(nights);
    const whole = ['1.dump', '1.dump.json'];
    for (const name of [...whole, '2.dump.part', '3.dump.age.json', '3.dump.age.part'])
      await writeFile(night(name), '');
    await writeFile(join(nights, 'notes.txt'), 'mine');
    await backUpNight(fresh.url, { folder: nights, day: '2026-11-24', now });
    expect((await readdir(nights)).sort()).toEqual([
      ...whole.map((name) => `gentle-margin-night-2026-11-0${name}`),
      ...['gentle-margin-night-2026-11-24.dump', 'gentle-margin-night-2026-11-24.dump.json', 'notes.txt'],
    ]);
    expect(backupFailure(Object.assign(new Error('write'), { code: 'ENOSPC' }))).toBe('The disk is full.');
    expect(backupFailure(new Error('pg_dump: error: No space left on device'))).toBe('The disk is full.');
    await noteBackup(fresh.db, 'The disk is full.');
    expect(await healthOf(fresh.db)).toMatchObject({ ok: true, backupProblem: 'The disk is full.' });
    await noteBackup(fresh.db, null);
    expect(await backupProblem(fresh.db)).toBeNull();
  });

  it('of each night is made once, and fourteen are kept', async () => {
    const nights = join(folder, 'nights');
    const make = (day: string) => backUpNight(fresh.url, { folder: nights, day, now });
    const first = await make('2026-10-31');
    expect(await make('2026-10-31')).toBeNull();
    for (let day = 2; day <= KEPT; day++) {
      const name = join(nights, `gentle-margin-night-2026-11-${String(day).padStart(2, '0')}.dump`);
      await writeFile(name, '');
    }
    expect(await nightsIn(nights)).toHaveLength(KEPT);
    await make('2026-11-24');
    const kept = await nightsIn(nights);
    expect(kept.map(({ day }) => day)).toEqual(expect.arrayContaining(['2026-11-24', '2026-11-02']));
    expect(kept).toHaveLength(KEPT);
    expect([existsSync(first ?? ''), existsSync(manifestPath(first ?? ''))]).toEqual([false, false]);
  });
});
