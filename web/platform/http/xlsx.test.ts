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

it('a text that reads like an error of the spreadsheet is a text, and what no XML can hold is left out', async () => {
  const rows = [['#N/A'], ['# 3 of 4'], ['be\uFFFEfore\u0007'], ['']];
  const read = await opened(await xlsxFile('notes', [{ name: 'Notes', fields: ['note'], rows }]));
  const sheet = await read('xl/worksheets/sheet1.xml');
  // `e` is an error and `b` a yes or no (ECMA-376, 18.18.11).
  expect([...sheet.matchAll(/ t="(\w+)"/g)].map(([, type]) => type)).toEqual(['s', 'inlineStr', 'inlineStr', 's']);
  expect(sheet).toContain('<t>#N/A</t>');
  const texts = await read('xl/sharedStrings.xml');
  expect(texts).toContain('before');
  // The sign of a bell is written out (ECMA-376, 22.9.2.19), since XML has no sign for it.
  expect(texts).not.toContain('\u0007');
});

it('a text that is too long for a cell is cut, and says so', async () => {
  const rows = [['a'.repeat(32_767)], ['b'.repeat(32_768)]];
  const read = await opened(await xlsxFile('notes', [{ name: 'Notes', fields: ['note'], rows }]));
  const texts = await read('xl/sharedStrings.xml');
  expect(/a+/.exec(texts.slice(texts.indexOf('aaa')))?.[0]).toHaveLength(32_767);
  const cut = /b{3,}[^<]*/.exec(texts)?.[0];
  expect(cut).toHaveLength(32_767);
  expect(cut).toMatch(/ … \(cut here, since a cell holds no more: CSV has all of it\)$/);
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
