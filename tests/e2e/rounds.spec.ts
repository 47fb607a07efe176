import { readFileSync } from 'node:fs';
// Several students in one go, and what waits on the device while the server is gone.
import type { Page } from '@playwright/test';
import {
  type App,
  axeFindings,
  expect,
  expectToast,
  goalId,
  schoolId,
  settled,
  signInAs,
  studentId,
  test,
} from './fixtures';

const sheet = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const entriesOf = (app: App, goal: string, on = '2026-11-24') =>
  app.db('entries').where({ goal_id: goal, observed_on: on }).where('recorded_at', '>', '2026-11-24T20:29:00Z');

async function observe(app: App, page: Page, firstName: string) {
  await page.goto(`/students/${await studentId(app.db, firstName)}/observe`);
  await settled(page);
}

/** Marks a chance and saves while the server cannot be reached. */
async function saveWithoutServer(page: Page) {
  await page.keyboard.press('1');
  await page.context().setOffline(true);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: '1 waiting to be sent' })).toBeVisible();
}

test('a round is made, gone through with the server cut off in the middle, and everything lands once', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/rounds');
  await page.getByRole('link', { name: 'Make a round' }).click();
  await settled(page);
  await page.getByRole('button', { name: 'Save the round' }).click();
  await expect(page.getByText('Choose at least one goal.')).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Tuesday table');
  await page.getByLabel('Usually on').selectOption('Tuesday');
  await page.getByRole('group', { name: 'Fenna O.' }).getByLabel('1 Sets the table').check();
  await page.getByRole('group', { name: 'Jory' }).getByRole('checkbox').first().check();
  await page.getByRole('group', { name: 'Hollis' }).getByRole('checkbox').first().check();
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Save the round' }).click();
  await page.getByRole('link', { name: 'Go through Tuesday table' }).click();
  await settled(page);
  await expect(page.getByRole('heading', { name: 'Tuesday table, 3 students' })).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);

  // One after the other by key; the last of the three is left alone.
  await page.keyboard.press('1');
  await page.keyboard.press(']');
  await page.keyboard.press('1');
  await page.keyboard.press('2');
  await page.getByRole('button', { name: 'Side by side' }).click();
  await expect(page.getByRole('button', { name: /^Opportunity/ })).toHaveCount(3);
  app.wire.cut();
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(page.getByText('Nothing is lost: 2 records wait')).toBeVisible({ timeout: 20_000 });
  app.wire.mend();
  await expect(page.getByRole('button', { name: /waiting to be sent/ })).toHaveCount(0, { timeout: 20_000 });
  const { id } = (await app.db('rounds').where({ name: 'Tuesday table' }).first('id'))!;
  const round = await app.db('round_goals').where({ round_id: id }).orderBy('position');
  expect(await Promise.all(round.map(async ({ goal_id }) => (await entriesOf(app, goal_id)).length))).toEqual([
    1, 1, 0,
  ]);
});

test('what waits is read, changed and taken away on the device', async ({ app, page }) => {
  await signInAs(app, page);
  await observe(app, page, 'Jory');
  await page.waitForTimeout(3500);
  await saveWithoutServer(page);
  await page.getByRole('button', { name: '1 waiting to be sent' }).click();
  const dialog = page.getByRole('dialog', { name: 'Waiting to be sent' });
  await expect(dialog).toContainText('Jory');
  await dialog.getByRole('button', { name: 'Change' }).click();
  await dialog.getByRole('button', { name: 'Independent', exact: true }).click();
  await dialog.getByLabel('Time').fill('08:05');
  await dialog.getByRole('button', { name: 'Keep the change' }).click();
  await expect(dialog).toContainText('08:05');
  expect(await axeFindings(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Close' }).click();

  await page.keyboard.press('1');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: '2 waiting to be sent' }).click();
  await dialog.getByRole('button', { name: 'Remove' }).last().click();
  await dialog.getByRole('button', { name: 'Remove it' }).click();
  await expect(dialog.getByRole('button', { name: 'Remove' })).toHaveCount(1);
  await page.context().setOffline(false);
  await expectToast(page, 'Saved for Jory: 1 goal.');
  const landed = await entriesOf(app, await goalId(app.db, 'Jory', '1'));
  expect(
    landed.map(({ observed_time, data }) => [observed_time, (data as { trials: string[] }).trials.length]),
  ).toEqual([['08:05', 2]]);
});

test('what an older version kept on the device and this one cannot read is not lost', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/students');
  await settled(page);
  const { id: personId } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  await page.evaluate(async (who) => {
    const db = await new Promise<IDBDatabase>((resolve) => {
      const opening = indexedDB.open('gentle-margin');
      opening.onsuccess = () => resolve(opening.result);
    });
    const item = {
      id: 'old',
      personId: who,
      savedAt: 1_795_000_000_000,
      problem: null,
      kind: 'letter',
      words: 'Sanded.',
    };
    await new Promise((resolve) => {
      db.transaction('waiting', 'readwrite').objectStore('waiting').put(item).onsuccess = resolve;
    });
    db.close();
  }, personId);
  await page.reload();
  await page.getByRole('button', { name: '1 waiting to be sent' }).click();
  const dialog = page.getByRole('dialog', { name: 'Waiting to be sent' });
  await expect(dialog.getByRole('alert')).toContainText('cannot read it any more');
  await expect(dialog.getByRole('button', { name: 'Remove it from this device' })).toHaveCount(0);
  const download = page.waitForEvent('download');
  await dialog.getByRole('link', { name: 'Download' }).click();
  expect(readFileSync(await (await download).path(), 'utf8')).toContain('Sanded.');
  expect(await axeFindings(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Remove it from this device' }).click();
  await expect(dialog).toContainText('Nothing waits');
});

test('leaving with something waiting is warned about, and the next person on the device sees nothing of it', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/account');
  await settled(page);
  // Written while the page is open: as if it had been saved in another tab without the server.
  const jory = await studentId(app.db, 'Jory');
  await page.route('**/sessions', (route) => route.abort());
  await page.goto(`/students/${jory}/observe`);
  await settled(page);
  await page.keyboard.press('1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: '1 waiting to be sent' })).toBeVisible();
  await page.goto('/account');
  await settled(page);
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page.getByRole('heading', { name: '1 record waits to be sent' })).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Sign out' }).click();
  await expect(page).toHaveURL(/sign-in/);
  await page.unroute('**/sessions');

  await signInAs(app, page, 'Lotte Varga');
  await page.goto('/students');
  await settled(page);
  await expect(page.getByRole('button', { name: /waiting to be sent/ })).toHaveCount(0);
  expect(await entriesOf(app, await goalId(app.db, 'Jory', '1'))).toHaveLength(0);

  await signInAs(app, page);
  await page.goto('/students');
  await expectToast(page, 'Saved for Jory: 1 goal.');
  expect(await entriesOf(app, await goalId(app.db, 'Jory', '1'))).toHaveLength(1);
});

test('a goal that changes while an entry for its old version waits: the entry lands, with its version', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const goal = await goalId(app.db, 'Jory', '1');
  await observe(app, page, 'Jory');
  await saveWithoutServer(page);
  const stored = (await app.db('goal_measures').where({ goal_id: goal }).first('measure'))!;
  const measure = stored.measure as { levels: { key: string }[] };
  const levels = measure.levels.slice(1);
  const anew = JSON.stringify({ ...measure, levels, mostSupport: levels[0]!.key });
  await app.db('goal_measures').insert({ goal_id: goal, version: 2, measure: anew, from_date: '2026-11-24' });
  await app.db('goals').where({ id: goal }).update({ measure_version: 2 });
  await page.context().setOffline(false);
  await expectToast(page, 'Saved for Jory: 1 goal.');
  expect(await entriesOf(app, goal)).toMatchObject([
    { measure_version: 1, data: { trials: [measure.levels[0]!.key] } },
  ]);
});

test('a round that is not kept is gone through once; one that is taken away can be put back', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/rounds/new');
  await settled(page);
  await page.getByRole('group', { name: 'Fenna O.' }).getByLabel('1 Sets the table').check();
  await page.getByRole('button', { name: 'Go through it once' }).click();
  await settled(page);
  await expect(sheet(page, 'Sets the table')).toBeVisible();
  await page.keyboard.press('1');
  await page.keyboard.press('Enter');
  await expectToast(page, 'Saved for Fenna: 1 goal.');

  const [person] = await app.db('people').where({ name: 'Hanneke Bruun' });
  const id = '7f0f2c1e-5a0f-4d0c-8a43-222222222222';
  await app.db('rounds').insert({ id, name: 'Friday garden', made_by: person!.id, school_id: await schoolId(app.db) });
  await page.goto('/rounds');
  await settled(page);
  await page.getByRole('button', { name: 'Remove Friday garden' }).click();
  await expect(page.getByRole('link', { name: 'Friday garden' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByRole('link', { name: 'Friday garden', exact: true })).toBeVisible();
});
