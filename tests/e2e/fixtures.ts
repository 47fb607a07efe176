import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { test as base, expect, type Page } from '@playwright/test';
import { connect, type Database } from '~/server/db/database';
import { dropDatabase, makeDatabase, newName, urlOf } from '../database/databases';
import { clock } from './demo-template';
import { cuttableWire, type RunningServer, startServer } from './server';

export interface App extends RunningServer {
  db: Database;
  wire: Awaited<ReturnType<typeof cuttableWire>>;
}

/** Each test has a server and a demo database of its own, on the same Tuesday afternoon. */
export const test = base.extend<{ app: App }>({
  // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the names of what is wanted
  app: async ({}, use) => {
    const name = newName('e2e');
    await makeDatabase(name, process.env.DEMO_TEMPLATE);
    const wire = await cuttableWire(name);
    const server = await startServer({ DATABASE_URL: wire.url, CLOCK: clock });
    const db = connect(urlOf(name), { poolSize: 2 });
    await use({ ...server, db, wire });
    await server.stop();
    wire.close();
    await db.destroy();
    await dropDatabase(name);
  },
  baseURL: async ({ app }, use) => use(app.url),
  page: async ({ page }, use) => {
    const complaints: string[] = [];
    page.on('pageerror', (error) => complaints.push(error.message));
    page.on('console', (message) => {
      // A failed answer is what some tests are about; a broken policy or a broken hydration never is.
      if (message.type() === 'error' && !/Failed to load resource/.test(message.text()))
        complaints.push(message.text());
    });
    await use(page);
    expect(complaints).toEqual([]);
  },
});
export { expect };

export type Staff = 'Hanneke Bruun' | 'Samir Tadesse' | 'Lotte Varga' | 'Noor Haddad' | 'Maeve Rourke';

/** Signs in as the sign-in page's one tap does, without drawing that page. */
export async function signInAs(app: App, page: Page, name: Staff = 'Hanneke Bruun') {
  const { id } = await app.db('people').where({ name }).first('id');
  const answer = await page.request.post(`${app.url}/sign-in`, {
    form: { demo: id },
    headers: { origin: app.url },
    maxRedirects: 0,
  });
  expect(answer.status()).toBe(302);
}

/** Waits for the sentence that says what has been done; after a lost connection that takes a few tries. */
export async function expectToast(page: Page, sentence: string) {
  await expect(page.getByText(sentence, { exact: true })).toBeVisible({ timeout: 20_000 });
}

export async function studentId(db: Database, firstName: string): Promise<string> {
  const { id } = await db('students').where({ first_name: firstName }).first('id');
  return id;
}

export async function goalId(db: Database, firstName: string, number: string): Promise<string> {
  const { id } = await db('goals')
    .where({ student_id: await studentId(db, firstName), number })
    .first('id');
  return id;
}

/** The newest entry of a goal that has a score. */
export async function newestEntry(db: Database, goal: string) {
  return db('observations')
    .where({ goal_id: goal, withdrawn: false })
    .whereNotNull('data')
    .orderBy([
      { column: 'observed_on', order: 'desc' },
      { column: 'observed_time', order: 'desc' },
    ])
    .first();
}

/** Waits until the page answers keys and taps. */
export async function settled(page: Page) {
  await page.waitForLoadState('networkidle');
}

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What axe finds on the page, as sentences. */
export async function axeFindings(page: Page): Promise<string[]> {
  await page.evaluate(axeSource);
  return page.evaluate(async () => {
    const { axe } = window as unknown as { axe: typeof import('axe-core') };
    const { violations } = await axe.run(document, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
    });
    return violations.flatMap(({ id, help, nodes }) =>
      nodes.map((node) => `${id}: ${help}: ${node.html.slice(0, 160)}`),
    );
  });
}
