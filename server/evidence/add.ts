import { fileTypeFromBuffer } from 'file-type';
import sharp from 'sharp';
import { LARGEST_FILE, MOST_AT_ENTRY, tooLargeWords } from '~/core/evidence/evidence';
import type { Database } from '../db/database';
import { Invalid, NotFound } from '../failures';
import { mustStand } from '../recorded/stands';
import { type Actor, studentFor } from '../students/students';

/** A picture of more dots than this is no photograph but a bomb: few bytes that would fill the memory. */
const MOST_PIXELS = 60_000_000;
/** What a picture is made smaller to, in dots. */
const LONGEST_SIDE = 2400;
const THUMBNAIL = 320;
const QUALITY = 82;

const pictures = ['image/jpeg', 'image/png', 'image/webp'];

interface Prepared {
  type: 'image/jpeg' | 'application/pdf';
  content: Buffer;
  thumbnail: Buffer | null;
  width: number | null;
  height: number | null;
}

/**
 * A file as it may be kept: told by its content, whatever it is called. A picture is turned upright and written anew, so that
 * nothing of where and by what it was taken is left.
 *
 * @throws Invalid for what is no picture and no PDF, too large, broken, or a bomb
 */
export async function prepareEvidence(content: Buffer): Promise<Prepared> {
  if (content.length === 0) throw new Invalid({ file: 'This file is empty.' });
  if (content.length > LARGEST_FILE) throw new Invalid({ file: tooLargeWords });
  const type = (await fileTypeFromBuffer(content))?.mime;
  if (type === 'application/pdf') return { type, content, thumbnail: null, width: null, height: null };
  if (!type || !pictures.includes(type)) {
    throw new Invalid({ file: 'This is no photograph (JPEG, PNG, WebP) and no PDF, whatever its name says.' });
  }
  try {
    const upright = () => sharp(content, { limitInputPixels: MOST_PIXELS, failOn: 'error' }).rotate();
    const { data, info } = await upright()
      .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: 'white' })
      .jpeg({ quality: QUALITY })
      .toBuffer({ resolveWithObject: true });
    const thumbnail = await sharp(data).resize(THUMBNAIL, THUMBNAIL, { fit: 'cover' }).jpeg({ quality: 75 }).toBuffer();
    return { type: 'image/jpeg', content: data, thumbnail, width: info.width, height: info.height };
  } catch (error) {
    const isBomb = error instanceof Error && /pixel limit/i.test(error.message);
    throw new Invalid({
      file: isBomb
        ? 'This picture has too many dots. Make it smaller first.'
        : 'This picture is broken: it cannot be read.',
    });
  }
}

/**
 * Puts a photograph or a PDF beside an entry. Sent twice it is there once.
 *
 * @throws NotFound for whom may not observe, or an entry that is not there; Invalid
 */
export async function addEvidence(
  db: Database,
  actor: Actor,
  studentId: string,
  { id, entryId, name, content }: { id: string; entryId: string; name: string; content: Buffer },
  now: Date,
): Promise<void> {
  await studentFor(db, actor, studentId, 'observe');
  await mustStand(db, studentId, entryId);
  const prepared = await prepareEvidence(content);
  await db.transaction(async (trx) => {
    await trx('students').where({ id: studentId }).forUpdate().first('id');
    const there = await trx('evidence').where({ entry_id: entryId, withdrawn_at: null }).select('id');
    if (there.some((one) => one.id === id)) return;
    if (there.length >= MOST_AT_ENTRY)
      throw new Invalid({ file: `There are ${MOST_AT_ENTRY} already: more is an album.` });
    await trx('evidence')
      .insert({
        ...{ id, student_id: studentId, entry_id: entryId, name: name.slice(0, 120) || 'file', ...prepared },
        ...{ bytes: prepared.content.length, added_by: actor.personId, added_at: now },
      })
      .onConflict('id')
      .ignore();
  });
}

/** Takes it out of every view; it stays written down who did. */
export async function withdrawEvidence(
  db: Database,
  actor: Actor,
  studentId: string,
  id: string,
  now: Date,
): Promise<void> {
  const student = await studentFor(db, actor, studentId, 'observe');
  const row = await db('evidence').where({ id, student_id: studentId }).first('added_by');
  if (!row) throw new NotFound('No such file.');
  if (row.added_by !== actor.personId && student.role !== 'caseManager') throw new NotFound('No such file of yours.');
  await db('evidence')
    .where({ id })
    .whereNull('withdrawn_at')
    .update({ withdrawn_by: actor.personId, withdrawn_at: now });
}
