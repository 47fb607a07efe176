import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';

import { config } from '../config';
import { asking, askingTogether, closeDatabase, database } from './current';

const fresh = freshDatabase();
const who = { personId: '', today: '2026-11-24' };

beforeAll(() => {
  // A pool of one: whoever takes a second connection while holding the first waits for themselves.
  Object.assign(config, { DATABASE_URL: fresh.url, POOL_SIZE: 1 });
  who.personId = randomUUID();
});
afterAll(closeDatabase);

/** Which transaction something is asked in, and as whom. */
async function where(): Promise<{ at: string; person: string }> {
  const { rows } = await database().raw(
    `select cast(pg_current_xact_id() as text) as at, current_setting('app.person') as person`,
  );
  return rows[0];
}

describe('what is asked for one request', () => {
  it('at the same time shares one transaction, as the one who asks', async () => {
    const [one, other] = await Promise.all([askingTogether(who, where), askingTogether(who, where)]);
    expect(one).toEqual(other);
    expect(one.person).toBe(who.personId);
    const later = await askingTogether(who, where);
    expect(later.at).not.toBe(one.at);
  });

  it('never shares with another request, be it of the same person', async () => {
    const [one, other] = await Promise.all([askingTogether(who, where), askingTogether({ ...who }, where)]);
    expect(one.at).not.toBe(other.at);
  });

  it('is asked again by itself where the database refused what was asked beside it', async () => {
    let refused = () => {};
    const isRefused = new Promise<void>((resolve) => {
      refused = resolve;
    });
    let tries = 0;
    const wrong = askingTogether(who, async () => {
      await database()
        .raw('select 1 / 0')
        .finally(() => refused());
    });
    const right = askingTogether(who, async () => {
      tries++;
      await isRefused;
      return where();
    });
    await expect(wrong).rejects.toThrow('division by zero');
    expect((await right).person).toBe(who.personId);
    expect(tries).toBe(2);
    expect((await askingTogether(who, where)).person).toBe(who.personId);
  });

  it('takes back nothing that was written in a transaction of its own beside it', async () => {
    const wrong = askingTogether(who, () => database().raw('select 1 / 0'));
    const written = asking(who, () => database().raw('create temporary table written_here (id int)'));
    await expect(wrong).rejects.toThrow('division by zero');
    await written;
    const { rows } = await database().raw(`select to_regclass('written_here') is not null as kept`);
    expect(rows[0].kept).toBe(true);
  });

  it('keeps what was written where it ends with a failure', async () => {
    const failed = asking(who, async () => {
      await database().raw(`create temporary table kept_here (id int)`);
      throw new Error('Not this.');
    });
    await expect(failed).rejects.toThrow('Not this.');
    const { rows } = await database().raw(`select to_regclass('kept_here') is not null as kept`);
    expect(rows[0].kept).toBe(true);
  });
});
