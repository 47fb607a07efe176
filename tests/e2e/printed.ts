import type { Page } from '@playwright/test';
import { textOfPdf } from '../examples/pdf-text';

/** The text of each page, as a printer gets it. */
export async function printedPages(page: Page): Promise<string[]> {
  return (await textOfPdf(await page.pdf({ format: 'Letter' }))).pages;
}
