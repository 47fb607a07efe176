import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { above, floors, housePage, importsOf, place, rooms, root, sourcesOf, target } from '~/scripts/docs/house';

const mayUse: Record<string, readonly string[]> = { ...floors, demo: ['server', 'core'] };

/** Imports of a floor that lead where they must not. */
const wrongOn = (floor: string, isWrong: (from: string, to: string) => boolean) =>
  [...sourcesOf(floor)].flatMap((path) =>
    importsOf(path).flatMap((specifier) => {
      const to = target(path, specifier);
      return to !== null && isWrong(path, to) ? [`${path} imports ${to}`] : [];
    }),
  );

describe('one way down', () => {
  it.each(Object.keys(mayUse))('%s looks at nothing above it', (floor) => {
    expect([...sourcesOf(floor)].length).toBeGreaterThan(0);
    const isAbove = (_: string, to: string) => {
      const there = place(to).floor;
      return there !== floor && !(mayUse[floor] as string[]).includes(there);
    };
    expect(wrongOn(floor, isAbove)).toEqual([]);
  });

  it.each(Object.keys(floors))('each room of %s/ uses only those that stand before it', (floor) => {
    const order = [...Object.keys(rooms), ...(above[floor] as string[])];
    const isLater = (from: string, to: string) => {
      const [here, there] = [place(from), place(to)];
      if (there.floor !== floor || !here.room || !there.room) return false;
      return order.indexOf(there.room) > order.indexOf(here.room);
    };
    expect(wrongOn(floor, isLater)).toEqual([]);
  });

  it.each(Object.keys(floors))('every file of %s/ stands in a room', (floor) => {
    const known = new Set([...Object.keys(rooms), ...(above[floor] as string[])]);
    const homeless = [...sourcesOf(floor)].filter((path) => {
      const { room } = place(path);
      return room !== null && !known.has(room);
    });
    expect(homeless).toEqual([]);
  });

  it('keeps the core pure: Zod, a time zone reader, an edit distance, a selection and a seeded generator are its only packages, and it knows no clock, no chance, no Node', () => {
    const files = [...sourcesOf('core')];
    const packages = files
      .flatMap(importsOf)
      .filter((specifier) => !specifier.startsWith('.') && !specifier.startsWith('~/'));
    expect([...new Set(packages)].sort()).toEqual([
      ...['@date-fns/tz', 'date-fns', 'fastest-levenshtein', 'pure-rand/generator/xoroshiro128plus'],
      ...['simple-statistics', 'zod'],
    ]);
    for (const path of files) {
      expect(readFileSync(join(root, path), 'utf8'), path).not.toMatch(
        /Math\.random|Date\.now|new Date\(\)|process\.|performance\./,
      );
    }
  });

  it('reads where an import leads from any way of writing it', () => {
    const path = 'core/individual-report/report.ts';
    expect(target(path, '../../server/platform/db/database')).toBe('server/platform/db/database');
    expect(target(path, '~/web/root')).toBe('web/root');
    expect(place('web/root')).toEqual({ floor: 'web', room: null });
    expect(place('core/words/counting')).toEqual({ floor: 'core', room: 'words' });
    expect(target(path, 'zod')).toBeNull();
  });
});

describe('a file', () => {
  const lines = (path: string) => readFileSync(join(root, path), 'utf8').trimEnd().split('\n').length;
  const all = Object.keys(floors).flatMap((floor) => [...sourcesOf(floor)]);

  it('is no longer than 350 lines, and no shorter than what is worth a name of its own', () => {
    expect(all.filter((path) => lines(path) > 350 && path !== WRITTEN)).toEqual([]);
    expect(all.filter((path) => lines(path) < 10 && !ALONE.has(path))).toEqual([]);
  });
});

/** By a script, from the live schema. */
const WRITTEN = 'server/platform/db/tables.ts';

/** Short, and alone for a reason. */
const ALONE: ReadonlySet<string> = new Set([
  // A context that the browser loads, and nothing else of the server’s answer.
  'web/platform/ui/nonce.tsx',
  // A measure has its own fields in its own folder, also where there is little to set.
  'web/measures/latency/latency-fields.tsx',
]);

describe('docs/house.md', () => {
  it('draws the house as it is', () => {
    expect(readFileSync(join(root, 'docs/house.md'), 'utf8')).toBe(housePage());
  });
});
