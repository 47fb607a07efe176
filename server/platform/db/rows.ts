import type { Knex } from 'knex';
import { z } from 'zod';

/**
 * The rows of a query that is written out, each as its schema says: SQL that Knex does not build is not known to the types, so what comes
 * back is parsed like everything that arrives.
 *
 * @param row  an object by the names of the columns, or a tuple of them in order, which is cheaper where there are thousands
 * @param bindings  in order for `?`, or by name for `:name`
 * @throws ZodError when a row is not what the schema says: the query is wrong
 */
export async function rowsOf<S extends z.ZodType>(
  db: Knex,
  row: S,
  sql: string,
  bindings: readonly Knex.Value[] | Record<string, unknown> = [],
): Promise<z.output<S>[]> {
  // Knex’s own type knows no bindings by name.
  const query = db.raw<{ rows: unknown[] }>(sql, bindings as readonly Knex.Value[]);
  const { rows } = await (row instanceof z.ZodTuple ? query.options({ rowMode: 'array' }) : query);
  return z.array(row).parse(rows);
}

/** A JSON column, which was checked when it was written. */
export const written = <T>() => z.custom<T>((value) => value !== undefined);
