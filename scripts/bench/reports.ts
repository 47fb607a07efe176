import { type ChildProcess, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import { askForReport, batchFile } from '~/server/documents/batches';
import { makeBatch } from '~/server/documents/make-batch';
import type { Database } from '~/server/platform/db/database';
import { schoolOf } from '~/server/school/school';
import { savePlan } from '~/server/students/plan';
import { accessTo, actorOf, addGoal, addStudent, type SmallSchool, schoolId } from '~/tests/database/small-school';
import { freePort } from '~/tests/e2e/beside';
import { server } from './ground';

/** What the measuring of pages offers: see `measure.ts`. */
interface Bench {
  db: Database;
  databaseUrl: string;
  school: SmallSchool;
  row: (goal: string, day: number) => Record<string, unknown>;
  get: (path: string) => () => Promise<void>;
  milliseconds: (work: () => Promise<unknown>) => Promise<number>;
  median: (times: number[]) => number;
}

const ENTRIES = 3000;
const CLASS = 30;
const GOALS_EACH = 4;
const ENTRIES_EACH = 60;
const MESSAGES = 1500;
const usual = { layout: 'table', grouping: 'none', oldestFirst: false } as const;
const round = (n: number) => Math.round(n * 100) / 100;
const plan = { startsOn: '2026-09-08', endsOn: '2027-06-11', periods: [{ label: 'Quarter 1', endsOn: '2026-12-04' }] };

async function start(file: string, env: Record<string, string>): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--import', 'tsx', file], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  await new Promise((resolve) => child.once('message', resolve));
  return child;
}

/** The most memory that a process and its children have held, in MB. */
function mostMemory(pid: number): number {
  const children = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean);
  const own = Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  return Math.max(own, ...children.map((child) => mostMemory(Number(child))));
}

/** From the entries to the file, as the worker makes it, again and again once what makes papers is loaded. */
async function runningReport({ db, school, milliseconds, median }: Bench, student: string): Promise<number> {
  const now = new Date('2026-11-24T15:30:00Z');
  const around = { school: await schoolOf(db, schoolId), now };
  const actor = actorOf(school.manager);
  const make = async (to: string | null) => {
    const id = randomUUID();
    const access = accessTo(student);
    await askForReport(
      db,
      actor,
      { id: access, shortName: 'Cleo E.' },
      { id, from: null, to, arrangement: usual },
      now,
    );
    return milliseconds(() => makeBatch(db, id, around));
  };
  await make('2026-01-01');
  const times: number[] = [];
  for (let i = 0; i < 7; i++) times.push(await make(null));
  return median(times);
}

/** A report of three thousand entries, its files, the papers of a class, and a run of the post. */
export async function measureReports(bench: Bench) {
  const { db, databaseUrl, school, row, get, milliseconds, median } = bench;
  const student = await addStudent(db, 'Cleo', [[school.manager, 'caseManager']]);
  const goals: string[] = [];
  for (let i = 0; i < 5; i++) goals.push(await addGoal(db, student, String(i + 1)));
  const entries = Array.from({ length: ENTRIES }, (_, i) => ({
    ...row(goals[i % goals.length] as string, i),
    ...{ student_id: student, note: i % 3 ? '' : 'Came back to it after a break.' },
  }));
  await db.batchInsert('entries', entries, 500);
  await savePlan(db, actorOf(school.manager), student, plan, { newId: randomUUID(), now: new Date() });
  await db.raw('analyze');
  const of = `/students/${student}`;
  const times = { page: [] as number[], readsNothing: [] as number[] };
  for (let i = 0; i < 40; i++) for (const path of [`${of}/individual-report`, '/account']) await get(path)();
  for (let i = 0; i < 60; i++) {
    times.page.push(await milliseconds(get(`${of}/individual-report`)));
    times.readsNothing.push(await milliseconds(get('/account')));
  }
  // Once before, so that what makes papers is loaded.
  await get(`${of}/progress-report/2026-12-04/as/pdf`)();
  const pdf = await milliseconds(get(`${of}/progress-report/2026-12-04/as/pdf`));
  const runningPdf = await runningReport(bench, student);
  const page = {
    entries: ENTRIES,
    medianMs: round(median(times.page)),
    ratio: round(median(times.page) / median(times.readsNothing)),
    atMost: 3,
  };
  return {
    page,
    onePdf: { progressMs: round(pdf), medianOfReportOf3000EntriesMs: round(runningPdf), atMostMs: 2000 },
    ...(await inTheBackground(bench, { db, databaseUrl, school })),
  };
}

const ROWS = 10_000;

/** A student's entries as a spreadsheet, of which the first part is there long before the last. */
export async function spreadsheet({ db, school, row, get, milliseconds, median }: Bench) {
  const student = await addStudent(db, 'Enzo', [[school.manager, 'caseManager']]);
  const goals: string[] = [];
  for (let i = 0; i < 5; i++) goals.push(await addGoal(db, student, String(i + 1)));
  const entries = Array.from({ length: ROWS }, (_, i) => ({ ...row(goals[i % 5] as string, i), student_id: student }));
  await db.batchInsert('entries', entries, 500);
  await db.raw('analyze');
  const path = `/students/${student}/individual-report/as/xlsx`;
  const times: number[] = [];
  for (let i = 0; i < 7; i++) times.push(await milliseconds(get(path)));
  return {
    ...{ entries: ROWS, medianMs: round(median(times)), atMostMs: 3000 },
    mostMemoryMB: round(mostMemory(server.process.pid ?? 0)),
  };
}

async function inTheBackground(
  { row }: Bench,
  { db, databaseUrl, school }: Pick<Bench, 'db' | 'databaseUrl' | 'school'>,
) {
  const group = randomUUID();
  await db('class_groups').insert({ id: group, school_id: schoolId, name: 'A class', position: 0 });
  const manager = school.aide;
  const members: string[] = [];
  for (let i = 0; i < CLASS; i++) {
    const id = await addStudent(db, `Member${i}`, [[manager, 'caseManager']]);
    members.push(id);
    await db('student_groups').insert({ student_id: id, group_id: group, school_id: schoolId });
    await savePlan(db, actorOf(manager), id, plan, { newId: randomUUID(), now: new Date() });
    for (let g = 0; g < GOALS_EACH; g++) {
      const goal = await addGoal(db, id, String(g + 1));
      const rows = Array.from({ length: ENTRIES_EACH }, (_, n) => ({ ...row(goal, n), student_id: id }));
      await db.batchInsert('entries', rows, 500);
    }
  }
  const link = randomUUID();
  const madeAt = new Date('2026-11-24T15:00:00Z');
  await db('share_links').insert({
    ...{
      id: link,
      student_id: members[0] as string,
      reader_name: 'Aunt Ida',
      kind: 'family' as const,
      ends_on: '2027-06-11',
    },
    purpose: 'To follow their child’s progress',
    ...{ created_by: manager, created_at: madeAt },
  });
  const port = String(await freePort());
  const env = { DATABASE_URL: databaseUrl, TEST_MAIL_PORT: port, CLOCK: '2026-11-24T15:30:00-05:00' };
  const beside = [await start('test-mail/main.ts', env), await start('server/worker/main.ts', env)];
  const worker = beside[1]?.pid ?? 0;
  try {
    const letters = Array.from({ length: MESSAGES }, (_, i) => ({
      ...{
        id: randomUUID(),
        key: `bench:${i}`,
        kind: 'byHand' as const,
        student_id: members[0] as string,
        link_id: link,
      },
      ...{ to_name: 'Aunt Ida', to_email: `ida${i}@home.example`, own_subject: `Letter ${i}`, own_body: '{link}' },
      ...{ state: 'waiting', not_before: madeAt, made_at: madeAt },
    }));
    let began = performance.now();
    await db.batchInsert('messages', letters, 500);
    while (await db('messages').whereIn('state', ['waiting', 'sending']).first('id')) await pause(100);
    const postSeconds = (performance.now() - began) / 1000;
    const [arrived] = await db('test_mail_inbox').select<{ all: string; different: string }[]>(
      db.raw('count(*) as all, count(distinct subject) as different'),
    );

    const batch = randomUUID();
    began = performance.now();
    await db.transaction(async (trx) => {
      await trx('document_batches').insert({
        id: batch,
        school_id: schoolId,
        students: members.map((_, i) => `Member${i} E.`),
        label: 'A class',
        what: 'progress',
        made_by: manager,
        made_at: madeAt,
      });
      await trx('document_batch_parts').insert(
        members.map((id, position) => ({ batch_id: batch, student_id: id, position })),
      );
    });
    while (!(await db('document_batches').where({ id: batch, state: 'ready' }).first('id'))) await pause(100);
    // With the file itself, as it is fetched.
    await batchFile(db, actorOf(manager), batch, { school: await schoolOf(db, schoolId), now: madeAt });
    const batchSeconds = (performance.now() - began) / 1000;
    return {
      classOf30: {
        seconds: round(batchSeconds),
        atMostSeconds: 10,
        mostMemoryMB: round(mostMemory(worker)),
        atMostMB: 600,
      },
      post: {
        ...{ messages: MESSAGES, arrived: Number(arrived?.all), different: Number(arrived?.different) },
        ...{ seconds: round(postSeconds), atMostSeconds: 60 },
      },
    };
  } finally {
    for (const one of beside) one.kill('SIGKILL');
  }
}
