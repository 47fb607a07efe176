import { describe, expect, it } from 'vitest';
import { withArticle } from './counting';

describe('an article', () => {
  it.each([
    ['antecedent', 'an antecedent'],
    ['item', 'an item'],
    ['closure', 'a closure'],
    ['unit', 'a unit'],
    ['one-minute count', 'a one-minute count'],
  ])('goes by the sound: %s', (noun, said) => {
    expect(withArticle(noun)).toBe(said);
  });
});
