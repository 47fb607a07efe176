import type { IsoDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import type { ReportDocument } from '~/core/documents/document';
import { individualReportDocument } from '~/core/documents/individual-report-document';
import { progressReportDocument } from '~/core/documents/progress-report-document';
import { groupEntries } from '~/core/individual-report/groups';
import { stretchWords } from '~/core/individual-report/report';
import type { Arrangement } from '~/core/sharing/visibility-rule';
import { everything } from '~/core/sharing/visibility-rule';
import { goalsOf } from '../goals/goals';
import { individualReport } from '../individual-report/individual-report';
import { type Database, isDatabaseGone } from '../platform/db/database';
import { NotFound, nullIf } from '../platform/failures';
import { draftOf } from '../progress-report/draft';
import { issuedReport } from '../progress-report/issued';
import { reportStanding } from '../progress-report/overview';
import type { School } from '../school/school';
import { requireStudent, type Student } from '../students/students';
import { type Batch, batchFailed } from './batches';
import { documentPdf, pagesOf } from './pdf';

interface Making {
  school: School;
  now: Date;
  /** Ends it between two documents; what is made is kept. */
  signal?: AbortSignal;
  complain?: (error: unknown) => void;
}

/**
 * Makes a batch, document by document. What is made is kept: after a restart it goes on where it stopped. What fails is tried again later,
 * a few times; a lost database is no such failure, and is thrown.
 */
export async function makeBatch(db: Database, id: string, { school, now, signal, complain }: Making): Promise<void> {
  const batch = await db('document_batches')
    .where({ id })
    .whereIn('state', ['waiting', 'making'])
    .first('made_by', 'what', 'from_day', 'to_day', 'arrangement');
  if (!batch) return;
  // Written by `askForReport`, which takes nothing else.
  const arrangement = batch.arrangement as Arrangement | null;
  await db('document_batches').where({ id }).update({ state: 'making' });
  try {
    const { on: today } = wallTime(now, school.timeZone);
    const open = await db('document_batch_parts')
      .where({ batch_id: id, pages: null })
      .orderBy('position')
      .select('student_id');
    for (const { student_id } of open) {
      if (signal?.aborted) return;
      await makePart(db, { id, studentId: student_id, ...batch, arrangement }, { school, today });
    }
    const made = await db('document_batch_parts').where({ batch_id: id, left_out: null }).first('student_id');
    const end = made
      ? { state: 'ready' as const, problem: null }
      : { state: 'failed' as const, problem: 'There is no student left in it.' };
    await db('document_batches').where({ id }).update(end);
  } catch (error) {
    if (isDatabaseGone(error)) throw error;
    complain?.(error);
    await batchFailed(db, id, now);
  }
}

interface Part {
  id: string;
  studentId: string;
  made_by: string;
  what: Batch['what'];
  from_day: IsoDate | null;
  to_day: IsoDate | null;
  arrangement: Arrangement | null;
}

/** How the individual reports of a group are laid out: close, for paper. */
const forDocument: Arrangement = { layout: 'table', grouping: 'none', oldestFirst: false };

async function makePart(
  db: Database,
  { id, studentId, made_by, what, from_day: from, to_day: to, arrangement }: Part,
  when: { school: School; today: IsoDate },
): Promise<void> {
  const actor = { personId: made_by, schoolId: when.school.id, today: when.today };
  const keep = (content: object) =>
    db('document_batch_parts').where({ batch_id: id, student_id: studentId }).update(content);
  // Whoever was taken off a team meanwhile gets no document of that student.
  const student = await nullIf(NotFound, requireStudent(db, actor, studentId, 'share'));
  if (!student) {
    await keep({ pages: 0, left_out: 'No longer theirs.' });
    return;
  }
  const document =
    what === 'progress'
      ? await latestProgressDocument(db, student, when)
      : await studentReportDocument(db, student, { ...when, from, to, arrangement: arrangement ?? forDocument });
  const pdf = await documentPdf(document);
  await keep({ pdf, pages: await pagesOf(pdf) });
}

/** The newest issued report of the period that is to be reported now; its draft while nothing was issued. */
async function latestProgressDocument(
  db: Database,
  student: Student<'see'>,
  { school, today }: { school: School; today: IsoDate },
): Promise<ReportDocument> {
  const { period, issued } = await reportStanding(db, student, { school, today });
  if (!period) {
    const head = `${student.shortName} · progress report · ${school.name}`;
    const text = 'The plan has no reporting periods yet.';
    return {
      title: `Progress report of ${student.shortName}`,
      head,
      blocks: [
        { kind: 'heading', level: 1, text: `${student.firstName} ${student.lastName}` },
        { kind: 'text', text },
      ],
    };
  }
  if (!issued) return progressReportDocument((await draftOf(db, student, period.last, { school, today })).report, null);
  return progressReportDocument((await issuedReport(db, student.id, issued.id, school)).report, issued);
}

interface RunningWanted {
  school: School;
  today: IsoDate;
  from: IsoDate | null;
  to: IsoDate | null;
  arrangement: Arrangement;
}

/** The individual report of a student as a document, for a reader who sees all of it. */
async function studentReportDocument(
  db: Database,
  student: Student,
  { school, today, from, to, arrangement }: RunningWanted,
): Promise<ReportDocument> {
  const { layout, grouping, oldestFirst } = arrangement;
  const goals = await goalsOf(db, [student.id]);
  const reader = { kind: 'team' as const, linkId: null, shows: everything, discreet: false };
  const wanted = { only: null, find: '', page: 'all' as const, day: null, from, to, oldestFirst };
  const { entries, threads } = await individualReport(db, student.id, goals, reader, wanted);
  const groups = groupEntries(entries, grouping, goals, today);
  const about = stretchWords(from, to, today);
  return individualReportDocument({
    ...{ studentShortName: student.shortName, schoolName: school.name, today, groups, threads, about, layout },
  });
}
