// A report is shared from where it stands, in the hand, in one dialog.
import { axeFindings, expect, settled, signInAs, studentId, test } from './fixtures';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

test('by tap: who, what they see, until when, sent now; the link opens the report', async ({ app, page, browser }) => {
  const briar = await studentId(app.db, 'Briar');
  await signInAs(app, page);
  await page.goto(`/students/${briar}/individual-report`);
  await settled(page);
  await page.getByRole('button', { name: 'Share report' }).tap();
  const dialog = page.getByRole('dialog', { name: 'Share report' });
  const seen = dialog.locator('p').filter({ hasText: 'They see:' });
  await expect(seen).toContainText('the day and the goal, numbers and breakdown');
  await expect(dialog).toContainText('For example');
  expect(await axeFindings(page)).toEqual([]);
  // Nothing said yet: it is told at the field, and the address is asked for before anything is sent.
  await dialog.getByRole('checkbox', { name: 'Send them the link now' }).tap();
  await dialog.getByRole('button', { name: 'Share report' }).tap();
  await expect(dialog.getByText('Say who will read.')).toBeVisible();
  await dialog.getByRole('textbox', { name: 'Who will read' }).fill('Aunt Wren');
  await dialog.getByRole('button', { name: 'Share report' }).tap();
  await expect(dialog.getByText('To send it now, type an email address.')).toBeVisible();
  await dialog.getByRole('textbox', { name: 'Their email (optional)' }).fill('wren@home.example');
  await dialog.getByRole('combobox', { name: 'What kind of reader' }).selectOption('specialist');
  await expect(seen).toContainText('location');
  await dialog.getByRole('button', { name: 'Share report' }).tap();
  await expect(dialog.getByText('The link for Aunt Wren')).toBeVisible();
  await expect(dialog).toContainText('A message with it leaves now to wren@home.example.');
  const link = await dialog.getByRole('textbox', { name: 'The link' }).inputValue();
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await dialog.getByRole('button', { name: 'Copy' }).tap();
  await expect(dialog.getByRole('button', { name: 'Copied ✓' })).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(link);
  // Over plain http a page has no clipboard: the button says how it is done, and the link stands there to be marked.
  await page.evaluate(() => Object.defineProperty(navigator, 'clipboard', { value: undefined }));
  await dialog.getByRole('button', { name: 'Copied ✓' }).tap();
  await expect(dialog.getByRole('button', { name: 'Copy it by hand' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Done' }).tap();
  await expect(dialog).toHaveCount(0);
  const letters = await app.db('messages').where({ to_email: 'wren@home.example' });
  expect(letters.map(({ kind, own_subject }) => [kind, own_subject])).toEqual([['byHand', 'A report is open for you']]);
  const reader = await browser.newPage();
  await reader.goto(app.url + new URL(link).pathname);
  await expect(reader.getByRole('heading', { level: 1 })).toContainText('Briar Q.');
  await reader.close();
});
