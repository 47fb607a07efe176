import PQueue from 'p-queue';
import { LARGEST_FILE, MOST_AT_ENTRY, tooLargeWords } from '~/core/entries/evidence';
import type { PhotographInput } from '~/core/entries/photograph';
import type { Database } from '../../platform/db/database';
import { Busy, Invalid, NotFound } from '../../platform/failures';
import { inThread, TooMuchWork } from '../../platform/threads';
import type { Actor } from '../../school/school';
import { requireStudent } from '../../students/students';
import { mustStand } from '../stands';
import type { FileAsked, FilePrepared } from './prepare';

/** A file as it may be kept. */
export interface Prepared {
  type: 'image/jpeg' | 'application/pdf';
  content: Buffer;
  thumbnail: Buffer | null;
  width: number | null;
  height: number | null;
}

const prepared = inThread<FileAsked, FilePrepared>('prepareFile', { seconds: 20, isReading: true });

/**
 * A file as it may be kept: told by its content, whatever it is called. A picture is turned upright and written anew, so that
 * nothing of where and by what it was taken is left; a PDF loses what it says of itself, and what acts in it. It is taken apart in a thread.
 *
 * @param takes  whether a PDF may be one: what comes from a device or a student's desk is a picture
 * @throws Invalid for what is no picture and no PDF, too large, broken, locked, or a bomb; Busy when too many are added at once
 */
export async function prepareEvidence(
  content: Buffer,
  { takes = 'files', isFromElsewhere = false }: Partial<Omit<FileAsked, 'content'>> = {},
): Promise<Prepared> {
  if (content.length === 0) throw new Invalid({ file: 'This file is empty.' });
  if (content.length > LARGEST_FILE) throw new Invalid({ file: tooLargeWords });
  if (one.size >= MOST_WAITING) throw new Busy('Many pictures are being added at the moment.');
  // Large pictures one after the other: several at once would fill the memory with their dots.
  const made = await one
    .add(() => prepared({ content, takes, isFromElsewhere }), { throwOnTimeout: true })
    .catch((error) => {
      if (error instanceof TooMuchWork)
        throw new Invalid({ file: 'This file takes too long to be looked at. Print it to a new PDF first.' });
      throw error;
    });
  return { ...made, content: Buffer.from(made.content), thumbnail: made.thumbnail && Buffer.from(made.thumbnail) };
}

const one = new PQueue({ concurrency: 1 });
const MOST_WAITING = 24;

/**
 * A file that was prepared before, by another installation: a photograph of which nothing is left to take away stays as it is, so that
 * it does not lose by being written anew; anything else is prepared like any other.
 *
 * @throws as `prepareEvidence`
 */
export const preparedElsewhere = (content: Buffer): Promise<Prepared> =>
  prepareEvidence(content, { isFromElsewhere: true });

/**
 * Puts a photograph or a PDF beside an entry. Sent twice it is there once.
 *
 * @throws NotFound for someone who may not observe, or an entry that is not there; Invalid
 */
export async function addEvidence(
  db: Database,
  actor: Actor,
  studentId: string,
  { id, entryId, name, content }: { id: string; entryId: string; name: string; content: Buffer },
  now: Date,
): Promise<void> {
  await requireStudent(db, actor, studentId, 'observe');
  await mustStand(db, studentId, entryId);
  const prepared = await prepareEvidence(content);
  await db.transaction((trx) =>
    insertEvidence(trx, { id, studentId, entryId, name, by: actor.personId }, prepared, now),
  );
}

interface NewEvidence {
  id: string;
  studentId: string;
  entryId: string;
  name: string;
  by: string;
}

/**
 * Writes a file down beside an entry of which the caller knows that it stands. Sent twice it is there once.
 *
 * @throws Invalid where there are too many
 */
export async function insertEvidence(
  trx: Database,
  { id, studentId, entryId, name, by }: NewEvidence,
  prepared: Prepared,
  now: Date,
): Promise<void> {
  await trx('students').where({ id: studentId }).forUpdate().first('id');
  const there = await trx('evidence').where({ entry_id: entryId, withdrawn_at: null }).select('id');
  if (there.some((one) => one.id === id)) return;
  if (there.length >= MOST_AT_ENTRY)
    throw new Invalid({ file: `There are ${MOST_AT_ENTRY} already: more is an album.` });
  await trx('evidence')
    .insert({
      ...{ id, student_id: studentId, entry_id: entryId, name: name.slice(0, 120) || 'file', ...prepared },
      ...{ bytes: prepared.content.length, added_by: by, added_at: now },
    })
    .onConflict('id')
    .ignore();
}

/** A photograph that came along with an entry, made ready to be kept. */
export interface PreparedPhotograph {
  id: string;
  entryId: string;
  prepared: Prepared;
}

/**
 * Makes the photographs ready that come along with an entry, before anything is written.
 *
 * @param field  where its message belongs, should one be broken
 * @throws Invalid for what is no picture; Busy when too many are added at once
 */
export async function photographsFrom(
  entryId: string,
  photographs: readonly PhotographInput[] | undefined,
  field: string,
): Promise<PreparedPhotograph[]> {
  const ready: PreparedPhotograph[] = [];
  for (const { id, content } of photographs ?? []) {
    try {
      ready.push({
        id,
        entryId,
        prepared: await prepareEvidence(Buffer.from(content, 'base64'), { takes: 'pictures' }),
      });
    } catch (error) {
      throw error instanceof Invalid && error.fields.file ? new Invalid({ [field]: error.fields.file }) : error;
    }
  }
  return ready;
}

/** Writes down the photographs that came along with entries written just now, in the same transaction. */
export async function insertPhotographs(
  trx: Database,
  of: { studentId: string; by: string },
  photographs: readonly PreparedPhotograph[],
  now: Date,
): Promise<void> {
  for (const { id, entryId, prepared } of photographs)
    await insertEvidence(trx, { ...of, id, entryId, name: 'photograph.jpg' }, prepared, now);
}

/** Takes it out of every view; it stays written down who did. */
export async function withdrawEvidence(
  db: Database,
  actor: Actor,
  studentId: string,
  id: string,
  now: Date,
): Promise<void> {
  const student = await requireStudent(db, actor, studentId, 'observe');
  const row = await db('evidence').where({ id, student_id: studentId }).first('added_by');
  if (!row) throw new NotFound('No such file.');
  if (row.added_by !== actor.personId && student.role !== 'caseManager') throw new NotFound('No such file of yours.');
  await db('evidence')
    .where({ id })
    .whereNull('withdrawn_at')
    .update({ withdrawn_by: actor.personId, withdrawn_at: now });
}
