import { createHash } from 'node:crypto';
import knex, { type Knex } from 'knex';
import { LRUCache } from 'lru-cache';
import pg from 'pg';
import { z } from 'zod';
import { type DatabaseRole, roles } from './guard';

export type Database = Knex;

// Dates stay the text they are: a calendar date has no zone that could move it.
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);
pg.types.setTypeParser(pg.types.builtins.TIME, (text) => text.slice(0, 5));

interface Pool {
  poolSize?: number;
  /** No statement may take longer, in milliseconds; 0 for as long as it takes. */
  longest?: number;
  /** As whom: the owner, who sees everything, unless it is said. */
  as?: DatabaseRole | undefined;
}

/** A transaction may rest so long between two questions, in milliseconds: while a long document is set. */
const LONGEST_IDLE = 60_000;

type Asked = pg.QueryConfig & { name?: string | undefined };
type Query = (config: Asked) => Promise<pg.QueryResult>;
type Done = (error: unknown, result?: pg.QueryResult) => void;

/** A text that has been asked so often on a connection is planned once for it … */
const PREPARED_FROM = 3;
/** … up to so many texts: a list of any length is a text of its own, and is not worth keeping. */
const MOST_PREPARED = 200;

/** Names for texts that are asked again and again: planning most of our queries costs more than running them. */
function prepares(): (config: Asked) => Asked {
  const seen = new Map<string, number>();
  let prepared = 0;
  return (config) => {
    const { text, values, name } = config;
    if (name || !text || !values?.length) return config;
    const count = (seen.get(text) ?? 0) + 1;
    if (count === PREPARED_FROM) prepared++;
    if (seen.size < 10 * MOST_PREPARED || seen.has(text)) seen.set(text, count);
    if (count < PREPARED_FROM || (count === PREPARED_FROM && prepared > MOST_PREPARED)) return config;
    return { ...config, name: nameOf(text) };
  };
}

const names = new LRUCache<string, string>({ max: 1000 });

function nameOf(text: string): string {
  const known = names.get(text);
  if (known) return known;
  const name = createHash('sha1').update(text).digest('base64url');
  names.set(text, name);
  return name;
}

const forget = () => {};

/** Queries on one connection wait for each other: in a transaction several things may be asked at once. */
function askInTurn(connection: pg.Client): void {
  // `pg` types its query by a dozen forms; Knex calls it by the two that `Query` names.
  const ask = connection.query.bind(connection) as unknown as Query;
  const prepared = prepares();
  let last: Promise<unknown> = Promise.resolve();
  const inTurn = (config: Asked, done?: Done) => {
    const next = () => ask(prepared(config));
    const answer = last.then(next, next);
    last = answer.then(forget, forget);
    if (!done) return answer;
    answer.then(
      (result) => done(null, result),
      (error) => done(error),
    );
  };
  // As above, the other way round.
  connection.query = inTurn as unknown as typeof connection.query;
}

/** Opens a pool of connections. A lost server is noticed within seconds, so that a page can say so. */
export function connect(url: string, { poolSize = 10, longest = 20_000, as }: Pool = {}): Database {
  return knex({
    client: 'pg',
    connection: {
      ...{ connectionString: url, connectionTimeoutMillis: 6000, statement_timeout: longest },
      // Compiling a query takes longer than any of ours runs: a thousand entries were read in a second, and are in a tenth. A transaction in
      // which nothing is asked any more has been forgotten by its program, and ends.
      options: [
        '-c jit=off',
        longest > 0 && `-c idle_in_transaction_session_timeout=${LONGEST_IDLE}`,
        as && `-c role=${roles[as]}`,
      ]
        .filter(Boolean)
        .join(' '),
    },
    pool: {
      ...{ min: 0, max: poolSize },
      afterCreate: (connection: pg.Client, done: (error: null, connection: pg.Client) => void) => {
        askInTurn(connection);
        done(null, connection);
      },
    },
    acquireConnectionTimeout: 8000,
    // What fails is thrown, and logged by whoever answers for it.
    log: { error: () => {}, warn: () => {} },
  });
}

const GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOTFOUND',
  'EPIPE',
  'ETIMEDOUT',
  '57P01',
  '57P02',
  '57P03',
  '53300',
]);

/**
 * A query that runs on every request or tap: handed to `pg` as it is, and the database keeps its plan for the connection
 * under the name. Within a transaction it runs there.
 *
 * @param name  different for every different text
 * @param row  what each row must be
 * @param sql  with `$1`, `$2` … for the values
 * @throws ZodError when a row is not what the schema says: the query is wrong
 */
export async function preparedRows<S extends z.ZodType>(
  db: Database,
  name: string,
  row: S,
  sql: string,
  values: unknown[],
): Promise<z.output<S>[]> {
  const connection: pg.Client = await db.client.acquireConnection();
  try {
    return z.array(row).parse((await connection.query({ name, text: sql, values })).rows);
  } finally {
    await db.client.releaseConnection(connection);
  }
}

/** A row was changed meanwhile, two wait for each other, or the other one was first. */
const MET_ANOTHER: ReadonlySet<unknown> = new Set(['40001', '40P01', '23505']);
/** How often a transaction that met another one is tried again. */
const SNAPSHOT_TRIES = 5;

/**
 * Does something in one transaction that sees the database as it stood at one moment. Where it meets another that has changed the
 * same, it begins anew and sees what that one did.
 */
export async function snapshot<Result>(
  db: Database,
  work: (trx: Knex.Transaction) => Promise<Result>,
): Promise<Result> {
  // Whoever has begun a transaction has chosen its moment.
  if (db.isTransaction) return db.transaction(work);
  for (let tries = 1; ; tries++) {
    try {
      return await db.transaction(work, { isolationLevel: 'repeatable read' });
    } catch (error) {
      const { code } = (error ?? {}) as { code?: unknown };
      if (!MET_ANOTHER.has(code) || tries === SNAPSHOT_TRIES) throw error;
    }
  }
}

/** Whether an error means that the database cannot be reached at the moment. */
export function isDatabaseGone(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const { code } = error as { code?: unknown };
  return (
    (typeof code === 'string' && (GONE.has(code) || code.startsWith('08'))) ||
    error.name === 'KnexTimeoutError' ||
    /Connection terminated|timeout expired|timeout exceeded when trying to connect|Connection ended unexpectedly/i.test(
      error.message,
    ) ||
    (error instanceof AggregateError && error.errors.some(isDatabaseGone))
  );
}

/** Whether an error says that a text cannot be kept in any column: it holds a NUL, or half of a character. */
export function isUnkeepable(error: unknown): boolean {
  const { code } = (error ?? {}) as { code?: unknown };
  return code === '22021' || code === '22P05';
}

/** Whether an error says only that something asked before in the same transaction had failed. */
export function isRefusedWithAnother(error: unknown): boolean {
  const { code } = (error ?? {}) as { code?: unknown };
  return code === '25P02';
}

/** Whether an error is a broken uniqueness rule: any, or the one that is named. */
export function isDuplicate(error: unknown, rule?: string): boolean {
  const { code, constraint } = (error ?? {}) as { code?: unknown; constraint?: unknown };
  return code === '23505' && (rule === undefined || constraint === rule);
}

/** Whether an error says that two stretches of time overlap that must not: by any such rule, or the one that is named. */
export function isOverlap(error: unknown, rule?: string): boolean {
  const { code, constraint } = (error ?? {}) as { code?: unknown; constraint?: unknown };
  return code === '23P01' && (rule === undefined || constraint === rule);
}
