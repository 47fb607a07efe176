import type { IsoDate } from '../calendar/iso-date';

/** Letters of every script, figures and hyphens: what every system of today keeps in the name of a file. */
const safe = (text: string) =>
  text
    .normalize('NFC')
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '');

/**
 * What a file is called, without its ending: whose it is, what, and of which day.
 *
 * @param whose  a student’s short name, or initials; empty for what is of nobody alone
 * @example fileName('Ansel D.', 'individual report', '2026-11-27') // 'Ansel-D-individual-report-2026-11-27'
 */
export function fileName(whose: string, what: string, on: IsoDate): string {
  return [safe(whose), safe(what), on].filter(Boolean).join('-');
}

/** The files that a report can be taken away as. */
export const formats = ['pdf', 'docx', 'xlsx', 'csv'] as const;
export type Format = (typeof formats)[number];

/** A document’s title as the name of its file, without its ending. */
export const titleAsName = (title: string): string => safe(title).replaceAll('-', ' ') || 'Report';
