// Signing in by a district's own service, against the stand-in that ships: who was invited gets in, and nobody else.
import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:net';
import type { Browser, Page } from '@playwright/test';
import { connect, type Database } from '~/server/platform/db/database';
import { dropDatabase, makeDatabase, newName, urlOf } from '../database/databases';
import { clock } from './demo-template';
import { axeFindings, expect, settled, test } from './fixtures';
import { type RunningServer, startServer } from './server';

async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const address = server.address();
  server.close();
  await once(server, 'close');
  return typeof address === 'object' && address ? address.port : 0;
}

let district: ChildProcess;
let server: RunningServer;
let db: Database;
const name = newName('district');

test.beforeAll(async () => {
  await makeDatabase(name, process.env.DEMO_TEMPLATE);
  const [port, districtPort] = [await freePort(), await freePort()];
  const back = `http://localhost:${port}/sign-in/district/back`;
  district = spawn(process.execPath, ['--import', 'tsx', 'test-district/main.ts'], {
    env: { ...process.env, TEST_DISTRICT_PORT: String(districtPort), TEST_DISTRICT_RETURN: back },
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  await once(district, 'message');
  server = await startServer({
    ...{ DATABASE_URL: urlOf(name), CLOCK: clock, PORT: String(port) },
    ...{ OIDC_ISSUER: `http://localhost:${districtPort}`, OIDC_CLIENT_ID: 'gentle-margin' },
    ...{ OIDC_CLIENT_SECRET: 'only-for-trying-out', OIDC_NAME: 'your Quince County account' },
  });
  db = connect(urlOf(name), { poolSize: 2 });
});
test.afterAll(async () => {
  district.kill('SIGTERM');
  await server.stop();
  await db.destroy();
  await dropDatabase(name);
});

/** Signs in at the stand-in as an address, in a browser of its own. */
async function comesAs(browser: Browser, email: string): Promise<Page> {
  const page = await browser.newPage({ baseURL: server.url });
  await page.goto('/sign-in');
  await settled(page);
  await page.getByRole('link', { name: 'Sign in with your Quince County account' }).click();
  await page.locator('input[name=login]').fill(email);
  await page.locator('input[name=password]').fill('whatever');
  await page.getByRole('button', { name: 'Sign-in' }).click();
  await page.getByRole('button', { name: 'Continue' }).click();
  await page.waitForURL(`${server.url}/**`);
  return page;
}
const sessions = async () => (await db('sign_in_sessions').select('id')).length;

test('who was asked to join, or has an account, gets in with an address that the district has verified', async ({
  browser,
}) => {
  const { id: hanneke } = (await db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  const { id: schoolId } = (await db('schools').first('id'))!;
  const asked = {
    id: '0f8a2c14-53c1-4e0e-9a5e-7d4f0a1b2c3d',
    kind: 'join' as const,
    school_id: schoolId,
    name: 'Odile Marchetti',
  };
  const ends = new Date(new Date(clock).getTime() + 864e5);
  await db('account_links').insert({
    ...{ ...asked, email: 'odile@home.example', made_by: hanneke, made_at: new Date(clock), ends_at: ends },
  });
  const odile = await comesAs(browser, 'odile@home.example');
  await expect(odile).toHaveURL(`${server.url}/students`);
  const account = await db('people').where({ email: 'odile@home.example' }).first();
  expect(account).toMatchObject({ name: 'Odile Marchetti', email_proven_at: expect.any(Date) });
  expect(await db('account_links').where({ id: asked.id }).first('person_id')).toEqual({ person_id: account?.id });
  await odile.close();
  // The next time she is known by the district’s own name for her, whatever address she has by then.
  await db('people').where({ id: account?.id }).update({ email: 'o.marchetti@home.example' });
  const again = await comesAs(browser, 'odile@home.example');
  await expect(again).toHaveURL(`${server.url}/students`);
  await again.close();

  const { email } = (await db('people').where({ name: 'Lotte Varga' }).first('email'))!;
  const lotte = await comesAs(browser, email.toUpperCase().replace('LOTTE', 'Lotte'));
  await expect(lotte.getByRole('main')).toContainText('Ansel');
  await lotte.close();
});

test('nobody gets in uninvited, unverified, after leaving, or with an answer that was not asked for', async ({
  browser,
}) => {
  const before = await sessions();
  const stranger = await comesAs(browser, 'stranger@home.example');
  await expect(stranger.getByRole('alert')).toContainText('Nobody has asked you to join a school here');
  await settled(stranger);
  expect(await axeFindings(stranger)).toEqual([]);
  expect(await db('people').where({ email: 'stranger@home.example' })).toEqual([]);
  await stranger.close();

  const { email } = (await db('people').where({ name: 'Maeve Rourke' }).first('email'))!;
  await db('people')
    .where({ email })
    .update({ email: `unproven-${email}` });
  const unproven = await comesAs(browser, `unproven-${email}`);
  await expect(unproven.getByRole('alert')).toContainText('has not verified your email address');
  await unproven.close();

  await db('school_staff')
    .whereIn('person_id', db('people').where({ name: 'Samir Tadesse' }).select('id'))
    .update({ until_date: '2026-11-01', is_admin: false });
  const { email: samirs } = (await db('people').where({ name: 'Samir Tadesse' }).first('email'))!;
  const samir = await comesAs(browser, samirs);
  await expect(samir.getByRole('alert')).toContainText('Nobody has asked you');
  await samir.close();

  const page = await browser.newPage({ baseURL: server.url });
  await page.goto('/sign-in/district/back?code=guessed&state=guessed');
  await expect(page.getByRole('alert')).toContainText('begun in another browser');
  // Begun here, and answered by somebody else.
  await page.goto('/sign-in/district');
  await page.goto('/sign-in/district/back?code=guessed&state=guessed');
  await expect(page.getByRole('alert')).toContainText('did not let you in');
  await page.close();
  expect(await sessions()).toBe(before);
});
