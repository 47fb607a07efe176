// Runs in a thread: what others made is taken apart here.
import { Unreadable } from '~/core/imports/file-table';
import { NoRecord, RECORD_FILE, readRecord, recordInBrief, type StudentRecord } from '~/core/student-record/record';
import { recordTableNames } from '~/core/student-record/tables';
import { archiveFiles } from '../imports/unzip';
import { Invalid } from '../platform/failures';
import type { RecordBrief } from './archive';
import { withOwnIds } from './own-ids';

/** What a record holds that is worth reading; a photograph is some hundred kilobytes. */
const bounds = { bytes: 200 * 1024 * 1024, files: 5000 };
/** A student of whom ten entries were recorded on each day of ten years has less. */
const LONGEST_RECORD = 40 * 1024 * 1024;
/** Nothing in a record is deeper. */
const DEEPEST = 60;
const A_FILE = /^files\/\d+\.(jpg|pdf)$/;
/** Rows that go over to the other thread together: they are read there one lot after the other, and others are answered between. */
const LOT = 200;

export interface ArchiveAsked {
  bytes: Uint8Array;
  /** Under which ids it is to be read in; null to look at it only. */
  as: { arrival: string; locations: [name: string, id: string][] } | null;
}

export interface ArchiveRead {
  brief: RecordBrief;
  /** Null where it is only looked at. */
  whole: {
    /** The record without its tables, as JSON. */
    head: string;
    /** The rows of its tables, each lot as JSON. */
    lots: { table: string; rows: string }[];
    files: [path: string, content: Uint8Array][];
  } | null;
}

/** The task behind `briefOf` and `openArchive`. @throws Invalid at `file` with what is wrong with it */
export async function readArchive({ bytes, as }: ArchiveAsked): Promise<ArchiveRead> {
  try {
    const archive = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const files = await archiveFiles(archive, (path) => path === RECORD_FILE || A_FILE.test(path), bounds);
    const content = files.get(RECORD_FILE);
    if (!content) throw new NoRecord(`There is no ${RECORD_FILE} in it: this is no student’s record.`);
    if (content.length > LONGEST_RECORD) throw new NoRecord(`${RECORD_FILE} is longer than any student’s record.`);
    const text = content.toString('utf8');
    if (depthOf(text) > DEEPEST) throw new NoRecord(`${RECORD_FILE} is damaged: it is no JSON.`);
    const record = readRecord(text);
    for (const { file } of [...record.tables.evidence, ...record.tables.work_sample_files]) {
      if (!files.has(file)) throw new NoRecord(`The record is not whole: ${file} is not in it.`);
    }
    files.delete(RECORD_FILE);
    return {
      brief: briefOf(record),
      whole: as && inLots(withOwnIds(record, as.arrival, new Map(as.locations)), files),
    };
  } catch (error) {
    if (error instanceof NoRecord || error instanceof Unreadable) throw new Invalid({ file: error.message });
    throw error;
  }
}

/** How deep brackets stand within each other, before a reader would follow them down. */
function depthOf(text: string): number {
  let [depth, deepest, isText] = [0, 0, false];
  for (let at = 0; at < text.length; at++) {
    const sign = text[at];
    if (isText) {
      if (sign === '\\') at++;
      else if (sign === '"') isText = false;
    } else if (sign === '"') isText = true;
    else if (sign === '[' || sign === '{') deepest = Math.max(deepest, ++depth);
    else if (sign === ']' || sign === '}') depth--;
  }
  return deepest;
}

const briefOf = (record: StudentRecord): RecordBrief => ({
  ...{ student: record.student, from: record.school.name, madeAt: record.madeAt, brief: recordInBrief(record) },
  people: record.people.map(({ name }) => name),
  locations: record.locations.map(({ name }) => name),
});

function inLots({ tables, ...head }: StudentRecord, files: Map<string, Buffer>): ArchiveRead['whole'] {
  const lots = recordTableNames.flatMap((table) =>
    Array.from({ length: Math.ceil(tables[table].length / LOT) }, (_, at) => ({
      ...{ table, rows: JSON.stringify(tables[table].slice(at * LOT, (at + 1) * LOT)) },
    })),
  );
  return { head: JSON.stringify(head), lots, files: [...files] };
}
