import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { stretchWords } from '~/core/individual-report/report';
import { retryAfter } from '~/core/messages/message';
import type { Arrangement } from '~/core/sharing/visibility-rule';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { existing, Invalid, NotFound, nullIf } from '../platform/failures';
import type { Actor } from '../school/school';
import { recordAccess } from '../sharing/access-log';
import { requireStudent, type Student, studentsOf } from '../students/students';
import { documentPdf, joinPdfs } from './pdf';

/** The documents of several students in one file. */
const batchRow = z.object({
  id: z.string(),
  label: z.string(),
  what: z.enum(['progress', 'running']),
  madeAt: z.date(),
  /** `over`: it could be fetched for two weeks. */
  state: z.enum(['waiting', 'making', 'ready', 'failed', 'over']),
  problem: z.string().nullable(),
  done: z.number(),
  of: z.number(),
  pages: z.number().nullable(),
  /** Students, by short name, who are not in the file: since it was asked for they are no longer this person’s. */
  leftOut: z.array(z.string()),
});
export type Batch = z.infer<typeof batchRow>;

interface BatchWanted {
  id: string;
  /** A class group by its name; null for all students. */
  group: string | null;
  what: Batch['what'];
}

/** The batches that somebody has asked for, newest first. */
export async function batchesOf(db: Database, actor: Actor): Promise<Batch[]> {
  return rowsOf(
    db,
    batchRow,
    `select b.id, b.label, b.what, b.made_at as "madeAt", b.state, b.problem, cardinality(b.students) as of,
            count(*) filter (where p.pages is not null or p.batch_id is null)::int as done, sum(p.pages)::int as pages,
            coalesce(array_agg(s.name order by s.at) filter (where p.batch_id is null or p.left_out is not null), '{}') as "leftOut"
       from document_batches b cross join lateral unnest(b.students) with ordinality as s (name, at)
            left join document_batch_parts p on p.batch_id = b.id and p.position = s.at - 1
      where b.made_by = ? and b.school_id = ? group by b.id order by b.made_at desc limit 20`,
    [actor.personId, actor.schoolId],
  );
}

/**
 * Asks for the documents of a class group in one file, sorted by group and name: of the students whose report one may share. It is
 * made in the background. Asked twice, it is made once.
 *
 * @throws Invalid when there is nobody in it
 */
export async function askForBatch(db: Database, actor: Actor, wanted: BatchWanted, now: Date): Promise<void> {
  const all = await studentsOf(db, actor);
  const members = all.filter(({ groups }) => wanted.group === null || groups.includes(wanted.group));
  const students: Student[] = [];
  for (const student of members) {
    const mine = await nullIf(NotFound, requireStudent(db, actor, student.id, 'share'));
    if (mine) students.push(mine);
  }
  if (students.length === 0) throw new Invalid({ group: 'There is nobody in this group whose report you share.' });
  const byGroup = ({ groups, lastName, firstName }: Student) => `${groups[0] ?? '\uffff'}\n${lastName}\n${firstName}`;
  students.sort((a, b) => byGroup(a).localeCompare(byGroup(b)));
  await db.transaction(async (trx) => {
    const written = await trx('document_batches')
      .insert({
        ...{ id: wanted.id, school_id: actor.schoolId, label: wanted.group ?? 'All students', what: wanted.what },
        students: students.map(({ shortName }) => shortName),
        ...{ made_by: actor.personId, made_at: now },
      })
      .onConflict('id')
      .ignore()
      .returning('id');
    if (written.length === 0) return;
    await trx('document_batch_parts').insert(
      students.map(({ id }, position) => ({ batch_id: wanted.id, student_id: id, position })),
    );
  });
}

/**
 * Asks for the individual report of one student as a file that takes too long to be waited for. It is made in the background. The same
 * file, asked for again, is made once; it is laid out as it was looked at. Ask `requireStudent` for the right to share first.
 *
 * @param id  the same for the same file
 */
export async function askForReport(
  db: Database,
  actor: Actor,
  { id: studentId, shortName }: Pick<Student, 'id' | 'shortName'>,
  { id, from, to, arrangement }: { id: string; from: IsoDate | null; to: IsoDate | null; arrangement: Arrangement },
  now: Date,
): Promise<void> {
  const label = [shortName, stretchWords(from, to, actor.today)].filter(Boolean).join(', ');
  await db.transaction(async (trx) => {
    const written = await trx('document_batches')
      .insert({
        ...{ id, school_id: actor.schoolId, label, students: [shortName], what: 'running', from_day: from, to_day: to },
        arrangement: JSON.stringify(arrangement),
        ...{ made_by: actor.personId, made_at: now },
      })
      .onConflict('id')
      .ignore()
      .returning('id');
    if (written.length === 0) return;
    await trx('document_batch_parts').insert({ batch_id: id, student_id: studentId, position: 0 });
  });
}

const readAs: Record<Batch['what'], string> = {
  progress: 'progress report',
  running: 'report',
};

/**
 * The finished file, under the rights of the moment: each student is asked for anew. Who is no longer this person’s is left out, and
 * named on a page in front. What is handed out stands in the access log.
 *
 * @throws NotFound when it is somebody else’s, not ready, or holds nobody who is still theirs
 */
export async function batchFile(db: Database, actor: Actor, id: string, now: Date): Promise<Buffer> {
  const batch = await db('document_batches')
    .where({ id, made_by: actor.personId, state: 'ready' })
    .first('label', 'what', 'students');
  if (!batch) throw new NotFound('No such file.');
  // Of whom they may no longer see anything, there is not even a row.
  const parts: { student_id: string; position: number; pdf: Buffer | null }[] = await db('document_batch_parts')
    .where({ batch_id: id })
    .select('student_id', 'position', 'pdf');
  const byPosition = new Map(parts.map((part) => [part.position, part]));
  const papers: Buffer[] = [];
  const handedOut: string[] = [];
  const leftOut: string[] = [];
  // A row that was just read and locked.
  for (const [position, name] of (batch.students as string[]).entries()) {
    const { student_id, pdf = null } = byPosition.get(position) ?? {};
    const isTheirs = student_id && pdf && (await nullIf(NotFound, requireStudent(db, actor, student_id, 'share')));
    if (!isTheirs) leftOut.push(name);
    else {
      papers.push(pdf);
      handedOut.push(student_id);
    }
  }
  if (papers.length === 0) throw new NotFound('There is nobody in it any more.');
  if (leftOut.length > 0) papers.unshift(await leftOutPage(batch.label, leftOut));
  const file = await joinPdfs(batch.label, papers);
  await db.transaction(async (trx) => {
    for (const studentId of handedOut) {
      const as = batch.students.length > 1 ? 'PDF of a group' : 'PDF';
      // The database holds what a batch may be of.
      const reading = { studentId, what: `${readAs[batch.what as Batch['what']]} (${as})`, how: 'exported' as const };
      await recordAccess(trx, { personId: actor.personId }, reading, now);
    }
  });
  return file;
}

const leftOutPage = (label: string, names: readonly string[]): Promise<Buffer> =>
  documentPdf({
    title: label,
    head: label,
    blocks: [
      { kind: 'heading', level: 1, text: 'Not in this file' },
      { kind: 'text', text: 'You no longer share the reports of these students, so theirs are left out:' },
      { kind: 'text', text: names.join('\n') },
    ],
  });

/** The batches that are to be made now, or were left half made. */
export const openBatches = (db: Database, now: Date): Promise<{ id: string; schoolId: string }[]> =>
  db('document_batches')
    .whereIn('state', ['waiting', 'making'])
    .where('not_before', '<=', now)
    .orderBy('made_at')
    .select('id', 'school_id as schoolId');

/** When the next batch is to be made or tried again; null when none waits. */
export async function nextBatchAt(db: Database): Promise<Date | null> {
  const row = await db('document_batches')
    .whereIn('state', ['waiting', 'making'])
    .whereNot('not_before', '-infinity')
    .orderBy('not_before')
    .first('not_before as at');
  return row?.at ?? null;
}

/** Writes down that a batch could not be made: it is tried again, ever later, and then has failed. */
export async function batchFailed(db: Database, id: string, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const { attempts: before } = existing(await trx('document_batches').where({ id }).forUpdate().first('attempts'));
    const attempts = before + 1;
    const minutes = retryAfter(attempts);
    const change =
      minutes === null
        ? {
            state: 'failed' as const,
            problem: `It could not be made, after ${attempts} tries. Ask for it again later.`,
          }
        : {
            problem: `It could not be made just now; it is tried again after ${minutes} min.`,
            not_before: new Date(now.getTime() + minutes * 60_000),
          };
    await trx('document_batches')
      .where({ id })
      .update({ attempts, ...change });
  });
}
