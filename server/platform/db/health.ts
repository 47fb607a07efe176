import { type Database, isDatabaseGone } from './database';

/** The worker tells that it is at work every few seconds: after this long, in milliseconds, something is wrong with it. */
const WORKER_LATE = 30_000;

export interface Health {
  /** Whether pages can be shown and entries saved. */
  ok: boolean;
  database: 'writable' | 'readOnly' | 'unreachable';
  /** When the worker last told that it is at work; null when it never has, or nobody can be asked. */
  worker: { lastSeen: string; isLate: boolean } | null;
  /** Why the last nightly copy failed, in words; null where it did not, or none is made. */
  backupProblem: string | null;
}

/** How the installation is: it is written to, since a database that is full or in recovery can still be read. */
export async function healthOf(db: Database): Promise<Health> {
  try {
    await db.raw(
      `insert into heartbeats (process, at) values ('health', now())
       on conflict (process) do update set at = excluded.at`,
    );
  } catch (error) {
    return {
      ok: false,
      database: isDatabaseGone(error) ? 'unreachable' : 'readOnly',
      worker: null,
      backupProblem: null,
    };
  }
  const beat = await db('heartbeats')
    .where({ process: 'worker' })
    .first<{ at: Date; age: number } | undefined>(
      'at',
      db.raw('cast(extract(epoch from now() - at) * 1000 as float) as age'),
    );
  const problem = await backupProblem(db);
  if (!beat) return { ok: true, database: 'writable', worker: null, backupProblem: problem };
  const isLate = beat.age > WORKER_LATE;
  return {
    ok: true,
    database: 'writable',
    worker: { lastSeen: beat.at.toISOString(), isLate },
    backupProblem: problem,
  };
}

/** Writes down how the last nightly copy went; null where it went well. What is as it was is not written. */
export async function noteBackup(db: Database, problem: string | null): Promise<void> {
  await db.raw(
    `insert into heartbeats (process, at, problem) values ('backup', now(), :problem)
     on conflict (process) do update set at = excluded.at, problem = excluded.problem
       where heartbeats.problem is distinct from excluded.problem`,
    { problem },
  );
}

/** Why the last nightly copy failed, in words; null where it did not. */
export async function backupProblem(db: Database): Promise<string | null> {
  return (await db('heartbeats').where({ process: 'backup' }).first('problem'))?.problem ?? null;
}
