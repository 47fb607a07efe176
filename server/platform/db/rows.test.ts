import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { freshDatabase } from '~/tests/database/fresh';
import { preparedRows } from './database';
import { rowsOf, written } from './rows';

const fresh = freshDatabase();
const named = z.object({ n: z.number(), word: z.string().nullable() });

describe('the rows of a query that is written out', () => {
  it('come as their schema says, with values in order or by name, and leave out what it does not name', async () => {
    const one = { n: 1, word: null };
    expect(await rowsOf(fresh.db, named, 'select ?::int as n, null as word, true as more', [1])).toEqual([one]);
    expect(await rowsOf(fresh.db, named, 'select :n::int as n, :word::text as word', { n: 2, word: 'two' })).toEqual([
      { n: 2, word: 'two' },
    ]);
    expect(await rowsOf(fresh.db, named, 'select 1 as n, null as word where false')).toEqual([]);
    expect(await preparedRows(fresh.db, 'test-rows', named, 'select $1::int as n, null as word', [1])).toEqual([one]);
  });

  it('come in the order of their columns for a tuple, whatever they are called', async () => {
    const pair = z.tuple([z.string(), z.number()]);
    expect(await rowsOf(fresh.db, pair, `select 'a' as same, 1 as same union all select 'b', 2 order by 2`)).toEqual([
      ['a', 1],
      ['b', 2],
    ]);
  });

  it('are refused where the query gives something else: another type, or a column that is not there', async () => {
    await expect(rowsOf(fresh.db, named, `select 'one' as n, null as word`)).rejects.toThrow(z.ZodError);
    await expect(rowsOf(fresh.db, named, 'select 1 as n, null as words')).rejects.toThrow(z.ZodError);
    await expect(preparedRows(fresh.db, 'test-other', named, 'select 1 as m, null as word', [])).rejects.toThrow(
      z.ZodError,
    );
    const json = z.object({ content: written<{ a: number }>() });
    expect(await rowsOf(fresh.db, json, `select '{"a": 1}'::jsonb as content`)).toEqual([{ content: { a: 1 } }]);
    await expect(rowsOf(fresh.db, json, 'select 1 as other')).rejects.toThrow(z.ZodError);
  });
});
