import type { IsoDate } from '~/core/calendar/iso-date';
import type { Paper } from '~/core/paper/paper';
import { runningPaper } from '~/core/paper/running-paper';
import { progressPaper } from '~/core/progress-report/paper';
import { everything } from '~/core/readers/reader-rule';
import type { Database } from '../db/database';
import { goalsOf } from '../goals/goals';
import { joinPdfs, pagesOf, paperPdf } from '../paper/pdf';
import { runningReport } from '../report/running';
import type { School } from '../school/school';
import { type Student, studentFor } from '../students/students';
import { draftOf } from './draft';
import { issuedReport } from './issued';
import { reportStanding } from './overview';

/**
 * Makes a batch, paper by paper. What is made is kept: after a restart it goes on where it stopped.
 */
export async function makeBatch(
  db: Database,
  id: string,
  { school, today }: { school: School; today: IsoDate },
): Promise<void> {
  const batch = await db('batches').where({ id }).whereIn('state', ['waiting', 'making']).first();
  if (!batch) return;
  await db('batches').where({ id }).update({ state: 'making' });
  const actor = { personId: batch.made_by, today };
  const open = await db('batch_parts').where({ batch_id: id, pdf: null }).orderBy('position').select('student_id');
  for (const part of open) {
    // Whoever was taken off a team meanwhile gets no paper of that student.
    const student = await studentFor(db, actor, part.student_id, 'share').catch(() => null);
    const where = { batch_id: id, student_id: part.student_id };
    if (!student) {
      await db('batch_parts')
        .where(where)
        .update({ pages: 0, pdf: Buffer.alloc(0) });
      continue;
    }
    const paper =
      batch.what === 'progress'
        ? await latestProgressPaper(db, student, { school, today })
        : await studentRunningPaper(db, student, { school, today });
    const pdf = await paperPdf(paper);
    await db('batch_parts')
      .where(where)
      .update({ pdf, pages: await pagesOf(pdf) });
  }
  const parts: { pdf: Buffer }[] = await db('batch_parts').where({ batch_id: id }).orderBy('position').select('pdf');
  const papers = parts.map(({ pdf }) => pdf).filter((pdf) => pdf.length > 0);
  if (papers.length === 0) {
    await db('batches').where({ id }).update({ state: 'failed', problem: 'There is no student left in it.' });
    return;
  }
  await db('batches')
    .where({ id })
    .update({ state: 'ready', file: await joinPdfs(batch.label, papers) });
}

/** The newest issued report of the period that is to be reported now; its draft while nothing was issued. */
async function latestProgressPaper(
  db: Database,
  student: Student,
  { school, today }: { school: School; today: IsoDate },
): Promise<Paper> {
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
  if (!issued) return progressPaper((await draftOf(db, student, period.last, { school, today })).report, null);
  return progressPaper((await issuedReport(db, student.id, issued.id, school)).report, issued);
}

/** The running report of a student as a paper, for who sees all of it. */
async function studentRunningPaper(
  db: Database,
  student: Student,
  { school, today }: { school: School; today: IsoDate },
): Promise<Paper> {
  const goals = await goalsOf(db, [student.id]);
  const reader = { kind: 'team' as const, linkId: null, shows: everything, discreet: false };
  const wanted = { only: null, find: '', page: 'all' as const, day: null, oldestFirst: false };
  const { entries, threads } = await runningReport(db, student.id, goals, reader, wanted);
  return runningPaper({ studentShortName: student.shortName, schoolName: school.name, today, entries, threads });
}
