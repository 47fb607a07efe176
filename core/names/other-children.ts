/** Another student of the school, as a note may name them. */
export interface OtherChild {
  id: string;
  firstName: string;
  lastName: string;
  shortName: string;
  initials: string;
}

export interface NamedChild {
  childId: string;
  /** As it stands in the text. */
  text: string;
  at: number;
}

/**
 * First names that are English words too: written small they are taken for the word. Our own list, from memory; a name that is
 * missing here is pointed out once too often, not once too seldom.
 */
const alsoWords = new Set(
  (
    'april art august autumn basil bill bob briar brook carol cash chance chase clay dahlia dale dawn dean drew earl faith fern forest ' +
    'frank gale gene grace grant guy harmony hazel heath heather holly hope hunter iris ivy jack jade jasmine jewel joy june kestrel ' +
    'lance lane lily linnea major mark mason may melody mercy miles olive page parker patience pearl penny pierce poppy ' +
    'precious ray reed river robin rose ruby rusty sage sky stone summer sunny will winter wren'
  ).split(' '),
);

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+');
const asWord = (pattern: string, flags: string) =>
  new RegExp(`(?<![\\p{L}\\p{N}])(?:${pattern})(?![\\p{L}\\p{N}])`, `gu${flags}`);

/** Full name, short name, first name, initials. */
const RANKS = 4;
const NOTHING = /(?!)/g;

/** Their names longest first, so that “Nell Zapata” is one find and not two. */
function patternsOf({ firstName, lastName, shortName, initials }: OtherChild): RegExp[] {
  const isWord = alsoWords.has(firstName.toLocaleLowerCase());
  return [
    asWord(`${escaped(firstName)}\\s+${escaped(lastName)}`, 'i'),
    asWord(escaped(shortName), 'i'),
    asWord(escaped(firstName), isWord ? '' : 'i'),
    // Initials only as they are written, and only where there are two or more: “I” is no name.
    ...(initials.length > 1 ? [asWord(`${escaped(initials)}|${[...initials].map(escaped).join('\\.')}\\.`, '')] : []),
  ];
}

/**
 * Where a text names another student of the school: by name, by short name, or by initials as a word, in any case of letters
 * (a first name that is a word too only with its capital). Where two could be meant, the first of the list is given.
 *
 * @param others  all students but the one the text is about
 * @returns in the order of the text, without overlaps
 * @example namedChildren('Nell Z. laughed', [nell]) // [{ childId: nell.id, text: 'Nell Z.', at: 0 }]
 */
export function namedChildren(text: string, others: readonly OtherChild[]): NamedChild[] {
  return nameFinder(others)(text);
}

/** The same for many texts: the names are made ready once. */
export function nameFinder(others: readonly OtherChild[]): (text: string) => NamedChild[] {
  const all = others.map((child) => ({ child, patterns: patternsOf(child) }));
  // Whoever is named at all is named by a first name or by initials: most texts hold neither.
  const tokens = others.flatMap(({ firstName, initials }) => [
    escaped(firstName),
    ...(initials.length > 1 ? [escaped(initials), [...initials].map(escaped).join('\\.')] : []),
  ]);
  const any = tokens.length === 0 ? null : new RegExp(tokens.join('|'), 'iu');
  return (text) => (any?.test(text) ? findIn(text, all) : []);
}

function findIn(text: string, all: readonly { child: OtherChild; patterns: RegExp[] }[]): NamedChild[] {
  const found: NamedChild[] = [];
  const isTaken = (at: number, length: number) =>
    found.some((other) => at < other.at + other.text.length && other.at < at + length);
  for (let rank = 0; rank < RANKS; rank++) {
    for (const { child, patterns } of all) {
      for (const { 0: match, index } of text.matchAll(patterns[rank] ?? NOTHING)) {
        if (!isTaken(index, match.length)) found.push({ childId: child.id, text: match, at: index });
      }
    }
  }
  return found.sort((a, b) => a.at - b.at);
}

/**
 * The text for a reader from outside: whoever is named in it is “a classmate”.
 *
 * @param find  as `nameFinder` makes it
 * @example withoutNames('nell laughed at him', nameFinder([nell])) // 'A classmate laughed at him'
 */
export function withoutNames(text: string, find: (text: string) => NamedChild[]): string {
  let result = '';
  let from = 0;
  for (const { at, text: name } of find(text)) {
    const before = text.slice(from, at);
    const begins = /(^|[.!?]\s+)$/.test(result + before);
    result += before + (begins ? 'A classmate' : 'a classmate');
    from = at + name.length;
    // “Nell Z.” at the end of a sentence takes its full stop along.
    if (name.endsWith('.') && (from === text.length || /^\s+\p{Lu}/u.test(text.slice(from)))) result += '.';
  }
  return result + text.slice(from);
}
