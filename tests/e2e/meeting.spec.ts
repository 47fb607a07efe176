// One student's goals on the wall of a meeting, and what is decided noted at once.
import { axeFindings, expect, expectToast, settled, signInAs, studentId, test } from './fixtures';

test('goal by goal with keys, by initials; what is decided is a follow-up, and done from there', async ({
  app,
  page,
}) => {
  const ansel = await studentId(app.db, 'Ansel');
  await signInAs(app, page);
  await page.goto(`/students/${ansel}`);
  await settled(page);
  await page.getByRole('link', { name: 'Meeting view' }).click();
  await settled(page);
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toContainText('Sands to the line');
  await expect(page.getByText('Goal 1 of 4')).toBeVisible();
  // A door stands open: no name on the wall.
  await expect(page.locator('body')).not.toContainText('Ansel');
  expect(await axeFindings(page)).toEqual([]);
  await page.keyboard.press('ArrowRight');
  await expect(heading).toContainText('Asks for a tool');
  await expect(page.getByText('Goal 2 of 4')).toBeVisible();
  // In the graph the arrows go from point to point.
  await page.getByRole('group', { name: /arrow keys/ }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(heading).toContainText('Asks for a tool');
  await page.reload();
  await expect(heading).toContainText('Asks for a tool');
  await settled(page);
  await page.getByRole('button', { name: 'Raise the target' }).click();
  await page.getByRole('textbox', { name: 'Decision' }).fill('Raise the target to 90%');
  await page.getByRole('button', { name: 'Note decision' }).click();
  await expectToast(page, 'The follow-up is there.');
  await expect(page.getByRole('list', { name: 'Open follow-ups' })).toContainText('2a: Raise the target to 90%');
  await expect(page.getByRole('textbox', { name: 'Decision' })).toHaveValue('');
  await page.getByRole('link', { name: 'Change target or support now' }).click();
  await expect(page).toHaveURL(/\/goals\/[\w-]+\/edit$/);
});
