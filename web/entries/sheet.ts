import { useEffect, useState } from 'react';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { MOST_ROWS } from '~/core/entries/table/table';
import type { Cells } from '~/core/measures/measure-table';
import { draftStore } from '../platform/offline/device-store';

/** A row as it is typed; the id is that which its entry will have. */
const line = z.object({ id: z.string(), cells: z.record(z.string(), z.string()) });
export type Line = z.infer<typeof line>;

/** A table in the making. */
const sheetDraft = z.object({
  lines: z.array(line),
  observerId: z.string(),
  locationId: z.string().nullable(),
  time: z.string(),
});
export type Sheet = z.infer<typeof sheetDraft>;

export const blankLines = (n: number): Line[] => Array.from({ length: n }, () => ({ id: newId(), cells: {} }));
export const isBlank = ({ cells }: Line) => Object.values(cells).every((text) => text.trim() === '');

export type Change =
  | { type: 'cell'; at: number; key: string; text: string }
  | { type: 'paste'; at: number; rows: Cells[] }
  | { type: 'fields'; fields: Partial<Omit<Sheet, 'lines'>> }
  | { type: 'remove'; at: number }
  | { type: 'replace'; sheet: Sheet };

export function sheetReducer(sheet: Sheet, change: Change): Sheet {
  switch (change.type) {
    case 'cell': {
      const lines = sheet.lines.map((line, i) =>
        i === change.at ? { ...line, cells: { ...line.cells, [change.key]: change.text } } : line,
      );
      // There is always a line to go on with.
      const last = lines.at(-1);
      return {
        ...sheet,
        lines: last && !isBlank(last) && lines.length < MOST_ROWS ? [...lines, ...blankLines(1)] : lines,
      };
    }
    case 'paste': {
      const missing = Math.max(0, change.at + change.rows.length + 1 - sheet.lines.length);
      const lines = [...sheet.lines, ...blankLines(missing)].map((line, i) => {
        const pasted = change.rows[i - change.at];
        return pasted ? { ...line, cells: { ...line.cells, ...pasted } } : line;
      });
      return { ...sheet, lines: lines.slice(0, MOST_ROWS) };
    }
    case 'fields':
      return { ...sheet, ...change.fields };
    case 'remove':
      return { ...sheet, lines: sheet.lines.filter((_, i) => i !== change.at) };
    case 'replace':
      return change.sheet;
  }
}

/** Keeps what is typed on this device until it is saved, and brings it back. */
export function useKeptSheet(key: string, sheet: Sheet, change: (change: Change) => void): boolean {
  const [isLooking, setLooking] = useState(true);
  const isTouched = sheet.lines.some((line) => !isBlank(line));
  useEffect(() => {
    draftStore
      .read(key, sheetDraft)
      .then((found) => found && change({ type: 'replace', sheet: found }))
      .catch(() => {})
      .finally(() => setLooking(false));
  }, [key, change]);
  useEffect(() => {
    if (isLooking) return;
    const written = isTouched ? draftStore.keep(key, sheet) : draftStore.forget(key);
    written.catch(() => {});
  }, [key, sheet, isTouched, isLooking]);
  return isTouched && !isLooking;
}
