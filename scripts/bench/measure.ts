import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import pg from 'pg';
import { patternsAcross } from '~/core/behavior/patterns';
import { schoolDays } from '~/core/calendar/school-days';
import { incidentsAcross } from '~/server/behavior/behavior';
import { connect } from '~/server/platform/db/database';
import { migrate } from '~/server/platform/db/migrate';
import type { StudentAccess } from '~/server/students/access';
import { dropDatabase, makeDatabase, newName, urlOf } from '~/tests/database/databases';
import { follow } from '~/tests/database/followed';
import { addGoal, addPerson, addStudent, schoolId, smallSchool } from '~/tests/database/small-school';
import { startServer } from '~/tests/e2e/server';
import { measureCore } from './core';
import { caseload, cookieOf, pagesASecond } from './load';
import { measureReports } from './reports';
import { measureTaps } from './taps';

const GOALS = 10;
const OBSERVATIONS = 2000;

const name = newName('bench');
await makeDatabase(name);
const db = connect(urlOf(name));
await migrate(urlOf(name));
const school = await smallSchool(db);
const goals = [school.goal];
while (goals.length < GOALS) goals.push(await addGoal(db, school.student, String(goals.length + 1)));
const trials = () => Array.from({ length: 6 }, () => (Math.random() < 0.6 ? 'independent' : 'incorrect'));
const row = (goal: string, day: number) => ({
  id: randomUUID(),
  kind: 'goal',
  measure_version: 1,
  goal_id: goal,
  student_id: school.student,
  observed_on: new Date(Date.UTC(2026, 8, 8) + (day % 75) * 86_400_000).toISOString().slice(0, 10),
  observed_time: '09:30',
  observer_id: school.manager,
  location_id: school.kitchen,
  data: JSON.stringify({ trials: trials() }),
  reason: null,
  note: '',
  recorded_by: school.manager,
  recorded_at: new Date(),
});
await db.batchInsert(
  'entries',
  Array.from({ length: OBSERVATIONS }, (_, i) => row(goals[i % GOALS] as string, i)),
  500,
);
await db.raw('analyze');

const started = new Date('2026-11-24T15:30:00-05:00').toISOString();
const server = await startServer({
  DATABASE_URL: urlOf(name),
  LOG_LEVEL: 'warn',
  CLOCK: started,
});
const cookie = await cookieOf(db, school.manager);
const agent = new Agent({ keepAlive: true, maxSockets: 4 });

interface Answer {
  status: number;
  body: Buffer;
}

interface Asked {
  body?: string;
  encoding?: string;
  /** As somebody else, or of another server. */
  as?: string;
  of?: string;
}

/** One request over a kept connection, its body as it travelled. */
function ask(path: string, { body, encoding, as = cookie, of = server.url }: Asked = {}): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const headers: Record<string, string> = { cookie: as };
    if (encoding) headers['accept-encoding'] = encoding;
    if (body)
      Object.assign(headers, {
        origin: of,
        'content-type': 'application/json',
        'content-length': String(Buffer.byteLength(body)),
      });
    const sent = request(of + path, { method: body ? 'POST' : 'GET', agent, headers }, (answer) => {
      const parts: Buffer[] = [];
      answer.on('data', (part) => parts.push(part));
      answer.on('end', () => resolve({ status: answer.statusCode ?? 0, body: Buffer.concat(parts) }));
    });
    sent.on('error', reject);
    sent.end(body);
  });
}

async function milliseconds(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

const at = (times: number[], share: number) =>
  times.toSorted((a, b) => a - b)[Math.floor(share * (times.length - 1))] as number;
const summary = (times: number[]) => ({ medianMs: round(at(times, 0.5)), p95Ms: round(at(times, 0.95)) });
const round = (n: number) => Math.round(n * 100) / 100;

const page = `/students/${school.student}`;

/** The same row saved bare by `pg`, and over HTTP with all that comes with it; in turns, so that both see the same machine. */
async function saving() {
  const bare = new pg.Client({ connectionString: urlOf(name) });
  await bare.connect();
  await bare.query('set role gentle_margin_app');
  const insert = async () => {
    const values = row(school.goal, 3);
    await bare.query('begin');
    await bare.query(`select set_config('app.person', $1, true), set_config('app.today', '2026-11-24', true)`, [
      school.manager,
    ]);
    const columns = Object.keys(values);
    const slots = columns.map((_, i) => `$${i + 1}`).join(', ');
    await bare.query(
      `insert into entries (${columns.join(', ')}) values (${slots}) returning *`,
      Object.values(values),
    );
    await bare.query('commit');
  };
  const save = async () => {
    const entry = {
      id: randomUUID(),
      goalId: school.goal,
      outcome: { data: { trials: trials() }, reason: null },
      note: '',
    };
    const when = { on: '2026-11-24', time: '09:30', observerId: school.manager, locationId: school.kitchen };
    const session = { ...when, entries: [entry] };
    const { status } = await ask(`${page}/sessions`, { body: JSON.stringify({ personId: school.manager, session }) });
    if (status !== 200) throw new Error(`Saving answered ${status}.`);
  };
  const times = { bare: [] as number[], save: [] as number[] };
  for (let i = 0; i < 40; i++) await Promise.all([await insert(), await save()]);
  for (let i = 0; i < 400; i++) {
    times.bare.push(await milliseconds(insert));
    times.save.push(await milliseconds(save));
  }
  await bare.end();
  return {
    bareInsert: summary(times.bare),
    saveOverHttp: summary(times.save),
    ratio: round(at(times.save, 0.5) / at(times.bare, 0.5)),
    atMost: 5,
  };
}

const get = (path: string) => async () => {
  const { status } = await ask(path);
  if (status >= 400) throw new Error(`${path} answered ${status}.`);
};

async function studentPage() {
  const times = { page: [] as number[], readsNothing: [] as number[], bareRoute: [] as number[] };
  // A server that has been up for a while: its code is compiled, its connections are open, its plans are kept.
  for (let i = 0; i < 300; i++) for (const path of [page, '/account', '/sign-out']) await get(path)();
  for (let i = 0; i < 200; i++) {
    times.page.push(await milliseconds(get(page)));
    times.readsNothing.push(await milliseconds(get('/account')));
    times.bareRoute.push(await milliseconds(get('/sign-out')));
  }
  const counted = await db('entries').count().first();
  return {
    goals: GOALS,
    observations: Number(counted?.count),
    page: summary(times.page),
    signedInPageThatReadsNothing: summary(times.readsNothing),
    ratio: round(at(times.page, 0.5) / at(times.readsNothing, 0.5)),
    atMost: 3,
    signedInRedirect: summary(times.bareRoute),
  };
}

const GOAL_ENTRIES = 1000;

/** A goal with a thousand entries beside a signed-in page that reads nothing. */
async function goalPage() {
  const student = await addStudent(db, 'Ben', [[school.manager, 'caseManager']]);
  const goal = await addGoal(db, student);
  const rows = Array.from({ length: GOAL_ENTRIES }, (_, i) => ({ ...row(goal, i), student_id: student }));
  await db.batchInsert('entries', rows, 500);
  await db.raw('analyze');
  const path = `/students/${student}/goals/${goal}`;
  const times = { page: [] as number[], readsNothing: [] as number[] };
  for (let i = 0; i < 40; i++) for (const one of [path, '/account']) await get(one)();
  for (let i = 0; i < 60; i++) {
    times.page.push(await milliseconds(get(path)));
    times.readsNothing.push(await milliseconds(get('/account')));
  }
  const ratio = round(at(times.page, 0.5) / at(times.readsNothing, 0.5));
  return { entries: GOAL_ENTRIES, page: summary(times.page), ratio, atMost: 4 };
}

/** A behavior page with thousands of notes, a filter changed on it, and patterns over many students. */
async function behavior() {
  const { id } = await follow(db, school);
  const choices = { behaviors: ['Leaves', 'Shouts'], antecedents: ['Noise', 'Waiting'], consequences: ['A break'] };
  const ids = Object.fromEntries(Object.entries(choices).map(([list, names]) => [list, names.map(id)]));
  const pick = (list: readonly unknown[] | undefined, i: number) => list?.[i % list.length];
  const note = (student: string, i: number) => ({
    ...{
      id: randomUUID(),
      student_id: student,
      observed_on: row(school.goal, i).observed_on,
      is_going: false,
      note: '',
    },
    observed_time: `${String(9 + (i % 6)).padStart(2, '0')}:${String((i * 7) % 60).padStart(2, '0')}`,
    ...{ observer_id: school.manager, recorded_by: school.manager, recorded_at: new Date() },
    ...{ kind: 'incident', seconds: 30 + (i % 200) },
  });
  const choicesOf = (
    { id: entry_id, student_id }: { id: string; student_id: string },
    i: number,
  ): Record<string, unknown>[] => {
    const row = { entry_id, student_id, version: 1, position: 1 };
    return [
      { ...row, facet: 'behavior', target_id: pick(ids.behaviors, i), option_id: null },
      { ...row, facet: 'antecedent', target_id: null, option_id: pick(ids.antecedents, i >> 1) },
      { ...row, facet: 'consequence', target_id: null, option_id: pick(ids.consequences, 0) },
      { ...row, facet: 'location', target_id: null, option_id: id('Kitchen') },
    ];
  };
  const notes = (student: string, n: number) => Array.from({ length: n }, (_, i) => note(student, i));
  const all = notes(school.student, BEHAVIOR_NOTES);
  await db.transaction(async (trx) => {
    await trx.batchInsert('entries', all, 500);
    await trx.batchInsert('incident_choices', all.flatMap(choicesOf), 1000);
  });
  await db.raw('analyze');
  const path = `${page}/behavior`;
  const filters = ['from=2026-09-08', 'from=2026-10-01', `behavior=${id('Shouts')}`, `observer=${school.manager}`];
  const times = { page: [] as number[], readsNothing: [] as number[], filter: [] as number[] };
  for (let i = 0; i < 60; i++) for (const one of [path, '/account']) await get(one)();
  for (let i = 0; i < 60; i++) {
    times.page.push(await milliseconds(get(path)));
    times.readsNothing.push(await milliseconds(get('/account')));
    times.filter.push(await milliseconds(get(`${path}.data?${filters[i % filters.length]}`)));
  }
  return {
    notes: BEHAVIOR_NOTES,
    page: summary(times.page),
    ratio: round(at(times.page, 0.5) / at(times.readsNothing, 0.5)),
    atMost: 4,
    filter: { ...summary(times.filter), atMostMs: 100 },
    patterns: await patterns(note),
  };
}

const BEHAVIOR_NOTES = 5000;
const PATTERN_STUDENTS = 200;

/** Patterns over 200 students, as their notes become more: the cost should grow in line with them. */
async function patterns(note: (student: string, i: number) => { id: string; student_id: string }) {
  const manager = await addPerson(db, 'patterns');
  const students: StudentAccess<'see'>[] = [];
  for (let i = 0; i < PATTERN_STUDENTS; i++) students.push(await addStudent(db, `S${i}`, [[manager, 'caseManager']]));
  await db.raw(
    `insert into behavior_targets (id, school_id, student_id, name, position)
     select s, :schoolId, s, 'Leaves', 0 from unnest(cast(:students as uuid[])) s`,
    { schoolId, students },
  );
  const options = new Map(
    students.map((student) => [student, ['Noise', 'Waiting', 'A break'].map(() => randomUUID())]),
  );
  await db.batchInsert(
    'behavior_options',
    [...options].flatMap(([student_id, ids]) =>
      ids.map((id, i) => ({
        ...{
          id,
          school_id: schoolId,
          student_id,
          facet: i < 2 ? 'antecedent' : 'consequence',
          label: `${i}`,
          position: i,
        },
      })),
    ),
    500,
  );
  const results: object[] = [];
  let each = 0;
  for (const wanted of [50, 250, 1000]) {
    for (const student of students) {
      const more = Array.from({ length: wanted - each }, (_, i) => note(student, each + i));
      // Each student’s one behavior has the student’s own id.
      const [noise, waiting, pause] = options.get(student) ?? [];
      const named = more.flatMap(({ id: entry_id, student_id }, i): Record<string, unknown>[] => {
        const one = { entry_id, student_id, version: 1, position: 1 };
        return [
          { ...one, facet: 'behavior', target_id: student, option_id: null },
          { ...one, facet: 'antecedent', target_id: null, option_id: i % 2 ? noise : waiting },
          { ...one, facet: 'consequence', target_id: null, option_id: pause },
        ];
      });
      await db.transaction(async (trx) => {
        await trx.batchInsert('entries', more, 500);
        await trx.batchInsert('incident_choices', named, 1000);
      });
    }
    each = wanted;
    await db.raw('analyze entries, incident_choices');
    const firstMs = round(await milliseconds(() => computePatterns({ students, from: '2026-08-31' })));
    const times: number[] = [];
    for (let i = 0; i < 7; i++) times.push(await milliseconds(() => computePatterns({ students, from: '2026-08-31' })));
    const notes = each * PATTERN_STUDENTS;
    const medianMs = round(at(times, 0.5));
    // The first reads all notes; the others only ask whether there are new ones.
    results.push({ notes, firstMs, firstMsPerThousand: round((1000 * firstMs) / notes), medianMs });
  }
  return { students: PATTERN_STUDENTS, results, atMostMsAt50000: 600 };
}

async function computePatterns({ students, from }: { students: StudentAccess<'see'>[]; from: string }) {
  const notes = await incidentsAcross(db, students, { discreet: false });
  const days = schoolDays(from, '2026-11-24', { weekdays: [1, 2, 3, 4, 5], closures: [] });
  return patternsAcross(notes, days, { recentDays: 20 });
}

const TABLE_ROWS = 100;

/** A table of a hundred rows, saved in one transaction. */
async function tableSave() {
  const times: number[] = [];
  for (let i = 0; i < 10; i++) {
    const rows = Array.from({ length: TABLE_ROWS }, () => ({
      ...{ id: randomUUID(), on: '2026-11-20', time: '09:30', note: '' },
      outcome: { data: { trials: trials() }, reason: null },
    }));
    const body = JSON.stringify({ goalVersion: 1, observerId: school.manager, locationId: school.kitchen, rows });
    const save = async () => {
      const { status } = await ask(`${page}/goals/${school.goal}/table.data`, { body });
      if (status >= 400) throw new Error(`The table answered ${status}.`);
    };
    times.push(await milliseconds(save));
  }
  return { rows: TABLE_ROWS, ...summary(times), atMostMs: 1000 };
}

/** Compressed bytes of all scripts that the first load of the student's page asks for. */
async function firstLoad() {
  const html = (await ask(page)).body.toString();
  const scripts = [...new Set(html.match(/\/assets\/[\w.-]+\.js/g))];
  const sizes = await Promise.all(scripts.map(async (path) => (await ask(path, { encoding: 'gzip' })).body.length));
  const holdsChart = scripts.some((path) => /chartjs|CategoryScale/.test(readFileSync(`build/client${path}`, 'utf8')));
  return {
    scripts: scripts.length,
    kilobytes: round(sizes.reduce((a, b) => a + b, 0) / 1000),
    atMost: 170,
    holdsChart,
  };
}

/** Today and Students of a usual caseload, beside a signed-in page that reads nothing. */
async function lists(as: string) {
  const paths = ['/', '/students', '/account'];
  const times = new Map<string, number[]>(paths.map((path) => [path, []]));
  for (let i = 0; i < 40; i++) for (const path of paths) await ask(path, { as });
  for (let i = 0; i < 80; i++) {
    for (const path of paths) times.get(path)?.push(await milliseconds(() => ask(path, { as })));
  }
  const median = (path: string) => at(times.get(path) ?? [], 0.5);
  const ratio = (path: string) => round(median(path) / median('/account'));
  return { today: { ratio: ratio('/'), ms: round(median('/')) }, students: { ratio: ratio('/students') }, atMost: 3 };
}

/** The same page and the same save of a server that leaves the guarding of rows to the program. */
async function rowSecurity() {
  const open = await startServer({ DATABASE_URL: urlOf(name), LOG_LEVEL: 'warn', CLOCK: started, ROW_SECURITY: 'off' });
  try {
    const save = async (of: string) => {
      const entry = {
        id: randomUUID(),
        goalId: school.goal,
        outcome: { data: { trials: trials() }, reason: null },
        note: '',
      };
      const when = { on: '2026-11-24', time: '09:30', observerId: school.manager, locationId: school.kitchen };
      const body = JSON.stringify({ personId: school.manager, session: { ...when, entries: [entry] } });
      const { status } = await ask(`${page}/sessions`, { body, of });
      if (status !== 200) throw new Error(`Saving answered ${status}.`);
    };
    const times = { page: [[], []], save: [[], []] } as Record<'page' | 'save', [number[], number[]]>;
    for (let i = 0; i < 150; i++) {
      for (const [which, of] of [server.url, open.url].entries()) {
        const list = (what: 'page' | 'save') => times[what][which as 0 | 1];
        const [load, write] = [await milliseconds(() => ask(page, { of })), await milliseconds(() => save(of))];
        if (i >= 50) {
          list('page').push(load);
          list('save').push(write);
        }
      }
    }
    const ratio = ([guarded, without]: [number[], number[]]) => round(at(guarded, 0.5) / at(without, 0.5));
    return { page: { ratio: ratio(times.page), atMost: 1.25 }, save: { ratio: ratio(times.save) } };
  } finally {
    await open.stop();
  }
}

async function memory() {
  const resident = () =>
    Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.process.pid}/status`, 'utf8'))?.[1]) / 1024;
  let done = 0;
  const upTo = async (n: number) => {
    for (; done < n; done += 4) await Promise.all([page, '/account', '/finder', '/health'].map((path) => ask(path)));
  };
  await upTo(500);
  const after500 = resident();
  await upTo(5000);
  const after5000 = resident();
  return {
    after500MB: round(after500),
    after5000MB: round(after5000),
    ratio: round(after5000 / after500),
    atMost: 1.5,
  };
}

try {
  const manager = await caseload(db, row);
  await db.raw('analyze');
  const theirs = await cookieOf(db, manager);
  const result = {
    lists: await lists(theirs),
    studentPage: await studentPage(),
    firstLoad: await firstLoad(),
    saving: await saving(),
    goalPage: await goalPage(),
    tableSave: await tableSave(),
    behavior: await behavior(),
    reports: await measureReports({
      ...{ db, databaseUrl: urlOf(name), school, row, get, milliseconds },
      median: (times) => at(times, 0.5),
    }),
    taps: await measureTaps(server.url, cookie, `${page}/observe`),
    secondStartSeconds: { measured: Number(process.env.SECOND_START), atMost: 10 },
    rowSecurity: await rowSecurity(),
    pagesASecondOfOneProcess: [
      await pagesASecond(server.url, page, cookie, 100),
      await pagesASecond(server.url, '/students', theirs, 60),
      await pagesASecond(server.url, '/', theirs, 60),
    ],
    memory: await memory(),
    core: measureCore(),
  };
  console.log(JSON.stringify(result, null, 2));
} finally {
  agent.destroy();
  await server.stop();
  await db.destroy();
  await dropDatabase(name);
}
