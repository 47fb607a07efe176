import { createRequire } from 'node:module';
import { dirname } from 'node:path';

const require = createRequire(import.meta.url);
const folderOf = (name: string) => dirname(require.resolve(`${name}/package.json`));

/** The files of a face in one of its sets of letters. */
function face(name: string, file: string, set: string, [normal, bold]: [number, number]) {
  const at = (weight: number, style: string) => `${folderOf(name)}/files/${file}-${set}-${weight}-${style}.woff`;
  return {
    normal: at(normal, 'normal'),
    bold: at(bold, 'normal'),
    italics: at(normal, 'italic'),
    bolditalics: at(bold, 'italic'),
  };
}

const text = (set: string) =>
  face('@fontsource/atkinson-hyperlegible-next', 'atkinson-hyperlegible-next', set, [400, 700]);
const heading = (set: string) => face('@fontsource/fraunces', 'fraunces', set, [600, 700]);

/** The faces of documents, by the names that they go by in them. Each face has two sets of letters: see `inSets`. */
export const fonts = {
  Text: text('latin'),
  TextExt: text('latin-ext'),
  Heading: heading('latin'),
  HeadingExt: heading('latin-ext'),
};

/** Letters of the larger set: Polish, Turkish, Vietnamese … names. */
const EXTENDED = /[\u0100-\u0130\u0132-\u0151\u0154-\u02ba\u02bd-\u02c5\u1e00-\u1eff\u20a0-\u20ab\u20ad-\u20cf]+/u;

/** The same, kept when a text is split by it. */
const BY_SET = new RegExp(`(${EXTENDED.source})`, 'u');

/**
 * A text parted by the set of letters that each part needs: one font file does not hold all.
 *
 * @example inSets('Łucja', 'Text') // [{ text: 'Ł', font: 'TextExt' }, { text: 'ucja', font: 'Text' }]
 */
export function inSets(words: string, face: 'Text' | 'Heading'): { text: string; font: keyof typeof fonts }[] {
  return words
    .split(BY_SET)
    .filter((part) => part !== '')
    .map((part) => ({ text: part, font: EXTENDED.test(part) ? (`${face}Ext` as const) : face }));
}
