// The class as a whole: logs of a group side by side, and what they come to.
import Papa from 'papaparse';
import { axeFindings, expect, expectToast, settled, signInAs, test } from './fixtures';
import { printedPages } from './printed';

test('a group’s logs stand side by side, sorted, added up, printed and taken along; a new entry counts at once', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Class' }).click();
  await settled(page);
  await expect(page.getByRole('heading', { name: 'Class totals' })).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await page.getByLabel('Group').selectOption('Garden group');
  await expect(page).toHaveURL(/group=Garden/);
  await settled(page);
  const table = page.getByRole('region', { name: 'Totals of plants, as a table' });
  const rows = table.getByRole('row');
  await expect(rows).toHaveCount(6);
  const soFar = async () =>
    (await table.getByRole('cell', { name: /^\d+ of \d+$/ }).allTextContents()).map((text) =>
      text.split(' of ').map(Number),
    );
  // The class is the sum of its logs.
  const all = await soFar();
  for (const at of [0, 1]) {
    expect(all.slice(0, -1).reduce((sum, row) => sum + (row[at] ?? 0), 0)).toBe(all.at(-1)?.[at]);
  }
  await table.getByRole('link', { name: 'So far' }).click();
  await expect(table.getByRole('columnheader', { name: 'So far' })).toHaveAttribute('aria-sort', 'ascending');
  await settled(page);
  const shares = (await soFar()).slice(0, -1).map(([amount = 0, total = 1]) => amount / total);
  expect(shares).toEqual(shares.toSorted((a, b) => a - b));
  for (const text of await printedPages(page)) expect(text).toContain('Class totals · Garden group');

  const file = await page.getByRole('link', { name: 'These totals as a file (CSV)' }).getAttribute('href');
  const { data } = Papa.parse<Record<string, string>>((await (await page.request.get(file ?? '')).text()).trim(), {
    header: true,
  });
  expect(data).toHaveLength(4);
  const ione = data.find(({ student }) => student === 'Ione C.');
  expect(Number(ione?.Herbs) + Number(ione?.Vegetables)).toBe(Number(ione?.['so far']));
  expect(await app.db('access_log').where({ what: 'Class totals (CSV)' })).toHaveLength(4);

  // From a name to the goal, where the same categories stand; three more herbs count at once.
  await table.getByRole('link', { name: /^Ione C\./ }).click();
  await expect(page.getByRole('heading', { name: 'By category' })).toBeVisible();
  await expect(page.getByRole('main')).toContainText(`${ione?.['so far']} of 140 plants altogether`);
  await expect(page.getByRole('row', { name: `Herbs ${ione?.Herbs}` })).toBeVisible();
  const ofIone = app.db('students').where({ first_name: 'Ione' }).select('id');
  const goal = (await app.db('goals').where({ short_name: 'Pots plants' }).whereIn('student_id', ofIone).first('id'))!
    .id;
  const { student_id, observer_id } = (await app
    .db('entries')
    .where({ goal_id: goal })
    .first('student_id', 'observer_id'))!;
  await app.db('entries').insert({
    ...{ id: crypto.randomUUID(), kind: 'goal', goal_id: goal, measure_version: 1, student_id, observer_id, note: '' },
    ...{ observed_on: '2026-11-24', observed_time: '11:00', recorded_by: observer_id, recorded_at: new Date() },
    data: JSON.stringify({ amounts: [{ amount: 3, category: 'herbs' }] }),
  });
  await page.goto('/class?group=Garden+group&kind=plant');
  const row = table.getByRole('row', { name: /^Ione C\./ });
  await expect(row).toContainText(`${Number(ione?.['so far']) + 3} of 140`);
  await expect(row.getByRole('cell', { name: '3', exact: true })).toBeVisible();
});

test('a class without logs says what to do; the discreet view has initials, and no file', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/class?group=Workshop+group&kind=nothing');
  await settled(page);
  await expect(page.getByText('Nobody in this group has a goal about how much altogether')).toBeVisible();
  await page.goto('/class');
  await settled(page);
  await page.getByRole('button', { name: /^Discreet/ }).click();
  await expect(page.getByRole('row', { name: /^IC/ })).toBeVisible();
  await expect(page.getByRole('table')).not.toContainText(/Ione|Herbs|plants/);
  await expect(page.getByRole('link', { name: /CSV/ })).toHaveCount(0);
  expect((await page.request.get('/class/totals.csv')).status()).toBe(404);
});

test('one goal is given to a group in one step, with targets pasted as a column', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/class');
  await page.getByRole('link', { name: 'A goal for a group' }).click();
  await settled(page);
  const label = await page.getByRole('option', { name: /^Ione C\.: .*Pots plants/ }).textContent();
  await page.getByLabel('The goal to give').selectOption({ label: label ?? '' });
  await settled(page);
  const boxes = page.getByRole('textbox', { name: /^Target of/ });
  const names = await page.getByRole('checkbox').evaluateAll((all) => all.map((box) => box.parentElement?.textContent));
  expect(names).toHaveLength(11);
  // Nobody is chosen before somebody chooses, and a group's button chooses just them.
  expect(await page.locator('input[type=checkbox]:checked').count()).toBe(0);
  await expect(page.getByRole('button', { name: 'Add to 0 students' })).toBeDisabled();
  // A column that is pasted goes to those who are chosen, in order, and to nobody else.
  for (const at of [0, 2, 3]) await page.getByRole('checkbox').nth(at).check();
  const untouched = await boxes.nth(1).inputValue();
  await boxes.first().evaluate((box) => {
    const pasted = new DataTransfer();
    pasted.setData('text', '60\n75\nmany');
    box.dispatchEvent(new ClipboardEvent('paste', { clipboardData: pasted, bubbles: true, cancelable: true }));
  });
  await expect(boxes.nth(2)).toHaveValue('75');
  await expect(boxes.nth(3)).toHaveValue('');
  await expect(boxes.nth(1)).toHaveValue(untouched);
  expect(await axeFindings(page)).toEqual([]);
  const before = await app.db('goals');
  await page.getByRole('button', { name: 'Add to 3 students' }).click();
  await expect(page.getByText('Type the target as a number.')).toBeVisible();
  // All of them or none.
  expect(await app.db('goals')).toHaveLength(before.length);
  await boxes.nth(3).fill('90');
  await page.getByRole('button', { name: 'Add to 3 students' }).click();
  await expectToast(page, 'Added to 3 students.');
  const added = (await app.db('goals').orderBy('target_on')).filter(({ id }) => before.every((one) => one.id !== id));
  expect(added).toHaveLength(3);
  const measures = await app
    .db('goal_measures')
    .whereIn(
      'goal_id',
      added.map(({ id }) => id),
    )
    .pluck('measure');
  expect(measures.map((measure) => (measure as { total: number }).total).sort()).toEqual([60, 75, 90]);
  // And it is taken back with one tap.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expectToast(page, '3 goals deleted again.');
  expect(await app.db('goals')).toHaveLength(before.length);

  // One that stays is deleted by its name, where the student’s goals are put in order.
  await page.goto('/class/goal');
  await settled(page);
  await page.getByLabel('The goal to give').selectOption({ label: label ?? '' });
  await settled(page);
  await page.getByRole('checkbox').first().check();
  await page.getByRole('button', { name: 'Add to 1 student' }).click();
  await expectToast(page, 'Added to 1 student.');
  const known = before.map(({ id }) => id);
  const one = (await app.db('goals').whereNotIn('id', known).first())!;
  await page.goto(`/students/${one.student_id}/goals`);
  await settled(page);
  await page.getByRole('button', { name: `Delete ${one.number} ${one.short_name}` }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Delete goal' }).click();
  await expect(dialog.getByRole('alert')).toHaveText('This is not its short name.');
  expect(await axeFindings(page)).toEqual([]);
  await dialog.getByLabel(/Type its short name/).fill(one.short_name);
  await dialog.getByRole('button', { name: 'Delete goal' }).click();
  await expectToast(page, 'Goal deleted.');
  expect(await app.db('goals')).toHaveLength(before.length);
  // Those with entries cannot be deleted.
  await expect(page.getByRole('button', { name: /^Delete / })).toHaveCount(0);
});
