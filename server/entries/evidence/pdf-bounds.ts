import { inflateSync } from 'node:zlib';

/** More objects than a scan of hundreds of pages has. */
const MOST_OBJECTS = 100_000;
/** What packed objects may come to, all together, in bytes. */
const MOST_UNPACKED = 48 * 1024 * 1024;
/** How far before its stream an object's dictionary begins, at the most. */
const LONGEST_DICTIONARY = 4096;

/**
 * Whether a PDF can be taken apart without filling the memory: its packed objects are unpacked here with a bound, before a library
 * would unpack them without one. Pictures and pages stay packed, however large they are.
 *
 * @returns false for one that unpacks to too much, has too many objects, or packs its objects in an unusual way
 */
export function isWithinBounds(content: Buffer): boolean {
  if (occurrences(content, ' obj', MOST_OBJECTS + 1) > MOST_OBJECTS) return false;
  let left = MOST_UNPACKED;
  for (let at = content.indexOf('stream'); at >= 0; at = content.indexOf('stream', at + 6)) {
    if (content.toString('latin1', at - 3, at) === 'end') continue;
    const dictionary = dictionaryBefore(content, at);
    if (!/\/(ObjStm|XRef)\b/.test(dictionary)) continue;
    const filters = dictionary.match(/\/Filter\s*\[?([^\]>]*)/)?.[1]?.match(/\/\w+Decode\b/g) ?? [];
    if (filters.length === 0) continue;
    if (filters.length > 1 || filters[0] !== '/FlateDecode') return false;
    const unpacked = unpackedSize(content, at, left);
    if (unpacked === null) return false;
    left -= unpacked;
  }
  return true;
}

function occurrences(content: Buffer, word: string, most: number): number {
  let count = 0;
  for (let at = content.indexOf(word); at >= 0 && count < most; at = content.indexOf(word, at + word.length)) count++;
  return count;
}

/** What stands between the beginning of an object and its stream. */
function dictionaryBefore(content: Buffer, at: number): string {
  const before = content.toString('latin1', Math.max(0, at - LONGEST_DICTIONARY), at);
  return before.slice(before.lastIndexOf(' obj') + 1);
}

/** What a stream unpacks to, in bytes; null when that is more than the bound. One that is broken is for the library to refuse. */
function unpackedSize(content: Buffer, at: number, most: number): number | null {
  let from = at + 'stream'.length;
  if (content[from] === 0x0d) from++;
  if (content[from] === 0x0a) from++;
  const end = content.indexOf('endstream', from);
  try {
    return inflateSync(content.subarray(from, end < 0 ? undefined : end), { maxOutputLength: Math.max(1, most) })
      .length;
  } catch (error) {
    return (error as { code?: unknown }).code === 'ERR_BUFFER_TOO_LARGE' ? null : 0;
  }
}
