// The day at one look, and who collects how much.
import { axeFindings, expect, expectToast, goalId, schoolId, settled, signInAs, studentId, test } from './fixtures';

test('today says what is on, what is due there and why something needs a look, and leads to it', async ({
  app,
  page,
}) => {
  const [student, goal] = [await studentId(app.db, 'Dahlia'), await goalId(app.db, 'Dahlia', '3')];
  // A part of the day that holds 15:30 on Tuesdays, for everyone; and a goal with nothing for weeks.
  await app.db('timetable_blocks').insert({
    id: '7f0f2c1e-5a0f-4d0c-8a43-333333333333',
    school_id: await schoolId(app.db),
    ...{ group_id: null, weekday: 2, part: 'Last lesson', starts_at: '15:00', ends_at: '16:00', location_id: null },
  });
  await signInAs(app, page);
  await page.goto('/');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const now = page.locator('section').filter({ has: page.getByRole('heading', { name: 'Now', exact: true }) });
  await expect(now).toContainText('Last lesson');
  await expect(now.getByRole('listitem').filter({ hasText: 'Dahlia N.' })).toContainText('3 Reads safety signs');
  await expect(page.getByRole('heading', { name: 'Needs a closer look' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Tuesday workshop' })).toBeVisible();
  await now.getByRole('link', { name: 'Observe Dahlia N.' }).click();
  await expect(page).toHaveURL(new RegExp(`/students/${student}/observe\\?goal=${goal}`));
  await expect(page.getByRole('heading', { name: 'Observing Dahlia N.' })).toBeVisible();
  await settled(page);
  await page.keyboard.press('1');
  await page.keyboard.press('Enter');
  await expectToast(page, 'Saved for Dahlia: 1 goal.');

  await page.goto('/');
  await expect(now).not.toContainText('3 Reads safety signs');
  const margin = page.getByRole('complementary', { name: 'What came in today' });
  await expect(margin.getByRole('listitem').first()).toContainText('Dahlia N. · 3 · Reads safety signs');
});

test('on a day without school there is nothing to do', async ({ app, page }) => {
  await app.db('schools').update({ weekdays: [1, 3, 4, 5] });
  await signInAs(app, page);
  await page.goto('/');
  await expect(page.getByText(/^No school today: /)).toBeVisible();
});

test('coverage counts entries by person and goal, and says which goals have had nothing for how long', async ({
  app,
  page,
}) => {
  const goal = await goalId(app.db, 'Hollis', '2');
  await signInAs(app, page);
  await page.goto('/team?show=long');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const rows = page.getByRole('table', { name: 'Entries of Hollis B. by goal and week' }).getByRole('row');
  const row = rows.filter({ hasText: '2 Counts coins' });
  const since = await app
    .db('entries')
    .where({ goal_id: goal, withdrawn: false })
    .orderBy('observed_on', 'desc')
    .first('observed_on as on');
  await expect(row.getByRole('cell').last()).toHaveText(/^Nov \d+$/);
  await expect(page.getByRole('complementary')).toContainText('Hollis B. · 2 · Counts coins');
  // The counts of the grid are those of the database: all entries since the first Monday that is shown.
  const shown = await app
    .db('entries')
    .where({ goal_id: goal, withdrawn: false })
    .where('observed_on', '>=', '2026-10-05');
  const cells = (await row.getByRole('cell').allTextContents()).slice(0, 8).map((text) => Number(text) || 0);
  expect(cells.reduce((sum, count) => sum + count, 0)).toBe(shown.length);
  expect(since!.on < '2026-11-17').toBe(true);
  await page.getByRole('link', { name: 'All goals' }).click();
  await expect(rows.filter({ hasText: '1 Reads a recipe' })).toBeVisible();
});

test('somebody without students is told so', async ({ app, page }) => {
  await signInAs(app, page);
  const { id } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  // Who has recorded something needs no first steps.
  await expect(page.getByRole('region', { name: 'First steps' })).toHaveCount(0);
  await app.db('team_members').where({ person_id: id }).update({ until_date: '2026-11-01' });
  for (const address of ['/', '/team', '/rounds/new']) {
    await page.goto(address);
    await expect(page.getByRole('main')).toContainText(
      /not on any student’s support team yet|No goal is worked on yet/,
    );
  }
});

test('who is away today has nothing due, and is out of the rates until the day is taken back', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Hollis');
  await page.goto('/');
  const main = page.getByRole('main');
  await expect(main.getByRole('link', { name: 'Observe Hollis B.' })).toBeVisible();
  await page.goto(`/students/${student}/absences`);
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  // A weekend is refused at its field; what was typed stays.
  await page.getByLabel('From').fill('2026-11-21');
  await page.getByLabel('To, with this day').fill('2026-11-22');
  await page.getByRole('button', { name: 'Save days away' }).click();
  await expect(main).toContainText('There was no school then.');
  await expect(page.getByLabel('From')).toHaveValue('2026-11-21');
  await page.getByLabel('To, with this day').fill('2026-11-24');
  await page.getByRole('button', { name: 'Save days away' }).click();
  await expectToast(page, 'Saved: away on 2 school days.');
  await page.goto('/');
  await expect(main).toContainText('Away today: Hollis B.');
  await expect(main.getByRole('link', { name: 'Observe Hollis B.' })).toHaveCount(0);
  await main.getByRole('link', { name: 'Hollis B.', exact: true }).click();
  await page.getByRole('button', { name: 'Remove Tue, Nov 24' }).click();
  await expectToast(page, 'Removed: the student was there on that day.');
  await page.goto('/');
  await expect(main.getByRole('link', { name: 'Observe Hollis B.' })).toBeVisible();
});
