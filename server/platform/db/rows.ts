import type { Knex } from 'knex';
import type { FieldDef } from 'pg';
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
  const query = db.raw<{ rows: unknown[]; fields?: FieldDef[] }>(sql, bindings as readonly Knex.Value[]);
  const { rows, fields = [] } = await (row instanceof z.ZodTuple ? query.options({ rowMode: 'array' }) : query);
  await rowCheck.current?.(db, row, fields);
  return z.array(row).parse(rows);
}

/** Holds what a query gives against the tables: whether what may be empty is read as such. Set by tests, for every query that they run. */
export type RowCheck = (db: Knex, row: z.ZodType, fields: readonly FieldDef[]) => Promise<void>;
export const rowCheck: { current: RowCheck | null } = { current: null };

/** A column that may be empty in its table and is not in these rows, since the database holds it so for them: by their kind, or by the query. */
export const held = <S extends z.ZodType>(schema: S): S => schema.meta({ isHeld: true });

/** A JSON column, which was checked when it was written. */
export const written = <T>() => z.custom<T>((value) => value !== undefined);
