import { describe, expect, it } from 'vitest';
import { fileName } from './file-name';

describe('the name of a file', () => {
  it.each([
    ['Ansel D.', 'individual report', 'Ansel-D-individual-report-2026-11-27'],
    ['José Á.', 'ABC notes', 'José-Á-ABC-notes-2026-11-27'],
    ['A"; x=\r\n', 'a/../b', 'A-x-a-b-2026-11-27'],
    ['', 'progress reports', 'progress-reports-2026-11-27'],
    ['王', 'report', '王-report-2026-11-27'],
    ['Ольга Κ. Nguyễn', 'report', 'Ольга-Κ-Nguyễn-report-2026-11-27'],
    // Marks that turn the way of writing, or hide an ending.
    ['fdp.\u202eexe', 'report', 'fdp-exe-report-2026-11-27'],
  ])('of %s, %s', (whose, what, expected) => expect(fileName(whose, what, '2026-11-27')).toBe(expected));
});
