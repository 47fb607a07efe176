import { describe, expect, it } from 'vitest';
import { nearDuplicates } from './near-duplicates';

const roster = [
  { firstName: 'Ansel', lastName: 'Dorsey' },
  { firstName: 'Zoë', lastName: "O'Neil" },
  { firstName: 'Ada', lastName: 'Li' },
];
const foundFor = (firstName: string, lastName: string) =>
  nearDuplicates({ firstName, lastName }, roster).map((one) => one.firstName);

describe('names that may be the same person', () => {
  // Each is a slip of typing as people make them: common practice in matching records.
  it.each([
    ['ansel', ' Dorsey '],
    ['Ansel', 'Dorsy'],
    ['Ansell', 'Dorsey'],
    ['Ansil', 'Dorsey'],
    ['Ansle', 'Dorsey'],
    ['Dorsey', 'Ansel'],
  ])('%s %s is questioned', (first, last) => {
    expect(foundFor(first, last)).toEqual(['Ansel']);
  });

  it('accents, apostrophes and hyphens make no other person', () => {
    expect(foundFor('Zoe', 'O’Neil')).toEqual(['Zoë']);
    expect(foundFor('Zo-e', 'ONeil')).toEqual(['Zoë']);
  });

  it.each([
    ['Ansel', 'Drosley'],
    ['Hansel', 'Dorseys'],
    ['Ana', 'Li'],
    ['Marlow', 'Sefton'],
  ])('%s %s is somebody else', (first, last) => {
    expect(foundFor(first, last)).toEqual([]);
  });

  it('short names are near only when they are the same', () => {
    expect(foundFor('ADA', 'li')).toEqual(['Ada']);
  });
});
