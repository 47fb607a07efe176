import { readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { floors, root, sourcesOf } from '~/scripts/docs/house';

/** Words that have been replaced, as they would stand in the name of a file, a function or a type. */
const retired: [word: string, instead: string][] = [
  ['ways?In', 'shareLink'],
  ['readerRules?', 'visibilityRule'],
  ['readings', 'accessLog'],
  ['wordings?', 'messageTemplate'],
  ['carrier', 'mailServer, testMail'],
  ['shelf', 'goalBank'],
  ['asker', 'requestPerson'],
  ['answering', 'withErrors'],
  ['studentFor', 'requireStudent'],
  ['mustSetUp', 'requireSchoolAdmin'],
  ['setsUp', 'isSchoolAdmin'],
  ['verdicts?', 'decision'],
  ['tally', 'count'],
  ['tallies', 'counts'],
  ['catch(?:ing)?', 'recordIncident'],
  ['caught', 'recordIncident'],
  ['strips?', 'sheet'],
  ['beads?', 'trialMark'],
  ['papers?', 'document'],
  ['pieces?', 'workSample'],
  ['runningReport', 'individualReport'],
  ['abcNotes?', 'incident'],
  ['settingIds?', 'locationId'],
  ['placeIds?', 'locationId'],
  ['lamp', 'dark'],
  ['toldWhen', 'frequency'],
  ['readingAloud', 'oralReading'],
  ['runningTotal', 'cumulativeTotal'],
  ['maySetUp', 'mayEditGoals'],
];

/** Of a goal a wording is its text, and a text in pieces is what it was. */
const allowed: ReadonlySet<string> = new Set(['earlierWordings', 'inPieces']);

const pattern = (word: string) => {
  const [first = '', rest] = [word[0], word.slice(1)];
  // At a hump of the name, or at its beginning.
  return new RegExp(`(?:^${first}|${first.toUpperCase()})${rest}(?=[A-Z]|$)`);
};

/** What a file of the house declares at its top. */
function declared(path: string): string[] {
  const text = readFileSync(join(root, path), 'utf8');
  const all = text.matchAll(/^(?:export )?(?:default )?(?:async )?(?:function|const|let|interface|type|class) (\w+)/gm);
  return [...all].map((match) => match[1] as string);
}

const camel = (name: string) => name.replace(/[-.](\w)/g, (_, letter: string) => letter.toUpperCase());

describe('a word that was replaced', () => {
  const files = Object.keys(floors).flatMap((floor) => [...sourcesOf(floor)]);
  const names = files.flatMap((path) => [
    ...declared(path).map((name) => ({ path, name })),
    { path, name: camel(basename(path).replace(/\.tsx?$/, '')) },
  ]);

  it.each(retired)('%s names nothing any more: it is %s', (word) => {
    const still = names.filter(({ name }) => pattern(word).test(name) && !allowed.has(name));
    expect(still).toEqual([]);
  });

  it('is in no address', () => {
    const routes = readFileSync(join(root, 'web/routes.ts'), 'utf8');
    const addresses = [...routes.matchAll(/route\('([^']+)'/g)].map((match) => match[1] as string);
    expect(addresses.length).toBeGreaterThan(60);
    const old = /(^|\/)(read|post|ways-in|readers|readings|wordings|carrier|tally|tallies|caught|write)(\/|\.|$)/;
    expect(addresses.filter((address) => old.test(address))).toEqual([]);
  });

  it('is found in any place of a name', () => {
    expect(pattern('ways?In').test('newWayIn')).toBe(true);
    expect(pattern('strips?').test('countStrip')).toBe(true);
    expect(pattern('strips?').test('description')).toBe(false);
  });
});
