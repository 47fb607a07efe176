import { once } from 'node:events';
import { type AddressInfo, createServer } from 'node:net';
import { describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { readConfig } from '../config';
import { connect, isDatabaseGone } from './database';
import { migrate, undoLastMigration } from './migrate';

const fresh = freshDatabase();

describe('migrations', () => {
  it('may run again, and cannot be undone', async () => {
    await migrate(fresh.url);
    await expect(undoLastMigration(fresh.db)).rejects.toThrow('cannot be undone');
    expect(await fresh.db.schema.hasTable('entries')).toBe(true);
  });

  it('say in one sentence that a database is of another version', async () => {
    await fresh.db('knex_migrations').insert({ name: '9999-from-the-future', batch: 9, migration_time: new Date() });
    await expect(migrate(fresh.url)).rejects.toThrow('made by another version of Gentle Margin');
  });
});

describe('a database that is gone', () => {
  it('is told from other failures', async () => {
    const nowhere = connect('postgres://nobody@127.0.0.1:1/none', { poolSize: 1 });
    const error = await nowhere.raw('select 1').catch((caught) => caught);
    await nowhere.destroy();
    expect(isDatabaseGone(error)).toBe(true);
    const mistake = await fresh.db.raw('select nonsense').catch((caught) => caught);
    expect(isDatabaseGone(mistake)).toBe(false);
    expect(isDatabaseGone('no error at all')).toBe(false);
  });

  it('is one, too, that takes the call and never says a word', async () => {
    const silent = createServer(() => {}).listen(0, '127.0.0.1');
    await once(silent, 'listening');
    const { port } = silent.address() as AddressInfo;
    const db = connect(`postgres://nobody@127.0.0.1:${port}/none`, { poolSize: 1 });
    const error = await db.raw('select 1').catch((caught) => caught);
    await db.destroy();
    silent.close();
    expect(isDatabaseGone(error)).toBe(true);
  });
});

describe('settings of the server', () => {
  it('have defaults for all but the database', () => {
    expect(readConfig({ DATABASE_URL: 'postgres://x' })).toMatchObject({
      PORT: 4310,
      HOST: '127.0.0.1',
      PUBLIC_URL: 'http://localhost:4310',
    });
    expect(() => readConfig({})).toThrow();
    expect(() => readConfig({ DATABASE_URL: 'postgres://x', PORT: 'many' })).toThrow();
  });
});
