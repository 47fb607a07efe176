import type { Page } from '@playwright/test';
import { rewriting } from '../database/rewriting';
import { type App, expect, expectToast, goalId, newest, settled, signInAs, studentId, test } from './fixtures';

async function observe(app: App, page: Page, firstName: string) {
  await page.goto(`/students/${await studentId(app.db, firstName)}/observe`);
  await settled(page);
}
const sheet = (page: Page, name: string) => page.getByRole('region', { name });
const trialMarks = (page: Page, name: string) => sheet(page, name).getByRole('button', { name: /^Opportunity/ });
const countOf = async (app: App) => Number((await app.db('entries').count().first())?.count);

test('trial marks: by key and by tap, taken back, changed, counted live against the criterion', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await observe(app, page, 'Emrys');
  const card = sheet(page, 'Measures ingredients');
  await expect(card).toContainText('nothing yet: stays blank, not zero');
  await expect(card).toContainText('needs 5 of 6');
  for (const key of ['1', '1', '3', '5']) await page.keyboard.press(key);
  await expect(card).toContainText('50%');
  await expect(card).toContainText('4 of 6 ingredients');
  await page.keyboard.press('u');
  await expect(trialMarks(page, 'Measures ingredients')).toHaveCount(3);
  await expect(card).toContainText('67%');
  await trialMarks(page, 'Measures ingredients').nth(2).click();
  await expect(card).toContainText('Opportunity 3 is chosen: the next tap replaces it.');
  await card.getByRole('button', { name: 'Gesture' }).click();
  await expect(trialMarks(page, 'Measures ingredients')).toHaveCount(3);
  await expect(card).toContainText('100%');
  const margin = page.getByRole('complementary', { name: 'How it will read' });
  await expect(margin).toContainText(
    '3 of 3 ingredients with a gesture or less help (100%). Alone: 2. With a gesture: 1.',
  );
  await expect(margin).toContainText('1a, beside the last five');
});

test('everything by keyboard: next goal, marks, save; goals left alone stay blank', async ({ app, page }) => {
  await signInAs(app, page);
  await observe(app, page, 'Gideon');
  const before = await countOf(app);
  await page.keyboard.press('n');
  for (const key of ['1', '2', '6']) await page.keyboard.press(key);
  await expect(trialMarks(page, 'Follows two steps')).toHaveCount(3);
  await page.keyboard.press('Enter');
  await expectToast(page, 'Saved for Gideon: 1 goal.');
  expect(await countOf(app)).toBe(before + 1);
  expect(await newest(app)).toMatchObject({
    goal_id: await goalId(app.db, 'Gideon', '2'),
    data: { trials: ['independent', 'picture', 'incorrect'] },
    observed_on: '2026-11-24',
    observed_time: '15:30',
  });
});

test('what was saved is taken back with one tap, and says so on its page; every goal has “no score today” at hand', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await observe(app, page, 'Gideon');
  const cards = page.locator('section[aria-labelledby^="goal-"]');
  await expect(page.getByRole('group', { name: 'No score today' })).toHaveCount(await cards.count());
  await page.keyboard.press('n');
  await page.keyboard.press('1');
  await page.keyboard.press('Enter');
  await expectToast(page, 'Saved for Gideon: 1 goal.');
  const saved = (await newest(app))!;
  await page.getByRole('button', { name: 'Undo' }).click();
  await expectToast(page, 'Undone: 1 entry. Withdrawn, and counted nowhere.');
  await page.goto(`/students/${await studentId(app.db, 'Gideon')}/entries/${saved.id}`);
  await expect(page.getByText('Undone right after saving.').first()).toBeVisible();
});

test('date, time, place and observer are filled in and can be changed', async ({ app, page }) => {
  await signInAs(app, page);
  await observe(app, page, 'Gideon');
  await page.getByRole('button', { name: 'change', exact: true }).click();
  await page.getByLabel('Date').fill('2026-11-20');
  await page.getByLabel('Time').fill('08:15');
  await page.getByLabel('Location', { exact: true }).selectOption('Kitchen');
  await page.getByLabel('Observer', { exact: true }).selectOption('P. Ibarra');
  await page.getByRole('heading', { name: 'Observing' }).click();
  await page.keyboard.press('1');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for Gideon: 1 goal.');
  const entry = await newest(app);
  expect([entry!.observed_on, entry!.observed_time]).toEqual(['2026-11-20', '08:15']);
  expect(entry!.recorded_at.toISOString().slice(0, 10)).toBe('2026-11-24');
  expect(entry!.observer_id).not.toBe(entry!.recorded_by);
});

test('a goal with eight levels of its own has a pad and a key for each, and for what is no success', async ({
  app,
  page,
}) => {
  const levels = Array.from({ length: 8 }, (_, i) => ({
    key: `level${i}`,
    label: `Level ${i + 1}`,
    words: `help ${i + 1}`,
  }));
  const goal = await goalId(app.db, 'Hollis', '1');
  const { measure } = (await app.db('goal_measures').where({ goal_id: goal }).first('measure'))!;
  const changed = JSON.stringify({ ...(measure as object), levels, mostSupport: 'level2' });
  await app.db('goal_measures').where({ goal_id: goal }).update({ measure: changed });
  const data = JSON.stringify({ trials: ['level0'] });
  await rewriting(app.db, (trx) => trx('entries').where({ goal_id: goal }).update({ data, reason: null }));
  await signInAs(app, page);
  await observe(app, page, 'Hollis');
  for (const key of ['1', '3', '8', '9', '0', '-']) await page.keyboard.press(key);
  await expect(trialMarks(page, 'Reads a recipe')).toHaveCount(6);
  const margin = page.getByRole('complementary', { name: 'How it will read' });
  await expect(margin).toContainText('2 of 6 lines with help 3 or less help (33%).');
  await page.keyboard.press('Enter');
  await expectToast(page, 'Saved for Hollis: 1 goal.');
  expect((await newest(app))!.data.trials).toEqual([
    'level0',
    'level2',
    'level7',
    'incorrect',
    'noResponse',
    'refused',
  ]);
});

test('a session can end without a score, for a reason, and with a word', async ({ app, page }) => {
  await signInAs(app, page);
  await observe(app, page, 'Hollis');
  const card = sheet(page, 'Reads a recipe');
  await card.getByRole('button', { name: 'No opportunity' }).click();
  await card.getByRole('textbox').fill('The oven was being mended.');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for Hollis: 1 goal.');
  expect(await newest(app)).toMatchObject({ data: null, reason: 'noOpportunity', note: 'The oven was being mended.' });
  await page.getByRole('link', { name: 'Report', exact: true }).click();
  await expect(page.getByText('The skill did not come up. No score.').first()).toBeVisible();
});

test('nothing marked, or a word without a mark, is not sent and says what is missing', async ({ app, page }) => {
  await signInAs(app, page);
  await observe(app, page, 'Hollis');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(page.getByRole('alert')).toContainText('Nothing is marked yet.');
  await sheet(page, 'Reads a recipe').getByRole('textbox').fill('Only a word.');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(sheet(page, 'Reads a recipe').getByRole('alert')).toContainText('nothing is marked');
  await expect(sheet(page, 'Reads a recipe').getByRole('textbox')).toHaveValue('Only a word.');
});

test('a date in the future and a note that is too long get their message at the field, and nothing is lost', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await observe(app, page, 'Hollis');
  const before = await countOf(app);
  await page.keyboard.press('1');
  await page.getByRole('button', { name: 'change', exact: true }).click();
  await page.getByLabel('Date').fill('2026-11-25');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(page.getByText('This lies in the future.')).toBeVisible();
  await page.getByLabel('Date').fill('2026-11-24');
  const note = sheet(page, 'Reads a recipe').getByRole('textbox');
  await note.fill('x'.repeat(4001));
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(sheet(page, 'Reads a recipe').getByRole('alert')).toContainText('4,000 characters');
  await expect(note).toHaveValue('x'.repeat(4001));
  await expect(trialMarks(page, 'Reads a recipe')).toHaveCount(1);
  expect(await countOf(app)).toBe(before);
  await note.fill('Short.');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for Hollis: 1 goal.');
});

test('what is marked survives a reload, and is gone after saving', async ({ app, page }) => {
  await signInAs(app, page);
  await observe(app, page, 'Jory');
  await page.keyboard.press('1');
  await page.keyboard.press('2');
  await expect(page.getByText('Kept on this device ✓')).toBeVisible();
  await page.reload();
  await expect(page.getByText('Picked up where you left off ✓')).toBeVisible();
  await expect(trialMarks(page, 'Plants a row')).toHaveCount(2);
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for Jory: 1 goal.');
  await observe(app, page, 'Jory');
  await expect(trialMarks(page, 'Plants a row')).toHaveCount(0);
  await expect(page.getByText('Picked up')).toHaveCount(0);
});

test('with the database gone the page says so, keeps everything, and saves by itself once', async ({ app, page }) => {
  await signInAs(app, page);
  await observe(app, page, 'Jory');
  const before = await countOf(app);
  await page.keyboard.press('1');
  app.wire.cut();
  await page.keyboard.press('Enter');
  await expect(page.getByText('The server cannot be reached. Nothing is lost')).toBeVisible({ timeout: 20_000 });
  await expect(page.getByRole('button', { name: '1 waiting to be sent' })).toBeVisible();
  await expect(trialMarks(page, 'Plants a row')).toHaveCount(0);
  app.wire.mend();
  await expectToast(page, 'Saved for Jory: 1 goal.');
  expect(await countOf(app)).toBe(before + 1);
});

test('with the server gone it is the same', async ({ app, page }) => {
  await signInAs(app, page);
  await observe(app, page, 'Jory');
  await page.keyboard.press('1');
  await page.context().setOffline(true);
  await page.keyboard.press('Enter');
  await expect(page.getByText('The server cannot be reached. Nothing is lost')).toBeVisible();
  await page.context().setOffline(false);
  await expectToast(page, 'Saved for Jory: 1 goal.');
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('what is tapped on a card that is not open yet hears it: nothing moves between pressing and lifting', async ({
    app,
    page,
  }) => {
    await signInAs(app, page);
    await observe(app, page, 'Emrys');
    const closed = () => page.locator('section[aria-labelledby^="goal-"]:not([data-active])');
    const names = ['Absent', 'No opportunity', 'Enter counts instead'];
    for (const name of names) {
      const card = closed()
        .filter({ has: page.getByRole('button', { name, exact: true }) })
        .last();
      const title = (await card.getByRole('heading').textContent()) ?? '';
      const button = card.getByRole('button', { name, exact: true });
      await button.scrollIntoViewIfNeeded();
      const at = (await button.boundingBox())!;
      const [x, y] = [at.x + at.width / 2, at.y + at.height / 2];
      if (name === 'Absent') await page.touchscreen.tap(x, y);
      else {
        await page.mouse.move(x, y);
        await page.mouse.down();
        expect((await button.boundingBox())!.y).toBe(at.y);
        await page.mouse.up();
      }
      const same = page.getByRole('region', { name: title });
      if (name === 'Enter counts instead') await expect(same.getByRole('textbox').first()).toBeVisible();
      else await expect(same.getByRole('button', { name, exact: true })).toHaveAttribute('aria-pressed', 'true');
      await expect(same).toHaveAttribute('data-active', 'true');
    }
    // And so by touch for each.
    for (const name of ['No opportunity', 'Refused the session']) {
      const card = closed()
        .filter({ has: page.getByRole('button', { name, exact: true }) })
        .first();
      const title = (await card.getByRole('heading').textContent()) ?? '';
      await card.getByRole('button', { name, exact: true }).tap();
      const same = page.getByRole('region', { name: title });
      await expect(same.getByRole('button', { name, exact: true })).toHaveAttribute('aria-pressed', 'true');
    }
  });

  test('the pads are big, save is under the thumb, and nothing sticks out sideways', async ({ app, page }) => {
    await signInAs(app, page);
    await observe(app, page, 'Emrys');
    const pad = sheet(page, 'Measures ingredients').getByRole('button', { name: 'Independent', exact: true });
    await pad.tap();
    await expect.poll(async () => (await pad.boundingBox())?.height).toBeGreaterThanOrEqual(58);
    const mark = await trialMarks(page, 'Measures ingredients').first().boundingBox();
    expect(mark?.width).toBeGreaterThanOrEqual(44);
    const save = await page.getByRole('button', { name: /^Save( ↵)?$/ }).boundingBox();
    expect(save && save.y + save.height).toBeGreaterThan(780);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await page.getByRole('button', { name: /^Save( ↵)?$/ }).tap();
    await expectToast(page, 'Saved for Emrys: 1 goal.');
  });
});
