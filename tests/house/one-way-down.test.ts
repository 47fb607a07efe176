import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('../..', import.meta.url));

/** What each floor may look at besides itself: never up. */
const mayImport: Record<string, string[]> = {
  core: [],
  server: ['core'],
  web: ['server', 'core'],
  demo: ['server', 'core'],
};

function* sourcesOf(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sourcesOf(path);
    else if (/\.tsx?$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name)) yield path;
  }
}

function importsOf(path: string): string[] {
  const text = readFileSync(path, 'utf8');
  return [...text.matchAll(/(?:\bfrom\s+|\bimport\s*\(?\s*)'([^'\n]+)'/g)].map((match) => match[1] as string);
}

/** The floor of the project that an import leads to; null for a package. */
function floorOf(from: string, specifier: string): string | null {
  if (specifier.startsWith('~/')) return specifier.split('/')[1] ?? null;
  if (!specifier.startsWith('.')) return null;
  return relative(root, resolve(dirname(from), specifier)).split('/')[0] ?? null;
}

describe('one way down', () => {
  it.each(Object.keys(mayImport))('%s looks at nothing above it', (floor) => {
    const files = [...sourcesOf(join(root, floor))];
    expect(files.length).toBeGreaterThan(0);
    const wrong = files.flatMap((path) =>
      importsOf(path)
        .filter((specifier) => {
          const to = floorOf(path, specifier);
          return to !== null && to !== floor && !(mayImport[floor] as string[]).includes(to) && to !== '.react-router';
        })
        .map((specifier) => `${relative(root, path)} imports ${specifier}`),
    );
    expect(wrong).toEqual([]);
  });

  it('keeps the core pure: Zod, a time zone reader and an edit distance are its only packages, and it knows no clock, no chance, no Node', () => {
    const files = [...sourcesOf(join(root, 'core'))];
    const packages = files
      .flatMap(importsOf)
      .filter((specifier) => !specifier.startsWith('.') && !specifier.startsWith('~/'));
    expect([...new Set(packages)].sort()).toEqual(['@date-fns/tz', 'date-fns', 'fastest-levenshtein', 'zod']);
    for (const path of files) {
      expect(readFileSync(path, 'utf8'), path).not.toMatch(
        /Math\.random|Date\.now|new Date\(\)|process\.|performance\./,
      );
    }
  });

  it('reads a floor from any way of writing an import', () => {
    const path = join(root, 'core/report/report.ts');
    expect(floorOf(path, '../../server/db/database')).toBe('server');
    expect(floorOf(path, '~/web/root')).toBe('web');
    expect(floorOf(path, '../words/counting')).toBe('core');
    expect(floorOf(path, 'zod')).toBeNull();
  });
});
