import { chromium as browserType, type Page } from '@playwright/test';
import { chromium } from '~/tests/e2e/chromium';

const SLOWER = 4;
const TAPS = 100;
/** In milliseconds between two taps: no thumb is faster. */
const REST = 100;
/** In milliseconds: until the pages that are kept for a time without network have come. */
const SETTLED = 15_000;
const COLD_STARTS = 7;

/** Today is there, and answers: it is hydrated. Asked of the page itself, as to look for a heading by its role is work for the page. */
const isUsable = () => {
  const main = document.querySelector('main');
  const isToday = main?.querySelector('h1')?.textContent?.startsWith('Today') ?? false;
  return isToday && Object.keys(main ?? {}).some((key) => key.startsWith('__reactFiber'));
};

/** Five trials, and four of them taken back: the session goes on growing. */
const A_SESSION = [...Array(5).fill('Independent'), ...Array(4).fill('Take back')];

/** Taps in turn on the buttons in the main part that begin with such a word, each until it is drawn; in milliseconds. */
async function tapping(page: Page, ...words: string[]) {
  // What runs TypeScript here marks functions with a helper that the page does not have.
  await page.evaluate('globalThis.__name = (named) => named');
  return page.evaluate(
    async ({ taps, rest, words }) => {
      const drawn = () => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
      const took: number[] = [];
      for (let i = 0; i < taps; i++) {
        const buttons = [...document.querySelectorAll<HTMLElement>('main button:not(:disabled)')];
        const button = buttons.find(({ textContent }) =>
          textContent?.trim().startsWith(words[i % words.length] as string),
        );
        if (!button) throw new Error(`Nothing to tap: ${words}`);
        await new Promise((resolve) => setTimeout(resolve, rest));
        await drawn();
        const began = performance.now();
        button.click();
        // What React has still to do for this tap comes before the next frame is drawn.
        await drawn();
        took.push(performance.now() - began);
      }
      const sorted = took.toSorted((a, b) => a - b);
      const at = (share: number) => Math.round(10 * (sorted[Math.floor(share * (taps - 1))] as number)) / 10;
      return { medianMs: at(0.5), p95Ms: at(0.95) };
    },
    { taps: TAPS, rest: REST, words },
  );
}

const BARE = `<main><button onclick="document.querySelector('p').textContent += '1'">Tap</button><p></p></main>`;

/**
 * How long a tap takes until what it changes is drawn, in Chromium with its processor slowed down, beside a tap on a page with nothing
 * but a button. What a device does once, when the application is first opened on it, is waited for.
 *
 * @param cookie  that of a signed-in person
 */
export async function measureTaps(url: string, cookie: string, path: string) {
  const browser = await browserType.launch(chromium);
  try {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
    const [name = '', value = ''] = cookie.split('=');
    await context.addCookies([{ name, value, url }]);
    const page = await context.newPage();
    await page.goto(url + path);
    await page.waitForLoadState('networkidle');
    await page.evaluate('navigator.serviceWorker.ready');
    await page.waitForTimeout(SETTLED);
    const devtools = await context.newCDPSession(page);
    await devtools.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
    const ours = await tapping(page, ...A_SESSION);
    await page.setContent(BARE);
    const bare = await tapping(page, 'Tap');
    return { slower: SLOWER, taps: TAPS, ...ours, atMostMs: 50, bare };
  } finally {
    await browser.close();
  }
}

/** With no network from the home screen: until there is something to tap; and what of so many students lies on the device. */
export async function measureOffline(
  url: string,
  cookie: string,
  { stop, students }: { stop: () => Promise<void>; students: number },
) {
  const browser = await browserType.launch(chromium);
  try {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, baseURL: url });
    const [name = '', value = ''] = cookie.split('=');
    await context.addCookies([{ name, value, url }]);
    const page = await context.newPage();
    await page.goto('/');
    await page.evaluate('globalThis.__name = (named) => named');
    const kept = () =>
      page.evaluate(async () => {
        const nothing = { pages: 0, bytes: 0 };
        const device = 'gentle-margin-device';
        // To open it would make it, without what belongs into it.
        if (!(await indexedDB.databases()).some((one) => one.name === device)) return nothing;
        return new Promise<typeof nothing>((resolve) => {
          const opening = indexedDB.open(device);
          opening.onsuccess = () => {
            const all = opening.result.transaction('pages').objectStore('pages').getAll();
            all.onsuccess = () => {
              opening.result.close();
              const pages = all.result as { bytes: ArrayBuffer }[];
              resolve({ pages: pages.length, bytes: pages.reduce((sum, { bytes }) => sum + bytes.byteLength, 0) });
            };
          };
        });
      });
    const { length: wanted } = ((await (await context.request.get('/kept?pages')).json()) as { pages: string[] }).pages;
    // Of Today there is one more than its data: what it looks like.
    for (let tries = 0; tries < 300 && (await kept()).pages <= wanted; tries++) await page.waitForTimeout(1000);
    const { pages, bytes } = await kept();
    await page.close();
    await stop();
    const times: number[] = [];
    for (let i = 0; i < COLD_STARTS; i++) {
      const cold = await context.newPage();
      const devtools = await context.newCDPSession(cold);
      await devtools.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
      const began = performance.now();
      await cold.goto('/', { waitUntil: 'commit' });
      await cold.waitForFunction(isUsable);
      times.push(Math.round(performance.now() - began));
      await cold.close();
    }
    const [usableMs] = times.toSorted((a, b) => a - b).slice(COLD_STARTS / 2);
    return {
      ...{ slower: SLOWER, usableMs, usableAtMostMs: 2000 },
      ...{ students, pages, keptMB: Math.round(bytes / 10_000) / 100, keptAtMostMB: 10 },
    };
  } finally {
    await browser.close();
  }
}
