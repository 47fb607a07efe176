// Draws the tables of a database as diagrams, one for each room, from what the database itself says of them.
import type { Database } from '~/server/platform/db/database';

/** What a room of tables is called, and its tables; what is in no room stands under the last heading. */
export type Rooms = readonly { title: string; tables: readonly string[] }[];

interface Column {
  table: string;
  name: string;
  type: string;
  optional: boolean;
  isKey: boolean;
}
interface Link {
  from: string;
  to: string;
  columns: string;
  optional: boolean;
}

const shortTypes: Record<string, string> = {
  'timestamp with time zone': 'instant',
  'time without time zone': 'time',
  'double precision': 'number',
  integer: 'int',
  smallint: 'int',
  bigint: 'int',
  boolean: 'bool',
  'character varying': 'text',
};

async function columnsOf(db: Database): Promise<Column[]> {
  const found = await db.raw<{ rows: Column[] }>(
    `select c.relname as table, a.attname as name, format_type(a.atttypid, null) as type, not a.attnotnull as optional,
            exists (select from pg_index i where i.indrelid = c.oid and i.indisprimary and a.attnum = any(i.indkey)) as "isKey"
       from pg_class c join pg_namespace n on n.oid = c.relnamespace
            join pg_attribute a on a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped
      where n.nspname = 'public' and c.relkind = 'r' and c.relname not like 'knex\\_%'
      order by c.relname, a.attnum`,
  );
  return found.rows.map((column) => ({ ...column, type: shortTypes[column.type] ?? column.type }));
}

async function linksOf(db: Database): Promise<Link[]> {
  const found = await db.raw<{ rows: Link[] }>(
    `select c.conrelid::regclass::text as from, c.confrelid::regclass::text as to,
            string_agg(a.attname, ', ' order by k.at) as columns, bool_or(not a.attnotnull) as optional
       from pg_constraint c cross join lateral unnest(c.conkey) with ordinality as k (num, at)
            join pg_attribute a on a.attrelid = c.conrelid and a.attnum = k.num
      where c.contype = 'f' and c.connamespace = 'public'::regnamespace
      group by c.oid, c.conrelid, c.confrelid
      order by 1, 2, 3`,
  );
  return found.rows;
}

/** Markdown with a diagram for each room: its tables with their columns, and what each points at. */
export async function dataDiagram(db: Database, rooms: Rooms): Promise<string> {
  const [columns, links] = [await columnsOf(db), await linksOf(db)];
  const all = [...new Set(columns.map(({ table }) => table))];
  const placed = new Set(rooms.flatMap(({ tables }) => tables));
  const rest = all.filter((table) => !placed.has(table));
  const drawn = rest.length > 0 ? [...rooms, { title: 'Since then', tables: rest }] : rooms;
  return drawn
    .map(({ title, tables }) => {
      const own = tables.filter((table) => all.includes(table));
      return [
        `## ${title}`,
        '',
        '```mermaid',
        'erDiagram',
        ...own.flatMap(entity),
        ...own.flatMap(lines),
        '```',
        '',
      ].join('\n');
    })
    .join('\n');

  function entity(table: string): string[] {
    const rows = columns
      .filter((column) => column.table === table)
      .map(({ name, type, optional, isKey }) => {
        const mark = isKey ? ' PK' : '';
        return `    ${type.replace(/[^\w]+/g, '_').replace(/_$/, '_list')} ${name}${mark}${optional ? ' "may be empty"' : ''}`;
      });
    return [`  ${table} {`, ...rows, '  }'];
  }

  function lines(table: string): string[] {
    return links
      .filter(({ from }) => from === table)
      .map(({ to, columns: by, optional }) => `  ${table} }o--${optional ? 'o|' : '||'} ${to} : "${by}"`);
  }
}
