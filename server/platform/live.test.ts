import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, type SmallSchool, sessionOf, smallSchool, wall } from '~/tests/database/small-school';
import { recordSession } from '../entries/record';

const fresh = freshDatabase();
let live: typeof import('./live');
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  // Which database is listened to is a setting of the process.
  vi.stubEnv('DATABASE_URL', fresh.url);
  vi.resetModules();
  live = await import('./live');
});
afterAll(() => live.closeLive());

describe('what is told of a change', () => {
  it('is heard once it stands, by everybody who listens, until they stop', async () => {
    const [first, second] = [vi.fn(), vi.fn()];
    const stop = await live.listenLive(first);
    await live.listenLive(second);
    const changed = { studentId: school.student, what: 'steps' as const, by: school.manager };
    await fresh.db.transaction(async (trx) => {
      await live.tellLive(trx, changed);
      await new Promise((resolve) => setTimeout(resolve, 150));
      // It is not there before its transaction is.
      expect(first).not.toHaveBeenCalled();
    });
    await vi.waitFor(() => expect(first).toHaveBeenCalledWith(changed));
    expect(second).toHaveBeenCalledTimes(1);
    stop();
    await live.tellLive(fresh.db, { ...changed, by: null });
    await vi.waitFor(() => expect(second).toHaveBeenCalledTimes(2));
    expect(first).toHaveBeenCalledTimes(1);
  });

  it('is not told of what is taken back', async () => {
    const heard = vi.fn();
    const stop = await live.listenLive(heard);
    const undone = fresh.db.transaction(async (trx) => {
      await live.tellLive(trx, { studentId: randomUUID(), what: 'steps', by: null });
      throw new Error('Undone.');
    });
    await expect(undone).rejects.toThrow('Undone.');
    await live.tellLive(fresh.db, { studentId: school.student, what: 'entries', by: null });
    await vi.waitFor(() => expect(heard).toHaveBeenCalledTimes(1));
    expect(heard.mock.calls[0]?.[0]).toMatchObject({ what: 'entries' });
    stop();
  });

  it('comes with every new entry, says whose and by whom, and nothing of what it says', async () => {
    const heard = vi.fn();
    const stop = await live.listenLive(heard);
    const session = sessionOf(school, ['independent', 'gesture']);
    await recordSession(fresh.db, actorOf(school.manager), school.student, session, { wall, now });
    await vi.waitFor(() => expect(heard).toHaveBeenCalledTimes(1));
    expect(heard.mock.calls[0]?.[0]).toEqual({ studentId: school.student, what: 'entries', by: school.manager });
    // Sent again it is no new one.
    await recordSession(fresh.db, actorOf(school.manager), school.student, session, { wall, now });
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(heard).toHaveBeenCalledTimes(1);
    stop();
  });

  it('is heard again after the connection was lost', async () => {
    const heard = vi.fn();
    const stop = await live.listenLive(heard);
    await fresh.db.raw(
      `select pg_terminate_backend(pid) from pg_stat_activity where query ilike 'listen%' and datname = current_database()`,
    );
    await vi.waitFor(
      async () => {
        await live.tellLive(fresh.db, { studentId: school.student, what: 'steps', by: null });
        expect(heard).toHaveBeenCalled();
      },
      { timeout: 15_000, interval: 300 },
    );
    stop();
  });
});
