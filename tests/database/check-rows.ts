// In every test that asks a database: what a query gives is held against the tables as they are. A column that may be empty must be
// allowed to be, whether or not it is in this test.
import type { Knex } from 'knex';
import type { FieldDef } from 'pg';
import { z } from 'zod';
import { type RowCheck, rowCheck } from '~/server/platform/db/rows';

/** Which columns may be empty, by table and number, as each database has them. */
const mayBeEmpty = new WeakMap<object, Promise<Map<string, string>>>();

async function emptyColumns(db: Knex): Promise<Map<string, string>> {
  const { rows } = await db.raw<{ rows: { key: string; name: string }[] }>(
    `select a.attrelid || ':' || a.attnum as key, c.relname || '.' || a.attname as name
       from pg_attribute a join pg_class c on c.oid = a.attrelid and c.relkind = 'r'
      where c.relnamespace = 'public'::regnamespace and a.attnum > 0 and not a.attisdropped and not a.attnotnull`,
  );
  return new Map(rows.map(({ key, name }) => [key, name]));
}

/** The schema of each column, by its place for a tuple and by its name for an object. */
function schemaOf(row: z.ZodType, field: string, at: number): z.ZodType | undefined {
  if (row instanceof z.ZodTuple) return row.def.items[at] as z.ZodType | undefined;
  if (row instanceof z.ZodObject) return row.shape[field] as z.ZodType | undefined;
  return undefined;
}

const check: RowCheck = async (db, row, fields: readonly FieldDef[]) => {
  const pool = (db as Knex & { client: { pool: object } }).client.pool ?? db;
  const known = mayBeEmpty.get(pool) ?? emptyColumns(db);
  mayBeEmpty.set(pool, known);
  const columns = await known;
  const wrong = fields.flatMap(({ name, tableID, columnID }, at) => {
    const column = columns.get(`${tableID}:${columnID}`);
    const schema = schemaOf(row, name, at);
    if (!column || !schema || schema.meta()?.isHeld || schema.safeParse(null).success) return [];
    return [`${column} as “${name}”`];
  });
  if (wrong.length > 0) throw new Error(`These may be empty, and are read as if they never were: ${wrong.join(', ')}`);
};

rowCheck.current = check;
