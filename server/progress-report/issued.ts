import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import type { Format } from '~/core/documents/file-name';
import { type Issue, progressReportOutside, typedTexts } from '~/core/documents/progress-report-document';
import type { ProgressReport } from '~/core/progress-report/content';
import type { IssueInput } from '~/core/progress-report/input';
import { type Comment, commentsSeenBy } from '~/core/sharing/comment';
import type { OutsideKind } from '~/core/sharing/reader-kind';
import { outsideKinds } from '~/core/sharing/reader-kind';
import type { Shows } from '~/core/sharing/visibility-rule';
import { withoutNames } from '~/core/students/names/other-children';
import { type Database, snapshot } from '../platform/db/database';
import { rowsOf, written } from '../platform/db/rows';
import { Conflict, NotFound } from '../platform/failures';
import { messageId } from '../platform/message-id';
import type { Actor, School } from '../school/school';
import { recordAccess } from '../sharing/access-log';
import { commentsOfReport } from '../sharing/comments';
import { rosterFinder } from '../sharing/other-children';
import type { StudentAccess } from '../students/access';
import { requireStudent } from '../students/students';
import { draftOf, periodsOf, saveDraft } from './draft';

/** An issued report as lists show it. */
/** What the access log calls a progress report, with the format of the file that was taken away. */
export const issuedNamed = (number: number, format?: Format): string =>
  `progress report no. ${number}${format ? ` (${format.toUpperCase()})` : ''}`;

export interface IssuedLine extends Issue {
  id: string;
  /** As it was when the report was issued; its id is null when the plan has lost it since. */
  period: { id: string | null; label: string; from: IsoDate; to: IsoDate };
  readers: OutsideKind[];
  issuedByName: string;
  /** The number of the one that was issued in its place. */
  replacedBy: number | null;
}

export interface IssuedReport extends IssuedLine {
  studentId: string;
  report: ProgressReport;
  /** How many of the entries it was made from have been corrected or withdrawn since. */
  correctedSince: number;
  statements: Comment[];
}

const query = `
  select i.id, i.student_id, i.number, i.period_id, i.period_label, i.period_from, i.period_to, i.readers, i.issued_at,
         p.short_name as issued_by_name, r.number as replaces_number, n.number as replaced_by
    from issued_reports i join people p on p.id = i.issued_by
         left join issued_reports r on r.id = i.replaces left join issued_reports n on n.replaces = i.id`;

const issuedRow = z.object({
  id: z.string(),
  student_id: z.string(),
  number: z.number(),
  period_id: z.string().nullable(),
  period_label: z.string(),
  period_from: z.string(),
  period_to: z.string(),
  readers: z.array(z.enum(outsideKinds)),
  issued_at: z.date(),
  issued_by_name: z.string(),
  replaces_number: z.number().nullable(),
  replaced_by: z.number().nullable(),
});
type IssuedRow = z.infer<typeof issuedRow>;
const wholeRow = issuedRow.extend({ content: written<ProgressReport>() });

const lineFrom = (row: IssuedRow, { timeZone }: Pick<School, 'timeZone'>): IssuedLine => ({
  id: row.id,
  number: row.number,
  issuedOn: wallTime(row.issued_at, timeZone).on,
  replaces: row.replaces_number,
  period: { id: row.period_id, label: row.period_label, from: row.period_from, to: row.period_to },
  readers: row.readers,
  issuedByName: row.issued_by_name,
  replacedBy: row.replaced_by,
});

/**
 * The progress reports that were issued for a student, newest first.
 *
 * @param kind  only those that are for such a reader
 */
export async function issuedOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  school: Pick<School, 'timeZone'>,
  kind?: OutsideKind,
): Promise<IssuedLine[]> {
  const found = await rowsOf(
    db,
    issuedRow,
    `${query} where i.student_id = :studentId ${kind ? 'and :kind = any(i.readers)' : ''} order by i.number desc`,
    { studentId, kind: kind ?? '' },
  );
  return found.map((row) => lineFrom(row, school));
}

/** The progress reports of several students, newest first, by student, without their content. */
export async function issuedOfAll(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  school: Pick<School, 'timeZone'>,
): Promise<Map<string, IssuedLine[]>> {
  const found = await rowsOf(db, issuedRow, `${query} where i.student_id = any(:studentIds) order by i.number desc`, {
    studentIds: [...studentIds],
  });
  const all = new Map<string, IssuedLine[]>(studentIds.map((id) => [id, []]));
  for (const row of found) all.get(row.student_id)?.push(lineFrom(row, school));
  return all;
}

/**
 * One issued report, as it was frozen.
 *
 * @throws NotFound when the student has no such report, or it is not for this kind of reader
 */
export async function issuedReport(
  db: Database,
  studentId: StudentAccess<'read'>,
  id: string,
  school: Pick<School, 'timeZone'>,
  kind?: OutsideKind,
): Promise<IssuedReport> {
  const found = await rowsOf(
    db,
    wholeRow,
    `${query.replace('i.issued_at,', 'i.issued_at, i.content,')} where i.student_id = ? and i.id = ?`,
    [studentId, id],
  );
  const row = found[0];
  if (!row || (kind && !row.readers.includes(kind))) throw new NotFound('No such report.');
  return {
    ...lineFrom(row, school),
    studentId,
    report: row.content,
    correctedSince: await changedSince(db, row.id),
    statements: await commentsOfReport(db, studentId, row.id),
  };
}

/**
 * An issued report as a reader from outside may read it: only what they are shown, and nobody else’s name. Open a share link first.
 *
 * @throws NotFound as `issuedReport`
 */
export async function issuedOutside(
  db: Database,
  studentId: StudentAccess<'read'>,
  id: string,
  school: Pick<School, 'timeZone'>,
  { kind, shows, linkId }: { kind: OutsideKind; shows: Shows; linkId: string },
): Promise<IssuedReport> {
  const [issued, find] = await Promise.all([
    issuedReport(db, studentId, id, school, kind),
    rosterFinder(db, studentId),
  ]);
  const hide = (text: string) => withoutNames(text, find, studentId);
  const seen = commentsSeenBy(issued.statements, { kind, linkId, namesAdults: shows.has('observer') });
  return {
    ...issued,
    report: progressReportOutside(issued.report, shows, hide),
    statements: seen.map((one) => ({ ...one, text: hide(one.text) })),
  };
}

/** Other children’s names in what a report would say, as they stand in it: readers from outside read “a classmate” in their place. */
export async function namesInReport(db: Database, studentId: string, report: ProgressReport): Promise<string[]> {
  const find = await rosterFinder(db, studentId);
  return [...new Set(typedTexts(report).flatMap((text) => find(text, studentId).map((one) => one.text)))];
}

async function changedSince(db: Database, reportId: string): Promise<number> {
  const found = await rowsOf(
    db,
    z.object({ n: z.number() }),
    `select count(*)::int as n from issued_report_entries m join entries e on e.id = m.entry_id
      where m.report_id = :reportId and (e.withdrawn or e.version <> m.version)`,
    { reportId },
  );
  return found[0]?.n ?? 0;
}

/**
 * Issues a progress report: its words are kept, its content is frozen under the next number, and its readers are told who have an
 * address. What was issued for the period before is replaced openly. What it says and what
 * it says it was made from are of one moment. Sent twice it is issued once.
 *
 * @throws NotFound; Conflict when the draft was changed, or another was issued for the period, since this one was looked at
 */
export async function issueReport(
  db: Database,
  actor: Actor,
  studentId: string,
  input: IssueInput,
  { school, now }: { school: School; now: Date },
): Promise<void> {
  await snapshot(db, async (trx) => {
    const student = await requireStudent(trx, actor, studentId, 'share');
    await trx('students').where({ id: studentId }).forUpdate().first('id');
    const known = await trx('issued_reports').where({ id: input.id }).first('student_id');
    if (known?.student_id === studentId) return;
    if (known) throw new NotFound('No such report.');
    const wanted = (await periodsOf(trx, student.id, actor.today)).find(({ last }) => last === input.period);
    if (!wanted) throw new NotFound('The plan has no such reporting period.');
    const standing = await trx('issued_reports as i')
      .where({ 'i.period_id': wanted.id })
      .whereNotExists(trx('issued_reports as n').whereRaw('n.replaces = i.id'))
      .first('i.id', 'i.number');
    if ((standing?.id ?? null) !== input.replaces) {
      throw new Conflict({ issued: standing?.number ?? null });
    }
    await saveDraft(trx, actor, studentId, input, now);
    const around = { school, today: actor.today, written: input.words };
    const { report, madeFrom, periodId } = await draftOf(trx, student, input.period, around);
    const last = await trx('issued_reports').where({ student_id: studentId }).orderBy('number', 'desc').first('number');
    await trx('issued_reports').insert({
      ...{ id: input.id, student_id: studentId, number: (last?.number ?? 0) + 1 },
      ...{
        period_id: periodId,
        period_label: report.period.label,
        period_from: report.period.from,
        period_to: report.period.to,
      },
      ...{ content: JSON.stringify(report), readers: input.readers },
      ...{ issued_by: actor.personId, issued_at: now, replaces: input.replaces },
    });
    const from = Object.entries(madeFrom).map(([entry_id, version]) => ({
      ...{ report_id: input.id, student_id: studentId, entry_id, version },
    }));
    if (from.length > 0) await trx.batchInsert('issued_report_entries', from, 1000);
    const issued = { studentId, what: issuedNamed((last?.number ?? 0) + 1), how: 'issued' as const };
    await recordAccess(trx, { personId: actor.personId }, issued, now);
    await tellReaders(trx, studentId, input, actor, now);
  });
}

async function tellReaders(
  db: Database,
  studentId: string,
  { id, readers }: IssueInput,
  { personId, today }: Actor,
  now: Date,
): Promise<void> {
  const links = await db('share_links')
    .where({ student_id: studentId, withdrawn_at: null, stopped_at: null })
    .whereIn('kind', readers)
    .where('ends_on', '>=', today)
    .whereNotNull('email')
    .select('id', 'reader_name', 'email');
  const rows = links.map((link) => {
    const key = `issued:${id}:${link.id}`;
    return {
      ...{ id: messageId(key), key, kind: 'issued' as const, student_id: studentId, link_id: link.id },
      ...{ to_name: link.reader_name, to_email: link.email ?? '', state: 'waiting' as const, not_before: now },
      ...{ made_by: personId, made_at: now },
    };
  });
  if (rows.length > 0) await db('messages').insert(rows);
}
