import { describe, expect, it } from 'vitest';
import { goalOf } from '~/tests/examples/series';
import type { Outcome } from '../entries/observation';
import { asSeenBy, type ReportEntry } from '../individual-report/report';
import { measureDefinition } from '../measures/measure';
import { shownFields } from '../sharing/visibility-rule';
import { entryTables } from './entry-tables';
import { cellText, sheetNames, spreadsheetDay, spreadsheetTime, tableOf } from './table';

const { measure } = goalOf();
const goals = [{ id: 'g', number: '2a', shortName: 'Asks for a tool' }];
const around = { goals, measureAt: () => measure, answersTo: () => [] };

const entry = (outcome: Outcome | null, changes: Partial<ReportEntry> = {}): ReportEntry => ({
  ...{ id: 'e', studentId: 's', kind: 'observation', title: '2a · Asks for a tool', goalId: 'g', goalVersion: 1 },
  ...{ on: '2026-11-24', time: '09:05', location: 'Garden', observer: 'H. Bruun', note: '', sentence: '1 of 2 (50%).' },
  ...{ outcome, version: 1, isCorrected: false, isSecond: false },
  ...changes,
});

const trials = (...marks: string[]) => ({ data: { trials: marks }, reason: null }) as Outcome;

/** A row as an object of its fields. */
function rowOf({ fields, rows }: ReturnType<typeof entryTables>[number], at = 0) {
  return Object.fromEntries(fields.map((field, i) => [field, rows[at]?.[i] ?? null]));
}

describe('a table that was written as text', () => {
  it('has real dates and times in a spreadsheet, and blanks where nothing was said', () => {
    const rows = [
      ['2026-11-24T09:30', 'Left the bench', 40, '2026-11-24'],
      ['2026-11-25T10:05', '', null, ''],
    ];
    const { fields, rows: cells } = tableOf('Incidents', ['at', 'behavior', 'seconds', 'ended'], rows);
    expect(fields).toEqual(['at', 'time', 'behavior', 'seconds', 'ended']);
    expect(cells).toEqual([
      [{ on: '2026-11-24' }, { time: '09:30' }, 'Left the bench', 40, { on: '2026-11-24' }],
      [{ on: '2026-11-25' }, { time: '10:05' }, null, null, null],
    ]);
    expect(cells.every((row) => row.length === fields.length)).toBe(true);
    expect(tableOf('None', ['at', 'n'], []).fields).toEqual(['at', 'n']);
  });

  it('keeps a moment a text where not every row has one: no row is longer than its headings', () => {
    const { fields, rows } = tableOf(
      'Mixed',
      ['at', 'n'],
      [
        ['2026-11-24T09:30', 1],
        ['', 2],
      ],
    );
    expect(rows.map((row) => row.length)).toEqual([fields.length, fields.length]);
  });
});

describe('the entries as tables', () => {
  it('name the level of each item beside what it is worth: one prompt and a refusal may be worth the same', () => {
    const helped = measureDefinition.parse({
      ...{ kind: 'itemCheck', item: { one: 'word', many: 'words' }, mostSupport: 'independent' },
      items: ['flour', 'bowl', 'salt'].map((label) => ({ key: label, label })),
      levels: [
        { key: 'independent', label: 'Alone', words: 'alone' },
        { key: 'spoken', label: 'Prompt', words: 'one prompt' },
      ],
    });
    const marked = [
      { item: 'flour', outcome: 'spoken' },
      { item: 'bowl', outcome: 'refused' },
    ];
    const outcome = { data: { items: marked }, reason: null } as Outcome;
    const [all, own] = entryTables([entry(outcome)], { ...around, measureAt: () => helped });
    expect(rowOf(all).parts).toBe('flour Prompt | bowl Refused');
    expect(rowOf(own!)).toMatchObject({ flour: 'Prompt', 'flour: score': 0, bowl: 'Refused', 'bowl: score': 0 });
    expect(rowOf(own!).salt).toBeNull();
    expect(own!.fields.length).toBe(own!.rows[0]!.length);
  });

  it('are a row each, with dates, times and numbers as what they are and the sentence last', () => {
    const [all] = entryTables([entry(trials('independent', 'incorrect'))], around);
    expect(all.fields.at(-1)).toBe('sentence');
    expect(rowOf(all)).toMatchObject({
      ...{ date: { on: '2026-11-24' }, time: { time: '09:05' }, kind: 'goal', of: '2a · Asks for a tool' },
      ...{ value: 50, unit: '%', amount: 1, basis: '1 of 2', 'no score': null, note: null, location: 'Garden' },
      ...{ 'second observer': null, version: 1, sentence: '1 of 2 (50%).' },
    });
    expect(new Set(all.fields).size).toBe(all.fields.length);
    expect(rowOf(all).parts).toContain('1');
  });

  it('have a sheet for each goal that has entries, with a column for each level', () => {
    const tables = entryTables([entry(trials('independent', 'independent', 'incorrect'))], {
      ...around,
      goals: [...goals, { id: 'other', number: '3', shortName: 'Without entries' }],
    });
    expect(tables.map(({ name }) => name)).toEqual(['Entries', '2a Asks for a tool']);
    const [, own] = tables;
    const labels = own?.fields ?? [];
    expect(labels).toContain('Independent');
    expect(own && rowOf(own).Independent).toBe(2);
  });

  it('say why there is no score, and leave its figures blank: blank is not zero', () => {
    const [all] = entryTables([entry({ data: null, reason: 'absent' } as Outcome)], around);
    expect(rowOf(all)).toMatchObject({ value: null, amount: null, parts: null, 'no score': 'Absent' });
  });

  it('hold no figure that the reader is not shown, and nothing of a goal for what is of none', () => {
    const whole = entry(trials('independent'), { note: 'A word', observer: 'H. Bruun' });
    const [seen] = entryTables([asSeenBy(whole, shownFields(['numbers']))], around);
    expect(rowOf(seen)).toMatchObject({ value: null, parts: null, note: null, observer: null });
    const incident = entry(null, { kind: 'incident', goalId: null, title: 'Left the bench' });
    const tables = entryTables([incident], { ...around, measureAt: () => null });
    expect(tables).toHaveLength(1);
    expect(rowOf(tables[0])).toMatchObject({ kind: 'incident', of: 'Left the bench', value: null });
  });
});

describe('a table', () => {
  it('says dates and times to a spreadsheet as that counts them, and to text as ISO 8601 does', () => {
    // 1 January 1900 is day 1, and 1 March 1900 day 61, as 1900 is taken for a leap year (ECMA-376, 18.17.4.1).
    expect(spreadsheetDay('1900-03-01')).toBe(61);
    expect(spreadsheetDay('2026-11-24')).toBe(46_350);
    expect(spreadsheetTime('18:00')).toBe(0.75);
    expect([cellText({ on: '2026-11-24' }), cellText({ time: '09:05' }), cellText(null), cellText(0)]).toEqual([
      ...['2026-11-24', '09:05', '', 0],
    ]);
  });

  it('has a name that spreadsheets take, and no other has', () => {
    expect(sheetNames(['1 Asks', '1 asks', 'a/b:c', ''])).toEqual(['1 Asks', '1 asks 2', 'a b c', 'Sheet']);
    const long = sheetNames([
      '2a Asks for a tool with a word',
      '2a Asks for a tool with a word, or two',
      'x'.repeat(40),
    ]);
    expect(sheetNames([`'${'y'.repeat(29)}' and more`])).toEqual(['y'.repeat(29)]);
    expect(long.every((name) => name.length <= 31)).toBe(true);
    expect(new Set(long).size).toBe(3);
  });
});
