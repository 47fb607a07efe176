import { buffer } from 'node:stream/consumers';
import { Unreadable } from '~/core/imports/file-table';

/** What an archive may hold, all of it together. */
interface Bounds {
  bytes: number;
  files: number;
}
/** More does not come out of a school's tables. */
const ofTables: Bounds = { bytes: 60 * 1024 * 1024, files: 2000 };

const broken = () => new Unreadable('The archive is damaged, or is not what it says. Make it anew, and try again.');

/**
 * The files of a ZIP archive, by their paths in it. What says less of its size than comes out of it is refused, before it is in memory.
 *
 * @param wanted  which files are read; the others are measured and passed over
 * @throws Unreadable for an archive that is damaged, locked by a password, or larger than `bounds`
 */
export async function archiveFiles(
  bytes: Buffer,
  wanted: (path: string) => boolean,
  bounds: Bounds,
): Promise<Map<string, Buffer>> {
  const { fromBufferPromise } = await import('yauzl');
  const files = new Map<string, Buffer>();
  let size = 0;
  let count = 0;
  try {
    const archive = await fromBufferPromise(bytes, { lazyEntries: true, validateEntrySizes: true });
    for await (const entry of archive.eachEntry()) {
      count++;
      size += entry.uncompressedSize;
      if (count > bounds.files || size > bounds.bytes)
        throw new Unreadable('The archive is too large to be read here.');
      if (entry.isEncrypted()) throw new Unreadable('The archive is locked by a password. Save it without one.');
      if (entry.fileName.endsWith('/')) continue;
      const stream = await archive.openReadStreamPromise(entry);
      if (wanted(entry.fileName)) files.set(entry.fileName, await buffer(stream));
      else for await (const _ of stream);
    }
  } catch (error) {
    throw error instanceof Unreadable ? error : broken();
  }
  return files;
}

const nameOf = (path: string) => path.split('/').at(-1) ?? '';

/** The texts of an archive of tables, by the names of their files, in whichever folder they are. @throws Unreadable as `archiveFiles` */
export async function unzipped(bytes: Buffer, wanted: (name: string) => boolean): Promise<Map<string, string>> {
  const files = await archiveFiles(bytes, (path) => wanted(nameOf(path)), ofTables);
  return new Map([...files].map(([path, content]) => [nameOf(path), content.toString('utf8')]));
}
