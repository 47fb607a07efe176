import { randomUUID } from 'node:crypto';
import { deflateSync } from 'node:zlib';
import { PDFDocument, PDFName, type PDFObject, PDFString } from 'pdf-lib';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { fileSize, LARGEST_FILE } from '~/core/entries/evidence';
import { entryField } from '~/core/entries/observation';
import { freshDatabase } from '~/tests/database/fresh';
import { accessTo, actorOf, now, type SmallSchool, smallSchool, today, wall } from '~/tests/database/small-school';
import { textOfPdf } from '~/tests/examples/pdf-text';
import { Busy, NotFound } from '../../platform/failures';
import { recordSession } from '../record';
import { addEvidence, prepareEvidence, withdrawEvidence } from './add';
import { evidenceFile, evidenceOf } from './list';

const fresh = freshDatabase();
let school: SmallSchool;
let entryId: string;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  entryId = randomUUID();
  const outcome = { data: { trials: ['independent'] }, reason: null };
  const session = { on: today, time: '09:00', observerId: school.manager, locationId: null };
  const entries = [{ id: entryId, goalId: school.goal, outcome, note: '' }];
  await recordSession(fresh.db, actorOf(school.manager), school.student, { ...session, entries }, { wall, now });
});

const photo = (width = 60, height = 40) =>
  sharp({ create: { width, height, channels: 3, background: 'teal' } })
    .jpeg()
    .withExif({ IFD0: { Make: 'A camera' }, IFD3: { GPSLatitude: '40/1 26/1 46/1', GPSLatitudeRef: 'N' } })
    .toBuffer();

/** A PNG that says it is huge, in a few bytes: the header is by the PNG specification, section 11.2.2. */
function bomb(side: number): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const length = Buffer.alloc(4);
    length.writeUInt32BE(data.length);
    const sum = Buffer.alloc(4);
    sum.writeUInt32BE(crc(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(side, 0);
  head.writeUInt32BE(side, 4);
  head.set([8, 0, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    signature,
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(1000))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** CRC-32 as PNG has it. */
function crc(bytes: Buffer): number {
  let sum = 0xffffffff;
  for (const byte of bytes) {
    sum ^= byte;
    for (let bit = 0; bit < 8; bit++) sum = sum & 1 ? (sum >>> 1) ^ 0xedb88320 : sum >>> 1;
  }
  return (sum ^ 0xffffffff) >>> 0;
}

/** A PDF of a page, with all that programs write of themselves into it. */
async function pdfSaying(text: string): Promise<Buffer> {
  const document = await PDFDocument.create();
  document.addPage().drawText(text);
  document.setAuthor('Somebody');
  document.setTitle('Scan of somebody');
  document.setProducer('Secret Scanner');
  const xmp = document.context.stream('<x:xmpmeta xmlns:x="adobe:ns:meta/">Somebody</x:xmpmeta>', { Type: 'Metadata' });
  document.catalog.set(PDFName.of('Metadata'), document.context.register(xmp));
  return Buffer.from(await document.save({ useObjectStreams: false }));
}

const add = async (content: Buffer, { id = randomUUID(), name = 'photo.jpg', person = school.manager } = {}) => {
  await addEvidence(fresh.db, actorOf(person), school.student, { id, entryId, name, content }, now);
  return id;
};
const refusal = (content: Buffer) =>
  prepareEvidence(content).then(
    () => null,
    (error) => error.fields?.file,
  );

describe('a photograph that comes along with what is recorded', () => {
  const withPhotographs = (contents: string[], entry = randomUUID()) => {
    const outcome = { data: { trials: ['independent'] }, reason: null };
    const session = { on: today, time: '09:30', observerId: school.manager, locationId: null };
    const photographs = contents.map((content) => ({ id: randomUUID(), content }));
    return { ...session, entries: [{ id: entry, goalId: school.goal, outcome, note: '', photographs }] };
  };
  const record = (input: ReturnType<typeof withPhotographs>) =>
    recordSession(fresh.db, actorOf(school.manager), school.student, input, { wall, now });

  it('stands beside its entry once, however often it is sent', async () => {
    const content = (await photo()).toString('base64');
    const input = withPhotographs([content, content]);
    await record(input);
    await record(input);
    const [entry] = input.entries;
    const listed = await evidenceOf(fresh.db, await accessTo(school.student), [entry!.id]);
    expect(listed[entry!.id]?.map(({ id }) => id).toSorted()).toEqual(
      entry!.photographs.map(({ id }) => id).toSorted(),
    );
  });

  it('is refused at its goal when it is no picture, and then nothing is written', async () => {
    const input = withPhotographs([Buffer.from('no picture').toString('base64')]);
    await expect(record(input)).rejects.toMatchObject({
      fields: { [entryField(school.goal)]: expect.stringContaining('no photograph') },
    });
    expect(await fresh.db('entries').where({ id: input.entries[0]!.id })).toEqual([]);
  });
});

describe('a file that is to stand beside an entry', () => {
  it('is told by its content, whatever it is called', async () => {
    expect(await refusal(Buffer.from('<script>alert(1)</script>'))).toContain('whatever its name says');
    expect(await refusal(Buffer.from('GIF89a and something'))).toContain('whatever its name says');
    expect(await refusal(Buffer.alloc(0))).toBe('This file is empty.');
    expect((await prepareEvidence(await pdfSaying('x'))).type).toBe('application/pdf');
  });

  it('may be neither too large, nor broken, nor a bomb', async () => {
    expect(await refusal(Buffer.alloc(LARGEST_FILE + 1))).toContain('larger than 15 MB');
    expect(await refusal((await photo()).subarray(0, 200))).toContain('broken');
    expect(await refusal(Buffer.from('%PDF-1.7\n%âãÏÓ\n1 0 obj'))).toContain('broken');
    const small = bomb(60_000);
    expect(small.length).toBeLessThan(1000);
    expect(await refusal(small)).toContain('too many dots');
  });

  it('is written anew: nothing of where and by what it was taken is left, and it is no larger than it need be', async () => {
    const before = await photo(3000, 1000);
    expect((await sharp(before).metadata()).exif).toBeDefined();
    const { content, thumbnail, width, height } = await prepareEvidence(before);
    for (const one of [content, thumbnail as Buffer]) expect((await sharp(one).metadata()).exif).toBeUndefined();
    expect([width, height]).toEqual([2400, 800]);
    expect((await sharp(thumbnail as Buffer).metadata()).width).toBe(320);
  });

  it('loses, of a PDF too, what it says of itself; what it shows stays', async () => {
    const before = await pdfSaying('Planed both edges');
    expect(before.toString('latin1')).toContain('Somebody');
    const { content } = await prepareEvidence(before);
    const kept = await PDFDocument.load(content, { updateMetadata: false });
    expect([kept.getAuthor(), kept.getTitle(), kept.getProducer(), kept.getCreationDate()]).toEqual(
      Array(4).fill(undefined),
    );
    expect(kept.catalog.get(PDFName.of('Metadata'))).toBeUndefined();
    expect(content.toString('latin1')).not.toMatch(/Somebody|Secret Scanner|xmpmeta/);
    expect((await textOfPdf(content)).pages.join(' ')).toContain('Planed both edges');
  });

  it('is no bomb as a PDF either: what is packed in it is unpacked with a bound', async () => {
    const packed = (megabytes: number, filter = '/FlateDecode', type = 'ObjStm') => {
      const stream = deflateSync(Buffer.alloc(megabytes * 1024 * 1024, ' '));
      const head = `%PDF-1.7\n1 0 obj\n<</Type/${type}/N 1/First 4/Filter ${filter}/Length ${stream.length}>>\nstream\n`;
      return Buffer.concat([Buffer.from(head), stream, Buffer.from('\nendstream\nendobj\n')]);
    };
    expect(await refusal(packed(20))).toContain('broken');
    const bombs = [
      ...[packed(60), Buffer.concat([packed(30), packed(30)]), packed(1, '[/FlateDecode /FlateDecode]')],
      // A name may be written with numbers for letters (ISO 32000-1, 7.3.5), and a dictionary may be as long as it likes.
      ...[packed(60, '/Fl#61teDecode', 'Obj#53tm'), packed(60, `/FlateDecode/X(${'x'.repeat(6000)})`)],
      packed(60, '/FlateDecode/X( obj)'),
    ];
    for (const one of bombs) {
      expect(one.length).toBeLessThan(200_000);
      expect(await refusal(one)).toContain('packed too tightly');
    }
    expect(await refusal(Buffer.from(`%PDF-1.7\n${'1 0 obj<<>>endobj\n'.repeat(110_000)}`))).toContain(
      'packed too tightly',
    );
    // An honest one packs its objects too.
    const honest = await (await PDFDocument.load(await pdfSaying('Planed'))).save({ useObjectStreams: true });
    expect((await prepareEvidence(Buffer.from(honest))).type).toBe('application/pdf');
  });

  it('keeps nothing that acts, of a PDF: no script, no attached file, no link that starts a program', async () => {
    const document = await PDFDocument.create();
    const page = document.addPage();
    page.drawText('Planed both edges');
    document.addJavaScript('greet', 'app.alert("Hello")');
    await document.attach(Buffer.from('MZ'), 'run.exe', { mimeType: 'application/octet-stream' });
    const { context } = document;
    const script = context.register(context.obj({ S: 'JavaScript', JS: PDFString.of('app.alert(1)') }));
    document.catalog.set(PDFName.of('OpenAction'), script);
    const link = (action: PDFObject) =>
      context.register(
        context.obj({ Type: 'Annot', Subtype: 'Link', Rect: [0, 0, 100, 100], Border: [0, 0, 0], A: action }),
      );
    const file = context.obj({ Type: 'Filespec', F: PDFString.of('run.exe') });
    const launch = context.obj({ S: 'Launch', F: file, Next: [script] });
    const address = (uri: string, more = {}) => context.obj({ S: 'URI', URI: PDFString.of(uri), ...more });
    const attached = context.obj({ Type: 'Annot', Subtype: 'FileAttachment', Rect: [0, 0, 9, 9], FS: file });
    page.node.set(
      PDFName.of('Annots'),
      context.obj([
        link(launch),
        link(address('https://school.example/')),
        link(address('javascript:alert(1)')),
        link(address('https://school.example/next', { Next: launch })),
        attached,
      ]),
    );
    page.node.set(PDFName.of('AA'), context.obj({ O: script }));
    // Whatever its names are written with.
    const bytes = Buffer.from(await document.save({ useObjectStreams: false }));
    const written = bytes
      .toString('latin1')
      .replaceAll('/Launch', '/L#61unch')
      .replaceAll('/JavaScript', '/Java#53cript');
    for (const before of [bytes, Buffer.from(await document.save()), Buffer.from(written, 'latin1')]) {
      const { content } = await prepareEvidence(before);
      // As a reader of its own sees it (Mozilla's pdf.js).
      const seen = await getDocument({ data: new Uint8Array(content), verbosity: 0 }).promise;
      expect(await seen.getJSActions()).toBeNull();
      expect(await seen.getAttachments()).toBeNull();
      expect(await seen.getOpenAction()).toBeNull();
      const annotations = await (await seen.getPage(1)).getAnnotations();
      expect(annotations.map(({ url, unsafeUrl }) => url ?? unsafeUrl ?? null)).toEqual([
        ...[null, 'https://school.example/', null, 'https://school.example/next'],
      ]);
      expect((await textOfPdf(content)).pages.join(' ')).toContain('Planed both edges');
      const parsed = await PDFDocument.load(content);
      const said = parsed.context.enumerateIndirectObjects().map(([, object]) => object.toString());
      expect(said.join(' ')).not.toMatch(/JavaScript|Launch|EmbeddedFile|run\.exe|\/JS\b|FileAttachment/);
    }
  });

  it('is a picture where it comes from a device or a desk', async () => {
    const before = await pdfSaying('x');
    await expect(prepareEvidence(before, { takes: 'pictures' })).rejects.toMatchObject({
      fields: { file: expect.stringContaining('This is a PDF') },
    });
    expect((await prepareEvidence(await photo(), { takes: 'pictures' })).type).toBe('image/jpeg');
  });

  it('is taken apart one after the other: many at once are done in turn, or told to come again', async () => {
    const large = await sharp({ create: { width: 6000, height: 4000, channels: 3, background: 'teal' } })
      .png()
      .toBuffer();
    await prepareEvidence(large);
    const before = process.memoryUsage.rss();
    let most = 0;
    const watch = setInterval(() => {
      most = Math.max(most, process.memoryUsage.rss() - before);
    }, 5);
    await Promise.all(Array.from({ length: 6 }, () => prepareEvidence(large)));
    clearInterval(watch);
    // Six at once would unpack 430 MB.
    expect(most).toBeLessThan(250 * 1024 * 1024);
    const small = await photo();
    const all = await Promise.allSettled(Array.from({ length: 40 }, () => prepareEvidence(small)));
    const busy = all.filter((one) => one.status === 'rejected' && one.reason instanceof Busy).length;
    expect(busy).toBeGreaterThan(10);
    expect(all.filter(({ status }) => status === 'fulfilled')).toHaveLength(40 - busy);
  });

  it('is there once, for whom may observe, and at an entry of this student', async () => {
    const content = await photo();
    const id = await add(content);
    await add(content, { id });
    expect((await evidenceOf(fresh.db, school.student, [entryId]))[entryId]).toMatchObject([
      { id, isPicture: true, width: 60 },
    ]);
    await expect(add(content, { person: school.stranger })).rejects.toThrow(NotFound);
    const elsewhere = { id: randomUUID(), entryId: randomUUID(), name: 'x', content };
    await expect(addEvidence(fresh.db, actorOf(school.manager), school.student, elsewhere, now)).rejects.toThrow(
      NotFound,
    );
    await expect(evidenceFile(fresh.db, accessTo(randomUUID()), id, { isThumbnail: false })).rejects.toThrow(NotFound);
    expect((await evidenceFile(fresh.db, school.student, id, { isThumbnail: true })).type).toBe('image/jpeg');
  });

  it('is taken out by whom added it, or the case manager, and stays written down', async () => {
    const id = await add(await photo(), { person: school.manager });
    const take = (person: string) => withdrawEvidence(fresh.db, actorOf(person), school.student, id, now);
    await expect(take(school.aide)).rejects.toThrow(NotFound);
    await take(school.manager);
    await expect(evidenceFile(fresh.db, school.student, id, { isThumbnail: false })).rejects.toThrow(NotFound);
    expect(await fresh.db('evidence').where({ id })).toHaveLength(1);
    await expect(fresh.db('evidence').delete()).rejects.toThrow('not removed');
  });

  it('has a size for reading', () => {
    expect([12, 2048, 2_400_000].map(fileSize)).toEqual(['12 B', '2 kB', '2.3 MB']);
  });
});
