import type pg from 'pg';
import { z } from 'zod';

/** What a table holds: how many rows, and a sum that no other rows come to. */
export type Sums = Record<string, { rows: number; md5: string }>;

const tableRow = z.object({ name: z.string() });
const sumRow = z.object({ rows: z.coerce.number(), md5: z.string() });

/** How values are written must not depend on who asks. */
const asWritten = `set local timezone = 'UTC'; set local datestyle = 'ISO'; set local bytea_output = 'hex'; set local extra_float_digits = 1`;

/** The tables of a database, by name. */
export async function tablesOf(client: pg.Client): Promise<string[]> {
  const { rows } = await client.query(`select tablename as name from pg_tables where schemaname = 'public' order by 1`);
  return z
    .array(tableRow)
    .parse(rows)
    .map(({ name }) => name);
}

/** The sums of all tables, within the transaction that the client is in. */
export async function sumsOf(client: pg.Client): Promise<Sums> {
  await client.query(asWritten);
  const sums: Sums = {};
  for (const table of await tablesOf(client)) {
    const { rows } = await client.query(
      `select count(*) as rows, coalesce(md5(string_agg(h, '' order by h)), '') as md5
         from (select md5(cast(t as text)) as h from "${table}" t) as hashed`,
    );
    sums[table] = sumRow.parse(rows[0]);
  }
  return sums;
}

/** The tables of which the sums are not the same. */
export const differing = (a: Sums, b: Sums): string[] =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])]
    .filter((table) => a[table]?.rows !== b[table]?.rows || a[table]?.md5 !== b[table]?.md5)
    .sort();
