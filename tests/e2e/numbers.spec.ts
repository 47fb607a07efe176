// What a goal's page says of its numbers, and how it can be checked.
import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { axeFindings, expect, expectToast, goalId, settled, signInAs, studentId, test } from './fixtures';

test('the goal page says what it says in a sentence, how it is computed, and gives its data away', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  const goal = await goalId(app.db, 'Ansel', '3');
  await page.goto(`/students/${student}/goals/${goal}`);
  await settled(page);
  const main = page.getByRole('main');
  await expect(main).toContainText(/Over the last 20 days .* points (above|below) the aim line, give or take \d/);
  await expect(main.getByRole('heading', { name: 'By whom, where and when' })).toBeVisible();
  await page.getByText('How this is computed', { exact: true }).click();
  await expect(main).toContainText('How easily luck would meet it');
  await expect(main).toContainText(/Weighted least squares of \d+ scores/);
  await expect(main).toContainText(/NAP 0\.\d\d \(0\.\d\d to 0\.\d\d, Newcombe 2006\)/);
  await expect(main).toContainText('npm run --silent analyse -- series data.csv --direction increase');
  expect(await axeFindings(page)).toEqual([]);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Data of this page' }).click(),
  ]);
  const { data, meta } = Papa.parse<Record<string, string>>(readFileSync(await download.path(), 'utf8').trim(), {
    header: true,
  });
  expect(meta.fields).toEqual(['date', 'value', 'of', 'phase', 'baseline']);
  expect(data.length).toBeGreaterThan(40);
  expect(data.filter(({ baseline }) => baseline === 'yes').length).toBeGreaterThanOrEqual(3);
  const logged = await app.db('access_log').where({ what: 'Data of goal 3 (CSV)' });
  expect(logged).toHaveLength(1);
});

test('help is pooled over a time that is chosen', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Ansel')}/goals/${await goalId(app.db, 'Ansel', '3')}`);
  await settled(page);
  const over = page.getByLabel('Over', { exact: true });
  await over.selectOption('All so far');
  const independent = page.getByRole('listitem').filter({ hasText: /Independent: \d+ \(/ });
  const all = await independent.textContent();
  await over.selectOption('Last 20 school days');
  const recent = await independent.textContent();
  const count = (text: string | null) => Number(/\d+/.exec(text ?? '')?.[0]);
  expect(count(recent)).toBeGreaterThan(0);
  expect(count(recent)).toBeLessThan(count(all));
});

test('a goal without a baseline takes the median of its first three in one tap', async ({ app, page }) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  const goal = await goalId(app.db, 'Ansel', '1');
  await app.db('goals').where({ id: goal }).update({ baseline_value: null, baseline_on: null });
  await app.db('goal_phases').where({ goal_id: goal }).update({ is_baseline: false });
  await page.goto(`/students/${student}/goals/${goal}`);
  await settled(page);
  await expect(page.getByText('There is no baseline, so there is no aim line')).toBeVisible();
  await page.getByRole('button', { name: /^Take the median of the first three: \d+%/ }).click();
  await expect(page.getByText(/^The baseline is \d+%/)).toBeVisible();
  await expect(page.getByText('There is no baseline, so there is no aim line')).toHaveCount(0);
  const stored = await app.db('goals').where({ id: goal }).first();
  expect(stored?.baseline_value).not.toBeNull();
  expect(await app.db('goal_revisions').where({ goal_id: goal })).toHaveLength(1);
});

test('while a criterion is written it says how easily luck would meet it', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Ansel')}/goals/new`);
  await settled(page);
  const planned = page.getByLabel('Planned in a session, if the goal says');
  await planned.fill('5');
  const luck = page.getByText(/^Of 100 students who are truly at 60%/);
  await expect(luck).toContainText(/more than 99|about 9\d/);
  await expect(page.getByText(/^With 10 tries a day instead of 5/)).toBeVisible();
  await expect(page.getByLabel('Counts with at least so many tries')).toHaveAttribute('placeholder', '3');
});

test('the steps of a support: written with the phase, tapped while observing, corrected, and beside what the student did', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  const goal = await goalId(app.db, 'Ansel', '1');
  await page.goto(`/students/${student}/goals/${goal}/edit`);
  await settled(page);
  const phase = page
    .getByRole('listitem')
    .filter({ has: page.getByLabel('What begins') })
    .last();
  await phase.getByText('Steps of the support (optional)').click();
  for (const [at, step] of ['Pencil line first', 'Counts aloud'].entries()) {
    await phase.getByRole('button', { name: 'Add a step' }).click();
    await phase.getByLabel('What the adult does').nth(at).fill(step);
  }
  await page.getByRole('button', { name: 'Save the goal' }).click();
  await expectToast(page, 'Goal 1 is changed.');
  const main = page.getByRole('main');
  await settled(page);
  await expect(main.getByRole('heading', { name: /^Fidelity/ })).toHaveCount(0);

  await page.goto(`/students/${student}/observe?goal=${goal}`);
  await settled(page);
  await page.keyboard.press('1');
  await page.getByRole('button', { name: 'All done' }).first().click();
  const counts = page.getByRole('button', { name: /^Counts aloud/ });
  await expect(counts).toHaveAccessibleName('Counts aloud: done');
  await counts.click();
  await expect(counts).toHaveAccessibleName('Counts aloud: not done');
  const said = '1 of 2 support steps done (50%); not done: Counts aloud.';
  await expect(page.getByText(said)).toBeVisible();
  // It survives a reload, as all that is marked does.
  await page.reload();
  await settled(page);
  await expect(counts).toHaveAccessibleName('Counts aloud: not done');
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for Ansel: 1 goal.');

  await page.goto(`/students/${student}/goals/${goal}`);
  await settled(page);
  await expect(main.getByRole('heading', { name: /^Fidelity/ })).toBeVisible();
  await expect(main).toContainText(/1 of \d+ sessions say which steps were done; 50% of those steps were\./);
  await expect(main.getByRole('row', { name: 'Counts aloud 0 of 1 0%' })).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);

  const entry = (await app.db('entries').whereNotNull('fidelity').where({ goal_id: goal }).first('id'))!.id;
  await page.goto(`/students/${student}/entries/${entry}`);
  await settled(page);
  await expect(main).toContainText(said);
  await page.getByRole('button', { name: 'Correct entry' }).click();
  await page.getByRole('button', { name: /^Counts aloud/ }).click();
  await page.getByLabel('Why is it corrected?').fill('It was never asked for.');
  await page.getByRole('button', { name: 'Save the correction' }).click();
  await expectToast(page, 'Corrected. What it said before is kept.');
  await expect(main).toContainText('1 of 1 support step done (100%).');
});
