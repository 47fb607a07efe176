// A day without network: the application opens, everything is recorded, and all of it lands once when there is a network again.
import type { Page } from '@playwright/test';
import { type App, expect, expectToast, goalId, settled, signInAs, studentId, test } from './fixtures';
import { startServer } from './server';

test.use({ ownServer: true, serviceWorkers: 'allow' });

/** When each page was kept on the device, by its address. */
const keptTimes = (page: Page) =>
  page.evaluate(async () => {
    const name = 'gentle-margin-device';
    // To open it would make it, without what belongs into it.
    if (!(await indexedDB.databases()).some((one) => one.name === name)) return {};
    return new Promise<Record<string, number>>((resolve) => {
      const opening = indexedDB.open(name);
      opening.onsuccess = () => {
        const all = opening.result.transaction('pages').objectStore('pages').getAll();
        all.onsuccess = () => {
          opening.result.close();
          const pages = all.result as { page: string; at: number }[];
          resolve(Object.fromEntries(pages.map((kept) => [kept.page, kept.at])));
        };
      };
    });
  });

const keptPages = async (page: Page) => Object.keys(await keptTimes(page));

/** When a page was kept; 0 when it was not. */
const keptAt = async (page: Page, kept: string) => (await keptTimes(page))[kept] ?? 0;

/** Everything that lies on the device, as text: bytes stand for themselves. */
const onDevice = (page: Page) =>
  page.evaluate(async () => {
    const read = (name: string, store: string) =>
      new Promise<unknown[]>((resolve) => {
        const opening = indexedDB.open(name);
        opening.onsuccess = () => {
          const all = opening.result.transaction(store).objectStore(store).getAll();
          all.onsuccess = () => {
            opening.result.close();
            resolve(all.result);
          };
        };
      });
    const all = [
      ...(await read('gentle-margin', 'waiting')),
      ...(await read('gentle-margin', 'drafts')),
      ...(await read('gentle-margin-device', 'pages')),
    ];
    return JSON.stringify(all, (_, value) =>
      value instanceof ArrayBuffer ? new TextDecoder('latin1').decode(value) : value,
    );
  });

/** Signs in, and waits until the device has what it needs of a student. */
async function kept(app: App, page: Page, student: string) {
  await signInAs(app, page);
  await page.goto('/');
  await settled(page);
  await expect.poll(() => keptPages(page), { timeout: 60_000 }).toContain(`/students/${student}/notes/new`);
}

/** The same server once more, at the address it had. */
const startAgain = (app: App) =>
  startServer({ DATABASE_URL: app.wire.url, CLOCK: '2026-11-24T16:30:00-05:00', PORT: new URL(app.url).port });

test('it opens with no network at all, at every width, by keys or by touch, is recorded on, and sends everything once', async ({
  app,
  page,
  context,
}) => {
  test.setTimeout(240_000);
  const jory = await studentId(app.db, 'Jory');
  const ansel = await studentId(app.db, 'Ansel');
  await kept(app, page, jory);
  await expect.poll(() => keptAt(page, `/students/${ansel}/incidents/new`), { timeout: 60_000 }).toBeGreaterThan(0);
  await page.close();
  await app.stop();
  let waits = 0;
  const waiting = (tab: Page) => expect(tab.getByRole('button', { name: `${waits} waiting to be sent` })).toBeVisible();
  for (const width of [390, 768, 820, 1024, 1280]) {
    // A cold start: nothing of the page before is left but what the device keeps.
    const tab = await context.newPage();
    await tab.setViewportSize({ width, height: width < 1000 ? 1024 : 800 });
    await tab.goto('/');
    await expect(tab.getByRole('heading', { name: 'Today', exact: true })).toBeVisible();
    await expect(tab.getByRole('status').filter({ hasText: 'No connection.' })).toContainText('This page is as it was');
    expect(new URL(tab.url()).pathname).toBe('/');
    // It was there as it looked, before the program had come to life.
    await expect(tab.locator('html')).toHaveAttribute('data-kept-at', /^\d+$/);
    await settled(tab);
    await tab.getByRole('link', { name: 'Students', exact: true }).click();
    await expect(tab.getByRole('heading', { name: 'Students', exact: true })).toBeVisible();
    await tab.getByRole('main').getByRole('link', { name: /^Jory/ }).first().click();
    await expect(tab.getByRole('heading', { level: 1 })).toContainText('Jory');
    await settled(tab);
    // By keys where there are some, by touch elsewhere.
    const isWide = width >= 1024;
    const save = () =>
      isWide ? tab.keyboard.press('Control+Enter') : tab.getByRole('button', { name: /^Save( ↵)?$/ }).click();
    if (isWide) await tab.keyboard.press('o');
    else
      await tab
        .getByRole('link', { name: /^Observe/ })
        .first()
        .click();
    await expect(tab.getByRole('heading', { level: 1 })).toContainText('Observing');
    await settled(tab);
    if (isWide) await tab.keyboard.press('1');
    else
      await tab
        .getByRole('button', { name: /^Independent/ })
        .first()
        .click();
    await save();
    waits++;
    await waiting(tab);

    await tab.goto(`/students/${ansel}/incidents/new`);
    await settled(tab);
    for (const group of [/^Antecedent/, /^Behavior/]) {
      await tab.getByRole('group', { name: group }).getByRole('button').first().click();
    }
    await save();
    waits++;
    await waiting(tab);
    const sticksOut = await tab.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(sticksOut, `at ${width}`).toBeLessThanOrEqual(0);
    await tab.close();
  }

  // What cannot be had says so in our words, keeps the way back, and offers to try again.
  const later = await context.newPage();
  await later.goto('/school');
  await expect(later.getByRole('heading', { name: 'No connection' })).toBeVisible();
  await later.getByRole('button', { name: 'Try again' }).click();
  await expect(later.getByRole('heading', { name: 'No connection' })).toBeVisible();
  await later.getByRole('link', { name: 'To Today' }).click();
  await expect(later.getByRole('heading', { name: 'Today', exact: true })).toBeVisible();

  // Nothing of a student can be read in what lies on the device.
  expect(await onDevice(later)).not.toContain('Jory');

  const before = Number((await app.db('entries').count().first())?.count);
  const again = await startAgain(app);
  await expect(later.getByText('No connection.')).toHaveCount(0, { timeout: 30_000 });
  await expect
    .poll(async () => Number((await app.db('entries').count().first())?.count), { timeout: 30_000 })
    .toBe(before + waits);
  await expect(later.getByRole('button', { name: /waiting to be sent/ })).toHaveCount(0);
  const landed = await app
    .db('entries')
    .where({ goal_id: await goalId(app.db, 'Jory', '1') })
    .where('recorded_at', '>', '2026-11-24T20:29:00Z');
  expect(landed.map(({ data }) => (data as { trials: string[] }).trials)).toEqual(Array(5).fill(['independent']));
  await again.stop();
});

test('signing out leaves nothing to read; what waits is sealed, and goes when its owner signs in again', async ({
  app,
  page,
}) => {
  const jory = await studentId(app.db, 'Jory');
  await kept(app, page, jory);
  await page.goto(`/students/${jory}/observe`);
  await settled(page);
  await page.route('**/sessions', (route) => route.abort());
  await page.keyboard.press('1');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(page.getByRole('button', { name: '1 waiting to be sent' })).toBeVisible();
  const saved = await app.db('entries').count().first();

  await page.goto('/account');
  await settled(page);
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Sign out' }).click();
  await expect(page).toHaveURL(/sign-in/);
  await expect.poll(() => keptPages(page)).toEqual([]);
  const left = await onDevice(page);
  expect(left).toContain('sealed');
  expect(left).not.toContain('Jory');

  // Somebody else on the device sees none of it, and sends none of it.
  await signInAs(app, page, 'Samir Tadesse');
  await page.goto('/');
  await settled(page);
  await expect(page.getByText('waiting to be sent')).toHaveCount(0);
  await page.unrouteAll();
  await page.goto('/account');
  await settled(page);
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page).toHaveURL(/sign-in/);
  expect(await app.db('entries').count().first()).toEqual(saved);

  await signInAs(app, page);
  await page.goto('/students');
  await expectToast(page, 'Saved for Jory: 1 goal.');
  expect(Number((await app.db('entries').count().first())?.count)).toBe(Number(saved?.count) + 1);
});

test('names that are hidden are hidden without network too; a device that is told to keep nothing keeps nothing', async ({
  app,
  page,
}) => {
  await kept(app, page, await studentId(app.db, 'Jory'));
  await page.getByRole('button', { name: 'Discreet off' }).click();
  await expect(page.getByRole('button', { name: 'Discreet on' })).toBeVisible();
  // What was kept before is thrown away first: it tells the names.
  const hidden = Date.now();
  await expect.poll(() => keptAt(page, '/students'), { timeout: 60_000 }).toBeGreaterThan(hidden);
  await page.context().setOffline(true);
  await page.goto('/students');
  await expect(page.getByRole('main')).toContainText('JW');
  await expect(page.getByRole('main')).not.toContainText('Jory');
  await page.context().setOffline(false);
  await page.goto('/account');
  await settled(page);
  await expect(page.getByText(/pages of your students, locked \(\d+ kB\)/)).toBeVisible();
  const section = page.getByRole('main');
  await section
    .locator('form', { has: page.locator('[name=keepsPages]') })
    .getByRole('button', { name: 'Off' })
    .click();
  await expect(page.getByText('Nothing is kept on this device at the moment.')).toBeVisible();
  await page.goto('/students');
  await settled(page);
  expect(await keptPages(page)).toEqual([]);
  const log = await app.db('access_log').where({ how: 'kept' }).countDistinct('student_id').first();
  expect(Number(log?.count)).toBeGreaterThan(1);

  // What waits for one person is sent by nobody else.
  const { id: samir } = (await app.db('people').where({ name: 'Samir Tadesse' }).first('id'))!;
  const headers = { origin: app.url, 'X-For': samir, 'content-type': 'application/json' };
  const address = `${app.url}/students/${await studentId(app.db, 'Jory')}/entries/${samir}.data`;
  expect((await page.request.post(address, { headers, data: {} })).status()).toBe(401);

  // Where devices lock themselves nothing is kept that would be seen before the lock is.
  const list = async () => (await page.request.get(`${app.url}/kept?pages`)).json();
  await app.db('schools').update({ lock_minutes: 5 });
  expect(await list()).toMatchObject({ mayShowAtOnce: false });
  await app.db('schools').update({ days_on_devices: 0, lock_minutes: null });
  expect(await list()).toMatchObject({ days: 0, pages: [], mayShowAtOnce: true });
});

test('it can be installed: a manifest with its icons and shortcuts, and an incident in two taps from the home screen', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/');
  const address = await page.locator('link[rel=manifest]').getAttribute('href');
  const manifest = await (await page.request.get(`${app.url}${address}`)).json();
  expect(manifest).toMatchObject({ name: 'Gentle Margin', display: 'standalone', start_url: '/' });
  const icons: { src: string; purpose?: string }[] = manifest.icons;
  expect(icons.some(({ purpose }) => purpose === 'maskable')).toBe(true);
  const touch = await page.locator('link[rel=apple-touch-icon]').getAttribute('href');
  for (const src of [...icons.map((icon) => icon.src), touch])
    expect((await page.request.get(`${app.url}${src}`)).headers()['content-type']).toMatch(/^image\//);
  const [, incident] = manifest.shortcuts as { name: string; url: string }[];
  expect(incident?.name).toBe('Record an incident');
  await page.goto(incident?.url ?? '');
  await page.getByRole('main').getByRole('link', { name: 'Jory' }).click();
  await expect(page).toHaveURL(/\/incidents\/new$/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Jory');
});
