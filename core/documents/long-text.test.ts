import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inPieces } from './long-text';

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
});
