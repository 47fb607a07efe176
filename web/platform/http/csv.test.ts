import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { csvFile } from './csv';

describe('a file of comma-separated text', () => {
  it('holds no cell that a spreadsheet would take for a formula', async () => {
    const begins = ['=HYPERLINK("http://elsewhere")', '+1', '-2', '@x', '\t=1', '\r=1', '\n=1'];
    const rows = [[...begins, ...begins.map((text) => `${text}\nand a second line`), 'He said “no”, and left']];
    const file = csvFile('report', rows[0]?.map((_, at) => `${at}`) ?? [], rows);
    const bytes = new Uint8Array(await file.arrayBuffer());
    // The mark by which spreadsheet programs tell UTF-8 (RFC 3629, 6).
    expect([...bytes.slice(0, 3)]).toEqual([0xef, 0xbb, 0xbf]);
    const text = new TextDecoder().decode(bytes);
    const [, cells = []] = Papa.parse<string[]>(text.trim()).data;
    expect(cells).toHaveLength(2 * begins.length + 1);
    for (const cell of cells) expect(cell).not.toMatch(/^[=+\-@\t\r\n]/);
    expect(text).toContain('He said “no”, and left');
    expect(file.headers.get('content-disposition')).toBe('attachment; filename=report.csv');
  });
});
