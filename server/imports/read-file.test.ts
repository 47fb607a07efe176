import { type Cell, type CellValue, writeXlsx } from 'hucre/xlsx';
import JSZip from 'jszip';
import { describe, expect, it } from 'vitest';
import { fileDay } from '~/core/imports/days';
import { Unreadable } from '~/core/imports/file-table';
import { readFileContent } from './read-file';

const today = '2026-11-24';
const read = async (bytes: Buffer | string, name = 'file.csv') => {
  const content = await readFileContent(name, Buffer.from(bytes), today);
  if (content.is !== 'tables') throw new Error('no tables');
  return content.tables;
};
const csv = 'Student,Score\nRené Ångström,"3,5"\n';

describe('a file of text', () => {
  it.each([
    ['UTF-8', Buffer.from(csv)],
    ['UTF-8 with a byte-order mark', Buffer.concat([Buffer.from([0xef, 0xbb, 0xbf]), Buffer.from(csv)])],
    ['UTF-16 with a byte-order mark', Buffer.from(`\uFEFF${csv}`, 'utf16le')],
    ['UTF-16 with the larger byte first', Buffer.from(`\uFEFF${csv}`, 'utf16le').swap16()],
    ['the Western code page', Buffer.from(csv, 'latin1')],
  ])('is read in %s', async (_, bytes) => {
    const [table] = await read(bytes);
    expect(table?.head).toEqual(['Student', 'Score']);
    expect(table?.rows).toEqual([['René Ångström', '3,5']]);
  });
  it.each([';', '\t'])('is read where %s parts its cells', async (sign) => {
    const [table] = await read(`${['Student', 'Score'].join(sign)}\nAnsel${sign}3,5\nBriar${sign}4`);
    expect(table?.rows).toEqual([
      ['Ansel', '3,5'],
      ['Briar', '4'],
    ]);
  });
  it.each([
    ['nothing', '', 'empty'],
    ['a PDF', '%PDF-1.7 …', 'PDF'],
    ['an old spreadsheet', Buffer.from('d0cf11e0a1b11ae1', 'hex'), 'older spreadsheet'],
    ['a picture', Buffer.from('89504e470d0a1a0a0000000d', 'hex'), 'no table'],
    ['headings alone', 'Student,Score\n', 'no table in it'],
    ['a quotation mark that is not closed', 'Student,Score\n"Ansel,3\n', 'quotation mark'],
  ])('is refused in words: %s', async (_, bytes, said) => {
    await expect(read(bytes)).rejects.toThrow(said);
  });
  it('of 200,000 rows is too long to be looked through', async () => {
    await expect(read(`Student,Score\n${'a,1\n'.repeat(200_000)}`)).rejects.toThrow('at most 20,000');
  });
});

describe('a spreadsheet', () => {
  const sheet = async (rows: CellValue[][], cells: [string, Partial<Cell>][] = []) =>
    Buffer.from(await writeXlsx({ sheets: [{ name: 'Sheet', rows, cells: new Map(cells) }] }));
  it('gives what stands in its cells: numbers, dates, times, texts', async () => {
    const bytes = await sheet(
      [
        ['Date', 'Time', 'Score', 'Share'],
        [null, null, '3/5', 0.1 + 0.2],
      ],
      [
        ['1,0', { value: 46_001, style: { numFmt: 'yyyy-mm-dd' } }],
        ['1,1', { value: 0.5, style: { numFmt: 'hh:mm' } }],
      ],
    );
    const [table] = await read(bytes, 'file.xlsx');
    expect(table?.rows[0]?.slice(1)).toEqual(['12:00', '3/5', '0.3']);
    // The 1900 date base of ECMA-376: day 46,001 is December 10, 2025 (day 45,658 is January 1, 2025).
    expect(fileDay(table?.rows[0]?.[0] ?? '', 'monthFirst', today)).toEqual({ ok: true, value: '2025-12-10' });
  });
  it('takes a formula for what it last showed', async () => {
    const zip = await JSZip.loadAsync(
      await sheet([
        ['Student', 'Score'],
        ['Ansel', 7],
      ]),
    );
    const path = Object.keys(zip.files).find((name) => /sheet1\.xml$/.test(name)) ?? '';
    const xml = await zip.file(path)?.async('text');
    expect(xml).toContain('<v>7</v>');
    zip.file(path, (xml ?? '').replace('<v>7</v>', '<f>3+4</f><v>7</v>'));
    const [table] = await read(await zip.generateAsync({ type: 'nodebuffer' }), 'file.xlsx');
    expect(table?.rows).toEqual([['Ansel', '7']]);
  });
  it('has several sheets, those without a table passed over', async () => {
    const rows = (text: string) => [
      ['Student', 'Score'],
      [text, 1],
    ];
    const bytes = await writeXlsx({
      sheets: [
        { name: 'Fall', rows: rows('Ansel') },
        { name: 'About', rows: [['A title']] },
        { name: 'Spring', rows: rows('Briar') },
      ],
    });
    expect((await read(Buffer.from(bytes), 'file.xlsx')).map(({ name, rows }) => [name, rows[0]?.[0]])).toEqual([
      ['Fall', 'Ansel'],
      ['Spring', 'Briar'],
    ]);
  });
});

describe('an archive', () => {
  const archive = (files: Record<string, string>) => {
    const zip = new JSZip();
    for (const [name, text] of Object.entries(files)) zip.file(name, text);
    return zip.generateAsync({ type: 'nodebuffer', compression: 'DEFLATE' });
  };
  it('that says less of its size than comes out of it is refused', async () => {
    const bytes = await archive({ 'manifest.csv': 'x'.repeat(500_000), 'users.csv': 'a' });
    // The size in the central directory and in the file's own header: a tenth of what it is.
    const real = Buffer.alloc(4);
    real.writeUInt32LE(500_000);
    const said = Buffer.alloc(4);
    said.writeUInt32LE(50_000);
    let at = bytes.indexOf(real);
    while (at >= 0) {
      said.copy(bytes, at);
      at = bytes.indexOf(real, at + 4);
    }
    await expect(readFileContent('roster.zip', bytes, today)).rejects.toThrow(Unreadable);
  });
  it('that is cut off, or holds no table, says so', async () => {
    const bytes = await archive({ 'letter.txt': 'Hello' });
    await expect(readFileContent('letters.zip', bytes, today)).rejects.toThrow('without a table');
    await expect(readFileContent('letters.zip', bytes.subarray(0, 60), today)).rejects.toThrow('damaged');
  });
});
