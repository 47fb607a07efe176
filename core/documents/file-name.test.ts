import { describe, expect, it } from 'vitest';
import { fileName } from './file-name';

describe('the name of a file', () => {
  it.each([
    ['Ansel D.', 'individual report', 'Ansel-D-individual-report-2026-11-27'],
    ['José Á.', 'ABC notes', 'Jose-A-ABC-notes-2026-11-27'],
    ['A"; x=\r\n', 'a/../b', 'A-x-a-b-2026-11-27'],
    ['', 'progress reports', 'progress-reports-2026-11-27'],
    ['王', 'report', 'report-2026-11-27'],
  ])('of %s, %s', (whose, what, expected) => expect(fileName(whose, what, '2026-11-27')).toBe(expected));
});
