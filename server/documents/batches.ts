import JSZip from 'jszip';
import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { BatchWanted } from '~/core/documents/batch-input';
import type { ReportDocument } from '~/core/documents/document';
import { titleAsName } from '~/core/documents/file-name';
import { stretchWords } from '~/core/individual-report/report';
import { retryAfter } from '~/core/messages/message';
import type { Arrangement } from '~/core/sharing/visibility-rule';
import { counted } from '~/core/words/counting';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { existing, Invalid, NotFound, nullIf } from '../platform/failures';
import type { Actor, School } from '../school/school';
import { recordAccess } from '../sharing/access-log';
import { can } from '../students/rights';
import { requireStudent, type Student, studentsOf } from '../students/students';
import { documentPdf, documentsPdf } from './pdf';

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
  /** As they are printed: each student begins on the front of a sheet. */
  pages: z.number().nullable(),
  isShort: z.boolean(),
  /** A file for each student, in a ZIP. */
  isPacked: z.boolean(),
  /** Students, by short name, who are not in the file: since it was asked for they are no longer this person’s. */
  leftOut: z.array(z.string()),
});
export type Batch = z.infer<typeof batchRow>;

/** The batches that somebody has asked for, newest first. */
export async function batchesOf(db: Database, actor: Actor): Promise<Batch[]> {
  return rowsOf(
    db,
    batchRow,
    `select b.id, b.label, b.what, b.made_at as "madeAt", b.state, b.problem, cardinality(b.students) as of,
            count(*) filter (where p.pages is not null or p.batch_id is null)::int as done, b.is_short as "isShort", b.is_packed as "isPacked",
            (sum(p.pages + p.pages % 2) - max(case when s.at = cardinality(b.students) then p.pages % 2 else 0 end))::int as pages,
            coalesce(array_agg(s.name order by s.at) filter (where p.batch_id is null or p.left_out is not null), '{}') as "leftOut"
       from document_batches b cross join lateral unnest(b.students) with ordinality as s (name, at)
            left join document_batch_parts p on p.batch_id = b.id and p.position = s.at - 1
      where b.made_by = ? and b.school_id = ? group by b.id order by b.made_at desc limit 20`,
    [actor.personId, actor.schoolId],
  );
}

/**
 * Asks for the documents of several students, in the order in which they are handed out: of those whose report one may share. They are
 * made in the background. Asked twice, they are made once.
 *
 * @throws Invalid when there is nobody among them whose report one shares
 */
export async function askForBatch(db: Database, actor: Actor, wanted: BatchWanted, now: Date): Promise<void> {
  const chosen = new Set(wanted.students);
  const shared = (await studentsOf(db, actor)).filter((one) => can(one, 'share'));
  const students = shared.filter(({ id }) => chosen.has(id));
  if (students.length === 0) throw new Invalid({ students: 'There is nobody among them whose report you share.' });
  const byName = ({ lastName, firstName }: Student) => `${lastName}\n${firstName}`;
  const place = (one: Student) => (wanted.order === 'name' ? '' : (one.groups[0] ?? '\uffff')) + byName(one);
  students.sort((a, b) => place(a).localeCompare(place(b)));
  await db.transaction(async (trx) => {
    const written = await trx('document_batches')
      .insert({
        ...{ id: wanted.id, school_id: actor.schoolId, label: labelOf(students, shared) },
        ...{ what: wanted.what, is_short: wanted.length === 'short', is_packed: wanted.as === 'each' },
        ...{ from_day: wanted.from ?? null, to_day: wanted.to ?? null },
        areas: wanted.areas.length > 0 ? wanted.areas : null,
        goals: wanted.goals.length > 0 ? wanted.goals : null,
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

/** What they are together: a group’s name where it is that group, and no more. */
function labelOf(chosen: readonly Student[], shared: readonly Student[]): string {
  if (chosen.length === shared.length) return 'All students';
  const group = chosen[0]?.groups.find((name) => {
    const members = shared.filter(({ groups }) => groups.includes(name));
    return members.length === chosen.length && chosen.every(({ groups }) => groups.includes(name));
  });
  if (group) return group;
  return chosen.length === 1 ? (chosen[0]?.shortName ?? '') : counted(chosen.length, 'student', 'students');
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

export interface BatchFile {
  content: Buffer;
  type: 'pdf' | 'zip';
}

/**
 * The finished file, under the rights of the moment: each student is asked for anew. Who is no longer this person’s is left out, and
 * named on a page in front. What is handed out stands in the access log.
 *
 * @throws NotFound when it is somebody else’s, not ready, or holds nobody who is still theirs
 */
export async function batchFile(
  db: Database,
  actor: Actor,
  id: string,
  { school, now }: { school: Pick<School, 'paper'>; now: Date },
): Promise<BatchFile> {
  const batch = await db('document_batches')
    .where({ id, made_by: actor.personId, state: 'ready' })
    .first('label', 'what', 'students', 'is_packed');
  if (!batch) throw new NotFound('No such file.');
  // Of whom they may no longer see anything, there is not even a row.
  const parts = await db('document_batch_parts')
    .where({ batch_id: id })
    .select('student_id', 'position', 'document', 'pdf', 'left_out');
  const byPosition = new Map(parts.map((part) => [part.position, part]));
  const handedOut: OfStudent[] = [];
  const leftOut: string[] = [];
  // A row that was just read and locked.
  for (const [position, name] of (batch.students as string[]).entries()) {
    const { student_id, document, pdf = null, left_out } = byPosition.get(position) ?? {};
    const isTheirs =
      student_id && document && !left_out && (await nullIf(NotFound, requireStudent(db, actor, student_id, 'share')));
    if (!isTheirs) leftOut.push(name);
    // Written by `makeBatch`, which keeps nothing else.
    else handedOut.push({ studentId: student_id, document: document as ReportDocument, pdf });
  }
  if (handedOut.length === 0) throw new NotFound('There is nobody in it any more.');
  const missing = leftOut.length > 0 ? [{ document: leftOutPage(batch.label, leftOut), pdf: null }] : [];
  const all = [...missing, ...handedOut];
  const content = batch.is_packed ? await packed(all, school) : await joined(batch.label, all, school);
  await db.transaction(async (trx) => {
    for (const { studentId } of handedOut) {
      const as = batch.students.length > 1 ? 'PDF of a group' : 'PDF';
      // The database holds what a batch may be of.
      const reading = { studentId, what: `${readAs[batch.what as Batch['what']]} (${as})`, how: 'exported' as const };
      await recordAccess(trx, { personId: actor.personId }, reading, now);
    }
  });
  return { content, type: batch.is_packed ? 'zip' : 'pdf' };
}

/** A document with its pages, where those are kept. */
interface Laid {
  document: ReportDocument;
  pdf: Buffer | null;
}
type OfStudent = Laid & { studentId: string };

async function joined(label: string, all: readonly Laid[], { paper }: Pick<School, 'paper'>): Promise<Buffer> {
  const [only, ...more] = all;
  if (only?.pdf && more.length === 0) return only.pdf;
  const documents = all.map(({ document }) => document);
  return (await documentsPdf(label, documents, paper)).pdf;
}

/** A file for each document, in a ZIP, in their order. */
async function packed(all: readonly Laid[], { paper }: Pick<School, 'paper'>): Promise<Buffer> {
  const zip = new JSZip();
  for (const [at, { document, pdf }] of all.entries()) {
    const place = String(at + 1).padStart(String(all.length).length, '0');
    zip.file(`${place} ${titleAsName(document.title)}.pdf`, pdf ?? (await documentPdf(document, paper)));
  }
  return zip.generateAsync({ type: 'nodebuffer' });
}

const leftOutPage = (label: string, names: readonly string[]): ReportDocument => ({
  title: `Not in this file: ${label}`,
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
