import { describe, expect, it } from 'vitest';
import { csvFile } from './csv';

describe('a file of comma-separated text', () => {
  it('holds no cell that a spreadsheet would take for a formula', async () => {
    const rows = [['=HYPERLINK("http://elsewhere")', '+1', '-2', '@x', 'He said “no”, and left']];
    const file = csvFile('report', ['a', 'b', 'c', 'd', 'e'], rows);
    const text = await file.text();
    const cells = (text.split('\r\n')[1] ?? '').match(/("([^"]|"")*"|[^,]*)(,|$)/g) ?? [];
    for (const cell of cells) expect(cell.replace(/^"/, '')).not.toMatch(/^[=+\-@]/);
    expect(text).toContain('He said “no”, and left');
    expect(file.headers.get('content-disposition')).toBe('attachment; filename="report.csv"');
  });
});
