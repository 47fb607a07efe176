import { text } from 'node:stream/consumers';
import { Unreadable } from '~/core/imports/file-table';

/** All of an archive together: more does not come out of a school's tables. */
const MOST_BYTES = 60 * 1024 * 1024;
const MOST_FILES = 2000;

const broken = () => new Unreadable('The archive is damaged, or is not what it says. Make it anew, and try again.');

/**
 * The files of a ZIP archive, by name. What says less of its size than comes out of it is refused, before it is in memory.
 *
 * @param wanted  which files are read; the others are measured and passed over
 * @throws Unreadable for an archive that is damaged, locked by a password, or larger than `MOST_BYTES`
 */
export async function unzipped(bytes: Buffer, wanted: (name: string) => boolean): Promise<Map<string, string>> {
  const { fromBufferPromise } = await import('yauzl');
  const files = new Map<string, string>();
  let size = 0;
  let count = 0;
  try {
    const archive = await fromBufferPromise(bytes, { lazyEntries: true, validateEntrySizes: true });
    for await (const entry of archive.eachEntry()) {
      count++;
      size += entry.uncompressedSize;
      if (count > MOST_FILES || size > MOST_BYTES) throw new Unreadable('The archive is too large to be read here.');
      if (entry.isEncrypted()) throw new Unreadable('The archive is locked by a password. Save it without one.');
      const name = entry.fileName.split('/').at(-1) ?? '';
      if (name === '') continue;
      const stream = await archive.openReadStreamPromise(entry);
      if (wanted(name)) files.set(name, await text(stream));
      else for await (const _ of stream);
    }
  } catch (error) {
    throw error instanceof Unreadable ? error : broken();
  }
  return files;
}
