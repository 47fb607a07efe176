// axe finds nothing on any screen, in both themes, on a laptop and on a phone.
import type { Page } from '@playwright/test';
import { type App, axeFindings, expect, goalId, newestEntry, settled, signInAs, studentId, test } from './fixtures';

/** By day with every rule, then in the dark with those that its colours could break. */
async function look(page: Page, what: string) {
  expect(await axeFindings(page), what).toEqual([]);
  await page.emulateMedia({ colorScheme: 'dark' });
  expect(await axeFindings(page, ['color-contrast', 'link-in-text-block']), `${what}, in the dark`).toEqual([]);
  await page.emulateMedia({ colorScheme: 'light' });
}

async function lookAtEverything(app: App, page: Page) {
  await page.goto('/sign-in');
  await look(page, 'sign-in');
  await signInAs(app, page);
  const [student, goal] = [await studentId(app.db, 'Ansel'), await goalId(app.db, 'Ansel', '2a')];
  const entry = await newestEntry(app.db, goal);
  for (const view of [
    '/students',
    '/students?show=attention',
    '/account',
    '/school/visibility',
    '/messages/test-mail',
    '/nowhere',
  ]) {
    await page.goto(view);
    await look(page, view);
  }
  const readers = ['/individual-report', '/sharing/visibility', '/sharing/links', '/progress-report'];
  for (const view of ['', ...readers, `/goals/${goal}`, `/entries/${entry!.id}`, '/observe']) {
    await page.goto(`/students/${student}${view}`);
    await settled(page);
    await look(page, view || 'goals');
  }

  // States that only come with use.
  await page.keyboard.press('1');
  await page.keyboard.press('7');
  await page.getByRole('button', { name: /^Opportunity 1/ }).click();
  await page.getByRole('button', { name: 'change', exact: true }).click();
  await look(page, 'observing, with marks');
  await page.keyboard.press('?');
  await look(page, 'keys');
  await page.keyboard.press('Escape');
  await page.keyboard.press('/');
  await expect(page.getByRole('dialog').getByRole('option').first()).toBeVisible();
  await look(page, 'finder');
  await page.keyboard.press('Escape');
  await page.goto(`/students/${student}/entries/${entry!.id}`);
  await settled(page);
  await page.getByRole('button', { name: 'Correct entry' }).click();
  await look(page, 'correcting');
  await page.goto(`/students/${student}/sharing/links`);
  await settled(page);
  await page.getByLabel('Who will read').fill('Aunt Ida');
  await page.getByRole('button', { name: 'Make the link' }).click();
  const link = await page.getByLabel('The link', { exact: true }).inputValue();
  await look(page, 'a new link');
  await page.goto(new URL(link).pathname);
  await look(page, 'reader');
}

test('on the pages of a student, of a reader and of oneself, by day and in the dark', async ({ app, page }) => {
  test.setTimeout(180_000);
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  await lookAtEverything(app, page);
});

/** How a colour stands out from another, by the formula of WCAG 2.2; the browser turns both into sRGB. */
const contrasts = (page: Page) =>
  page.evaluate(() => {
    const canvas = document.createElement('canvas').getContext('2d', { willReadFrequently: true })!;
    const luminance = (colour: string) => {
      canvas.fillStyle = colour;
      canvas.fillRect(0, 0, 1, 1);
      const [r = 0, g = 0, b = 0] = [...canvas.getImageData(0, 0, 1, 1).data].map((part) => {
        const share = part / 255;
        return share <= 0.03928 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
      });
      return 0.2126 * r + 0.7152 * g + 0.0722 * b;
    };
    const paper = luminance(getComputedStyle(document.body).backgroundColor);
    const against = (colour: string) => {
      const [low, high] = [luminance(colour), paper].sort((one, other) => one - other) as [number, number];
      return (high + 0.05) / (low + 0.05);
    };
    const fields = [...document.querySelectorAll('.input, .select, .textarea, .checkbox:not(:checked), .radio')];
    return fields.map((field) => ({
      what: field.className,
      edge: against(getComputedStyle(field).borderTopColor),
      hint: against(getComputedStyle(field, '::placeholder').color),
    }));
  });

test('fields can be told by their edges, and what an empty one says can be read, by day and in the dark', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  for (const path of ['/class/forms/new', '/rounds/new']) {
    await page.goto(path);
    await settled(page);
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme });
      const found = await contrasts(page);
      expect(found.length, path).toBeGreaterThan(3);
      expect(found.filter(({ edge }) => edge < 3)).toEqual([]);
      expect(found.filter(({ what, hint }) => /input|textarea/.test(what) && hint < 4.5)).toEqual([]);
    }
  }
});

test('a page that takes its time says that it is on its way; one that is there at once does not', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/students');
  await settled(page);
  const sign = page.getByRole('progressbar', { name: 'On its way' });
  await page.route(/patterns\.data/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await page.getByRole('link', { name: 'Patterns' }).click();
  await expect(sign).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Patterns' })).toBeVisible();
  await expect(sign).toHaveCount(0);
});

/** The eight screens on which most is done. */
async function mainScreens(app: App) {
  const student = `/students/${await studentId(app.db, 'Ansel')}`;
  const goal = `${student}/goals/${await goalId(app.db, 'Ansel', '1')}`;
  const recorded = [`${student}/observe`, `${student}/incidents/new`];
  return ['/', '/students', student, goal, ...recorded, `${student}/behavior`, `${student}/individual-report`];
}

test('with forced colors, more contrast and text of double size the eight main screens keep what they say', async ({
  app,
  page,
}) => {
  test.setTimeout(180_000);
  await signInAs(app, page);
  const screens = await mainScreens(app);
  for (const path of screens) {
    await page.goto(path);
    await settled(page);
    await page.emulateMedia({ contrast: 'more' });
    const quiet = await page.evaluate(() => {
      const ink = getComputedStyle(document.body).color;
      const all = [...document.querySelectorAll('.text-ink-2, .text-ink-3')];
      return all.filter((one) => getComputedStyle(one).color !== ink).map((one) => one.className);
    });
    expect(quiet, `${path}, with more contrast`).toEqual([]);
    expect(await axeFindings(page, ['color-contrast-enhanced']), path).toEqual([]);
    await page.emulateMedia({ contrast: 'no-preference', forcedColors: 'active' });
    // What is marked by a tone keeps it; everything else takes the colors that were chosen.
    const lost = await page.evaluate(() => {
      const tones = [...document.querySelectorAll('[class*="support-"], [class*="outcome-"], .trial-mark')];
      return tones.filter((one) => getComputedStyle(one).forcedColorAdjust !== 'none').map((one) => one.className);
    });
    expect(lost, `${path}, with forced colors`).toEqual([]);
    await page.emulateMedia({ forcedColors: 'none' });
    // At double size a laptop's window holds half as much.
    await page.setViewportSize({ width: 640, height: 400 });
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(wide, `${path}, with text of double size`).toBeLessThanOrEqual(0);
    await page.setViewportSize({ width: 1280, height: 800 });
  }
  // The response buttons can still be told apart, each by its own color.
  await page.emulateMedia({ forcedColors: 'active' });
  await page.goto(screens[4] ?? '');
  await settled(page);
  const colors = await page
    .getByRole('region', { name: 'Sands to the line' })
    .getByRole('button', { name: /^(Independent|Gesture|Spoken|Shown how)/ })
    .evaluateAll((all) => all.map((one) => getComputedStyle(one).backgroundColor));
  expect(new Set(colors).size).toBe(4);
});

test('a page that has come is said, and the focus is never lost on the way', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/');
  await settled(page);
  await page.getByRole('link', { name: 'Students', exact: true }).click();
  await expect(page.locator('[data-announced]')).toHaveText('Students · Gentle Margin');
  await page.getByRole('main').getByRole('link', { name: 'Ansel' }).click();
  await expect(page.locator('[data-announced]')).toContainText('Ansel');
  await expect(page.locator('#page')).toBeFocused();
});

test('at 200% on a small laptop nothing is cut off, and the first tab stop leads past the bars', async ({
  app,
  page,
}) => {
  await page.setViewportSize({ width: 640, height: 400 });
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Ansel')}`);
  await settled(page);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(640);
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'To the page' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.locator('#page')).toBeFocused();
});

test('a chosen theme stays on this device', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/account');
  await settled(page);
  await page.getByRole('button', { name: 'Dark' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await page.goto('/students');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  // Printed it is dark on white all the same.
  const lightness = () =>
    page.locator('body').evaluate((body) => Number(/oklch\(([\d.]+)/.exec(getComputedStyle(body).color)?.[1]));
  await expect.poll(lightness).toBeGreaterThan(0.9);
  await page.emulateMedia({ media: 'print' });
  // A colour on its way to another is written otherwise.
  await expect.poll(lightness).toBeLessThan(0.3);
  await page.emulateMedia({ media: 'screen' });
  await page.context().clearCookies({ name: 'gm-session' });
  await page.goto('/sign-in');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
});

test('axe finds nothing on the sheet and the page of any measure', async ({ app, page }) => {
  test.setTimeout(150_000);
  const goals = await app
    .db('goals as g')
    .join('goal_measures as m', 'm.goal_id', 'g.id')
    .whereRaw("m.measure ->> 'kind' <> 'trials'")
    .select('g.id', 'g.student_id', app.db.raw("m.measure ->> 'kind' as kind"))
    .orderBy('g.student_id');
  for (const staff of ['Hanneke Bruun', 'Samir Tadesse'] as const) {
    await signInAs(app, page, staff);
    const { id } = (await app.db('people').where({ name: staff }).first('id'))!;
    const own = await app.db('team_members').where({ person_id: id }).pluck('student_id');
    for (const goal of goals.filter(({ student_id }) => own.includes(student_id))) {
      await page.goto(`/students/${goal.student_id}/observe?goal=${goal.id}`);
      await settled(page);
      for (const key of ['1', '2', '1']) await page.keyboard.press(key);
      await look(page, `observing ${goal.kind}`);
      // Trial marks, figures and words: the pages of the other kinds are made of the same.
      if (!['items', 'duration', 'rubric'].includes(goal.kind)) continue;
      await page.goto(`/students/${goal.student_id}/goals/${goal.id}`);
      await settled(page);
      await look(page, `goal of ${goal.kind}`);
    }
  }
});
