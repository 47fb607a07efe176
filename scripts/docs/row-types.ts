// The types of tables and rows, from the live schema.
import extract from 'extract-pg-schema';

/** What `pg` makes of each type; dates and times stay text (see `database.ts`). */
const types: Record<string, string> = {
  'pg_catalog.bool': 'boolean',
  'pg_catalog.int2': 'number',
  'pg_catalog.int4': 'number',
  'pg_catalog.float8': 'number',
  'pg_catalog.int8': 'string',
  'pg_catalog.numeric': 'string',
  'pg_catalog.text': 'string',
  'pg_catalog.varchar': 'string',
  'pg_catalog.uuid': 'string',
  'pg_catalog.date': 'string',
  'pg_catalog.time': 'string',
  'pg_catalog.timestamptz': 'Date',
  'pg_catalog.bytea': 'Buffer',
  'pg_catalog.json': 'unknown',
  'pg_catalog.jsonb': 'unknown',
};

const pascal = (name: string) => name.replace(/(?:^|_)(\w)/g, (_, letter: string) => letter.toUpperCase());

interface Column {
  name: string;
  type: { fullName: string };
  isArray: boolean;
  isNullable: boolean;
  defaultValue: unknown;
  generated: string;
  isIdentity: boolean;
}

/** The words that a check of the table lets into a column; null where there is no such check. */
function wordsOf(name: string, checks: readonly { clause: string }[]): string | null {
  for (const { clause } of checks) {
    const [, column, words] = /^\(*(\w+) (?:= ANY|<@) \(?ARRAY\[([^\]]*)\]\)*$/.exec(clause) ?? [];
    if (column === name && words) return words.replaceAll('::text', '').split(', ').join(' | ');
  }
  return null;
}

function typeOf({ name, type, isArray, isNullable }: Column, checks: readonly { clause: string }[]): string {
  const base = types[type.fullName];
  if (!base) throw new Error(`What pg makes of ${type.fullName} (${name}) is not said.`);
  const words = base === 'string' ? wordsOf(name, checks) : null;
  const one = words && isArray ? `(${words})` : (words ?? base);
  return base === 'unknown' ? base : `${one}${isArray ? '[]' : ''}${isNullable ? ' | null' : ''}`;
}

/** A file that says what stands in each table and view of a database, and tells Knex of it. */
export async function rowTypes(url: string): Promise<string> {
  const { public: schema } = await extract.extractSchemas({ connectionString: url }, { schemas: ['public'] });
  if (!schema) throw new Error('The database has no tables.');
  const tables = schema.tables
    .filter(({ name }) => !name.startsWith('knex_'))
    .sort((a, b) => (a.name < b.name ? -1 : 1));
  const views = schema.views.sort((a, b) => (a.name < b.name ? -1 : 1));
  const row = (of: { name: string; columns: unknown[]; checks?: { clause: string }[] }) => {
    const lines = (of.columns as Column[]).map((column) => `  ${column.name}: ${typeOf(column, of.checks ?? [])};`);
    return `export interface ${pascal(of.name)}Row {\n${lines.join('\n')}\n}\n`;
  };
  const given = ({ defaultValue, isNullable, generated, isIdentity }: Column) =>
    defaultValue !== null || isNullable || generated === 'ALWAYS' || isIdentity;
  const entry = (of: { name: string; columns: unknown[] }) => {
    const optional = (of.columns as Column[]).filter(given).map(({ name }) => `'${name}'`);
    return `  ${of.name}: Table<${pascal(of.name)}Row, ${optional.join(' | ') || 'never'}>;`;
  };
  return `${head}${[...tables, ...views].map(row).join('\n')}
/** A row as it is read; as it is inserted, what has a default may be left out; as it is changed, anything may. */
type Table<Row, Given extends keyof Row> = Knex.CompositeTableType<
  Row,
  Written<Omit<Row, Given>> & Partial<Written<Pick<Row, Given>>>,
  Partial<Written<Row>>
>;
type Written<Row> = { [Column in keyof Row]: Row[Column] | Knex.Raw };

/** What it takes to insert a row. */
export type NewRow<Name extends keyof AllTables> = Knex.ResolveTableType<AllTables[Name], 'insert'>;

interface AllTables {
${[...tables, ...views].map(entry).join('\n')}
}

declare module 'knex/types/tables.js' {
  interface Tables extends AllTables {}
}
`;
}

const head = `// Written by \`npm run db:types\` from the live schema; a test fails when it is stale. Not edited by hand.
import type { Knex } from 'knex';

`;
