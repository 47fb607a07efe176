import type { IsoDate } from '~/core/calendar/iso-date';
import { longDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { briefDocument } from '~/core/documents/brief-document';
import type { ReportDocument } from '~/core/documents/document';
import { goalAtFirst } from '~/core/documents/first-page';
import { individualReportDocument } from '~/core/documents/individual-report-document';
import { issueWords, periodWords, progressReportDocument } from '~/core/documents/progress-report-document';
import { groupEntries } from '~/core/individual-report/groups';
import { stretchWords } from '~/core/individual-report/report';
import type { GoalReport, ProgressReport } from '~/core/progress-report/content';
import type { Arrangement } from '~/core/sharing/visibility-rule';
import { everything } from '~/core/sharing/visibility-rule';
import { type Goal, goalsOf, goalsWorkedOn } from '../goals/goals';
import { individualReport } from '../individual-report/individual-report';
import { remarksOn } from '../individual-report/remarks';
import { type Database, isDatabaseGone } from '../platform/db/database';
import { NotFound, nullIf } from '../platform/failures';
import { draftOf } from '../progress-report/draft';
import { standingsOf } from '../progress-report/goal-reports';
import { type IssuedReport, issuedReport } from '../progress-report/issued';
import { reportStanding } from '../progress-report/overview';
import type { School } from '../school/school';
import { requireStudent, type Student } from '../students/students';
import { type Batch, batchFailed } from './batches';
import { documentsPdf } from './pdf';

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
    .first(
      'made_by',
      'students',
      'what',
      'from_day',
      'to_day',
      'arrangement',
      'is_short',
      'areas',
      'goals',
      'is_packed',
    );
  if (!batch) return;
  await db('document_batches').where({ id }).update({ state: 'making' });
  const isOwnFile = batch.is_packed || batch.students.length === 1;
  try {
    const { on: today } = wallTime(now, school.timeZone);
    const open = await db('document_batch_parts')
      .where({ batch_id: id, pages: null })
      .orderBy('position')
      .select('student_id');
    for (const { student_id } of open) {
      if (signal?.aborted) return;
      const part = { id, studentId: student_id, madeBy: batch.made_by, isOwnFile };
      await makePart(db, part, wantedFrom(batch), { school, today });
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

/** What each document of a batch holds. */
interface Wanted {
  what: Batch['what'];
  isShort: boolean;
  from: IsoDate | null;
  to: IsoDate | null;
  /** Which goals; null for all of them, and behavior. */
  only: { areas: readonly string[]; goals: readonly string[] } | null;
  arrangement: Arrangement;
}

/** How the individual reports of a group are laid out: close, for paper. */
const forDocument: Arrangement = { layout: 'table', grouping: 'none', oldestFirst: false };

const wantedFrom = (batch: {
  what: Batch['what'];
  is_short: boolean;
  from_day: IsoDate | null;
  to_day: IsoDate | null;
  areas: string[] | null;
  goals: string[] | null;
  arrangement: unknown;
}): Wanted => ({
  ...{ what: batch.what, isShort: batch.is_short, from: batch.from_day, to: batch.to_day },
  only: batch.areas || batch.goals ? { areas: batch.areas ?? [], goals: batch.goals ?? [] } : null,
  // Written by `askForReport`, which takes nothing else.
  arrangement: (batch.arrangement as Arrangement | null) ?? forDocument,
});

interface When {
  school: School;
  today: IsoDate;
}

async function makePart(
  db: Database,
  { id, studentId, madeBy, isOwnFile }: { id: string; studentId: string; madeBy: string; isOwnFile: boolean },
  wanted: Wanted,
  when: When,
): Promise<void> {
  const actor = { personId: madeBy, schoolId: when.school.id, today: when.today };
  const keep = (content: object) =>
    db('document_batch_parts').where({ batch_id: id, student_id: studentId }).update(content);
  // Whoever was taken off a team meanwhile gets no document of that student.
  const student = await nullIf(NotFound, requireStudent(db, actor, studentId, 'share'));
  if (!student) {
    await keep({ pages: 0, left_out: 'No longer theirs.' });
    return;
  }
  for (const document of await shapesOf(db, student, wanted, when)) {
    const { pdf, pages } = await documentsPdf(document.title, [document], when.school.paper);
    await keep({ document: JSON.stringify(document), pages, pdf: isOwnFile ? pdf : null });
    // Short is one page: what does not fit on it is tried closer.
    if (pages === 1) return;
  }
}

const isIn = (only: Wanted['only']) => (goal: Pick<Goal, 'id' | 'area'>) =>
  only === null || only.areas.includes(goal.area) || only.goals.includes(goal.id);

/** A student’s document, from the widest way to lay it out to the closest. */
async function shapesOf(db: Database, student: Student<'see'>, wanted: Wanted, when: When): Promise<ReportDocument[]> {
  if (wanted.what === 'running') {
    return wanted.isShort
      ? briefs(await standingInBrief(db, student, wanted, when))
      : [await studentReportDocument(db, student, wanted, when)];
  }
  const found = await latestProgress(db, student, when);
  if (!found) return [noPeriods(student, when.school)];
  const report = await ofSome(db, student, found.report, wanted.only);
  if (!wanted.isShort) return [progressReportDocument(report, found.issued)];
  const about = ['Progress report in brief', periodWords(report.period), issueWords(found.issued)].join(' · ');
  return briefs({ student, school: when.school, about, goals: report.goals });
}

/** A report of some goals only: what it leaves out stands in it, since it goes by the same number as the whole. */
async function ofSome(
  db: Database,
  student: Student,
  report: ProgressReport,
  only: Wanted['only'],
): Promise<ProgressReport> {
  if (only === null) return report;
  const ids = new Set((await goalsOf(db, [student.id])).filter(isIn(only)).map(({ id }) => id));
  const goals = report.goals.filter(({ goalId }) => ids.has(goalId));
  const leftOut = [
    ...(goals.length < report.goals.length ? ['other goals'] : []),
    ...(report.behavior.length > 0 ? ['behavior in brief'] : []),
  ];
  return { ...report, goals, behavior: [], leftOut };
}

interface InBrief {
  student: Pick<Student, 'shortName' | 'firstName' | 'lastName'>;
  school: School;
  about: string;
  goals: readonly GoalReport[];
}

const briefs = ({ student, school, about, goals }: InBrief): ReportDocument[] =>
  (['graphs', 'words', 'table'] as const).map((form) =>
    briefDocument({
      ...{ name: `${student.firstName} ${student.lastName}`, shortName: student.shortName, schoolName: school.name },
      ...{ about, form, goals: goals.map((goal) => goalAtFirst(goal, everything)) },
    }),
  );

async function standingInBrief(db: Database, student: Student, { only, from, to }: Wanted, when: When) {
  const { school, today } = when;
  const goals = goalsWorkedOn(await goalsOf(db, [student.id])).filter(isIn(only));
  const about = ['In brief', stretchWords(from, to, today) || longDate(today)].join(' · ');
  return {
    student,
    school,
    about,
    goals: await standingsOf(db, student.id, goals, { school, today: to ?? today, from }),
  };
}

/** The newest issued report of the period that is to be reported now; its draft while nothing was issued. Null without periods. */
async function latestProgress(
  db: Database,
  student: Student<'see'>,
  { school, today }: When,
): Promise<{ report: ProgressReport; issued: IssuedReport | null } | null> {
  const { period, issued } = await reportStanding(db, student, { school, today });
  if (!period) return null;
  if (!issued) return { report: (await draftOf(db, student, period.last, { school, today })).report, issued: null };
  const whole = await issuedReport(db, student.id, issued.id, school);
  return { report: whole.report, issued: whole };
}

const noPeriods = (student: Student, school: School): ReportDocument => ({
  title: `Progress report of ${student.shortName}`,
  head: `${student.shortName} · progress report · ${school.name}`,
  blocks: [
    { kind: 'heading', level: 1, text: `${student.firstName} ${student.lastName}` },
    { kind: 'text', text: 'The plan has no reporting periods yet.' },
  ],
});

/** What a document of some goals says of which they are: the areas, and the numbers of those that were chosen one by one. */
const someGoals = (goals: readonly Goal[], only: NonNullable<Wanted['only']>) =>
  [...only.areas, ...goals.filter(({ id }) => only.goals.includes(id)).map(({ number }) => `goal ${number}`)].join(
    ', ',
  );

/** The individual report of a student as a document, for a reader who sees all of it. */
async function studentReportDocument(
  db: Database,
  student: Student,
  { from, to, only, arrangement }: Wanted,
  { school, today }: When,
): Promise<ReportDocument> {
  const { layout, grouping, oldestFirst } = arrangement;
  const goals = await goalsOf(db, [student.id]);
  const ids = new Set(goals.filter(isIn(only)).map(({ id }) => id));
  const reader = { kind: 'team' as const, linkId: null, shows: everything, discreet: false };
  const wanted = { only: null, find: '', page: 'all' as const, day: null, from, to, oldestFirst };
  const present = goalsWorkedOn(goals).filter(({ id }) => ids.has(id));
  const [{ entries, threads }, standings] = await Promise.all([
    individualReport(db, student.id, goals, reader, wanted),
    standingsOf(db, student.id, present, { school, today: to ?? today, from }),
  ]);
  const some = only === null ? entries : entries.filter(({ goalId }) => goalId !== null && ids.has(goalId));
  const remarks = await remarksOn(db, { schoolId: school.id, today }, student.id, reader.kind, some);
  return individualReportDocument({
    ...{ studentShortName: student.shortName, schoolName: school.name, today, threads, remarks, layout },
    groups: groupEntries(some, grouping, goals, today),
    atFirst: standings.map((goal) => goalAtFirst(goal, everything)),
    about: [stretchWords(from, to, today), only && someGoals(goals, only)].filter(Boolean).join(' · '),
  });
}
