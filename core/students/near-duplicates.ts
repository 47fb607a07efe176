import { distance } from 'fastest-levenshtein';

interface Named {
  firstName: string;
  lastName: string;
}

/** A name without what people type differently: case, accents, spaces, hyphens, apostrophes. */
function plain(name: string): string {
  return name
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]/gu, '')
    .toLowerCase();
}

/** Shorter names are too often one letter apart and still two people: Ana and Ada. */
const LONG_ENOUGH = 6;

function areNear(a: string, b: string): boolean {
  if (a === b) return true;
  if (Math.min(a.length, b.length) < LONG_ENOUGH) return false;
  const apart = distance(a, b);
  // Two letters changed about count as two changes, and are the commonest slip.
  return apart <= 1 || (apart === 2 && [...a].sort().join() === [...b].sort().join());
}

/**
 * Those of a roster who may be the same person under another spelling: the same letters, one letter more, less or other,
 * two changed about, or first and last name changed about. It is a question to ask, never an answer.
 *
 * @param name  as it is about to be written
 * @param others  who is there already
 * @see Levenshtein (1966) for the distance; that one letter is “near” is our own convention
 * @example nearDuplicates({ firstName: 'Ánsel', lastName: 'Dorsey ' }, [{ firstName: 'Ansel', lastName: 'Dorsey' }]).length // 1
 */
export function nearDuplicates<T extends Named>(name: Named, others: readonly T[]): T[] {
  const [first, last] = [plain(name.firstName), plain(name.lastName)];
  return others.filter((other) => {
    const [otherFirst, otherLast] = [plain(other.firstName), plain(other.lastName)];
    const inOrder = areNear(first + last, otherFirst + otherLast);
    return inOrder || areNear(last + first, otherFirst + otherLast);
  });
}
