// What a person does by keyboard alone or by touch alone, and how many keys or taps it takes them.
import type { Locator, Page } from '@playwright/test';
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

test('observing, counting, writing a note, finding a goal and taking back: each with few keys', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const jory = await studentId(app.db, 'Jory');
  const entries = async (kind: 'note' | 'count') =>
    Number((await app.db('entries').where({ kind }).count().first())?.count);
  const arrived = async (url: RegExp) => {
    await expect(page).toHaveURL(url);
    await settled(page);
    await expect(page.getByRole('main')).toBeFocused();
  };

  await page.goto(`/students/${jory}`);
  await settled(page);
  const observing = countingKeys(page);
  await observing.press('o');
  await arrived(/\/observe/);
  await observing.press('1', '1', '2', '1', '1', 'Enter');
  await expectToast(page, 'Saved for Jory: 1 goal.');
  expect(observing.count()).toBeLessThanOrEqual(10);

  // What was said is reached by key, stays while one is there, and is taken back.
  const undoing = countingKeys(page);
  await undoing.press('F8');
  await undoing.tabTo('[data-radix-collection-item] button, li button');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeFocused();
  await undoing.press('Enter');
  await expectToast(page, 'Undone: 1 entry. Withdrawn, and counted nowhere.');
  expect(undoing.count()).toBeLessThanOrEqual(6);

  const noted = await entries('note');
  await page.goto(`/students/${jory}`);
  await settled(page);
  const writing = countingKeys(page);
  await writing.press('n');
  await arrived(/\/notes\/new/);
  await writing.tabTo('main textarea, main input[type=text]');
  await writing.type('Dug.');
  await writing.tabTo('main button[aria-pressed]');
  await writing.press('Space', 'Control+Enter');
  await expect.poll(() => entries('note')).toBe(noted + 1);
  expect(writing.count()).toBeLessThanOrEqual(40);

  const counted = await entries('count');
  const emrys = await studentId(app.db, 'Emrys');
  await page.goto(`/students/${emrys}/behavior`);
  await settled(page);
  const counting = countingKeys(page);
  await counting.press('Tab', 'Enter');
  await counting.tabTo('main a[href$="/counts/new"]');
  await counting.press('Enter');
  await arrived(/\/counts\/new/);
  await counting.tabTo('main li button.btn-primary');
  await counting.press('Space', 'Space', 'Space', 'Control+Enter');
  await expect.poll(() => entries('count')).toBe(counted + 1);
  expect(counting.count()).toBeLessThanOrEqual(40);

  const finding = countingKeys(page);
  await finding.press('/');
  await finding.type('plants a');
  await finding.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Plants a row');
  expect(finding.count()).toBeLessThanOrEqual(12);
});

test.describe('with a thumb', () => {
  test.use({ hasTouch: true, isMobile: true, viewport: { width: 390, height: 844 } });

  test('the eight main tasks by touch alone, and how many taps each takes', async ({ app, page }) => {
    await signInAs(app, page);
    const student = (name: string) => studentId(app.db, name).then((id) => `/students/${id}`);
    let taps = 0;
    const tap = async (find: Locator) => {
      await find.first().tap();
      taps++;
    };
    const button = (name: string | RegExp) => page.getByRole('button', { name });
    const link = (name: string | RegExp) => page.getByRole('link', { name });
    const begin = async (address: string) => {
      await page.goto(address);
      await settled(page);
      taps = 0;
    };
    const took: Record<string, number> = {};
    const chip = (group: RegExp) => page.getByRole('group', { name: group }).getByRole('button');

    await begin(await student('Jory'));
    await tap(link(/^Observe/));
    await settled(page);
    for (let i = 0; i < 5; i++) await tap(button(/^Independent/));
    await tap(button(/^Save/));
    await expectToast(page, 'Saved for Jory: 1 goal.');
    took.observe = taps;

    taps = 0;
    await tap(button('Undo'));
    await expectToast(page, 'Undone: 1 entry. Withdrawn, and counted nowhere.');
    took.undo = taps;

    await begin(await student('Ansel'));
    await tap(link('Record an incident'));
    await settled(page);
    for (const group of [/^Antecedent/, /^Behavior/, /^Consequence/]) await tap(chip(group));
    await tap(button(/^Save/));
    await expectToast(page, 'Saved for Ansel: an ABC incident.');
    took.incident = taps;

    await begin(`${await student('Emrys')}/behavior`);
    await tap(page.getByRole('main').locator('a[href$="/counts/new"]'));
    await settled(page);
    for (let i = 0; i < 3; i++) await tap(button(/^One more/));
    await tap(button(/^Save/));
    await expectToast(page, 'Saved for Emrys: 1 count.');
    took.count = taps;

    await begin('/rounds');
    await tap(link(/^Go through/));
    await settled(page);
    const [one, two, three] = await page
      .getByRole('list')
      .filter({ has: page.locator('[aria-current]') })
      .getByRole('button')
      .all();
    for (const who of [one, two, three]) {
      if (who && who !== one) await tap(who);
      await tap(page.locator('fieldset').getByRole('button'));
    }
    await tap(button(/^Save/));
    await expect(page.getByText(/^Saved for .* and /)).toBeVisible();
    took.round = taps;

    await begin(`${await student('Jory')}/individual-report`);
    await tap(page.locator('main a[href*="/entries/"]'));
    await settled(page);
    await tap(button(/^Correct entry/));
    await tap(page.locator('fieldset').getByRole('button'));
    await page.getByLabel('Why is it corrected?').fill('misread');
    await tap(button('Save the correction'));
    await expect(button(/^Correct entry/)).toBeVisible();
    took.correct = taps;

    await begin('/');
    await tap(button(/^Find a student or goal/));
    await page.keyboard.type('plants a');
    await tap(page.getByRole('option'));
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Plants a row');
    took.find = taps;

    await begin(await student('Jory'));
    await tap(link('Note'));
    await settled(page);
    await page.getByRole('main').getByRole('textbox').first().fill('Dug.');
    await tap(button('With a reminder'));
    await tap(button(/^Save/));
    await expectToast(page, 'Saved for Jory: a note.');
    took.note = taps;

    expect(took).toEqual({
      ...{ observe: 7, undo: 1, incident: 5, count: 5, round: 7, correct: 4, find: 2, note: 3 },
    });
  });
});
