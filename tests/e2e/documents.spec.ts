// Later and from paper: one entry after the other, and a whole table at once.

import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { type App, axeFindings, expect, expectToast, goalId, settled, signInAs, studentId, test } from './fixtures';

async function openTable(app: App, page: Page, firstName: string, number: string) {
  await signInAs(app, page);
  const [student, goal] = [await studentId(app.db, firstName), await goalId(app.db, firstName, number)];
  await page.goto(`/students/${student}/goals/${goal}`);
  await settled(page);
  await page.getByRole('link', { name: 'enter several from paper' }).click();
  await expect(page.getByRole('heading', { name: 'From paper, in a table' })).toBeVisible();
  await settled(page);
  return goal;
}

async function paste(page: Page, cell: string, text: string) {
  await page.getByLabel(cell, { exact: true }).evaluate((input, pasted) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text', pasted);
    input.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, text);
}
const newOnes = (app: App, goal: string) =>
  app.db('entries').where({ goal_id: goal }).where('recorded_at', '>=', '2026-11-24T20:29:00Z').orderBy('observed_on');

test('saved, and the next one begun with the same day, place and observer', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Jory')}/observe`);
  await settled(page);
  await page.getByRole('button', { name: 'change', exact: true }).click();
  await page.getByLabel('Date').fill('2026-11-19');
  await page.getByLabel('Time').fill('09:10');
  await page.getByRole('heading', { name: 'Observing' }).click();
  await page.keyboard.press('1');
  await page.getByRole('button', { name: 'Save and add another' }).click();
  await expectToast(page, 'Saved for Jory: 1 goal.');
  await expect(page.getByRole('button', { name: /^Opportunity/ })).toHaveCount(0);
  await expect(page.getByLabel('Date')).toHaveValue('2026-11-19');
  await page.getByLabel('Date').fill('2026-11-20');
  await page.getByRole('heading', { name: 'Observing' }).click();
  await page.keyboard.press('2');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/students\/[\w-]+$/);
  const saved = await newOnes(app, await goalId(app.db, 'Jory', '1'));
  expect(saved.map(({ observed_on, observed_time }) => [observed_on, observed_time])).toEqual([
    ['2026-11-19', '09:10'],
    ['2026-11-20', '09:10'],
  ]);
});

test('a table is pasted, checked cell by cell, kept over a reload, and saved at once', async ({ app, page }) => {
  const goal = await openTable(app, page, 'Hollis', '4');
  await paste(page, 'Date, row 1', '11/16\t9:05\tseven\t30\n11/17\t\t5\t20\n');
  await expect(page.getByLabel(/, row 2$/).first()).toHaveValue('11/17');
  await page.getByRole('button', { name: 'Save 1 entry' }).click();
  await expect(page.getByText('1 row needs another look. Nothing has been saved.')).toBeVisible();
  await expect(page.getByText('A number, please.')).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  expect(await newOnes(app, goal)).toHaveLength(0);
  await expect(page.getByText('Kept on this device ✓')).toBeVisible();
  await page.reload();
  await settled(page);
  // The sheet itself can stand beside what was typed from it; it outlives a reload as the cells do.
  const buffer = await sharp({ create: { width: 800, height: 600, channels: 3, background: 'ivory' } })
    .jpeg()
    .toBuffer();
  await page
    .getByLabel(/^Photograph of the sheet/)
    .setInputFiles({ name: 'sheet.jpg', mimeType: 'image/jpeg', buffer });
  await expect(page.getByRole('img', { name: 'Photograph 1' })).toBeVisible();
  await page.reload();
  await settled(page);
  await expect(page.getByRole('img', { name: 'Photograph 1' })).toBeVisible();
  const count = page.getByRole('row').nth(1).getByRole('textbox').nth(2);
  await expect(count).toHaveValue('seven');
  await count.fill('7');
  await count.press('Enter');
  await expect(page.getByRole('row').nth(2).getByRole('textbox').nth(2)).toBeFocused();
  await page.getByRole('button', { name: 'Save 2 entries' }).click();
  await expectToast(page, 'Saved: 2 entries.');
  expect(
    (await newOnes(app, goal)).map(({ observed_on, observed_time, data }) => [observed_on, observed_time, data]),
  ).toEqual([
    ['2026-11-16', '09:05', { count: 7, minutes: 30 }],
    ['2026-11-17', '10:00', { count: 5, minutes: 20 }],
  ]);
  const beside = app.db('evidence as f').join('entries as e', 'e.id', 'f.entry_id').where('e.goal_id', goal);
  await expect.poll(() => beside.clone().pluck('e.observed_on')).toEqual(['2026-11-16']);
});

test('a paste that does not fit changes nothing; what only the server knows comes back at its cell', async ({
  app,
  page,
}) => {
  const goal = await openTable(app, page, 'Ansel', '1');
  await paste(page, 'Note, row 1', 'a\tb\nc\td');
  await expect(page.getByText('What was pasted is 2 columns wide; from “Note” on there are 1.')).toBeVisible();
  await paste(page, 'Date, row 1', 'Date\tMood\n11/16\tfine\n');
  await expect(page.getByText('There is no column “Mood” here.')).toBeVisible();
  await expect(page.getByLabel('Date, row 1')).toHaveValue('');
  await paste(
    page,
    'Date, row 1',
    'Independent\tDate\tIncorrect\n4\t11/16/2026\t1\n3\t11/30/2026\t2\n3\t8/3/2020\t2\n',
  );
  await page.getByRole('button', { name: 'Save 3 entries' }).click();
  await expect(page.getByText('This lies in the future.')).toBeVisible();
  await expect(page.getByText(/this lies before it/)).toBeVisible();
  await expect(page.getByLabel('Date, row 2')).toHaveAttribute('aria-invalid', 'true');
  expect(await newOnes(app, goal)).toHaveLength(0);
  await page.getByRole('button', { name: 'Remove row 3' }).click();
  await page.getByLabel('Date, row 2').fill('11/17/2026');
  await page.getByRole('button', { name: 'Save 2 entries' }).click();
  await expectToast(page, 'Saved: 2 entries.');
  expect((await newOnes(app, goal)).map(({ data }) => data)).toEqual([
    { counts: { independent: 4, incorrect: 1 }, opportunities: 5 },
    { counts: { independent: 3, incorrect: 2 }, opportunities: 5 },
  ]);
});
