// What can go wrong with a device: however it does, as many entries are saved as were meant to be, each once.
import type { Page, Route } from '@playwright/test';
import { type App, expect, expectToast, goalId, settled, signInAs, studentId, test } from './fixtures';

const saveButton = (page: Page) => page.getByRole('button', { name: /^Save( ↵)?$/ });

async function observeJory(app: App, page: Page) {
  await page.goto(`/students/${await studentId(app.db, 'Jory')}/observe`);
  await settled(page);
}

/** What has been saved of Jory’s first goal in this test. */
const saved = async (app: App) =>
  app
    .db('entries')
    .where({ goal_id: await goalId(app.db, 'Jory', '1') })
    .where('recorded_at', '>', '2026-11-24T20:29:00Z')
    .select('observed_on', 'observed_time', 'data');

test('a tab that is killed at any step of a save: what was meant to be saved is saved once', async ({
  app,
  page,
  context,
}) => {
  await signInAs(app, page);
  let taps = 0;
  const steps: Record<string, (route: Route) => Promise<unknown> | undefined> = {
    // Before it left the device.
    unsent: (route) => route.abort(),
    // The server has it, and its answer is lost.
    unheard: async (route) => {
      await route.fetch();
      await route.abort();
    },
    // Nobody knows: the tab goes while it is under way.
    underWay: () => undefined,
  };
  for (const step of Object.values(steps)) {
    const tab = await context.newPage();
    await observeJory(app, tab);
    await tab.route('**/sessions', step);
    await tab.keyboard.press('1');
    await expect(tab.getByText('Kept on this device')).toBeVisible();
    const sent = tab.waitForRequest('**/sessions');
    await saveButton(tab).click();
    await sent;
    taps++;
    await tab.close();
    const again = await context.newPage();
    await again.goto('/students');
    await expect.poll(async () => (await saved(app)).length, { timeout: 30_000 }).toBe(taps);
    await expect(again.getByRole('button', { name: /waiting to be sent/ })).toHaveCount(0);
    await again.close();
  }

  // Killed before “save”: the marks are there, and nothing was saved.
  const tab = await context.newPage();
  await observeJory(app, tab);
  await tab.keyboard.press('1');
  await tab.keyboard.press('2');
  await expect(tab.getByText('Kept on this device')).toBeVisible();
  await tab.close();
  await observeJory(app, page);
  await expect(page.getByText('Picked up where you left')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Opportunity \d/ })).toHaveCount(2);
  expect(await saved(app)).toHaveLength(taps);
});

test('a device that has no room keeps nothing and says so; with the server there it is saved all the same', async ({
  app,
  page,
}) => {
  await page.addInitScript(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
    };
  });
  await signInAs(app, page);
  await observeJory(app, page);
  await page.keyboard.press('1');
  await page.context().setOffline(true);
  await saveButton(page).click();
  await expect(page.getByText(/this browser keeps nothing/)).toBeVisible();
  // It stays as it was marked, and goes when it can.
  await expect(page.getByRole('button', { name: /^Opportunity 1/ })).toBeVisible();
  await page.context().setOffline(false);
  await saveButton(page).click();
  await expectToast(page, 'Saved for Jory: 1 goal.');
  expect(await saved(app)).toHaveLength(1);
});

test('a clock that is an hour wrong changes no entry’s time', async ({ app, page }) => {
  await page.clock.install({ time: new Date(Date.now() + 3600_000) });
  await signInAs(app, page);
  await observeJory(app, page);
  await page.keyboard.press('1');
  await saveButton(page).click();
  await expectToast(page, 'Saved for Jory: 1 goal.');
  const [entry] = await saved(app);
  expect(entry).toMatchObject({ observed_on: '2026-11-24' });
  expect(entry?.observed_time).toMatch(/^15:3/);
});

test('a week without network: the sign-in has ended, nobody else sees what waits, and it goes when one signs in again', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await observeJory(app, page);
  await page.keyboard.press('1');
  await page.context().setOffline(true);
  await saveButton(page).click();
  await expect(page.getByRole('button', { name: '1 waiting to be sent' })).toBeVisible();
  await app.db('sign_in_sessions').delete();
  await page.context().setOffline(false);
  await expect(page.getByText(/You are signed out/).first()).toBeVisible();
  expect(await saved(app)).toHaveLength(0);
  await signInAs(app, page, 'Samir Tadesse');
  await page.goto('/students');
  await settled(page);
  await expect(page.getByText('waiting to be sent')).toHaveCount(0);
  expect(await saved(app)).toHaveLength(0);
  await signInAs(app, page);
  await page.goto('/students');
  await expectToast(page, 'Saved for Jory: 1 goal.');
  expect(await saved(app)).toHaveLength(1);
});
