import { Unreadable } from '~/core/imports/file-table';
import { NoRecord, RECORD_FILE, readRecord, type StudentRecord } from '~/core/student-record/record';
import { archiveFiles } from '../imports/unzip';
import { Invalid } from '../platform/failures';

/** What a record holds that is worth reading; a photograph is some hundred kilobytes. */
const bounds = { bytes: 200 * 1024 * 1024, files: 5000 };
const A_FILE = /^files\/\d+\.(jpg|pdf)$/;

/** A record in its archive, whole: every file that it names is there. */
export interface Arrived {
  record: StudentRecord;
  files: Map<string, Buffer>;
}

/**
 * Opens the archive of a record.
 *
 * @throws Invalid at `file` with what is wrong with it
 */
export async function openArchive(bytes: Buffer): Promise<Arrived> {
  try {
    const files = await archiveFiles(bytes, (path) => path === RECORD_FILE || A_FILE.test(path), bounds);
    const text = files.get(RECORD_FILE);
    if (!text) throw new NoRecord(`There is no ${RECORD_FILE} in it: this is no student’s record.`);
    const record = readRecord(text.toString('utf8'));
    for (const { file } of [...record.tables.evidence, ...record.tables.work_sample_files]) {
      if (!files.has(file)) throw new NoRecord(`The record is not whole: ${file} is not in it.`);
    }
    return { record, files };
  } catch (error) {
    if (error instanceof NoRecord || error instanceof Unreadable) throw new Invalid({ file: error.message });
    throw error;
  }
}
