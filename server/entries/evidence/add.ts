import { fileTypeFromBuffer } from 'file-type';
import PQueue from 'p-queue';
import { EncryptedPDFError, PDFDict, PDFDocument, PDFName, PDFRef, PDFStream } from 'pdf-lib';
import sharp from 'sharp';
import { LARGEST_FILE, MOST_AT_ENTRY, tooLargeWords } from '~/core/entries/evidence';
import type { PhotographInput } from '~/core/entries/photograph';
import type { Database } from '../../platform/db/database';
import { Busy, Invalid, NotFound } from '../../platform/failures';
import type { Actor } from '../../school/school';
import { requireStudent } from '../../students/students';
import { mustStand } from '../stands';
import { isWithinBounds } from './pdf-bounds';

/** A picture of more dots than this is no photograph but a bomb: few bytes that would fill the memory. */
const MOST_PIXELS = 50_000_000;
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
 * nothing of where and by what it was taken is left; a PDF loses what it says of itself.
 *
 * @throws Invalid for what is no picture and no PDF, too large, broken, locked, or a bomb; Busy when too many are added at once
 */
export async function prepareEvidence(content: Buffer): Promise<Prepared> {
  if (content.length === 0) throw new Invalid({ file: 'This file is empty.' });
  if (content.length > LARGEST_FILE) throw new Invalid({ file: tooLargeWords });
  const type = (await fileTypeFromBuffer(content))?.mime;
  if (!type || (type !== 'application/pdf' && !pictures.includes(type))) {
    throw new Invalid({ file: 'This is no photograph (JPEG, PNG, WebP) and no PDF, whatever its name says.' });
  }
  return oneAtATime(() => (type === 'application/pdf' ? preparePdf(content) : preparePicture(content)));
}

/**
 * Large pictures are taken apart one after the other: several at once would fill the memory. Their dots are unpacked in threads of
 * libvips, beside the one that answers pages.
 *
 * @throws Busy when too many wait
 */
const queue = new PQueue({ concurrency: 1 });
const MOST_WAITING = 24;
sharp.concurrency(1);
sharp.cache(false);

function oneAtATime(work: () => Promise<Prepared>): Promise<Prepared> {
  if (queue.size >= MOST_WAITING) throw new Busy('Many pictures are being added at the moment.');
  return queue.add(work, { throwOnTimeout: true });
}

/**
 * A file that was prepared before, by another installation: a photograph of which nothing is left to take away stays as it is, so that
 * it does not lose by being written anew; anything else is prepared like any other.
 *
 * @throws as `prepareEvidence`
 */
export async function preparedElsewhere(content: Buffer): Promise<Prepared> {
  const prepared = await prepareEvidence(content);
  if (prepared.type !== 'image/jpeg') return prepared;
  const { format, width, height, exif, xmp, iptc, comments } = await sharp(content, {
    limitInputPixels: MOST_PIXELS,
  }).metadata();
  const isAsOurs = format === 'jpeg' && width === prepared.width && height === prepared.height;
  return isAsOurs && !exif && !xmp && !iptc && !comments?.length ? { ...prepared, content } : prepared;
}

async function preparePicture(content: Buffer): Promise<Prepared> {
  try {
    const { data, info } = await sharp(content, {
      limitInputPixels: MOST_PIXELS,
      failOn: 'error',
      sequentialRead: true,
    })
      .rotate()
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

/** Keys of a PDF's objects that tell by whom, when and with what it was made, or that do something by themselves when it is opened. */
const TELLING = ['Metadata', 'PieceInfo', 'LastModified', 'OpenAction', 'AA', 'SpiderInfo'];

/** A PDF without what it says of itself: who made it, when, with which program, from which file. */
async function preparePdf(content: Buffer): Promise<Prepared> {
  if (!isWithinBounds(content))
    throw new Invalid({ file: 'This PDF is packed too tightly. Print it to a new PDF first.' });
  const document = await PDFDocument.load(content, { updateMetadata: false }).catch((error: unknown) => {
    throw new Invalid({
      file:
        error instanceof EncryptedPDFError
          ? 'This PDF is locked with a password. Add it without.'
          : 'This PDF is broken: it cannot be read.',
    });
  });
  const { context } = document;
  if (context.trailerInfo.Info instanceof PDFRef) context.delete(context.trailerInfo.Info);
  context.trailerInfo.Info = undefined;
  context.trailerInfo.ID = undefined;
  for (const [, object] of context.enumerateIndirectObjects()) {
    const dictionary = object instanceof PDFDict ? object : object instanceof PDFStream ? object.dict : null;
    for (const key of TELLING) {
      const value = dictionary?.get(PDFName.of(key));
      if (value === undefined) continue;
      if (value instanceof PDFRef) context.delete(value);
      dictionary?.delete(PDFName.of(key));
    }
  }
  const bytes = await document.save({ updateFieldAppearances: false });
  return { type: 'application/pdf', content: Buffer.from(bytes), thumbnail: null, width: null, height: null };
}

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
      ready.push({ id, entryId, prepared: await prepareEvidence(Buffer.from(content, 'base64')) });
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
