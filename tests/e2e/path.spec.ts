// The one path through the whole product: observe, see it counted, find it in the report, share it, read it.
import { expect, expectToast, goalId, settled, signInAs, studentId, test } from './fixtures';

test('an observation moves the figures, stands in the report, and is read through a way in', async ({
  app,
  page,
  browser,
}) => {
  await signInAs(app, page);
  await page.goto('/students');
  await page.getByRole('link', { name: 'Fenna O.' }).first().click();
  await expect(page.getByRole('heading', { name: 'Fenna O.' })).toBeVisible();

  // Seven taps from the student's page: observe, five trial marks, save.
  let taps = 0;
  const tap = async (name: string | RegExp, within = page.getByRole('main')) => {
    await within.getByRole('button', { name }).or(within.getByRole('link', { name })).first().click();
    taps++;
  };
  await tap('Observe');
  const card = page.getByRole('region', { name: 'Sets the table' });
  for (let i = 0; i < 5; i++) await tap('Independent', card);
  await expect(card.getByText('100%')).toBeVisible();
  await tap(/^Save( ↵)?$/, page.getByRole('complementary', { name: 'How it will read' }));
  expect(taps).toBe(7);

  await expectToast(page, 'Saved for Fenna: 1 goal.');
  const margin = page.getByRole('complementary', { name: 'In the margin' });
  await expect(margin.getByRole('listitem').first()).toContainText('5 of 5 places alone (100%).');

  await page.getByRole('link', { name: 'Report', exact: true }).click();
  const newest = (of: typeof page) => of.locator('.report-group').first().getByRole('listitem').first();
  await expect(newest(page)).toContainText('15:30');
  await expect(newest(page)).toContainText('5 of 5 places alone (100%).');

  await page.getByRole('link', { name: 'Sharing', exact: true }).click();
  await page.getByRole('link', { name: 'Share links', exact: true }).click();
  await settled(page);
  await page.getByLabel('Who will read').fill('Grandmother');
  await page.getByRole('button', { name: 'Make the link' }).click();
  const link = await page.getByLabel('The link', { exact: true }).inputValue();
  expect(link).toMatch(/\/shared\/[\w-]{43}$/);

  const reader = await (await browser.newContext()).newPage();
  await reader.goto(app.url + new URL(link).pathname);
  await expect(reader.getByRole('heading', { name: 'Fenna O.' })).toBeVisible();
  await expect(newest(reader)).toContainText('5 of 5 places alone (100%).');
  await page.reload();
  const entry = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Grandmother' }) });
  await expect(entry).toContainText('last read Nov 24');
  await expect(entry).toContainText('opened 1 time');
});

test('a day’s figure is pooled anew with each entry: the median moves with it', async ({ app, page }) => {
  await signInAs(app, page);
  const goal = await goalId(app.db, 'Briar', '2');
  const student = await studentId(app.db, 'Briar');
  await page.goto(`/students/${student}/goals/${goal}`);
  await settled(page);
  await page.keyboard.press('t');
  const points = page.getByRole('table', { name: 'Points of the graph' }).getByRole('row');
  const before = await points.count();
  const beforeToday = await app.db('entries').where({ goal_id: goal, observed_on: '2026-11-24' }).whereNotNull('data');

  await page.keyboard.press('o');
  await expect(page.getByRole('heading', { name: 'Observing Briar Q.' })).toBeVisible();
  for (const key of ['1', '1', '2', '4', '5']) await page.keyboard.press(key);
  await page.keyboard.press('Enter');
  await expectToast(page, 'Saved for Briar: 1 goal.');

  await page.goto(`/students/${student}/goals/${goal}`);
  await settled(page);
  await page.keyboard.press('t');
  await expect(points).toHaveCount(beforeToday.length > 0 ? before : before + 1);
  const trials = beforeToday.flatMap((row) => (row.data as { trials: string[] }).trials);
  const right = trials.filter((trial) => ['independent', 'gesture'].includes(trial)).length + 3;
  await expect(points.last()).toContainText(`${right} of ${trials.length + 5}`);
});
