import type { Page } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** The text of each page, as a printer gets it. */
export async function printedPages(page: Page): Promise<string[]> {
  const pdf = await getDocument({ data: new Uint8Array(await page.pdf({ format: 'Letter' })), verbosity: 0 }).promise;
  return Promise.all(
    Array.from({ length: pdf.numPages }, async (_, i) => {
      const { items } = await (await pdf.getPage(i + 1)).getTextContent();
      return items.map((item) => ('str' in item ? item.str : '')).join(' ');
    }),
  );
}
