import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { namedChildren, nameFinder, type OtherChild, withoutNames } from './other-children';

const child = (firstName: string, lastName: string): OtherChild => ({
  id: firstName,
  firstName,
  lastName,
  shortName: `${firstName} ${lastName.charAt(0)}.`,
  initials: firstName.charAt(0) + lastName.charAt(0),
});
const [nell, will, ann] = [child('Nell', 'Zapata'), child('Will', 'Okafor'), child('Ann', 'Reyes')];
const others = [nell, will, ann];
const find = nameFinder(others);
const names = (text: string) => namedChildren(text, others).map(({ text: found }) => found);

describe('another child’s name in a note', () => {
  it.each([
    ['Nell laughed', ['Nell']],
    ['after nell zapata and Nell Z. came', ['nell zapata', 'Nell Z.']],
    ['NZ took the plane; N.Z. too', ['NZ', 'N.Z.']],
    ['Nell’s turn', ['Nell']],
    // Parts of words are no names, nor a word that only looks like one.
    ['In Nellingen, for the anniversary, nz', []],
    ['He will try', []],
    ['Will tried', ['Will']],
    ['', []],
  ])('%s', (text, expected) => expect(names(text)).toEqual(expected));

  it('is “a classmate” for a reader from outside, with the sentence left whole', () => {
    expect(withoutNames('nell laughed at him. Will O. left', find)).toBe(
      'A classmate laughed at him. A classmate left',
    );
    expect(withoutNames('He sat beside Nell Z. Then he left.', find)).toBe('He sat beside a classmate. Then he left.');
    expect(withoutNames('It was Nell Z.', find)).toBe('It was a classmate.');
    expect(withoutNames('Sanded both edges.', find)).toBe('Sanded both edges.');
  });

  it('never leaves a name that it finds, whatever stands around it', () => {
    const piece = fc.constantFrom(
      'Nell',
      'nell zapata',
      'Nell Z.',
      'NZ',
      'Ann',
      ' ',
      ', ',
      '. ',
      'and',
      'sat',
      '(',
      ')',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 12 }), (pieces) => {
        expect(namedChildren(withoutNames(pieces.join(' '), find), others)).toEqual([]);
      }),
    );
  });
});
