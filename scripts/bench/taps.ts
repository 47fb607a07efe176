import { chromium as browserType } from '@playwright/test';
import { chromium } from '~/tests/e2e/chromium';

const SLOWER = 4;
const TAPS = 30;

/**
 * How long a tap takes until what it changes is drawn, in Chromium with its processor slowed down.
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
    const devtools = await context.newCDPSession(page);
    await devtools.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
    // What runs TypeScript here marks functions with a helper that the page does not have.
    await page.evaluate('globalThis.__name = (named) => named');
    const times = await page.evaluate(async (taps) => {
      const drawn = () => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
      const pads = [...document.querySelectorAll<HTMLElement>('main section button')];
      const pad = pads.find((button) => button.textContent?.startsWith('Independent')) as HTMLElement;
      const took: number[] = [];
      for (let i = 0; i < taps; i++) {
        await drawn();
        const began = performance.now();
        pad.click();
        // What React has still to do for this tap comes before the next frame is drawn.
        await drawn();
        took.push(performance.now() - began);
      }
      return took;
    }, TAPS);
    const sorted = times.toSorted((a, b) => a - b);
    const at = (share: number) => Math.round(10 * (sorted[Math.floor(share * (TAPS - 1))] as number)) / 10;
    return { slower: SLOWER, taps: TAPS, medianMs: at(0.5), p95Ms: at(0.95), atMostMs: 50 };
  } finally {
    await browser.close();
  }
}
