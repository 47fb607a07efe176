import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { test as base, expect, type Page } from '@playwright/test';
import { connect, type Database } from '~/server/platform/db/database';
import type { EntriesRow } from '~/server/platform/db/tables';
import { dropDatabase, makeDatabase, newName, urlOf } from '../database/databases';
import type { Named } from '../database/small-school';
import { clock } from './demo-template';
import { cuttableWire, type RunningServer, startServer } from './server';

export interface App extends RunningServer {
  db: Database;
  databaseUrl: string;
  wire: Awaited<ReturnType<typeof cuttableWire>>;
  /** When its clock began to go, in milliseconds since 1970. */
  startedAt: number;
}

type Home = Omit<App, 'db' | 'databaseUrl'> & { name: string };

/** A server on the test clock, before its database: `name` has to be made first. */
async function startHome(): Promise<Home> {
  const name = newName('e2e');
  await makeDatabase(name, process.env.DEMO_TEMPLATE);
  const wire = await cuttableWire(name);
  const startedAt = Date.now();
  return { name, wire, startedAt, ...(await startServer({ DATABASE_URL: wire.url, CLOCK: clock })) };
}

async function endHome(home: Home): Promise<void> {
  await home.stop();
  home.wire.close();
  await dropDatabase(home.name);
}

interface TestOptions {
  app: App;
  /** Whether the test needs a server that no other test has had: for what a server remembers, or writes to its log. */
  ownServer: boolean;
}

/** Each test has a demo database of its own on the same Tuesday afternoon; tests of one worker share a server. */
export const test = base.extend<TestOptions, { shared: () => Promise<Home> }>({
  ownServer: [false, { option: true }],
  shared: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the names of what is wanted
    async ({}, use) => {
      let home: Promise<Home> | undefined;
      await use(() => {
        home ??= startHome();
        return home;
      });
      if (home !== undefined) await endHome(await home);
    },
    { scope: 'worker' },
  ],
  app: async ({ ownServer, shared }, use) => {
    const home = ownServer ? await startHome() : await shared();
    if (!ownServer) {
      const { exitCode, signalCode, connected } = home.process;
      if (!connected)
        throw new Error(`The server had ended with ${exitCode ?? signalCode}: ${home.log().slice(-4000)}`);
      home.wire.mend();
      await dropDatabase(home.name);
      await makeDatabase(home.name, process.env.DEMO_TEMPLATE);
      home.process.send('restartClock');
    }
    const db = connect(urlOf(home.name), { poolSize: 2 });
    await use({ ...home, db, databaseUrl: urlOf(home.name) });
    await db.destroy();
    if (ownServer) await endHome(home);
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
  const { id } = (await app.db('people').where({ name }).first('id'))!;
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
  const { id } = (await db('students').where({ first_name: firstName }).first('id'))!;
  return id;
}

export async function goalId(db: Database, firstName: string, number: string): Promise<string> {
  const { id } = (await db('goals')
    .where({ student_id: await studentId(db, firstName), number })
    .first('id'))!;
  return id;
}

/** The one school of the demo. */
export async function schoolId(db: Database): Promise<string> {
  const { id } = (await db('schools').first('id'))!;
  return id;
}

/** What an incident names, by facet, as its version says it. */
export async function namedBy(db: Database, entry: { id: string; version: number }): Promise<Named> {
  const rows = await db('incident_choices')
    .where({ entry_id: entry.id, version: entry.version })
    .orderBy('position')
    .select<{ facet: string; choice: string }[]>('facet', db.raw('coalesce(target_id, option_id) as choice'));
  const named: Record<string, string[]> = {};
  for (const { facet, choice } of rows) named[facet] = [...(named[facet] ?? []), choice];
  return named;
}

/** The newest entry of a goal that has a score. */
export async function newestEntry(db: Database, goal: string) {
  return db('entries')
    .where({ goal_id: goal, withdrawn: false })
    .whereNotNull('data')
    .orderBy([
      { column: 'observed_on', order: 'desc' },
      { column: 'observed_time', order: 'desc' },
    ])
    .first();
}

/** Waits until the page answers keys and taps: it is hydrated, and nothing is being loaded or sent. */
export async function settled(page: Page) {
  const isIdle = () => {
    const { __reactRouterDataRouter: router } = window as unknown as { __reactRouterDataRouter?: Router };
    const { navigation, fetchers } = router?.state ?? { navigation: { state: 'none' }, fetchers: new Map() };
    const isHydrated = Object.keys(document.documentElement).some((key) => key.startsWith('__reactFiber'));
    return isHydrated && navigation.state === 'idle' && [...fetchers.values()].every(({ state }) => state === 'idle');
  };
  // While one page gives way to another there is nothing to ask.
  await expect.poll(() => page.evaluate(isIdle).catch(() => false), { intervals: [30] }).toBe(true);
  // What listens to keys is set up after the page has been drawn.
  await page.evaluate(() => new Promise((drawn) => requestAnimationFrame(() => setTimeout(drawn, 50)))).catch(() => {});
}

/** What of React Router's own router says whether it is at work. */
interface Router {
  state: { navigation: { state: string }; fetchers: Map<string, { state: string }> };
}

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

const everyRule = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

/**
 * What axe finds on the page, as sentences.
 *
 * @param only  rules or sets of them; all that we hold ourselves to, unless it is said
 */
export async function axeFindings(page: Page, only: string[] = everyRule): Promise<string[]> {
  await page.evaluate(axeSource);
  return page.evaluate(async (runOnly) => {
    // What was just pressed is drawn before it is looked at: half-way between two colours nothing has its contrast.
    const drawn = () => new Promise((next) => requestAnimationFrame(next));
    await drawn();
    await drawn();
    const { axe } = window as unknown as { axe: typeof import('axe-core') };
    const { violations } = await axe.run(document, { runOnly, resultTypes: ['violations'] });
    return violations.flatMap(({ id, help, nodes }) =>
      nodes.map((node) => `${id}: ${help}: ${node.html.slice(0, 160)}`),
    );
  }, only);
}

/** An entry of a goal as a test reads it: what its session holds, whatever the measure. */
export type Held = Omit<EntriesRow, 'data'> & {
  data: { trials: string[]; responses: (number | null)[]; ratings: { points: number }[]; steps: unknown[] };
};

/** The entry that was recorded last. */
export const newest = async (app: App) =>
  (await app.db('entries').orderBy('recorded_at', 'desc').first()) as Held | undefined;
