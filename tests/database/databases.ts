import { randomBytes } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { connect, type Database } from '~/server/platform/db/database';

/** The server in DATABASE_URL; test databases are made beside the one it names, which is never touched. */
function serverUrl(): URL {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('Tests need DATABASE_URL: run them with npm run unit or npm run e2e.');
  return new URL(url);
}

export function urlOf(name: string): string {
  const url = serverUrl();
  url.pathname = `/${name}`;
  return url.href;
}

async function asOwner<T>(work: (db: Database) => Promise<T>): Promise<T> {
  const db = connect(urlOf('postgres'), { poolSize: 1 });
  try {
    return await work(db);
  } finally {
    await db.destroy();
  }
}

export const newName = (kind: string) => `gm_${kind}_${randomBytes(6).toString('hex')}`;

/** Makes a database, as a copy of a template where one is named. */
export async function makeDatabase(name: string, template?: string): Promise<void> {
  await asOwner((db) =>
    db.raw(
      template ? 'create database ?? template ??' : 'create database ??',
      [name, template].filter(Boolean) as string[],
    ),
  );
}

/** Drops a database. What tidies it up by itself at that moment is not ours to end: it is waited for. */
export async function dropDatabase(name: string, tries = 50): Promise<void> {
  try {
    await asOwner((db) => db.raw('drop database if exists ?? with (force)', [name]));
  } catch (error) {
    if ((error as { code?: unknown }).code !== '42501' || tries === 1) throw error;
    await pause(200);
    await dropDatabase(name, tries - 1);
  }
}
