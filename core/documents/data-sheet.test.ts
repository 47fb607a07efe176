import { describe, expect, it } from 'vitest';
import { goalOf } from '~/tests/examples/series';
import type { Choice } from '../entries/incidents/choice';
import { readRow, tableColumns } from '../entries/table/table';
import { goalSheet, incidentSheet, roundSheet } from './data-sheet';
import type { DocumentBlock, ReportDocument } from './document';

const goal = { ...goalOf({}), number: '1', shortName: 'Sands', wording: 'Sands to the line.' };
const whose = { studentName: 'Ada E.', schoolName: 'Test School' };
const sheetsOf = ({ blocks }: ReportDocument) =>
  blocks.filter((block): block is Extract<DocumentBlock, { kind: 'sheet' }> => block.kind === 'sheet');

describe('a blank sheet', () => {
  it('of a goal has the columns of the table that takes it, in their order, and as many rows as are wanted', () => {
    const [sheet, ...more] = sheetsOf(goalSheet(goal, whose, 12));
    expect(more).toEqual([]);
    const columns = tableColumns(goal.measure);
    expect(sheet?.columns).toEqual(columns.map(({ label }) => label));
    expect(sheet?.rows).toHaveLength(12);
    expect(sheet?.rows.every((row) => row.length === columns.length && row.every((cell) => cell === ''))).toBe(true);
    // Written as the examples of the sheet say, and typed in the same order, a row is read.
    const typed = ['11/20', '9:05', '8', '0', '0', '0', '', '', ''];
    const cells = Object.fromEntries(columns.map(({ key }, at) => [key, typed[at] ?? '']));
    const read = readRow(goal.measure, cells, { today: '2026-11-24', time: '10:00' });
    expect(read).toMatchObject({ is: 'row', row: { on: '2026-11-20', time: '09:05' } });
  });

  it('of a round names each student and goal in its order, a page for each time', () => {
    const goals = ['Ben F.', 'Ada E.'].map((studentName) => ({ ...goal, studentName }));
    const document = roundSheet('Before lunch', goals, whose, 3);
    expect(sheetsOf(document).map(({ rows }) => rows.map(([name]) => name))).toEqual(
      Array.from({ length: 3 }, () => ['Ben F.', 'Ada E.']),
    );
    expect(document.blocks.filter(({ kind }) => kind === 'pageBreak')).toHaveLength(2);
  });

  it('of incidents has what is offered to tick, and nothing that is retired, merged or only typed', () => {
    const choice = (kind: Choice['kind'], name: string, changes: Partial<Choice> = {}): Choice => ({
      ...{ id: name, kind, name, words: '', discreetWord: '', unlike: '', direction: 'decrease', abc: true },
      ...{ counted: false, timed: false, state: 'offered', mergedInto: null, locationId: null },
      ...changes,
    });
    const choices = [
      choice('behavior', 'Leaves'),
      choice('behavior', 'Shouts'),
      choice('antecedent', 'Noise'),
      choice('antecedent', 'Bell', { state: 'other' }),
      choice('consequence', 'Break', { state: 'retired' }),
      choice('function', 'Escape'),
    ];
    const [sheet] = sheetsOf(incidentSheet(choices, whose, 4));
    // What it may be for is no observation, and is not asked on paper.
    expect(sheet?.columns).toEqual(['Date, time, how long', 'Behavior', 'Antecedent', 'Note']);
    expect(sheet?.rows).toHaveLength(4);
    expect(sheet?.rows[0]?.slice(1, 3)).toEqual(['□ Leaves\n□ Shouts', '□ Noise']);
  });
});
