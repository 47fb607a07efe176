// Runs in a thread: what others made is taken apart here.
import { fileTypeFromBuffer } from 'file-type';
import sharp from 'sharp';
import { Invalid } from '../../platform/failures';
import { preparePdf } from './prepare-pdf';

/** A picture of more dots than this is no photograph but a bomb: few bytes that would fill the memory. */
const MOST_PIXELS = 50_000_000;
/** What a picture is made smaller to, in dots. */
const LONGEST_SIDE = 2400;
const THUMBNAIL = 320;
const QUALITY = 82;

const pictures = ['image/jpeg', 'image/png', 'image/webp'];

sharp.concurrency(1);
sharp.cache(false);

export interface FileAsked {
  content: Uint8Array;
  takes: 'pictures' | 'files';
  /** Whether it was prepared before, by another installation. */
  isFromElsewhere: boolean;
}

export interface FilePrepared {
  type: 'image/jpeg' | 'application/pdf';
  content: Uint8Array;
  thumbnail: Uint8Array | null;
  width: number | null;
  height: number | null;
}

/** The task behind `prepareEvidence`. */
export async function prepareFile({ content, takes, isFromElsewhere }: FileAsked): Promise<FilePrepared> {
  const bytes = Buffer.from(content.buffer, content.byteOffset, content.byteLength);
  const type = (await fileTypeFromBuffer(bytes))?.mime;
  if (takes === 'pictures' && type === 'application/pdf')
    throw new Invalid({ file: 'This is a PDF. Here a photograph is taken (JPEG, PNG, WebP).' });
  if (!type || (type !== 'application/pdf' && !pictures.includes(type))) {
    throw new Invalid({ file: 'This is no photograph (JPEG, PNG, WebP) and no PDF, whatever its name says.' });
  }
  if (type === 'application/pdf')
    return {
      ...{ type, content: await preparePdf(bytes), thumbnail: null },
      ...{ width: null, height: null },
    };
  const prepared = await preparePicture(bytes);
  return isFromElsewhere && (await isAsOurs(bytes, prepared)) ? { ...prepared, content: bytes } : prepared;
}

async function isAsOurs(bytes: Buffer, prepared: FilePrepared): Promise<boolean> {
  const { format, width, height, exif, xmp, iptc, comments } = await sharp(bytes, {
    limitInputPixels: MOST_PIXELS,
  }).metadata();
  const isSame = format === 'jpeg' && width === prepared.width && height === prepared.height;
  return isSame && !exif && !xmp && !iptc && !comments?.length;
}

async function preparePicture(content: Buffer): Promise<FilePrepared> {
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
