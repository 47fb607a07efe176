import { defined } from '../../defined';
import { otherForms } from './short-forms';

/** A student of the school, as a note may name them. */
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

/** Finds other children in a text about one of the roster, whose own names are nobody else's. */
export type FindNames = (text: string, about?: string) => NamedChild[];

/**
 * Names that are English words too: written small they are taken for the word. Our own list, from memory; a name that is missing
 * here is pointed out once too often, not once too seldom.
 */
const alsoWords = new Set(
  (
    'al ant april art ash august autumn baker ball banks barb basil bass bell bert best bill bishop black bloom bob bond brook brooks ' +
    'briar brown bush butler cane carol carpenter carter cash chance chase chuck church clay cook cooper cross dahlia daisy dale dan dawn ' +
    'day dean deb dick dom don dot drew earl ed em english faith farmer fern field fields fisher flowers ford forest fox frank french gale ' +
    'gardener gene glass gold good grace grant gray green guy hall hand harmony hazel heath heather hill holly hope house hunt hunter iris ' +
    'ivy jack jade jasmine jewel joy june kestrel king kit kitty knight lake lamb lance lane law lil lily linnea little liv long lord love ' +
    'major mark marsh mason matt may mel melody mercy miles mills missy moon moss nan ned nick noble north nurse olive page park parker ' +
    'parks pat patience pearl peg penny pierce pike pool poppy porter potter precious price ray reed rice rich ring river rivers rob robin ' +
    'rose ruby rusty sage sales sandy sharp shepherd short silver skinner sky small smith snow south spring stone street strong sue summer ' +
    'summers sunny swift tab temple turner val walker wall walls walt ward waters weaver wells west white will winter wise wolf wood woods ' +
    'wren young'
  ).split(' '),
);

/** What stands before a surname and belongs to it. */
const titles = new Set('mr mrs ms miss mx dr mister missus'.split(' '));
/** Parts of surnames that name nobody by themselves. */
const particles = new Set(
  'van von der den ten ter de del della di da do dos das la las le los el al bin ibn abu san st mac mc o'.split(' '),
);

const BEYOND_ASCII = /[\u0080-\uffff]/;
const SPECIAL: Record<string, string> = { ß: 'ss', æ: 'ae', œ: 'oe', ø: 'o', ł: 'l', đ: 'd', ð: 'd', þ: 'th', ı: 'i' };

/** In small letters and without accents: how names are compared. */
function plain(text: string): string {
  const small = text.toLowerCase();
  if (!BEYOND_ASCII.test(small)) return small;
  return small
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[ßæœøłđðþı]/g, (letter) => SPECIAL[letter] ?? letter);
}

/** A run of what is neither space nor a mark; written out, since classes of Unicode take several times as long. */
const WORD = /[^\s!-/:-@[-`{-~\u00a0-\u00bf\u2000-\u206f\u3000-\u303f]+/g;
const IS_WORD = /^[a-z]+$/;

/** The words of a name that was made plain. */
const wordsOf = (name: string): readonly string[] => (IS_WORD.test(name) ? [name] : (name.match(WORD) ?? []));
const firstWord = (name: string): string => wordsOf(name)[0] ?? '';

/** A child of the roster; the words of a name of several are taken apart when the name is met. */
interface Known {
  id: string;
  first: string;
  last: string;
  /** Empty where it is the usual “Nell Z.”. */
  short: string;
}

interface Token {
  word: string;
  raw: string;
  at: number;
  end: number;
  /** What parts it from the word before. */
  gap: string;
}

function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  const words = new RegExp(WORD);
  let before = 0;
  for (let match = words.exec(text); match; match = words.exec(text)) {
    const [raw] = match;
    const at = match.index;
    tokens.push({ word: plain(raw), raw, at, end: at + raw.length, gap: text.slice(before, at) });
    before = at + raw.length;
  }
  return tokens;
}

/** Whether nothing but what stands within a name parts a word from the one before: a space, a hyphen, an apostrophe, a full stop. */
const isJoined = ({ gap }: Token) => gap === ' ' || /^(?:\.?[^\S\n]+|[-’'.]|\n)$/.test(gap);

const isCapital = (raw: string) => raw.charAt(0) !== raw.charAt(0).toLowerCase();

/**
 * Where a text names another student of the school: by name, first name or surname alone, also with a title, by common short forms,
 * by short name, or by initials as a word, with or without accents, in any case of letters (a name that is a word too only with its
 * capital). Where two could be meant, the first of the list is given.
 *
 * @param others  all students but the one the text is about
 * @returns in the order of the text, without overlaps
 * @example namedChildren('Nell Z. laughed', [nell]) // [{ childId: nell.id, text: 'Nell Z.', at: 0 }]
 */
export function namedChildren(text: string, others: readonly OtherChild[]): NamedChild[] {
  return nameFinder(others)(text);
}

/**
 * The same for many texts. Of the roster it keeps one map from words to children, so that a text costs what it is long, however many
 * children there are: to be made once for each state of the roster.
 *
 * @param roster  all students; the finder is told whom each text is about
 */
export function nameFinder(roster: readonly OtherChild[]): FindNames {
  const byFirst = new Map<string, Known[]>();
  const byLast = new Map<string, Known[]>();
  /** Surnames that begin with a part that names nobody: only as a whole. */
  const byWholeLast = new Map<string, Known[]>();
  const byShort = new Map<string, Known[]>();
  const byInitials = new Map<string, Known[]>();
  const add = (map: Map<string, Known[]>, key: string, child: Known) => {
    const list = map.get(key);
    if (list) list.push(child);
    else map.set(key, [child]);
  };
  // All names are made plain in one go: thousands of small calls would take longer than the texts that are searched.
  const firsts = plain(roster.map(({ firstName }) => firstName).join('\0')).split('\0');
  const lasts = plain(roster.map(({ lastName }) => lastName).join('\0')).split('\0');
  for (const [at, { id, firstName, shortName, initials }] of roster.entries()) {
    const isUsual = shortName.length === firstName.length + 3 && shortName.startsWith(firstName);
    const [first = '', last = ''] = [firsts[at], lasts[at]];
    const child: Known = { id, first, last, short: isUsual ? '' : plain(shortName) };
    add(byFirst, firstWord(first), child);
    if (IS_WORD.test(last)) add(byLast, last, child);
    else {
      for (const word of wordsOf(last)) if (!particles.has(word)) add(byLast, word, child);
      if (particles.has(firstWord(last))) add(byWholeLast, firstWord(last), child);
    }
    if (!isUsual) add(byShort, firstWord(child.short), child);
    if (initials.length > 1) add(byInitials, initials, child);
  }

  /** How many words from `from` on are these, one after the other; 0 when they are not all there. */
  const runOf = (words: readonly string[], tokens: readonly Token[], from: number): number => {
    for (let i = 0; i < words.length; i++) {
      const token = tokens[from + i];
      if (!token || token.word !== words[i] || (i > 0 && !isJoined(token))) return 0;
    }
    return words.length;
  };

  /** How many words name a child by their first name, from `from` on; with the surname or its first letter, where that follows. */
  const byFirstName = (
    child: Known,
    tokens: readonly Token[],
    from: number,
    text: string,
    ownForm: boolean,
  ): number => {
    const first = ownForm ? runOf(wordsOf(child.first), tokens, from) || 1 : 1;
    const next = tokens[from + first];
    if (next && isJoined(next)) {
      const last = runOf(wordsOf(child.last), tokens, from + first);
      if (last > 0) return first + last;
      const isLetter = next.word.length === 1 && next.word === child.last.charAt(0);
      if (isLetter && (isCapital(next.raw) || text.charAt(next.end) === '.')) return first + 1;
    }
    return first;
  };

  /** Whether anybody could be meant from a word on at all: most words are passed over here. */
  const isNamedAt = ({ word, raw }: Token) =>
    byFirst.has(word) ||
    byLast.has(word) ||
    otherForms(word).size > 0 ||
    byWholeLast.has(word) ||
    byShort.has(word) ||
    byInitials.has(raw) ||
    word.length === 1 ||
    word.endsWith('s');

  /** Whoever could be meant from a word on, each with how many words name them. */
  const candidatesAt = (tokens: readonly Token[], at: number, text: string): [Known, number][] => {
    const { word, raw } = defined(tokens[at]);
    const found: [Known, number][] = [];
    // A name that is a word, or a short form of few letters, is a name by itself only with its capital.
    const take = (child: Known, length: number, isRisky: boolean) => {
      if (length > 1 || !isRisky || isCapital(raw)) found.push([child, length]);
    };
    const isWord = alsoWords.has(word);
    for (const child of byFirst.get(word) ?? []) take(child, byFirstName(child, tokens, at, text, true), isWord);
    for (const form of otherForms(word)) {
      for (const child of byFirst.get(form) ?? []) {
        take(child, byFirstName(child, tokens, at, text, false), isWord || word.length < 4);
      }
    }
    for (const child of byLast.get(word) ?? []) take(child, runOf(wordsOf(child.last), tokens, at) || 1, isWord);
    for (const child of byWholeLast.get(word) ?? []) take(child, runOf(wordsOf(child.last), tokens, at), false);
    for (const child of byShort.get(word) ?? []) take(child, runOf(wordsOf(child.short), tokens, at), isWord);
    for (const child of byInitials.get(raw) ?? []) found.push([child, 1]);
    // “N.Z.”
    const letters = lettersFrom(tokens, at, text);
    for (let count = letters.length; count > 1; count--) {
      for (const child of byInitials.get(letters.slice(0, count)) ?? []) found.push([child, count]);
    }
    // “Nells turn”: an s without its apostrophe.
    if (found.length === 0 && word.length > 4 && word.endsWith('s') && isCapital(raw)) {
      const stem = word.slice(0, -1);
      if (!alsoWords.has(stem))
        for (const child of [...(byFirst.get(stem) ?? []), ...(byLast.get(stem) ?? [])]) found.push([child, 1]);
    }
    return found.filter(([, length]) => length > 0);
  };

  return (text, about) => {
    const tokens = tokensOf(text);
    const found: NamedChild[] = [];
    for (let at = 0; at < tokens.length; ) {
      if (!isNamedAt(defined(tokens[at]))) {
        at++;
        continue;
      }
      const candidates = candidatesAt(tokens, at, text);
      const longest = Math.max(0, ...candidates.map(([, length]) => length));
      if (longest === 0) {
        at++;
        continue;
      }
      const meant = candidates.filter(([, length]) => length === longest).map(([child]) => child);
      // Their own name, even where somebody else has it too.
      if (!meant.some(({ id }) => id === about)) {
        const before = tokens[at - 1];
        const hasTitle = before !== undefined && titles.has(before.word) && isJoined(defined(tokens[at]));
        const from = hasTitle ? before.at : defined(tokens[at]).at;
        const last = defined(tokens[at + longest - 1]);
        const end = last.end + (takesStop(tokens, at, longest, text) ? 1 : 0);
        found.push({ childId: defined(meant[0]).id, text: text.slice(from, end), at: from });
      }
      at += longest;
    }
    return found;
  };
}

/** The single capitals that stand in a row, each with its full stop: “N.Z.” gives “NZ”. */
function lettersFrom(tokens: readonly Token[], from: number, text: string): string {
  let letters = '';
  for (let at = from; ; at++) {
    const token = tokens[at];
    if (!token || [...token.raw].length !== 1 || !isCapital(token.raw) || text.charAt(token.end) !== '.')
      return letters;
    if (at > from && !isJoined(token)) return letters;
    letters += token.raw;
  }
}

/** Whether the full stop after a name belongs to it: “Nell Z.”, “N.Z.”. */
function takesStop(tokens: readonly Token[], at: number, length: number, text: string): boolean {
  const last = defined(tokens[at + length - 1]);
  return length > 1 && [...last.raw].length === 1 && text.charAt(last.end) === '.';
}

/**
 * The text for a reader from outside: whoever is named in it is “a classmate”.
 *
 * @param find  as `nameFinder` makes it
 * @param about  whom the text is about
 * @example withoutNames('nell laughed at him', nameFinder([nell])) // 'A classmate laughed at him'
 */
export function withoutNames(text: string, find: FindNames, about?: string): string {
  let result = '';
  let from = 0;
  for (const { at, text: name } of find(text, about)) {
    const before = text.slice(from, at);
    const begins = /(^|[.!?]\s+)$/.test(result + before);
    result += before + (begins ? 'A classmate' : 'a classmate');
    from = at + name.length;
    // “Nell Z.” at the end of a sentence takes its full stop along.
    if (name.endsWith('.') && (from === text.length || /^\s+\p{Lu}/u.test(text.slice(from)))) result += '.';
  }
  return result + text.slice(from);
}
