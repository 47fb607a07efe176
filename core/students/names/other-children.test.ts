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
const others = [
  ...[nell, will, ann, child('José', 'Núñez-Ortega'), child('Sid', 'O’Brien'), child('Tove', 'de la Cruz')],
  { ...child('Abraham', 'Lund'), shortName: 'Bram' },
];
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
    // Surnames alone, with a title, possessives, short forms, accents.
    ['Zapata pushed him', ['Zapata']],
    ['zapata pushed him', ['zapata']],
    ['called Mrs. Zapata and Mr Reyes', ['Mrs. Zapata', 'Mr Reyes']],
    ["Zapata’s mother, Okafor's bag, Nells turn", ['Zapata', 'Okafor', 'Nells']],
    ['Billy and Eleanor came', ['Billy', 'Eleanor']],
    ['He paid the bill. Bill paid.', ['Bill']],
    ['Billy Okafor and Bill O. left', ['Billy Okafor', 'Bill O.']],
    ['Nèll Zapáta, ANN', ['Nèll Zapáta', 'ANN']],
    ['Ann a little, Ann R', ['Ann', 'Ann R']],
    ['beside José Núñez-Ortega', ['José Núñez-Ortega']],
    ['beside jose nunez ortega, and Ortega', ['jose nunez ortega', 'Ortega']],
    ["with O’Brien and O'Brien", ['O’Brien', "O'Brien"]],
    ['with Tove de la Cruz, de la Cruz, and on de la', ['Tove de la Cruz', 'de la Cruz']],
    ['Bram (JJ) fell', ['Bram']],
  ])('%s', (text, expected) => expect(names(text)).toEqual(expected));

  it('is “a classmate” for a reader from outside, with the sentence left whole', () => {
    expect(withoutNames('nell laughed at him. Will O. left', find)).toBe(
      'A classmate laughed at him. A classmate left',
    );
    expect(withoutNames('He sat beside Nell Z. Then he left.', find)).toBe('He sat beside a classmate. Then he left.');
    expect(withoutNames('It was Nell Z.', find)).toBe('It was a classmate.');
    expect(withoutNames('Sanded both edges.', find)).toBe('Sanded both edges.');
  });

  it('is not the student’s own, even where somebody else has it too', () => {
    const [ada, ben] = [child('Ada', 'Zapata'), { ...child('Ada', 'Lind'), id: 'another' }];
    const family = nameFinder([...others, ada, ben]);
    const named = (text: string) => family(text, ada.id).map((one) => one.text);
    expect(named('Ada took it. Zapata left. Ada Z. and AZ too.')).toEqual([]);
    expect(named('Ada L. took it; Lind left; Nell Zapata came.')).toEqual(['Ada L.', 'Lind', 'Nell Zapata']);
  });

  it('is found among thousands as among few: a text costs what it is long', () => {
    const syllables = ['ka', 'lo', 'mi', 'ru', 'te', 'vas', 'nor', 'bel', 'quin', 'dra', 'zeph', 'oly'];
    const made = (i: number) =>
      [i % 12, Math.floor(i / 12) % 12, Math.floor(i / 144) % 12].map((at) => syllables[at]).join('');
    const roster = Array.from({ length: 2000 }, (_, i) => ({ ...child(made(i), made(i * 7 + 3)), id: `${i}` }));
    const text =
      `${made(5)} sat beside ${made(1000)} ${made(7003)}. `.repeat(3) + 'Planed the long edge, twice. '.repeat(20);
    const few = nameFinder(roster.slice(0, 20));
    const many = nameFinder(roster);
    expect(many(text).length).toBeGreaterThan(0);
    const cost = (find: typeof few) => {
      let best = Infinity;
      for (let round = 0; round < 5; round++) {
        const start = performance.now();
        for (let i = 0; i < 40; i++) find(text);
        best = Math.min(best, performance.now() - start);
      }
      return best;
    };
    cost(many);
    // A hundred times as many children cost far less than a hundred times the time; the rest is room for a busy machine.
    expect(cost(many)).toBeLessThan(25 * cost(few));
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
