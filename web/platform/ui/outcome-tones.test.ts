import { describe, expect, it } from 'vitest';
import { goalOf } from '~/tests/examples/series';
import { toneOf } from './outcome-tones';

describe('tones', () => {
  const definition = (n: number) => ({
    ...goalOf({}).measure,
    levels: Array.from({ length: n }, (_, i) => ({ key: `l${i}`, label: `L${i}`, words: 'x' })),
  });

  it('run from the darkest for no help to the lightest for most', () => {
    expect([0, 1, 2, 3].map((i) => toneOf(definition(4), `l${i}`))).toEqual([
      'support-0',
      'support-1',
      'support-2',
      'support-3',
    ]);
    expect([0, 7].map((i) => toneOf(definition(8), `l${i}`))).toEqual(['support-0', 'support-4']);
    expect(toneOf(definition(4), 'refused')).toBe('outcome-refused');
  });
});
