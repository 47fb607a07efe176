import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inPieces, longRows } from './long-text';

describe('a long text on paper', () => {
  it('is cut between words, and nothing of it is lost', () => {
    const words = fc.array(fc.stringMatching(/^[a-z]{1,80}$/), { maxLength: 900 });
    fc.assert(
      fc.property(words, fc.constantFrom(' ', '\n', '  '), (list, gap) => {
        const text = list.join(gap);
        const pieces = inPieces(text);
        expect(pieces.join(' ').split(/\s+/)).toEqual(text.split(/\s+/));
        for (const piece of pieces) expect(piece.length).toBeLessThanOrEqual(26 * 44 + 26);
      }),
    );
    expect(inPieces('x'.repeat(3000)).join('')).toBe('x'.repeat(3000));
  });

  it('goes on in a row below its own', () => {
    const long = Array.from({ length: 60 }, (_, i) => `Line ${i}`).join('\n');
    const rows = longRows([
      ['Mon', 'Planing', long],
      ['Tue', 'Sanding', 'Short.'],
    ]);
    expect(rows.map(([day]) => day)).toEqual(['Mon', '', '', 'Tue']);
    expect(
      rows
        .slice(0, 3)
        .map(([, , said]) => said)
        .join('\n'),
    ).toBe(long);
  });
});
