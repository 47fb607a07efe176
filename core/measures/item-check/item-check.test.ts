import { describe, expect, it } from 'vitest';
import { itemHistory } from '~/core/measures/item-check/item-check';
import { measureDefinition } from '~/core/measures/measure';
import { asCount, items, message, pooled, score, sentence, words } from '~/tests/examples/measures';

describe('item check', () => {
  const day = words(['rain', 'right'], ['their', 'incorrect'], ['said', 'right']);

  it('says what help each item took, and refuses an item that is marked twice', () => {
    const helped = measureDefinition.parse({
      ...{ kind: 'itemCheck', item: { one: 'ingredient', many: 'ingredients' }, mostSupport: 'spoken' },
      items: ['flour', 'bowl', 'oven', 'salt'].map((label) => ({ key: label, label })),
      levels: [
        { key: 'independent', label: 'Alone', words: 'alone' },
        { key: 'spoken', label: 'Prompt', words: 'one prompt' },
      ],
    });
    const marked = (item: string, outcome: string) => ({ item, outcome });
    const data = { items: [marked('flour', 'independent'), marked('bowl', 'spoken'), marked('oven', 'refused')] };
    expect(sentence(helped, data)).toBe(
      '2 of 3 ingredients with one prompt or less help (67%). Alone: flour. With one prompt: bowl. Refused: oven. Not asked: salt.',
    );
    const twice = { items: [marked('flour', 'independent'), marked('flour', 'refused')] };
    expect(message(helped, twice)).toBe('“flour” is marked twice in one entry.');
  });

  it('is the share of the items that were asked: what was not is blank', () => {
    expect(score(items, day)).toEqual({ value: (100 * 2) / 3, amount: 2, weight: 3 });
    expect(sentence(items, day)).toBe('2 of 3 words right (67%). Incorrect: their. Not asked: soil.');
    expect(sentence(items, words(['rain', 'right']))).toBe(
      '1 of 1 word right (100%). Not asked: their, said and soil.',
    );
    expect(asCount(items, 75)).toBe('3 of 4');
    expect(pooled(items, words(['rain', 'incorrect']), day)).toMatchObject({ amount: 2, weight: 4 });
  });

  it('knows each item over time: known after two right in a row, missed after two wrong, coming between', () => {
    const sessions = [
      { on: '2026-09-01', data: words(['rain', 'right'], ['their', 'incorrect'], ['said', 'right']) },
      { on: '2026-09-02', data: words(['rain', 'right'], ['their', 'noResponse'], ['said', 'incorrect']) },
    ];
    const [rain, their, said, soil] = itemHistory(items, sessions);
    expect(rain).toMatchObject({ asked: 2, right: 2, state: 'known', neverKnown: false, lastRight: '2026-09-02' });
    expect(their).toMatchObject({ state: 'missed', neverKnown: true, lastRight: null });
    expect(said).toMatchObject({ state: 'coming', lastRight: '2026-09-01' });
    expect(soil).toMatchObject({ asked: 0, state: 'notAsked', neverKnown: false });
  });

  it('refuses an item or a level that is not the goal’s', () => {
    expect(message(items, words(['cloud', 'right']))).toBe('This is not one of the goal’s words.');
    expect(message(items, words(['rain', 'gesture']))).toBe('This is not one of the goal’s support levels.');
    expect(message(items, { items: [] })).toBe('Mark at least one word, or say why there is no score.');
  });
});
