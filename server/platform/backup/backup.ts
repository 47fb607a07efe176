import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as WebStream } from 'node:stream/web';
import pg from 'pg';
import { z } from 'zod';
import { ended, program } from './programs';
import { type Sums, sumsOf } from './sums';

/** What stands beside a copy, by which it is verified. */
const manifest = z.object({
  madeAt: z.iso.datetime(),
  isEncrypted: z.boolean(),
  /** Of the file, as it lies there. */
  sha256: z.string(),
  tables: z.record(z.string(), z.object({ rows: z.number(), md5: z.string() })),
});
export type Manifest = z.infer<typeof manifest>;

export const manifestPath = (file: string) => `${file}.json`;

/** @throws Error where there is none, or another kind of file */
export async function manifestOf(file: string): Promise<Manifest> {
  if (!existsSync(manifestPath(file))) {
    throw new Error(`Beside ${basename(file)} there is no ${basename(manifestPath(file))}, by which it is verified.`);
  }
  const parsed = manifest.safeParse(JSON.parse(await readFile(manifestPath(file), 'utf8')));
  if (!parsed.success) throw new Error(`${basename(manifestPath(file))} is not what a backup writes.`);
  return parsed.data;
}

export async function sha256Of(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const part of createReadStream(file)) hash.update(part);
  return hash.digest('hex');
}

interface BackupWanted {
  /** Its path, without an ending. */
  path: string;
  /** Encrypted with it, where it is given, in the open format `age` (age-encryption.org/v1). */
  passphrase?: string | undefined;
  now: Date;
}

/**
 * A copy of a whole database, files too, in PostgreSQL's custom format, with the sums of every table of the same moment beside it. A
 * copy that fails leaves nothing behind.
 *
 * @returns the path of the file
 * @throws Error with the words of `pg_dump`
 */
export async function backUp(url: string, { path, passphrase, now }: BackupWanted): Promise<string> {
  const file = `${path}.dump${passphrase ? '.age' : ''}`;
  const part = `${file}.part`;
  await mkdir(dirname(file), { recursive: true });
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    // Rows and sums are of one moment: whoever saves meanwhile waits for nobody, and is in the next copy.
    await client.query('begin isolation level repeatable read read only');
    const { rows } = await client.query('select pg_export_snapshot() as id');
    const args = ['--format=custom', '--no-owner', '--enable-row-security', `--snapshot=${rows[0].id}`];
    const dump = program('pg_dump', args, url);
    const plain = dump.stdout as Readable;
    const write = async () =>
      pipeline(passphrase ? await encrypted(plain, passphrase) : plain, createWriteStream(part, { mode: 0o600 }));
    const [tables] = await Promise.all([sumsOf(client), ended(dump, 'pg_dump'), write()]);
    const about: Manifest = {
      ...{ madeAt: now.toISOString(), isEncrypted: passphrase !== undefined, sha256: await sha256Of(part) },
      tables: tables as Sums,
    };
    await writeFile(manifestPath(file), `${JSON.stringify(about, null, 1)}\n`, { mode: 0o600 });
    await rename(part, file);
    return file;
  } catch (error) {
    // What stands beside it says that it is whole.
    await rm(manifestPath(file), { force: true });
    throw error;
  } finally {
    await client.end();
    await rm(part, { force: true });
  }
}

/** What is read, in the open format age, for whoever has the passphrase. */
export async function encrypted(plain: Readable, passphrase: string): Promise<Readable> {
  const { Encrypter } = await import('age-encryption');
  const encrypter = new Encrypter();
  encrypter.setPassphrase(passphrase);
  const sealed = await encrypter.encrypt(Readable.toWeb(plain) as ReadableStream<Uint8Array>);
  return Readable.fromWeb(sealed as WebStream);
}

const HALF = /^gentle-margin-night-\d{4}-\d\d-\d\d\.dump(\.age)?\.(part|json)$/;

/** Removes what nightly copies left that were ended in the middle: parts, and what was to stand beside them. */
async function clearHalves(folder: string): Promise<void> {
  const names = existsSync(folder) ? await readdir(folder) : [];
  const isHalf = (name: string) =>
    HALF.test(name) && (name.endsWith('.part') || !names.includes(name.replace(/\.json$/, '')));
  for (const name of names.filter(isHalf)) await rm(join(folder, name), { force: true });
}

/** Why a copy failed, for people; nothing of what is in it. */
export function backupFailure(error: unknown): string {
  const { code, message = '' } = (error ?? {}) as { code?: unknown; message?: string };
  if (code === 'ENOSPC' || /no space left/i.test(message)) return 'The disk is full.';
  if (code === 'EACCES' || code === 'EPERM' || code === 'EROFS') return 'The folder for copies cannot be written to.';
  if (code === 'ENOENT') return 'The folder for copies, or pg_dump, is missing.';
  return 'Its words are in the log of the worker.';
}

/** So many nightly copies are kept. */
export const KEPT = 14;
const NIGHTLY = /^gentle-margin-night-(\d{4}-\d\d-\d\d)\.dump(\.age)?$/;

/** The days of which there are nightly copies in a folder, the newest first. */
export async function nightsIn(folder: string): Promise<{ day: string; file: string }[]> {
  const names = existsSync(folder) ? await readdir(folder) : [];
  return names
    .flatMap((name) => {
      const day = NIGHTLY.exec(name)?.[1];
      return day ? [{ day, file: join(folder, name) }] : [];
    })
    .sort((a, b) => b.day.localeCompare(a.day));
}

/**
 * The copy of a night, where there is none yet; of those before, the newest fourteen are kept with it.
 *
 * @param day  the day at the school on which it is made
 * @returns its path; null where it was there
 */
export async function backUpNight(
  url: string,
  { folder, day, passphrase, now }: { folder: string; day: string; passphrase?: string | undefined; now: Date },
): Promise<string | null> {
  if ((await nightsIn(folder)).some((night) => night.day === day)) return null;
  await clearHalves(folder);
  const file = await backUp(url, { path: join(folder, `gentle-margin-night-${day}`), passphrase, now });
  for (const old of (await nightsIn(folder)).slice(KEPT)) {
    await rm(old.file, { force: true });
    await rm(manifestPath(old.file), { force: true });
  }
  return file;
}
