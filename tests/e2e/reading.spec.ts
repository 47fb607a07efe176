import type { Page } from '@playwright/test';
import { rewriting } from '../database/rewriting';
import { type App, expect, expectToast, settled, signInAs, studentId, test } from './fixtures';
import { printedPages } from './printed';

/** Makes a way into Ansel's report through the real form, and returns its path. */
async function makeLink(app: App, page: Page, shows: ('Note' | 'Observer')[] = []) {
  await signInAs(app, page);
  if (shows.length > 0) {
    await page.goto(`/students/${await studentId(app.db, 'Ansel')}/sharing/visibility`);
    await settled(page);
    for (const field of shows) await page.getByLabel(`${field} for Family`).check();
    await page.getByRole('button', { name: 'Save what each reader sees' }).click();
    await expectToast(page, 'Saved. Every reader sees the report so from now on.');
  }
  await page.goto(`/students/${await studentId(app.db, 'Ansel')}/sharing/links`);
  await settled(page);
  await page.getByLabel('Who will read').fill('Aunt Ida');
  await page.getByRole('button', { name: 'Make the link' }).click();
  return new URL(await page.getByLabel('The link', { exact: true }).inputValue()).pathname;
}

test('a reader sees this report only, and of it only what was chosen: the rest is not in the page at all', async ({
  app,
  page,
  browser,
}) => {
  await rewriting(app.db, (trx) => trx('entries').update({ note: 'A note about the day.' }));
  // As it begins, before anybody decides what this family is shown.
  await app.db('visibility_rules').delete();
  const path = await makeLink(app, page);
  const reader = await browser.newPage({ baseURL: app.url });
  const answer = await reader.goto(path);
  await expect(reader.getByRole('heading', { name: 'Ansel D.' })).toBeVisible();
  await expect(reader.getByText('For Aunt Ida.')).toBeVisible();
  const source = (await answer?.text()) ?? '';
  expect(source).toContain('Sands to the line');
  for (const hidden of ['A note about the day.', 'H. Bruun', 'N. Haddad', 'Emrys', '/students'])
    expect(source.includes(hidden), hidden).toBe(false);
  for (const link of await reader.locator('a').all())
    expect(await link.getAttribute('href')).toMatch(/^(\/shared\/|\?)/);
  expect(answer?.headers()).toMatchObject({
    'cache-control': 'no-store',
    'x-robots-tag': 'noindex, nofollow',
    'referrer-policy': 'no-referrer',
  });
  await expect(reader.locator('meta[name=robots]')).toHaveAttribute('content', 'noindex, nofollow');
  // The way in is no way further.
  await reader.goto('/students');
  await expect(reader).toHaveURL(/sign-in/);

  const showsAll = await makeLink(app, page, ['Note', 'Observer']);
  await reader.goto(showsAll);
  await expect(reader.getByText('A note about the day.').first()).toBeVisible();
  await expect(reader.getByText(/H\. Bruun|N\. Haddad|L\. Varga|M\. Rourke/).first()).toBeVisible();
  await reader.close();
});

test('a reader can look at one goal', async ({ app, page }) => {
  await page.goto(await makeLink(app, page));
  await settled(page);
  await page.getByLabel('Show').selectOption({ label: '2b · Asks for a pause' });
  await expect(page.getByRole('listitem').filter({ hasText: '2b · Asks for a pause' }).first()).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'Sands to the line' })).toHaveCount(0);
});

test('a withdrawn, an ended and an unknown link are the same 404 that says what to do', async ({
  app,
  page,
  browser,
}) => {
  const path = await makeLink(app, page);
  const ended = await makeLink(app, page);
  const row = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Aunt Ida' }) });
  await row.first().getByRole('button', { name: 'Withdraw the share link of Aunt Ida' }).click();
  await expect(page.getByRole('dialog')).toContainText('It stops opening at once.');
  await page.getByRole('dialog').getByRole('button', { name: 'Withdraw link' }).click();
  await expectToast(page, 'The share link is withdrawn: it no longer opens.');
  // The newest stands first: that one is withdrawn; the other is made to have ended.
  await app.db('share_links').where({ reader_name: 'Aunt Ida', withdrawn_at: null }).update({ ends_on: '2026-11-23' });

  const reader = await browser.newPage({ baseURL: app.url });
  const pages = [];
  for (const address of [path, ended, `/shared/${'x'.repeat(43)}`, '/shared/%00']) {
    const answer = await reader.goto(address);
    expect(answer?.status(), address).toBe(404);
    expect(answer?.headers()['cache-control']).toBe('no-store');
    pages.push(await reader.getByRole('main').textContent());
  }
  expect(new Set(pages).size).toBe(1);
  expect(pages[0]).toContain('If someone sent you a link, ask them for a new one.');
  await reader.close();
});

test.describe('what a server remembers of wrong tries', () => {
  test.use({ ownServer: true });

  test('guessing links is cut short, also for a link that is right', async ({ app, page, request }) => {
    const path = await makeLink(app, page);
    for (let i = 0; i < 20; i++) expect((await request.get(`/shared/guess-${i}`)).status()).toBe(404);
    expect((await request.get(path)).status()).toBe(429);
  });
});

test('a form that is wrong says so at the field and keeps what was typed', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Ansel')}/sharing/links`);
  await settled(page);
  await page.getByLabel('What kind of reader').selectOption('Outside specialist');
  await page.getByRole('button', { name: 'Make the link' }).click();
  await expect(page.getByText('Say who will read.')).toBeVisible();
  await page.getByLabel('Who will read').fill('Aunt Ida');
  // Past the picker's own limit, as a file or a script could send it.
  await page.getByLabel('Open until').evaluate((input) => input.removeAttribute('min'));
  await page.getByLabel('Open until').fill('2026-11-01');
  await page.getByRole('button', { name: 'Make the link' }).click();
  await expect(page.getByText('Choose today or a later day.')).toBeVisible();
  await expect(page.getByLabel('Who will read')).toHaveValue('Aunt Ida');
  await expect(page.getByLabel('What kind of reader')).toHaveValue('specialist');
});

test('on paper each page of a report names its one student, and nothing else of the screen', async ({ app, page }) => {
  const path = await makeLink(app, page);
  for (const view of [`/students/${await studentId(app.db, 'Ansel')}/individual-report`, path]) {
    await page.goto(view);
    await settled(page);
    const pages = await printedPages(page);
    expect(pages.length).toBeGreaterThan(3);
    for (const text of pages) {
      expect(text).toContain('Ansel D. · individual report · Quince Lane School · Tue, Nov 24, 2026');
      expect(text).not.toMatch(/Emrys|Briar|Find a student|Who reads this|About this report/);
    }
  }
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('complementary')).toBeHidden();
  expect(
    await page
      .locator('.trial-mark')
      .first()
      .evaluate((mark) => getComputedStyle(mark).printColorAdjust),
  ).toBe('exact');
});

test('with the database gone the form stays as it is, says so, and works again', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Ansel')}/sharing/links`);
  await settled(page);
  await page.getByLabel('Who will read').fill('Aunt Ida');
  app.wire.cut();
  await page.getByRole('button', { name: 'Make the link' }).click();
  await expect(page.getByRole('alert')).toContainText('The server cannot be reached at the moment.', {
    timeout: 20_000,
  });
  await expect(page.getByLabel('Who will read')).toHaveValue('Aunt Ida');
  app.wire.mend();
  await page.getByRole('button', { name: 'Make the link' }).click();
  await expect(page.getByRole('heading', { name: 'The link for Aunt Ida' })).toBeVisible({ timeout: 20_000 });
  expect(await app.db('share_links').where({ reader_name: 'Aunt Ida' })).toHaveLength(1);
});
