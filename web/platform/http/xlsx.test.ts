import JSZip from 'jszip';
import { expect, it } from 'vitest';
import { xlsxFile } from './xlsx';

async function opened(answer: Response) {
  const parts = await JSZip.loadAsync(await answer.arrayBuffer());
  return async (name: string) => (await parts.file(name)?.async('text')) ?? '';
}

it('a spreadsheet holds numbers as numbers, and no text as a formula', async () => {
  const rows = [
    ['=1+1', 12.5],
    ['Ione & Jory', null],
  ];
  const answer = await xlsxFile('totals', [{ name: 'Totals', fields: ['student', 'so far'], rows }]);
  expect(answer.headers.get('Content-Disposition')).toBe('attachment; filename=totals.xlsx');
  const read = await opened(answer);
  const sheet = await read('xl/worksheets/sheet1.xml');
  expect(sheet).toMatch(/<c r="B2"[^>]*><v>12\.5<\/v>/);
  // No formula anywhere, and nothing at all where nothing was said.
  expect(sheet).not.toContain('<f>');
  expect(sheet).not.toMatch(/<c r="B3"[^>]*><v>/);
  const texts = sheet + (await read('xl/sharedStrings.xml'));
  expect(texts).toContain('=1+1');
  expect(texts).toContain('Ione &amp; Jory');
});

it('several tables are several sheets; dates and times are real, and headings stay in sight', async () => {
  const rows = [[{ on: '2026-11-24' }, { time: '06:00' }]];
  const fields = ['date', 'time'];
  const read = await opened(
    await xlsxFile('report', [
      { name: 'Entries', fields, rows },
      { name: '2a Asks: for [help]', fields, rows },
    ]),
  );
  expect(await read('xl/workbook.xml')).toContain('name="2a Asks  for  help"');
  const sheet = await read('xl/worksheets/sheet2.xml');
  // 1 January 2024 is day 45292 of every spreadsheet program (from memory); 24 November 2026 is 1,058 days later.
  expect(sheet).toMatch(/<c r="A2"[^>]*><v>46350<\/v>/);
  expect(sheet).toMatch(/<c r="B2"[^>]*><v>0\.25<\/v>/);
  expect(sheet).toMatch(/<pane [^>]*state="frozen"/);
  expect(await read('xl/styles.xml')).toContain('formatCode="yyyy-mm-dd"');
});
