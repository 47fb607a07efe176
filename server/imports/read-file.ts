import type { IsoDate } from '~/core/calendar/iso-date';
import { type FileTable, MOST_FILE_BYTES, tooLargeWords, Unreadable } from '~/core/imports/file-table';
import type { OneRoster } from '~/core/imports/one-roster';
import { Invalid } from '../platform/failures';
import { inThread, TooMuchWork } from '../platform/threads';

/** What stands in a file: tables, or a roster of the open standard. */
export type FileContent = { is: 'tables'; tables: FileTable[] } | { is: 'oneRoster'; roster: OneRoster };

const tables = inThread<{ name: string; bytes: Uint8Array; today: IsoDate }, string>('readTables', {
  seconds: 40,
  isReading: true,
});

/**
 * What stands in a file that somebody hands over: CSV (in UTF-8, UTF-16 or the Western code page; parted by commas, semicolons or tabs),
 * XLSX, or an archive of OneRoster 1.2. It is taken apart in a thread.
 *
 * @param today  classes and enrollments that are over are not read
 * @throws Unreadable with what is wrong with it, in words; Busy
 */
export async function readFileContent(name: string, bytes: Buffer, today: IsoDate): Promise<FileContent> {
  if (bytes.length === 0) throw new Unreadable('The file is empty.');
  if (bytes.length > MOST_FILE_BYTES) throw new Unreadable(tooLargeWords);
  try {
    // Made by the task, of this very shape.
    return JSON.parse(await tables({ name, bytes, today })) as FileContent;
  } catch (error) {
    if (error instanceof Invalid && error.fields.file) throw new Unreadable(error.fields.file);
    // What is small and takes more memory than there is, no spreadsheet program made.
    if (error instanceof TooMuchWork) {
      throw new Unreadable('This file cannot be read. Open it, save it as .xlsx once more, or save it as CSV.');
    }
    throw error;
  }
}
