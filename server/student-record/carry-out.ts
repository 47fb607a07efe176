import JSZip from 'jszip';
import type { IsoDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { entryTables } from '~/core/documents/entry-tables';
import { answerLines } from '~/core/documents/individual-report-document';
import { progressReportDocument } from '~/core/documents/progress-report-document';
import { cellText, type Table, tableOf } from '~/core/documents/table';
import { everything } from '~/core/sharing/visibility-rule';
import { RECORD_FILE, recordSchema, type StudentRecord } from '~/core/student-record/record';
import { withoutNames } from '~/core/students/names/other-children';
import { documentPdf } from '../documents/pdf';
import { goalsOf, measureAt } from '../goals/goals';
import { individualReport } from '../individual-report/individual-report';
import { remarksOn } from '../individual-report/remarks';
import { commaSeparated } from '../platform/comma-separated';
import type { Database } from '../platform/db/database';
import { spreadsheet } from '../platform/spreadsheet';
import { issuedOf, issuedReport } from '../progress-report/issued';
import type { School } from '../school/school';
import { recordAccess } from '../sharing/access-log';
import { rosterFinder, withoutOtherChildren } from '../sharing/other-children';
import type { StudentAccess } from '../students/access';
import { hideIn, readOut, recordFile } from './read-out';

interface When {
  school: School;
  now: Date;
}

/** Already small: to pack it again takes time and saves nothing. */
const asItIs = { compression: 'STORE' } as const;

/**
 * A student's whole record as a ZIP: what another installation reads in (`record.json` and the files it names), and the same for people,
 * as tables and as the reports that were issued. That it left, for whom and what for, is written down in the access log first, so that
 * the record says so itself.
 *
 * @param who  who carries it out, and for whom
 */
export async function carryOut(
  db: Database,
  studentId: StudentAccess<'carryOut'>,
  { personId, forWhom }: { personId: string; forWhom: string },
  when: When,
): Promise<Buffer> {
  const what = `the whole record (ZIP), for ${forWhom}`;
  await recordAccess(db, { personId }, { studentId, what, how: 'exported' }, when.now);
  const files = new Map<string, string>();
  const fileOf = (id: string, type: string) => {
    const path = `files/${files.size + 1}.${type === 'application/pdf' ? 'pdf' : 'jpg'}`;
    files.set(path, id);
    return path;
  };
  const record = await readOut(db, studentId, { ...when, fileOf });
  const tables = await tablesOf(db, studentId, record, when);
  const zip = new JSZip();
  zip.file('README.txt', about(record, wallTime(when.now, when.school.timeZone).on));
  zip.file(RECORD_FILE, JSON.stringify(record, null, 1));
  zip.file('record.schema.json', JSON.stringify(recordSchema(), null, 1));
  zip.file('record.xlsx', await spreadsheet(tables), asItIs);
  for (const { name, fields, rows } of tables) {
    zip.file(
      `tables/${name.replace(/[^\p{L}\p{N}]+/gu, '-')}.csv`,
      commaSeparated(
        fields,
        rows.map((cells) => cells.map(cellText)),
      ),
    );
  }
  const find = await rosterFinder(db, studentId);
  const hide = (text: string) => withoutNames(text, find, studentId);
  for (const { id, number } of await issuedOf(db, studentId, when.school)) {
    const issued = await issuedReport(db, studentId, id, when.school);
    const document = progressReportDocument(hideIn(issued.report, hide), issued);
    zip.file(`progress-reports/${number}.pdf`, await documentPdf(document, when.school.paper), asItIs);
  }
  for (const [path, id] of files) zip.file(path, await recordFile(db, studentId, id), asItIs);
  return zip.generateAsync({ type: 'nodebuffer', compression: 'DEFLATE' });
}

/** Entries as the individual report has them; corrections, changes and the access log. */
async function tablesOf(
  db: Database,
  studentId: StudentAccess<'carryOut'>,
  record: StudentRecord,
  { school, now }: When,
): Promise<Table[]> {
  const goals = await goalsOf(db, [studentId]);
  const goalOf = new Map(goals.map((one) => [one.id, one]));
  const reader = { kind: 'team', linkId: null, discreet: false, shows: everything } as const;
  const wanted = { only: null, find: '', page: 'all', day: null, oldestFirst: true } as const;
  const { entries, threads } = await individualReport(db, studentId, goals, reader, wanted);
  const today: IsoDate = wallTime(now, school.timeZone).on;
  const remarks = await remarksOn(db, { schoolId: school.id, today }, studentId, 'team', entries);
  const find = await rosterFinder(db, studentId);
  const hide = (text: string) => withoutNames(text, find, studentId);
  const name = new Map(record.people.map((one) => [one.id, one.name]));
  const readerNames = new Map(record.tables.share_links.map((one) => [one.id, one.reader_name]));
  const named = (id: string | null) => (id === null ? '' : (name.get(id) ?? ''));
  const at = (instant: string) => {
    const { on, time } = wallTime(new Date(instant), school.timeZone);
    return `${on}T${time}`;
  };
  const said = (value: unknown) => (value === null ? '' : JSON.stringify(value));
  return [
    ...entryTables(await withoutOtherChildren(db, studentId, entries), {
      goals,
      measureAt: ({ goalId, goalVersion }) => {
        const of = goalId === null ? undefined : goalOf.get(goalId);
        return of ? measureAt(of, goalVersion) : null;
      },
      answersTo: (entry) => answerLines(threads[entry.id] ?? [], remarks[entry.id]).map(hide),
    }),
    tableOf(
      'Corrections',
      ['at', 'by', 'why', 'entry', 'version', 'as it was'],
      record.tables.entry_revisions.map((one) => [
        ...[at(one.changed_at), named(one.changed_by), one.reason, one.entry_id, one.version, said(one.row)],
      ]),
    ),
    tableOf(
      'Changes',
      ['at', 'by', 'what', 'about', 'before', 'after'],
      record.tables.changes.map((one) => [
        ...[
          at(one.changed_at),
          named(one.changed_by),
          one.what,
          named(one.person_id),
          said(one.before),
          said(one.after),
        ],
      ]),
    ),
    tableOf(
      'Access log',
      ['at', 'who', 'what', 'how'],
      record.tables.access_log.map((one) => [
        ...[at(one.at), one.link_id ? (readerNames.get(one.link_id) ?? '') : named(one.person_id), one.what, one.how],
      ]),
    ),
  ];
}

const about = ({ student, school }: StudentRecord, on: IsoDate) =>
  [
    `The record of ${student.firstName} ${student.lastName}, ${school.name}, as it stood on ${on}.`,
    '',
    'record.xlsx and tables/  what was observed, corrected, changed and read, as tables',
    'progress-reports/        the progress reports as they were issued',
    'files/                   photographs and documents beside the entries',
    `${RECORD_FILE}              all of it, for another installation to read in; record.schema.json says how it is made`,
    '',
    'Other children who are named in notes are called “a classmate”, unless the case manager let a name stand.',
    '',
  ].join('\r\n');
