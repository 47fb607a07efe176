// A school of one's own: an empty installation, a demo that is offered to others, a proxy in front.
import { spawnSync } from 'node:child_process';
import { newSetUpCode } from '~/server/people/beginning';
import { connect } from '~/server/platform/db/database';
import { migrate } from '~/server/platform/db/migrate';
import { dropDatabase, makeDatabase, newName, urlOf } from '../database/databases';
import { axeFindings, expect, settled, test } from './fixtures';
import { startServer } from './server';

const prepare = (url: string, ...flags: string[]) =>
  spawnSync(process.execPath, ['--import', 'tsx', 'scripts/prepare.ts', ...flags], {
    env: { ...process.env, DATABASE_URL: url },
    encoding: 'utf8',
  });

test('an empty database is set up on a page, with the code that the start command prints, once', async ({ page }) => {
  const name = newName('empty');
  await makeDatabase(name);
  const printed = prepare(urlOf(name));
  const code = /[A-Z0-9]{4}(?:-[A-Z0-9]{4}){3}/.exec(printed.stdout)?.[0] as string;
  expect(printed.stdout).toContain('/set-up');
  const server = await startServer({ DATABASE_URL: urlOf(name) });
  const db = connect(urlOf(name), { poolSize: 1 });
  try {
    // Nothing of the demo is there, and every way leads to the set-up.
    await page.goto(`${server.url}/students`);
    await expect(page).toHaveURL(/\/set-up$/);
    await settled(page);
    expect(await axeFindings(page)).toEqual([]);
    const fill = async (typed: string) => {
      await page.getByLabel('Code from the start command').fill(typed);
      await page.getByLabel('A password, of 12 characters or more').fill('four odd kettles sing');
      await page.getByLabel('Once more').fill('four odd kettles sing');
      await page.getByRole('button', { name: 'Set up the school' }).click();
    };
    await page.getByLabel('Name of the school').fill('Elder Brook School');
    await page.getByLabel('Time zone').selectOption('America/Chicago');
    await page.getByLabel('Your name').fill('Ines Okoro');
    await page.getByLabel('Email, with which you sign in').fill('ines@elder-brook.example');
    await fill('AAAA-BBBB-CCCC-DDDD');
    await expect(page.getByText('This is not the code that the start command printed last.')).toBeVisible();
    // What was typed stays, but for what is secret.
    await expect(page.getByLabel('Your name')).toHaveValue('Ines Okoro');
    await fill(code.toLowerCase().replaceAll('-', ' '));
    await expect(page.getByRole('heading', { name: 'School', level: 1 })).toBeVisible();
    await expect(page.getByLabel('Name', { exact: true }).first()).toHaveValue('Elder Brook School');
    // What to do first stands there and on Today, and leads on.
    const steps = page.getByRole('region', { name: 'First steps' });
    await expect(steps.getByRole('listitem')).toHaveCount(4);
    await page.goto(server.url);
    await steps.getByRole('link', { name: 'The first student, with a case manager' }).click();
    await expect(page.getByRole('heading', { name: 'A new student' })).toBeVisible();
    await settled(page);
    expect(await axeFindings(page)).toEqual([]);
    expect(await db('schools').select('name', 'time_zone', 'is_demo')).toEqual([
      { name: 'Elder Brook School', time_zone: 'America/Chicago', is_demo: false },
    ]);
    expect(await db('set_up_codes')).toEqual([]);
    expect((await page.goto(`${server.url}/set-up`))?.status()).toBe(404);
    await page.context().clearCookies();
    await page.goto(`${server.url}/sign-in`);
    await expect(page.getByRole('complementary', { name: 'Demo people' })).toHaveCount(0);
    // Started again, nothing is loaded into it, and the demo is not built over it.
    expect(prepare(urlOf(name), '--demo').stdout).toBe('');
    const reset = prepare(urlOf(name), '--reset');
    expect([reset.status, reset.stderr]).toEqual([1, expect.stringContaining('It is not reset.')]);
    expect(await db('people').select('name')).toEqual([{ name: 'Ines Okoro' }]);
  } finally {
    await db.destroy();
    await server.stop();
    await dropDatabase(name);
  }
});

test('two processes prepare the same new database at once: both come up, and it is one demo', async () => {
  const name = newName('twice');
  await makeDatabase(name);
  const { spawn } = await import('node:child_process');
  const start = () =>
    new Promise<number | null>((resolve) => {
      const args = ['--import', 'tsx', 'scripts/prepare.ts', '--demo'];
      const env = { ...process.env, DATABASE_URL: urlOf(name) };
      spawn(process.execPath, args, { env, stdio: 'ignore' }).on('exit', resolve);
    });
  const db = connect(urlOf(name), { poolSize: 1 });
  try {
    expect(await Promise.all([start(), start(), start()])).toEqual([0, 0, 0]);
    expect(await db('schools').count().first()).toEqual({ count: '1' });
    // Somebody of their own has an account in it: it is a demo no more that may be thrown away.
    await db('people').where({ demo_order: 8 }).update({ demo_order: null });
    expect(prepare(urlOf(name), '--reset').status).toBe(1);
    await db('people').whereNull('demo_order').update({ demo_order: 8 });
    expect(prepare(urlOf(name), '--reset').status).toBe(0);
  } finally {
    await db.destroy();
    await dropDatabase(name);
  }
});

test('the demo is not offered to other machines, unless it is said so; cookies are this host’s alone', async ({
  playwright,
}) => {
  const name = newName('public');
  await makeDatabase(name, process.env.DEMO_TEMPLATE);
  const db = connect(urlOf(name), { poolSize: 1 });
  const PUBLIC_URL = 'https://margin.school.example';
  const form = { demo: (await db('people').where({ demo_order: 1 }).first('id'))!.id };
  await db.destroy();
  const ask = async (env: Record<string, string>) => {
    const server = await startServer({ DATABASE_URL: urlOf(name), PUBLIC_URL, ...env });
    // A proxy writes its own host into what it passes on; the browser’s origin is the public one.
    const proxied = await playwright.request.newContext({
      baseURL: server.url,
      extraHTTPHeaders: { origin: PUBLIC_URL },
    });
    const page = await (await proxied.get('/sign-in')).text();
    const signedIn = await proxied.post('/sign-in', { form, maxRedirects: 0 });
    const foreign = await proxied.post('/sign-in', {
      form,
      maxRedirects: 0,
      headers: { origin: 'https://evil.example' },
    });
    await server.stop();
    return { page, signedIn, foreign: foreign.status() };
  };
  const closed = await ask({});
  expect(closed.page).toContain('Start it with DEMO=1');
  expect(closed.page).not.toContain('Hanneke Bruun');
  expect([closed.signedIn.status(), closed.foreign]).toEqual([403, 403]);
  const open = await ask({ DEMO: '1' });
  expect(open.page).toContain('Hanneke Bruun');
  expect([open.signedIn.status(), open.foreign]).toEqual([302, 403]);
  const cookies = open.signedIn.headersArray().filter((header) => header.name.toLowerCase() === 'set-cookie');
  expect(cookies.map(({ value }) => /^__Host-gm-(session|device)=.*; Path=\/; HttpOnly; Secure/.test(value))).toEqual([
    true,
    true,
  ]);
  await dropDatabase(name);
});

test('health tells of a database that cannot be written to, and of the worker', async ({ request }) => {
  const name = newName('health');
  await makeDatabase(name);
  await migrate(urlOf(name));
  const db = connect(urlOf(name), { poolSize: 1 });
  const server = await startServer({ DATABASE_URL: urlOf(name) });
  const health = async () => {
    const answer = await request.get(`${server.url}/health`);
    return [answer.status(), await answer.json()];
  };
  try {
    await newSetUpCode(db, new Date());
    expect(await health()).toEqual([200, { ok: true, database: 'writable', worker: null, backupProblem: null }]);
    await db('heartbeats').insert({ process: 'worker', at: new Date(Date.now() - 120_000) });
    expect(await health()).toMatchObject([200, { ok: true, worker: { isLate: true } }]);
    await db.raw(`alter database ?? set default_transaction_read_only = on`, [name]);
    await db.raw(
      'select pg_terminate_backend(pid) from pg_stat_activity where datname = ? and pid <> pg_backend_pid()',
      [name],
    );
    expect(await health()).toMatchObject([503, { ok: false }]);
    // Each connection that was cut is found out once.
    await expect.poll(health).toEqual([503, { ok: false, database: 'readOnly', worker: null, backupProblem: null }]);
  } finally {
    await db.destroy();
    await server.stop();
    await dropDatabase(name);
  }
});
