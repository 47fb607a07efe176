import type { IsoDate } from '../calendar/iso-date';
import type { Outcome } from '../entries/observation';
import { readRow } from '../entries/table/table';
import { type MeasureDefinition, measureOf } from '../measures/measure';
import type { Cells } from '../measures/measure-table';
import type { OneCell } from '../measures/one-cell';
import { MADE_A_DATE, plainText } from './file-table';

/** What a row says of a session: cells that hold a field each, and columns whose heading names a part of the score. */
export interface SessionCells {
  cells: Record<string, string>;
  parts: [heading: string, text: string][];
}

/**
 * What came of a session, held against the goal's measure.
 *
 * @returns null where it cannot be read; why, is noted
 */
export function sessionOf(
  { cells, parts }: SessionCells,
  measure: MeasureDefinition,
  { help, areFractions }: Pick<OneCell, 'help' | 'areFractions'>,
  today: IsoDate,
  messages: string[],
): { outcome: Outcome; note: string } | null {
  const kind = measureOf(measure);
  const score = cells.score ?? '';
  if (score.startsWith(MADE_A_DATE)) {
    messages.push(
      'Score: the spreadsheet made a date of it, as it does with 3/5. Make the column text and write it anew.',
    );
    return null;
  }
  const texts: Cells = { reason: cells.reason ?? '', note: cells.note ?? '' };
  for (const [heading, text] of parts) {
    const column = kind.columns.find(({ key, label }) =>
      [key, label].some((one) => plainText(one) === plainText(heading)),
    );
    if (column) texts[column.key] = text;
    else
      messages.push(
        `${heading}: the goal has no such part. Its columns are: ${kind.columns.map(({ label }) => label).join(', ')}.`,
      );
  }
  const reason = reasonsInScores[plainText(score)];
  if (reason) texts.reason = reason;
  else if (score !== '') {
    const about: OneCell = { outOf: cells.outOf ?? '', help, areFractions };
    const read = kind.oneCell(score, about);
    if (!read.ok) {
      messages.push(`Score: ${read.message}`);
      return null;
    }
    Object.assign(texts, read.value);
    // What the score does not tell stands behind what the row says itself.
    if (read.value.note) texts.note = [cells.note, read.value.note].filter(Boolean).join(' ');
  }
  if (messages.length > 0) return null;
  const read = readRow(measure, { ...texts, on: today }, { today, time: '12:00' });
  if (read.is === 'row') return read.row;
  if (read.is === 'wrong')
    messages.push(...Object.entries(read.messages).map(([key, said]) => `${labelOf(kind.columns, key)}: ${said}`));
  return null;
}

const labelOf = (columns: readonly { key: string; label: string }[], key: string) =>
  columns.find((column) => column.key === key)?.label ?? (key === 'note' ? 'Note' : 'Score');

/** How people write in a score’s cell that there was none; common practice. */
const reasonsInScores: Record<string, string> = {
  ...{ absent: 'absent', abs: 'absent', a: 'absent', refused: 'refused' },
  ...{ 'no opportunity': 'No opportunity', 'no chance': 'No opportunity' },
};
