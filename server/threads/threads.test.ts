// What others made, and what takes long, holds up nobody: while each is worked on, the thread that answers goes on.
import { readFileSync } from 'node:fs';
import { deflateRawSync, deflateSync } from 'node:zlib';
import JSZip from 'jszip';
import { afterEach, beforeAll, expect, it } from 'vitest';
import type { ReportDocument } from '~/core/documents/document';
import { documentDocx } from '../documents/docx';
import { documentPdf } from '../documents/pdf';
import { prepareEvidence } from '../entries/evidence/add';
import { readFileContent } from '../imports/read-file';
import { Invalid } from '../platform/failures';
import { spreadsheet } from '../platform/spreadsheet';
import { closuresIn } from '../school/closures-file';
import { briefOf } from '../student-record/archive';

/** How long the calling thread has worked, in milliseconds: what else the machine does is not in it. */
const worked = () => Number(readFileSync('/proc/thread-self/schedstat', 'utf8').split(' ')[0]) / 1e6;

const SHORT = 100;

/**
 * The longest that this thread worked without answering anybody while something was done, in milliseconds. What is long is done once
 * more: what clears away the large things that a test has made may fall into it, and does not do so twice.
 */
async function heldUp(work: () => Promise<unknown>): Promise<number> {
  const first = await heldUpOnce(work);
  return first < SHORT ? first : Math.min(first, await heldUpOnce(work));
}

async function heldUpOnce(work: () => Promise<unknown>): Promise<number> {
  let [longest, before] = [0, worked()];
  const look = () => {
    const now = worked();
    longest = Math.max(longest, now - before);
    before = now;
  };
  const watch = setInterval(look, 2);
  await work();
  look();
  clearInterval(watch);
  return longest;
}

const refused = (work: Promise<unknown>) =>
  work.then(
    () => 'taken',
    (error) => error.fields?.file ?? error.message,
  );

it('a thread that works for itself is found out by this very measure', async () => {
  const busy = async () => {
    for (const end = worked() + 2 * SHORT; worked() < end; );
  };
  expect(await heldUp(busy)).toBeGreaterThan(SHORT);
});

/** Each in a thread once before, which loads what it needs. */
beforeAll(async () => {
  await documentPdf(report(1), 'letter');
  await documentDocx(report(1), 'letter');
  await spreadsheet([{ name: 'x', fields: ['a'], rows: [['b']] }]);
});
let text = '';
afterEach(() => {
  text = '';
});

const report = (rows: number): ReportDocument => ({
  ...{ title: 'A report', head: 'A. · report' },
  blocks: [
    { kind: 'heading', level: 1, text: 'A.' },
    {
      ...{ kind: 'table', columns: ['Day', 'Of', 'What was seen'], widths: ['auto', 'auto', 'wide'] },
      rows: Array.from({ length: rows }, (_, i) => [`Nov ${i}`, 'Plants a row', `4 of 5 alone, on the ${i}th day`]),
    },
  ],
});

it('a PDF that packs its objects under another spelling of their name', async () => {
  const stream = deflateSync(Buffer.alloc(300 * 1024 * 1024, '[ '));
  const head = `%PDF-1.7\n1 0 obj\n<</Type/Obj#53tm/N 1/First 4/Filter/FlateDecode/Length ${stream.length}>>\nstream\n`;
  const bomb = Buffer.concat([Buffer.from(head), stream, Buffer.from('\nendstream\nendobj\n')]);
  expect(bomb.length).toBeLessThan(1024 * 1024);
  expect(
    await heldUp(async () => {
      text = await refused(prepareEvidence(bomb));
    }),
  ).toBeLessThan(SHORT);
  expect(text).toContain('packed too tightly');
});

it('a record of sixty megabytes of JSON in as many kilobytes, and one of brackets within brackets', async () => {
  const archive = async (json: string) => {
    const zip = new JSZip();
    zip.file('record.json', json, { compression: 'DEFLATE' });
    return zip.generateAsync({ type: 'nodebuffer' });
  };
  const head = '{"format":"gentle-margin student record","version":1,"people":';
  const large = await archive(`${head}[${'{},'.repeat(20_000_000)}{}]}`);
  expect(large.length).toBeLessThan(200_000);
  const deep = await archive(`${head}${'['.repeat(5_000_000)}${']'.repeat(5_000_000)}}`);
  for (const one of [large, deep]) {
    expect(
      await heldUp(async () => {
        text = await refused(briefOf(one));
      }),
    ).toBeLessThan(SHORT);
    expect(text).toMatch(/longer than any|no JSON/);
  }
});

it('a calendar of four thousand events that repeat', async () => {
  const event = (n: number) =>
    `BEGIN:VEVENT\r\nUID:${n}\r\nSUMMARY:Day ${n}\r\nDTSTART;VALUE=DATE:19900101\r\nRRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=29\r\nEND:VEVENT\r\n`;
  const calendar = `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n${Array.from({ length: 4000 }, (_, n) => event(n)).join('')}END:VCALENDAR\r\n`;
  expect(
    await heldUp(async () => {
      text = await refused(closuresIn(Buffer.from(calendar), '2026-11-24'));
    }),
  ).toBeLessThan(SHORT);
  expect(text).toMatch(/too long|no calendar/);
});

it('a table of twenty thousand rows', async () => {
  const csv = `Student,Date,Score\n${'Ada Abbott,2026-11-24,4/5\n'.repeat(20_000)}`;
  expect(await heldUp(() => readFileContent('x.csv', Buffer.from(csv), '2026-11-24').catch(() => {}))).toBeLessThan(
    SHORT,
  );
});

it('a spreadsheet that is damaged, and an archive that lies about its size', async () => {
  const zip = new JSZip();
  zip.file('users.csv', 'x'.repeat(1000));
  const honest = await zip.generateAsync({ type: 'nodebuffer', compression: 'DEFLATE' });
  const lie = Buffer.from(honest);
  // The size that it says of itself, in the central directory (APPNOTE 4.3.12).
  lie.writeUInt32LE(5, lie.indexOf('PK\x01\x02') + 24);
  for (const bytes of [lie, Buffer.concat([Buffer.from('PK\x03\x04'), deflateRawSync(Buffer.alloc(1e6))])]) {
    expect(
      await heldUp(async () => {
        text = await refused(readFileContent('x.zip', bytes, '2026-11-24'));
      }),
    ).toBeLessThan(SHORT);
    expect(text).toContain('damaged');
  }
});

it('eleven thousand entries as a text document, as a PDF and as a spreadsheet', async () => {
  const long = report(11_000);
  const table = { name: 'Entries', fields: ['day', 'of', 'seen'], rows: Array(11_000).fill(['Nov 1', 'Row', 'Seen']) };
  for (const make of [
    () => documentDocx(long, 'letter'),
    () => documentPdf(long, 'letter'),
    () => spreadsheet([table]),
  ]) {
    expect(await heldUp(make)).toBeLessThan(3 * SHORT);
  }
});

it('what is wrong with what it was given comes back as such, from a thread too', async () => {
  await expect(prepareEvidence(Buffer.from('no picture'))).rejects.toThrow(Invalid);
});
