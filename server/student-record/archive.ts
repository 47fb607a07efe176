import { setImmediate as letOthers } from 'node:timers/promises';
import type { StudentRecord } from '~/core/student-record/record';
import { recordTableNames } from '~/core/student-record/tables';
import { Invalid } from '../platform/failures';
import { inThread, TooMuchWork } from '../platform/threads';
import type { ArchiveAsked, ArchiveRead } from './read-archive';

/** A record in its archive, whole: every file that it names is there. */
export interface Arrived {
  record: StudentRecord;
  files: Map<string, Buffer>;
}

/** What is shown of a record before it is read in. */
export interface RecordBrief {
  student: StudentRecord['student'];
  from: string;
  madeAt: string;
  brief: string[];
  people: string[];
  locations: string[];
}

const archiveRead = inThread<ArchiveAsked, ArchiveRead>('readArchive', { seconds: 40, isReading: true });

const read = (asked: ArchiveAsked): Promise<ArchiveRead> =>
  archiveRead(asked).catch((error) => {
    if (error instanceof TooMuchWork) throw new Invalid({ file: 'This record takes too much to be read here.' });
    throw error;
  });

/** What stands in the archive of a record, in brief. @throws Invalid at `file` with what is wrong with it; Busy */
export const briefOf = async (bytes: Buffer): Promise<RecordBrief> => (await read({ bytes, as: null })).brief;

/**
 * Opens the archive of a record, under ids of its own: see `withOwnIds`.
 *
 * @param arrival  as which it arrived
 * @param locations  the school's, by their names in small letters
 * @throws Invalid at `file` with what is wrong with it; Busy
 */
export async function openArchive(
  bytes: Buffer,
  arrival: string,
  locations: ReadonlyMap<string, string>,
): Promise<Arrived> {
  const { whole } = await read({ bytes, as: { arrival, locations: [...locations] } });
  if (!whole) throw new Error('The archive was only looked at.');
  const tables: Record<string, unknown[]> = Object.fromEntries(recordTableNames.map((table) => [table, []]));
  for (const { table, rows } of whole.lots) {
    tables[table]?.push(...(JSON.parse(rows) as unknown[]));
    await letOthers();
  }
  return {
    // It was held against its schema in the thread that read it.
    record: { ...JSON.parse(whole.head), tables } as StudentRecord,
    files: new Map(whole.files.map(([path, content]) => [path, Buffer.from(content)])),
  };
}
