import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { readable, refusalStatus, unreadablePaths, unreadableWords } from './readable';

describe('a text that cannot be kept', () => {
  it('is found wherever it stands, and whole characters of two halves are none', () => {
    const lone = '\uD83C';
    expect(unreadablePaths({ a: 'x\0', list: [{ note: `half ${lone}` }, { note: 'whole 🌱' }] })).toEqual([
      ['a'],
      ['list', 0, 'note'],
    ]);
    expect(unreadablePaths({ 'key\0': 'x' })).toEqual([[]]);
    expect(unreadablePaths(['\uDF31 second half first'])).toEqual([[0]]);
    expect(unreadablePaths([new Date(0), null, 7, 'Ünïcödé\n\ttabs'])).toEqual([]);
  });

  it('is not looked for without end: what is nested too deeply is refused as a whole', () => {
    const deep = JSON.parse(`{"list":${'['.repeat(100_000)}${']'.repeat(100_000)}}`);
    expect(unreadablePaths(deep)).toEqual([['list']]);
  });

  it('is refused at its field, beside whatever else is wrong with it', () => {
    const schema = readable(z.object({ note: z.string().max(10), n: z.number().default(3) }));
    expect(schema.parse({ note: 'fine' })).toEqual({ note: 'fine', n: 3 });
    const { error } = schema.safeParse({ note: '\0' });
    expect(error?.issues.map(({ path, message }) => [path, message])).toEqual([[['note'], unreadableWords]]);
    expect(refusalStatus([unreadableWords])).toBe(422);
    expect(refusalStatus(['Too long.'])).toBe(400);
  });
});
