import { describe, expect, it } from 'vitest';
import { dateCell, numberCell, timeCell } from '../../measures/cells';
import {
  beginningOf,
  type MeasureDefinition,
  measureDefinition,
  measureKinds,
  measureOf,
} from '../../measures/measure';
import { pasteInto, readRow, tableColumns } from './table';

const today = '2026-11-24';
const trials = beginningOf('trials');
const read = (definition: MeasureDefinition, cells: Record<string, string>) =>
  readRow(definition, { on: '11/20', ...cells }, { today, time: '10:00' });
const dataOf = (definition: MeasureDefinition, cells: Record<string, string>) => {
  const row = read(definition, cells);
  return row.is === 'row' ? row.row.outcome.data : row;
};
const messagesOf = (definition: MeasureDefinition, cells: Record<string, string>) => {
  const row = read(definition, cells);
  return row.is === 'wrong' ? row.messages : row;
};

describe('cells', () => {
  // The same day as people write it: ISO 8601 and the ways that are common in the United States.
  it.each(['2026-11-20', '11/20/2026', '11/20/26', '11/20', 'Nov 20, 2026', 'Nov 20'])('reads %s as a date', (text) => {
    expect(dateCell(text, today)).toEqual({ ok: true, value: '2026-11-20' });
  });
  it('takes a day without a year for the last one, and knows the leap days', () => {
    expect(dateCell('12/1', today)).toEqual({ ok: true, value: '2025-12-01' });
    expect(dateCell('2/29/2024', today).ok).toBe(true);
    for (const text of ['2/29/2026', '13/1/2026', 'soon', '']) expect(dateCell(text, today).ok, text).toBe(false);
  });
  it.each([
    ['9:05', '09:05'],
    ['14:30', '14:30'],
    ['2:30 pm', '14:30'],
    ['2:30pm', '14:30'],
    ['12 am', '00:00'],
  ])('reads %s as a time', (text, value) => {
    expect(timeCell(text)).toEqual({ ok: true, value });
  });
  it('reads decimal points and commas, and no text', () => {
    expect([numberCell('1.5'), numberCell('1,5'), numberCell('')].map((cell) => cell.ok && cell.value)).toEqual([
      1.5,
      1.5,
      null,
    ]);
    for (const text of ['three', '1.2.3', '1 000', '4 of 5']) expect(numberCell(text).ok, text).toBe(false);
  });
});

describe('a row of each measure', () => {
  it('trials: counts that add up', () => {
    expect(dataOf(trials, { independent: '3', gesture: '2', incorrect: '1' })).toEqual({
      counts: { independent: 3, gesture: 2, incorrect: 1 },
      opportunities: 6,
    });
    expect(messagesOf(trials, { independent: '3', opportunities: '4' })).toEqual({
      opportunities: 'The counts add up to 3, and there were 4 tries.',
    });
    expect(messagesOf(trials, { independent: '-1', gesture: 'two' })).toEqual({ gesture: 'A number, please.' });
    expect(messagesOf(trials, { independent: '-1', gesture: '2' })).toHaveProperty('independent');
  });
  it('items and steps: by sign or by level', () => {
    const items = measureDefinition.parse({
      kind: 'itemCheck',
      items: [
        { key: 'item1', label: 'flour' },
        { key: 'item2', label: 'oven' },
      ],
    });
    expect(dataOf(items, { item1: '+', item2: '−' })).toEqual({
      items: [
        { item: 'item1', outcome: 'right' },
        { item: 'item2', outcome: 'incorrect' },
      ],
    });
    expect(dataOf(items, { item1: 'no response' })).toEqual({ items: [{ item: 'item1', outcome: 'noResponse' }] });
    const steps = beginningOf('taskAnalysis');
    expect(dataOf(steps, { step1: 'Gesture' })).toEqual({ steps: [{ step: 'step1', outcome: 'gesture' }] });
    expect(messagesOf(steps, { step1: '+' })).toHaveProperty('step1', expect.stringContaining('Independent, Gesture'));
  });
  it('counts, lengths, times, intervals, points, amounts and readings', () => {
    expect(dataOf(beginningOf('frequency'), { count: '7', minutes: '30' })).toEqual({ count: 7, minutes: 30 });
    expect(dataOf(beginningOf('duration'), { episodes: '4:30; 75', sessionSeconds: '20:00' })).toEqual({
      episodes: [270, 75],
      sessionSeconds: 1200,
    });
    expect(dataOf(beginningOf('latency'), { responses: '12; 8,5; none' })).toEqual({ responses: [12, 8.5, null] });
    expect(dataOf(beginningOf('intervalRecording'), { intervals: '++−.' })).toEqual({
      intervals: [true, true, false, null],
    });
    expect(dataOf(beginningOf('rubric'), { criterion1: '3' })).toEqual({
      ratings: [{ criterion: 'criterion1', points: 3, rater: null }],
    });
    expect(dataOf(beginningOf('cumulativeTotal'), { amount: '1,5' })).toEqual({
      amounts: [{ amount: 1.5, category: null }],
    });
    expect(dataOf(beginningOf('oralReading'), { words: '92', errors: '4' })).toEqual({
      words: 92,
      errors: 4,
      seconds: 60,
    });
  });
  it('measurements, several in a cell', () => {
    expect(dataOf(beginningOf('measurement'), { readings: '24; 26,5' })).toEqual({ readings: [24, 26.5] });
    expect(messagesOf(beginningOf('measurement'), { readings: '24; deep' })).toEqual({ readings: 'A number, please.' });
  });
  it('what cannot be is told at its cell', () => {
    expect(messagesOf(beginningOf('oralReading'), { words: '9', errors: '12' })).toHaveProperty('errors');
    expect(messagesOf(beginningOf('duration'), { episodes: '10:00', sessionSeconds: '5:00' })).toHaveProperty(
      'episodes',
    );
    expect(messagesOf(beginningOf('rubric'), { criterion1: '7' })).toEqual({ criterion1: 'One of: 1, 2, 3, 4.' });
    expect(messagesOf(beginningOf('cumulativeTotal'), { amount: '-2' })).toHaveProperty('amount');
    expect(messagesOf(beginningOf('frequency'), { count: '7' })).toHaveProperty('minutes');
    expect(messagesOf(beginningOf('intervalRecording'), { intervals: '++?' })).toHaveProperty('intervals');
    expect(messagesOf(trials, { note: 'x'.repeat(4001), independent: '1' })).toHaveProperty('note');
    expect(messagesOf(trials, { on: '31/31', independent: '1' })).toHaveProperty('on');
  });
  it('has a reason or a score, and an empty row is nothing', () => {
    expect(read(trials, { reason: 'absent' })).toMatchObject({ row: { outcome: { data: null, reason: 'absent' } } });
    expect(messagesOf(trials, { reason: 'Absent', independent: '2' })).toHaveProperty('reason');
    expect(readRow(trials, { on: ' ', note: '' }, { today, time: '10:00' })).toEqual({ is: 'blank' });
  });
});

describe('a paste', () => {
  const columns = tableColumns(trials);
  it.each(measureKinds)('fits the columns of %s, each once', (kind) => {
    const keys = tableColumns(beginningOf(kind)).map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys).toEqual([
      'on',
      'time',
      ...measureOf(beginningOf(kind)).columns.map(({ key }) => key),
      'reason',
      'note',
    ]);
  });
  it('fills from the column where it begins', () => {
    expect(pasteInto(columns, [['3', '2'], ['4']], 'independent')).toEqual({
      ok: true,
      rows: [{ independent: '3', gesture: '2' }, { independent: '4' }],
    });
  });
  it('goes by its head when it has one, in whatever order', () => {
    const block = [
      ['Gesture', 'date', 'Independent'],
      ['1', '11/20', '5'],
    ];
    expect(pasteInto(columns, block, 'on')).toEqual({
      ok: true,
      rows: [{ gesture: '1', on: '11/20', independent: '5' }],
    });
    expect(
      pasteInto(
        columns,
        [
          ['Date', 'Mood'],
          ['11/20', 'fine'],
        ],
        'on',
      ),
    ).toMatchObject({
      ok: false,
      message: expect.stringContaining('no column “Mood”'),
    });
  });
  it('that is too wide or too long changes nothing', () => {
    expect(pasteInto(columns, [['1', '2', '3']], 'reason')).toMatchObject({
      ok: false,
      message: expect.stringContaining('3 columns wide'),
    });
    expect(pasteInto(columns, Array(201).fill(['1']), 'independent')).toMatchObject({ ok: false });
  });
});
