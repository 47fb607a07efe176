import type { IsoDate } from '../calendar/iso-date';

/** Letters, figures and hyphens only: what every system keeps in the name of a file. */
const safe = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^A-Za-z0-9]+/g, '-')
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
