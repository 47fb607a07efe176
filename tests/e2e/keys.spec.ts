// What a person does by keyboard alone, and how many keys it takes them.
import type { Page } from '@playwright/test';
import { expect, expectToast, namedBy, settled, signInAs, studentId, test } from './fixtures';

/** A keyboard that counts what is pressed on it. */
function countingKeys(page: Page) {
  let pressed = 0;
  const press = async (...keys: string[]) => {
    for (const key of keys) {
      await page.keyboard.press(key);
      pressed++;
    }
  };
  /** Goes on with Tab until something that matches has the focus. */
  const tabTo = async (selector: string) => {
    for (let i = 0; i < 80; i++) {
      await press('Tab');
      if (await page.evaluate((what) => document.activeElement?.matches(what), selector)) return;
    }
    throw new Error(`${selector} cannot be reached with Tab.`);
  };
  return { press, tabTo, type: (text: string) => press(...text), count: () => pressed };
}

test('an incident is recorded with at most 20 keys, by digits or by arrows', async ({ app, page }) => {
  await signInAs(app, page, 'Noor Haddad');
  const student = await studentId(app.db, 'Ansel');
  const newest = async () =>
    (await app.db('entries').where({ kind: 'incident' }).orderBy('recorded_at', 'desc').first())!;
  for (const byArrows of [false, true]) {
    await page.goto(`/students/${student}`);
    await settled(page);
    const { press, tabTo, count } = countingKeys(page);
    await press('i');
    await expect(page).toHaveURL(/\/incidents\/new$/);
    await settled(page);
    if (byArrows) {
      // The page that has come has the focus: nobody begins at the bars again.
      await expect(page.getByRole('main')).toBeFocused();
      await tabTo('fieldset button[aria-pressed]');
      await press('Space', 'Tab', 'Tab', 'ArrowDown', 'Space', 'Tab', 'Tab', 'Space', 'Control+Enter');
    } else await press('1', 'n', '2', 'n', '1', 'n', '1', 'Enter');
    await expectToast(page, 'Saved for Ansel: an ABC incident.');
    expect(count()).toBeLessThanOrEqual(20);
    const named = await namedBy(app.db, await newest());
    expect(Object.keys(named).toSorted()).toEqual(
      ['antecedent', 'behavior', 'consequence', ...(byArrows ? [] : ['intensity'])].toSorted(),
    );
  }
});

test('a round of three is gone through with at most 60 keys, and what was said is reached by key', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/rounds');
  await settled(page);
  const { press, tabTo, count } = countingKeys(page);
  await press('Tab', 'Enter');
  await tabTo('main a[href^="/rounds/"]:not([href$="/new"])');
  await press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('students');
  await settled(page);
  const before = Number((await app.db('entries').count().first())?.count);
  await press('1', '1', '2', '1', '1', ']', '1', '2', '2', '1', '1', ']', '1', '1', '1', '2', '1', 'Enter');
  await expect(page.getByText(/^Saved for .* and /)).toBeVisible();
  expect(count()).toBeLessThanOrEqual(60);
  expect(Number((await app.db('entries').count().first())?.count)).toBe(before + 3);
});

test('an entry is corrected with at most 40 keys, from the page of the student on', async ({ app, page }) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Jory');
  await page.goto(`/students/${student}/individual-report`);
  await settled(page);
  const { press, tabTo, type, count } = countingKeys(page);
  // The first thing that is reached leads past the bars.
  await press('Tab', 'Enter');
  await expect(page.getByRole('main')).toBeFocused();
  await tabTo('a[href*="/entries/"]');
  await press('Enter');
  await expect(page).toHaveURL(/\/entries\//);
  await settled(page);
  await press('c', 'u', '2', 'Enter');
  await expect(page.getByLabel('Why is it corrected?')).toBeFocused();
  await type('misread');
  await press('Enter');
  await expect(page.getByText('Corrected', { exact: false }).first()).toBeVisible();
  expect(count()).toBeLessThanOrEqual(40);
});
