import { describe, expect, it } from 'vitest';
import { blankLines, isBlank, type Sheet, sheetReducer } from './sheet';

const sheet: Sheet = { lines: blankLines(2), observerId: 'a', locationId: null, time: '10:00' };
const texts = ({ lines }: Sheet) => lines.map(({ cells }) => cells);

describe('a table in the making', () => {
  it('always has a line to go on with', () => {
    const typed = sheetReducer(sheet, { type: 'cell', at: 1, key: 'on', text: '11/20' });
    expect(texts(typed)).toEqual([{}, { on: '11/20' }, {}]);
    expect(typed.lines[1]?.id).toBe(sheet.lines[1]?.id);
    expect(isBlank({ id: 'x', cells: { on: '  ' } })).toBe(true);
  });

  it('takes a paste below what is there, over what it covers, and beside what it does not', () => {
    const typed = sheetReducer(sheet, { type: 'cell', at: 1, key: 'note', text: 'kept' });
    const pasted = sheetReducer(typed, { type: 'paste', at: 1, rows: [{ on: '1' }, { on: '2' }, { on: '3' }] });
    expect(texts(pasted)).toEqual([{}, { on: '1', note: 'kept' }, { on: '2' }, { on: '3' }, {}]);
    expect(new Set(pasted.lines.map(({ id }) => id)).size).toBe(5);
    expect(texts(sheetReducer(pasted, { type: 'remove', at: 1 }))).toEqual([{}, { on: '2' }, { on: '3' }, {}]);
  });
});
