import { type ChildProcess, spawn } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const ROOF = '/usr/lib/postgresql';

/** Where PostgreSQL's own programs are: the newest of Debian's, else whichever is found by its name. */
function programPath(name: string): string {
  const versions = existsSync(ROOF) ? readdirSync(ROOF) : [];
  const found = versions
    .sort((a, b) => Number(b) - Number(a))
    .map((version) => join(ROOF, version, 'bin', name))
    .find((path) => existsSync(path));
  return found ?? name;
}

/** The database as PostgreSQL's programs take it: not in their arguments, which everybody on the machine can read. */
function surroundings(url: string): NodeJS.ProcessEnv {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    ...process.env,
    ...{ PGHOST: hostname, PGPORT: port || '5432', PGDATABASE: decodeURIComponent(pathname.slice(1)) },
    ...{ PGUSER: decodeURIComponent(username), PGPASSWORD: decodeURIComponent(password) },
  };
}

/** Starts one of PostgreSQL's own programs on a database. */
export const program = (name: 'pg_dump' | 'pg_restore', args: readonly string[], url: string): ChildProcess =>
  spawn(programPath(name), args, { env: surroundings(url), stdio: ['ignore', 'pipe', 'pipe'] });

/**
 * Waits for a program to end.
 *
 * @throws Error with what it said when it failed, or is not there
 */
export function ended(child: ChildProcess, name: string): Promise<void> {
  let said = '';
  child.stderr?.on('data', (text) => {
    said += String(text);
  });
  return new Promise((resolve, reject) => {
    child.on('error', (error) => reject(new Error(`${name} could not be started: ${error.message}`)));
    child.on('close', (code) =>
      code === 0 ? resolve() : reject(new Error(`${name} failed: ${said.trim().slice(0, 2000)}`)),
    );
  });
}
