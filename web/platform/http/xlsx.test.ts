import JSZip from 'jszip';
import { expect, it } from 'vitest';
import { xlsxFile } from './xlsx';

it('a spreadsheet holds numbers as numbers, and no text as a formula', async () => {
  const answer = await xlsxFile(
    'totals',
    ['student', 'so far'],
    [
      ['=1+1', 12.5],
      ['Ione & Jory', null],
    ],
  );
  expect(answer.headers.get('Content-Disposition')).toBe('attachment; filename="totals.xlsx"');
  const parts = await JSZip.loadAsync(await answer.arrayBuffer());
  const read = async (name: string) => (await parts.file(name)?.async('text')) ?? '';
  const sheet = await read('xl/worksheets/sheet1.xml');
  expect(sheet).toMatch(/<c r="B2"[^>]*><v>12\.5<\/v>/);
  // No formula anywhere, and nothing at all where nothing was said.
  expect(sheet).not.toContain('<f>');
  expect(sheet).not.toMatch(/<c r="B3"[^>]*><v>/);
  const texts = sheet + (await read('xl/sharedStrings.xml'));
  expect(texts).toContain('=1+1');
  expect(texts).toContain('Ione &amp; Jory');
});
