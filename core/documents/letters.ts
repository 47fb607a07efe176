import { mapTexts, textsIn } from '../words/texts';

/** Stands for a letter that the fonts of a document do not have. */
const BOX = '□';

/** Marks that are not seen: they join or part what stands beside them, or say which way it runs. */
const UNSEEN = /[\p{Cc}\p{Cf}\p{Zl}\p{Zp}\p{Variation_Selector}]/gu;
const kept: Record<string, string> = { '\n': '\n', '\t': ' ' };

/** Letters with what is put on them as one (Unicode, normalization form C), without what is not seen. */
const readable = (text: string) => text.normalize('NFC').replace(UNSEEN, (sign) => kept[sign] ?? '');

/** Every font has these, and most texts are of nothing else. */
const isPlain = (text: string) => /^[\x20-\x7e\n]*$/.test(text);

/** Whether there is a letter for a code point. */
type Has = (code: number) => boolean;

const isMissing = (letter: string, has: Has) => letter !== '\n' && !has(letter.codePointAt(0) ?? 0);

/** The letters in all texts of something that cannot be shown, each once. */
export function missingLetters(value: unknown, has: Has): string[] {
  const letters = [...textsIn(value)].flatMap((text) =>
    isPlain(text) ? [] : [...readable(text)].filter((letter) => isMissing(letter, has)),
  );
  return [...new Set(letters)];
}

/**
 * The same, with a box for each letter in its texts that cannot be shown.
 *
 * @example withoutMissing({ name: 'Ann 🙂' }, (code) => code < 128) // { name: 'Ann □' }
 */
export const withoutMissing = <Value>(value: Value, has: Has): Value =>
  mapTexts(value, (text) =>
    isPlain(text) ? text : [...readable(text)].map((letter) => (isMissing(letter, has) ? BOX : letter)).join(''),
  );
