import { randomUUID } from 'node:crypto';
import JSZip from 'jszip';
import { PDFDocument } from 'pdf-lib';
import { beforeAll, describe, expect, it } from 'vitest';
import type { BatchWanted } from '~/core/documents/batch-input';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addGoal,
  addStudent,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { textOfPdf } from '~/tests/examples/pdf-text';
import { recordSession } from '../entries/record';
import { NotFound } from '../platform/failures';
import { type School, schoolOf } from '../school/school';
import { savePlan } from '../students/plan';
import { tidyUp } from '../worker/tidy-up';
import { askForBatch, askForReport, batchesOf, batchFile, openBatches } from './batches';
import { makeBatch } from './make-batch';

const fresh = freshDatabase();
let school: SmallSchool;
let theSchoolOfIt: School;
const plan = { startsOn: '2026-09-08', endsOn: '2027-06-11', periods: [{ label: 'Quarter 1', endsOn: '2026-12-04' }] };
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  theSchoolOfIt = await schoolOf(fresh.db, schoolId);
  await savePlan(fresh.db, actorOf(school.manager), school.student, plan, { newId: randomUUID(), now });
  for (const on of ['2026-10-01', '2026-10-08', '2026-11-12']) await observe(on);
});

async function observe(on: string) {
  const outcome = { data: { trials: ['independent', 'independent', 'incorrect'] }, reason: null };
  const session = { on, time: '09:00', observerId: school.manager, locationId: null };
  const entries = [{ id: randomUUID(), goalId: school.goal, outcome, note: '' }];
  await recordSession(fresh.db, actorOf(school.manager), school.student, { ...session, entries }, { wall, now });
}

/** What is asked for unless it is said otherwise. */
const usual: Omit<BatchWanted, 'id' | 'students'> = {
  what: 'running',
  length: 'full',
  areas: [],
  goals: [],
  order: 'group',
  as: 'one',
};

describe('the papers of several students', () => {
  it('are one file, each on pages of their own; half made, it is gone on with', async () => {
    const other = await addStudent(fresh.db, 'Ben', [[school.manager, 'caseManager']]);
    const id = randomUUID();
    const around = { school: theSchoolOfIt, now };
    const mine = async () => (await batchFile(fresh.db, actorOf(school.manager), id, around)).content;
    const wanted = { ...usual, id, students: [school.student, other], what: 'progress' as const };
    await askForBatch(fresh.db, actorOf(school.manager), wanted, now);
    await expect(mine()).rejects.toThrow(NotFound);
    await makeBatch(fresh.db, id, around);
    const pages = (await PDFDocument.load(await mine())).getPageCount();
    // As if the worker had died after the first document.
    await fresh.db('document_batches').where({ id }).update({ state: 'making' });
    await fresh
      .db('document_batch_parts')
      .where({ batch_id: id, student_id: other })
      .update({ document: null, pages: null });
    const [kept] = await fresh
      .db('document_batch_parts')
      .where({ batch_id: id })
      .whereNotNull('document')
      .select('document');
    await makeBatch(fresh.db, id, around);
    const again = await fresh
      .db('document_batch_parts')
      .where({ batch_id: id, student_id: school.student })
      .first('document');
    expect(again!.document).toEqual(kept!.document);
    expect((await PDFDocument.load(await mine())).getPageCount()).toBe(pages);
    expect(await batchesOf(fresh.db, actorOf(school.manager))).toMatchObject([
      { state: 'ready', done: 2, of: 2, pages },
    ]);
    await expect(batchFile(fresh.db, actorOf(school.aide), id, around)).rejects.toThrow(NotFound);

    // Handed out, it stands in the access log; who is no longer theirs is left out, and named.
    const exported = () => fresh.db('access_log').where({ how: 'exported', student_id: other });
    const before = (await exported()).length;
    await fresh.db('team_members').where({ student_id: other }).update({ until_date: '2026-11-01' });
    const text = (await textOfPdf(await mine())).pages.join('\n');
    expect(text).toContain('Not in this file');
    expect(text).toContain('Ben E.');
    expect(await exported()).toHaveLength(before);
    expect(before).toBe(2);
    await fresh.db('team_members').where({ student_id: other }).update({ until_date: null });

    // After two weeks it is cleared.
    await tidyUp(fresh.db, new Date(now.getTime() + 15 * 24 * 3_600_000));
    expect(await batchesOf(fresh.db, actorOf(school.manager))).toMatchObject([{ state: 'over' }]);
    await expect(mine()).rejects.toThrow(NotFound);
    expect(await fresh.db('document_batch_parts').whereNotNull('document')).toEqual([]);
  });

  it('may be of one student and a stretch of days: the same file, asked for again, is made once', async () => {
    const id = randomUUID();
    const student = { id: school.student, shortName: 'Ada E.' };
    const arrangement = { layout: 'cards', grouping: 'goal', oldestFirst: true } as const;
    const wanted = { id, from: '2026-11-17', to: '2026-11-18', arrangement };
    for (const day of ['2026-11-17', '2026-11-18', '2026-11-19']) await observe(day);
    await askForReport(fresh.db, actorOf(school.manager), student, wanted, now);
    await askForReport(fresh.db, actorOf(school.manager), student, wanted, now);
    await makeBatch(fresh.db, id, { school: theSchoolOfIt, now });
    const batch = (await batchesOf(fresh.db, actorOf(school.manager))).find((one) => one.id === id);
    expect(batch).toMatchObject({ label: 'Ada E., Nov 17 to Nov 18', state: 'ready', done: 1, of: 1 });
    const text = (
      await textOfPdf((await batchFile(fresh.db, actorOf(school.manager), id, { school: theSchoolOfIt, now })).content)
    ).pages.join('\n');
    expect(text).toContain('Nov 18');
    expect(text).not.toContain('Nov 19');
    // As it was looked at: the oldest first, under its goal, and of which days.
    expect(text.indexOf('Nov 17', text.indexOf('Nov 18') + 1)).toBeLessThan(text.lastIndexOf('Nov 18'));
    expect(text).toContain('Nov 17 to Nov 18');
    const { what } = (await fresh.db('access_log').orderBy('id', 'desc').first('what'))!;
    expect(what).toBe('report (PDF)');
    await expect(batchFile(fresh.db, actorOf(school.aide), id, { school: theSchoolOfIt, now })).rejects.toThrow(
      NotFound,
    );
    await fresh.db('document_batch_parts').where({ batch_id: id }).delete();
    await fresh.db('document_batches').where({ id }).delete();
  });

  it('short are a page each, of the areas that were chosen; packed they are a file each', async () => {
    const id = randomUUID();
    const around = { school: theSchoolOfIt, now };
    await fresh.db('goals').where({ id: school.goal }).update({ area: 'Work' });
    const others: string[] = [];
    for (let n = 2; n <= 12; n++) others.push(await addGoal(fresh.db, school.student, String(n)));
    const students = [school.student];
    const short = { ...usual, id, students, length: 'short' as const, as: 'each' as const };
    await askForBatch(fresh.db, actorOf(school.manager), short, now);
    await makeBatch(fresh.db, id, around);
    const made = (await batchesOf(fresh.db, actorOf(school.manager))).find((one) => one.id === id);
    expect(made).toMatchObject({ state: 'ready', pages: 1, isShort: true, isPacked: true });
    const { content, type } = await batchFile(fresh.db, actorOf(school.manager), id, around);
    expect(type).toBe('zip');
    const zip = await JSZip.loadAsync(content);
    expect(Object.keys(zip.files)).toEqual(['1 Ada E in brief.pdf']);
    const page = await textOfPdf((await zip.file('1 Ada E in brief.pdf')?.async('uint8array')) ?? new Uint8Array());
    expect(page.pages).toHaveLength(1);
    expect(page.pages[0]).toContain('12 · Plants a row');

    const some = { ...short, id: randomUUID(), areas: ['Work'], as: 'one' as const };
    await askForBatch(fresh.db, actorOf(school.manager), some, now);
    await makeBatch(fresh.db, some.id, around);
    const file = await batchFile(fresh.db, actorOf(school.manager), some.id, around);
    const { pages } = await textOfPdf(file.content);
    expect(pages.join(' ')).not.toContain('12 · Plants');
    expect(pages.join(' ')).toContain('Where they stand');
    // A progress report of some areas says what it leaves out.
    const progress = { ...some, id: randomUUID(), what: 'progress' as const, length: 'full' as const };
    await askForBatch(fresh.db, actorOf(school.manager), progress, now);
    await makeBatch(fresh.db, progress.id, around);
    const whole = await textOfPdf((await batchFile(fresh.db, actorOf(school.manager), progress.id, around)).content);
    expect(whole.pages.join(' ')).toContain('Left out for this reader: other goals.');
    // A goal that was chosen by itself is in it, and no other.
    const single = { ...some, id: randomUUID(), areas: [], goals: [school.goal] };
    await askForBatch(fresh.db, actorOf(school.manager), single, now);
    await makeBatch(fresh.db, single.id, around);
    const alone = await textOfPdf((await batchFile(fresh.db, actorOf(school.manager), single.id, around)).content);
    expect(alone.pages.join(' ')).toMatch(/[^\d]1 · Plants a row/);
    expect(alone.pages.join(' ')).not.toContain('2 · Plants a row');
    const all = [id, some.id, progress.id, single.id];
    await fresh.db('document_batch_parts').whereIn('batch_id', all).delete();
    await fresh.db('document_batches').whereIn('id', all).delete();
    await fresh.db('goals').whereIn('id', others).update({ retired_on: today, retired_how: 'discontinued' });
  });

  it('that cannot be made are tried later and later, and have failed in words; a lost connection is no student left out', async () => {
    const id = randomUUID();
    await askForBatch(fresh.db, actorOf(school.manager), { ...usual, id, students: [school.student] }, now);
    const gone = Object.assign(new Error('Connection terminated unexpectedly'), { code: 'ECONNRESET' });
    const cut = new Proxy(fresh.db, {
      apply: (target, self, [table, ...rest]) => {
        if (table === 'document_batch_parts') throw gone;
        return Reflect.apply(target as never, self, [table, ...rest]);
      },
    });
    await expect(makeBatch(cut, id, { school: theSchoolOfIt, now })).rejects.toBe(gone);
    expect((await fresh.db('document_batches').where({ id }).first())!.attempts).toBe(0);

    const complaints: unknown[] = [];
    const broken = { ...theSchoolOfIt, timeZone: 'Nowhere/Here' };
    for (let tries = 1; tries <= 6; tries++) {
      await makeBatch(fresh.db, id, { school: broken, now, complain: (error) => complaints.push(error) });
      expect(await openBatches(fresh.db, now)).toEqual([]);
    }
    expect(complaints).toHaveLength(6);
    const batch = (await batchesOf(fresh.db, actorOf(school.manager))).find((one) => one.id === id);
    expect(batch).toMatchObject({ state: 'failed', problem: expect.stringContaining('after 6 tries'), leftOut: [] });
  });
});
