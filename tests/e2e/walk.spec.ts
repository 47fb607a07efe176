// Every page there is, at four widths: nothing sticks out, nothing lies over what is tapped, and what has the focus shows it.
import type { Page } from '@playwright/test';
import { addressesOf, pathsOf } from './addresses';
import { doorsOf } from './doors';
import { expect, settled, signInAs, test } from './fixtures';

/** Files, actions, what leads elsewhere, and doors that have no page without a code: those are walked by themselves. */
const noPage =
  /\.(csv|xlsx|ics)$|preview$|sharing\/share$|follow-ups\/:followUpId$|\/as\/|evidence|record\/file$|^batches|^shared|^stack|^seat|^invited|^rate|^forgotten$|^account\/by|^stop|^desk|^live$|^kept$|^unseal$|^opening$|^locked$|^device$|^finder$|sign-|set-up$|^preferences$|switch$|once$|sessions$|behavior-entries$|\/undo$|\/names$|notes$|\/sheet$|goals\/:goalId\/entries$|\*/;

const WIDTHS = [320, 390, 768, 1280];

/** What is wrong with a page at the width it has, in a line each. */
const findings = (page: Page) =>
  page.evaluate(() => {
    const found: string[] = [];
    const over = document.documentElement.scrollWidth - innerWidth;
    const said = (one: Element) =>
      `${one.tagName.toLowerCase()} “${(one.getAttribute('aria-label') ?? one.textContent ?? '').trim().slice(0, 40)}”`;
    if (over > 0) {
      const widest = [...document.body.querySelectorAll('*')].filter((one) => {
        const scrolls = (up: Element | null): boolean =>
          up !== null && (/auto|scroll|hidden/.test(getComputedStyle(up).overflowX) || scrolls(up.parentElement));
        return one.getBoundingClientRect().right > innerWidth && !scrolls(one.parentElement);
      });
      found.push(`sticks out by ${over} px: ${widest.slice(-1).map((one) => `${said(one)} .${one.className}`)}`);
    }
    const controls = [...document.querySelectorAll<HTMLElement>('a[href], button, input, select, textarea, summary')];
    for (const one of controls) {
      if (!one.checkVisibility({ visibilityProperty: true }) || one.matches(':disabled, [type=hidden], .sr-only'))
        continue;
      if (one.closest('[aria-hidden=true], [inert], .sr-only')) continue;
      one.scrollIntoView({ block: 'center', inline: 'center' });
      const box = one.getBoundingClientRect();
      if (box.width < 2 || box.height < 2 || box.bottom < 0) continue;
      // Within a line of text a link is as high as its line (WCAG 2.5.8).
      const isInline = getComputedStyle(one).display === 'inline';
      const label = one.closest('label');
      const target = label ? label.getBoundingClientRect() : box;
      if (!isInline && (target.height < 24 || target.width < 24)) found.push(`${said(one)} is too small`);
      const line = one.getClientRects()[0] ?? box;
      const at = document.elementFromPoint(line.x + line.width / 2, line.y + line.height / 2);
      const isThere = at && (one.contains(at) || at.contains(one) || label?.contains(at));
      if (!isThere) found.push(`${said(one)} lies under ${at ? said(at) : 'the edge'}`);
    }
    scrollTo(0, 0);
    return found;
  });

/** Controls that have the focus and do not show it. */
const unseen = (page: Page) =>
  page.evaluate(() => {
    const focusable = [...document.querySelectorAll<HTMLElement>('a[href], button, input, select, textarea, summary')];
    return focusable.flatMap((one) => {
      if (!one.checkVisibility() || one.matches(':disabled, [type=hidden]')) return [];
      one.focus();
      if (document.activeElement !== one) return [];
      const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(one);
      const shows = (outlineStyle !== 'none' && Number.parseFloat(outlineWidth) >= 2) || boxShadow !== 'none';
      return shows ? [] : [`${one.tagName.toLowerCase()} ${one.className}`];
    });
  });

/** What is wrong with the page that is open: how it shows the focus, and its controls at every width. */
async function walked(page: Page): Promise<string[]> {
  const wrong: string[] = [];
  await settled(page);
  await page.keyboard.press('Tab');
  for (const line of await unseen(page)) wrong.push(`does not show the focus on ${line}`);
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 800 });
    for (const line of await findings(page)) wrong.push(`at ${width}: ${line}`);
  }
  return wrong;
}

const parts = 4;
for (let part = 0; part < parts; part++) {
  test(`pages, part ${part + 1} of ${parts}`, async ({ app, page }) => {
    test.setTimeout(240_000);
    const { default: routes } = await import('~/web/routes');
    const pages = pathsOf(await routes).filter((path) => !noPage.test(path));
    expect(pages.length).toBeGreaterThan(60);
    const addressOf = await addressesOf(app);
    await signInAs(app, page);
    const wrong: string[] = [];
    for (const path of pages.filter((_, at) => at % parts === part)) {
      await page.setViewportSize({ width: 1280, height: 800 });
      await page.goto(addressOf(path));
      for (const line of await walked(page)) wrong.push(`/${path} ${line}`);
    }
    expect(wrong).toEqual([]);
  });
}

/** Behind a door that needs no sign-in: where one can go on from a page. */
const onwards = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLAnchorElement>('main a[href], nav a[href]')]
      .filter(({ href, target }) => new URL(href).origin === location.origin && target === '')
      .map(({ href }) => new URL(href).pathname)
      .filter((path) => /^\/(desk|shared|stack|seat)\b/.test(path) && !/\/(pdf|file|evidence|as)\b/.test(path)),
  );

test('pages behind a code or a link of one’s own', async ({ app, browser }) => {
  test.setTimeout(240_000);
  const { links, desks } = await doorsOf(app);
  const wrong: string[] = [];
  const seen = new Set<string>();
  /** Walks a page, and what is reached from it; one page of each kind is enough. */
  const walk = async (page: Page, path: string) => {
    const kind = path.replace(/[0-9a-f-]{36}/, ':id');
    if (seen.has(kind)) return;
    seen.add(kind);
    await page.setViewportSize({ width: 1280, height: 800 });
    const answer = await page.goto(path);
    expect(answer?.status(), path).toBe(200);
    for (const line of await walked(page)) wrong.push(`${kind} ${line}`);
    for (const next of await onwards(page)) await walk(page, next);
  };
  for (const words of desks) {
    const desk = await browser.newPage({ baseURL: app.url });
    await desk.goto('/desk');
    await desk.getByLabel('The four words on your card').fill(words);
    await desk.getByRole('button', { name: 'Open my desk' }).click();
    await expect(desk.getByRole('heading', { level: 1 })).toHaveText(/Hello \w/);
    seen.delete('/desk');
    await walk(desk, '/desk');
    await desk.context().close();
  }
  const anybody = await browser.newPage({ baseURL: app.url });
  for (const link of links) await walk(anybody, link);
  await anybody.context().close();
  expect(wrong).toEqual([]);
  // What a card opens, and every link: none of them is left out because it was not found.
  for (const page of ['/desk', '/desk/log/:id', '/desk/progress', '/desk/rate/:id', '/desk/form/:id', ...links])
    expect([...seen], page).toContain(page);
});

/** Controls that a finger cannot hit: 44 px each way where it is coarse, or a line of text. */
const tooSmallForAFinger = (page: Page) =>
  page.evaluate(() => {
    const controls = [...document.querySelectorAll<HTMLElement>('button, input, select, textarea, summary, a[href]')];
    return controls.flatMap((one) => {
      if (!one.checkVisibility({ visibilityProperty: true }) || one.matches(':disabled, [type=hidden], .sr-only'))
        return [];
      if (one.closest('[aria-hidden=true], [inert], .sr-only')) return [];
      // Links within text are as high as their line (WCAG 2.5.5).
      if (one.matches('a') && getComputedStyle(one).display.startsWith('inline')) return [];
      const { width, height } = (one.closest('label') ?? one).getBoundingClientRect();
      if (width < 2 || height < 2 || (width >= 44 && height >= 44)) return [];
      const said = (one.getAttribute('aria-label') ?? one.textContent ?? '').trim().slice(0, 40);
      return [`${one.tagName.toLowerCase()} “${said}” is ${Math.round(width)} by ${Math.round(height)} px`];
    });
  });

test('with a finger everything that is tapped is 44 px, and fields are 16 px', async ({ app, browser }) => {
  test.setTimeout(240_000);
  const { default: routes } = await import('~/web/routes');
  const addressOf = await addressesOf(app);
  const phone = await browser.newContext({
    ...{ baseURL: app.url, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true },
    serviceWorkers: 'block',
  });
  const page = await phone.newPage();
  await signInAs(app, page);
  const wrong: string[] = [];
  for (const path of pathsOf(await routes).filter((one) => !noPage.test(one))) {
    await page.goto(addressOf(path));
    await settled(page);
    const small = await page.evaluate(() =>
      [
        ...document.querySelectorAll<HTMLElement>(
          'input:not([type=hidden], [type=checkbox], [type=radio], [type=file]), select, textarea',
        ),
      ]
        .filter((one) => one.checkVisibility() && Number.parseFloat(getComputedStyle(one).fontSize) < 16)
        .map((one) => `${one.tagName.toLowerCase()} ${one.getAttribute('name') ?? ''} has small letters`),
    );
    for (const line of [...new Set([...small, ...(await tooSmallForAFinger(page))])]) wrong.push(`/${path}: ${line}`);
  }
  await phone.close();
  expect(wrong).toEqual([]);
});
