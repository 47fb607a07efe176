import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { now, smallSchool } from '~/tests/database/small-school';
import { Bell, work } from './work';

const fresh = freshDatabase({ poolSize: 4 });
let folder: string;
beforeAll(async () => {
  await smallSchool(fresh.db);
  folder = await mkdtemp(join(tmpdir(), 'gm-nights-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

it('makes the copy of a night as soon as it is time, once, and none where no folder is named', async () => {
  const complain = vi.fn();
  const at = async (clock: Date, backup: { url: string; folder: string } | null) => {
    const stopping = new AbortController();
    const mailServer = { transport: { sendMail: vi.fn() }, from: 'x@school.example', takesOnce: true };
    const done = work({
      ...{ db: fresh.db, mailServer, publicUrl: 'https://here.example', clock: () => clock, bell: new Bell() },
      ...{ signal: stopping.signal, complain, backup },
    });
    return {
      stop: () => {
        stopping.abort();
        return done;
      },
    };
  };
  const copies = async () => (await readdir(folder)).filter((name) => name.endsWith('.dump'));
  const one = { url: fresh.url, folder };
  // It is one in the morning at the school, in New York; the copy of this night is not due.
  const early = await at(new Date('2026-11-25T06:00:00Z'), one);
  const nowhere = await at(now, null);
  const first = await at(now, one);
  await vi.waitFor(async () => expect(await copies()).toEqual(['gentle-margin-night-2026-11-24.dump']), 20_000);
  for (const { stop } of [early, nowhere, first]) await stop();
  const again = await at(now, one);
  await again.stop();
  expect(await copies()).toEqual(['gentle-margin-night-2026-11-24.dump']);
  expect(complain).not.toHaveBeenCalled();
});
