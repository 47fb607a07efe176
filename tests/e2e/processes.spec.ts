// Several processes behind one address: what they have to agree on is in the database, and one that dies is begun again.
import { readFileSync } from 'node:fs';
import { dropDatabase, makeDatabase, newName, urlOf } from '../database/databases';
import { clock } from './demo-template';
import { expect, test } from './fixtures';
import { startServer } from './server';

const childrenOf = (pid: number) =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number);

test('two processes answer as one, count tries together, and stay two', async ({ request }) => {
  const name = newName('e2e');
  await makeDatabase(name, process.env.DEMO_TEMPLATE);
  const server = await startServer({ DATABASE_URL: urlOf(name), CLOCK: clock, WEB_PROCESSES: '2' });
  const primary = server.process.pid as number;
  try {
    await expect.poll(() => childrenOf(primary).length).toBe(2);
    const signIn = (password: string) =>
      request.post(`${server.url}/sign-in`, {
        form: { email: 'hanneke.bruun@quince-lane.example', password },
        headers: { origin: server.url, connection: 'close' },
        maxRedirects: 0,
      });
    const answers = await Promise.all(Array.from({ length: 12 }, () => signIn('wrong')));
    // Eight are looked at, whichever process they came to.
    expect(answers.filter((answer) => answer.status() === 429)).toHaveLength(4);
    const [first] = childrenOf(primary) as [number, number];
    process.kill(first, 'SIGKILL');
    await expect.poll(() => childrenOf(primary).filter((pid) => pid !== first).length, { timeout: 20_000 }).toBe(2);
    await expect.poll(async () => (await request.get(`${server.url}/health`)).status()).toBe(200);
  } finally {
    await server.stop();
    await dropDatabase(name);
  }
});
