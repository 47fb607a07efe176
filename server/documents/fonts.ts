import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { create } from 'fontkit';
import { decompress } from 'wawoff2';

const require = createRequire(import.meta.url);

/** The faces of documents, by name: what a text has no letters for in the first is set in the next that has them. */
export const faces = {
  text: ['Atkinson Hyperlegible Next', 'Noto Sans', 'Noto Sans Math'],
  heading: ['Fraunces', 'Atkinson Hyperlegible Next', 'Noto Sans', 'Noto Sans Math'],
};

const upright = (...weights: number[]) => weights.map((weight) => `${weight}-normal`);

/** Each family with the sets of letters that are taken from it. The last two only add scripts and signs that the first two do not have. */
const families = [
  {
    name: 'atkinson-hyperlegible-next',
    sets: ['latin', 'latin-ext'],
    styles: [...upright(400, 700), '400-italic', '700-italic'],
  },
  { name: 'fraunces', sets: ['latin', 'latin-ext', 'vietnamese'], styles: upright(600) },
  {
    name: 'noto-sans',
    sets: ['greek', 'greek-ext', 'cyrillic', 'cyrillic-ext', 'vietnamese'],
    styles: upright(400, 700),
  },
  { name: 'noto-sans-math', sets: ['latin'], styles: upright(400) },
];

interface Fonts {
  /** As files that any program reads (OpenType). */
  files: Buffer[];
  /** The code points of all letters that can be set. */
  letters: ReadonlySet<number>;
}

let loading: Promise<Fonts> | undefined;

/** The fonts that ship, read once. */
export function loadFonts(): Promise<Fonts> {
  loading ??= readFonts().catch((error) => {
    loading = undefined;
    throw error;
  });
  return loading;
}

async function readFonts(): Promise<Fonts> {
  const paths = families.flatMap(({ name, sets, styles }) => {
    const folder = dirname(require.resolve(`@fontsource/${name}/package.json`));
    return sets.flatMap((set) => styles.map((style) => `${folder}/files/${name}-${set}-${style}.woff2`));
  });
  const files: Buffer[] = [];
  // One after the other: what comes out of the package lies in memory that the next one writes over.
  for (const path of paths) files.push(Buffer.from(await decompress(await readFile(path))));
  const letters = new Set(
    files.flatMap((file) => {
      const font = create(file);
      return 'characterSet' in font ? font.characterSet : [];
    }),
  );
  return { files, letters };
}
