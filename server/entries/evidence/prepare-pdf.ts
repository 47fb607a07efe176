// Runs in a thread: what others made is taken apart here.
import { inflateSync } from 'node:zlib';
import {
  EncryptedPDFError,
  PDFArray,
  type PDFContext,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  type PDFObject,
  PDFObjectStreamParser,
  type PDFRawStream,
  PDFRef,
  PDFStream,
  PDFString,
  PDFXRefStreamParser,
} from 'pdf-lib';
import { Invalid } from '../../platform/failures';

/** More objects than a scan of hundreds of pages has. */
const MOST_OBJECTS = 100_000;
/** What packed objects may come to, all together, in bytes. */
const MOST_UNPACKED = 48 * 1024 * 1024;

const tooTight = () => new Invalid({ file: 'This PDF is packed too tightly. Print it to a new PDF first.' });

/** What is left for the PDF that is being read, and whether it was not enough. One is read at a time. */
let left = 0;
let isTooTight = false;

/**
 * What is packed within a PDF, as the package has found it by its parsed dictionary, is measured before the package unpacks it without a
 * bound. Pictures and pages stay packed, however large they are.
 */
function measure(stream: PDFRawStream): void {
  const refuse = () => {
    isTooTight = true;
    throw tooTight();
  };
  const filter = stream.dict.lookup(PDFName.of('Filter'));
  const filters = filter instanceof PDFArray ? filter.asArray() : filter ? [filter] : [];
  if (filters.length === 0) return;
  if (filters.length > 1 || filters[0] !== PDFName.of('FlateDecode')) refuse();
  try {
    left -= inflateSync(stream.contents, { maxOutputLength: Math.max(1, left) }).length;
  } catch (error) {
    // One that is broken is for the package to refuse.
    if ((error as { code?: unknown }).code === 'ERR_BUFFER_TOO_LARGE') refuse();
  }
}

for (const parser of [PDFObjectStreamParser, PDFXRefStreamParser] as { forStream: (...of: never[]) => unknown }[]) {
  const forStream = parser.forStream as (stream: PDFRawStream, ...more: unknown[]) => unknown;
  parser.forStream = (stream: PDFRawStream, ...more: unknown[]) => {
    measure(stream);
    return forStream(stream, ...more);
  };
}

/** Keys that tell by whom, when and with what it was made. */
const TELLING = ['Metadata', 'PieceInfo', 'LastModified', 'SpiderInfo'];
/** Keys of what does something by itself, or holds other files (ISO 32000-1: 7.11.4, 12.6, 12.7.8, 13). */
const ACTING = [
  ...['OpenAction', 'AA', 'JavaScript', 'JS', 'EmbeddedFiles', 'EF', 'RF', 'AF', 'XFA', 'Collection', 'Renditions'],
  ...['RichMediaContent', 'RichMediaSettings', 'AlternatePresentations', 'Launch', 'Win', 'Unix', 'Mac'],
];
const KEYS = [...TELLING, ...ACTING].map((key) => PDFName.of(key));
/** Kinds of actions that stay: to a place in it, and to an address. */
const HARMLESS = new Set(['GoTo', 'URI', 'Named'].map((name) => PDFName.of(name)));
/** Kinds of actions that there are (ISO 32000-1, table 198; ISO 32000-2). */
const ACTIONS = new Set(
  [
    ...['GoTo', 'GoToR', 'GoToE', 'GoToDp', 'Launch', 'Thread', 'URI', 'Sound', 'Movie', 'Hide', 'Named', 'SubmitForm'],
    ...['ResetForm', 'ImportData', 'JavaScript', 'SetOCGState', 'Rendition', 'Trans', 'GoTo3DView', 'RichMediaExecute'],
  ].map((name) => PDFName.of(name)),
);
/** Kinds of annotations that hold another file, or play something. */
const HOLDING = new Set(
  ['FileAttachment', 'Sound', 'Movie', 'Screen', '3D', 'RichMedia'].map((name) => PDFName.of(name)),
);

/** Whether a dictionary is an action that is not left in, an annotation that holds a file, or such a file itself. */
function acts(dict: PDFDict): boolean {
  const [kind, subtype, type] = ['S', 'Subtype', 'Type'].map((key) => dict.lookup(PDFName.of(key)));
  if (kind instanceof PDFName && ACTIONS.has(kind)) {
    if (!HARMLESS.has(kind)) return true;
    const address = dict.lookup(PDFName.of('URI'));
    const text = address instanceof PDFString || address instanceof PDFHexString ? address.decodeText() : null;
    if (text !== null && !/^(https?:|mailto:)/i.test(text.trim())) return true;
  }
  if (subtype instanceof PDFName && HOLDING.has(subtype)) return true;
  return type === PDFName.of('EmbeddedFile') || (type === PDFName.of('Filespec') && dict.has(PDFName.of('EF')));
}

const dictOf = (object: PDFObject | undefined): PDFDict | null =>
  object instanceof PDFDict ? object : object instanceof PDFStream ? object.dict : null;

/** Takes out of an object, and of what stands in it, all that tells or acts; what is pointed at is looked at where it stands. */
function clean(context: PDFContext, object: PDFObject): void {
  const goes = (value: PDFObject) => {
    const dict = dictOf(context.lookup(value));
    return dict !== null && acts(dict);
  };
  const inner: PDFObject[] = [object];
  for (let next = inner.pop(); next; next = inner.pop()) {
    if (next instanceof PDFArray) {
      for (let at = next.size() - 1; at >= 0; at--) {
        if (goes(next.get(at))) next.remove(at);
        else if (!(next.get(at) instanceof PDFRef)) inner.push(next.get(at));
      }
    }
    const dict = dictOf(next);
    if (!dict) continue;
    for (const key of KEYS) dict.delete(key);
    for (const [key, value] of dict.entries()) {
      if (goes(value)) dict.delete(key);
      else if (!(value instanceof PDFRef)) inner.push(value);
    }
  }
}

/** Objects that nothing points at any more go. */
function sweep(document: PDFDocument): void {
  const { context } = document;
  const seen = new Set<PDFRef>();
  const open: (PDFObject | undefined)[] = [context.trailerInfo.Root];
  while (open.length > 0) {
    const object = open.pop();
    if (object instanceof PDFRef) {
      if (seen.has(object)) continue;
      seen.add(object);
      open.push(context.lookup(object));
    } else if (object instanceof PDFArray) open.push(...object.asArray());
    else open.push(...(dictOf(object)?.values() ?? []));
  }
  for (const [ref] of context.enumerateIndirectObjects()) if (!seen.has(ref)) context.delete(ref);
}

/**
 * A PDF without what it says of itself (who made it, when, with which program, from which file), and without what acts: scripts, attached
 * files, links that start a program.
 *
 * @throws Invalid at `file` for one that is broken, locked, or unpacks to too much
 */
export async function preparePdf(content: Buffer): Promise<Uint8Array> {
  [left, isTooTight] = [MOST_UNPACKED, false];
  let objects = 0;
  for (let at = content.indexOf(' obj'); at >= 0; at = content.indexOf(' obj', at + 4)) {
    if (++objects > MOST_OBJECTS) throw tooTight();
  }
  const document = await PDFDocument.load(content, { updateMetadata: false }).catch((error: unknown) => {
    if (isTooTight) throw tooTight();
    throw new Invalid({
      file:
        error instanceof EncryptedPDFError
          ? 'This PDF is locked with a password. Add it without.'
          : 'This PDF is broken: it cannot be read.',
    });
  });
  // The package passes over what it cannot read.
  if (isTooTight) throw tooTight();
  const { context } = document;
  context.trailerInfo.Info = undefined;
  context.trailerInfo.ID = undefined;
  try {
    for (const [, object] of context.enumerateIndirectObjects()) clean(context, object);
    sweep(document);
    return await document.save({ updateFieldAppearances: false });
  } catch {
    // It says of itself what is not so: the package stumbles over it.
    throw new Invalid({ file: 'This PDF is broken: it cannot be read.' });
  }
}
