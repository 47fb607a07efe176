import { createReadStream, createWriteStream, existsSync } from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as WebStream } from 'node:stream/web';
import pg from 'pg';
import { migrate } from '../db/migrate';
import { manifestOf, sha256Of } from './backup';
import { ended, program } from './programs';
import { differing, sumsOf, tablesOf } from './sums';

/** What is put up anew after a restore, since it names whom the database belongs to. */
const OF_THE_OWNER = / (POLICY|ROW SECURITY|ACL|DEFAULT ACL) | COMMENT .* FUNCTION visible_students/;

/**
 * Puts a copy back into an empty database, and verifies it: the file by its sum, then every table by its own.
 *
 * @param hasGuard  whether the database guards students’ rows too
 * @returns how many tables and rows it holds
 * @throws Error in a sentence for a file that is not there or was changed, a wrong passphrase, or a database that holds something; then
 *   nothing was put in
 */
export async function restore(
  url: string,
  file: string,
  { passphrase, hasGuard = true }: { passphrase?: string | undefined; hasGuard?: boolean } = {},
): Promise<{ tables: number; rows: number }> {
  if (!existsSync(file)) throw new Error(`There is no ${file}.`);
  const about = await manifestOf(file);
  if ((await sha256Of(file)) !== about.sha256) {
    throw new Error(`${basename(file)} is not as it was written: its sum is another. Nothing was put back.`);
  }
  if (about.isEncrypted && !passphrase)
    throw new Error('This copy is encrypted. Give the passphrase: BACKUP_PASSPHRASE.');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const folder = await mkdtemp(join(tmpdir(), 'gentle-margin-restore-'));
  try {
    const there = await tablesOf(client);
    if (there.length > 0) {
      throw new Error(`The database holds ${there.length} tables. A copy is put back into an empty one only.`);
    }
    const plain = join(folder, 'copy.dump');
    if (about.isEncrypted && passphrase) await decrypt(file, passphrase, plain);
    const source = about.isEncrypted ? plain : file;
    const list = join(folder, 'list');
    await writeFile(list, await listOf(source, url));
    const args = ['--no-owner', '--exit-on-error', '--single-transaction', `--use-list=${list}`];
    await ended(
      program('pg_restore', [...args, `--dbname=${new URL(url).pathname.slice(1)}`, source], url),
      'pg_restore',
    );
    await client.query('begin');
    const sums = await sumsOf(client);
    await client.query('rollback');
    const wrong = differing(about.tables, sums);
    if (wrong.length > 0) {
      throw new Error(`What was put back is not what was copied, in ${wrong.join(', ')}. Do not use this database.`);
    }
    await migrate(url, { hasGuard });
    const rows = Object.values(sums).reduce((all, one) => all + one.rows, 0);
    return { tables: Object.keys(sums).length, rows };
  } finally {
    await client.end();
    await rm(folder, { recursive: true, force: true });
  }
}

async function decrypt(file: string, passphrase: string, to: string): Promise<void> {
  const { Decrypter } = await import('age-encryption');
  const decrypter = new Decrypter();
  decrypter.addPassphrase(passphrase);
  const sealed = Readable.toWeb(createReadStream(file)) as ReadableStream<Uint8Array>;
  const opened = await decrypter.decrypt(sealed).catch((error: unknown) => {
    if (!(error instanceof Error) || !error.message.startsWith('no identity matched')) throw error;
    throw new Error('The passphrase is not the one with which this copy was encrypted. Nothing was put back.');
  });
  await pipeline(Readable.fromWeb(opened as WebStream), createWriteStream(to, { mode: 0o600 }));
}

/** What is put back of a copy, in the words of `pg_restore`. */
async function listOf(source: string, url: string): Promise<string> {
  const listing = program('pg_restore', ['--list', source], url);
  let text = '';
  listing.stdout?.on('data', (part) => {
    text += String(part);
  });
  await ended(listing, 'pg_restore');
  return text
    .split('\n')
    .filter((line) => !OF_THE_OWNER.test(line))
    .join('\n');
}
