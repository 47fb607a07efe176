import { readFileSync } from 'node:fs';
import { addGoal, addStudent } from '~/tests/database/small-school';
import { ask, at, db, GOALS, get, milliseconds, page, round, row, school, server, summary } from './ground';

// What pages cost beside a signed-in page that reads nothing, what a first load takes, and what stays in memory.

export async function studentPage() {
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
export async function goalPage() {
  const student = await addStudent(db, 'Ben', [[school.manager, 'caseManager']]);
  const goal = await addGoal(db, student);
  const rows = Array.from({ length: GOAL_ENTRIES }, (_, i) => ({ ...row(goal, i), student_id: student }));
  await db.batchInsert('entries', rows, 500);
  await db.raw('analyze');
  const path = `/students/${student}/goals/${goal}`;
  const times = { page: [] as number[], readsNothing: [] as number[] };
  for (let i = 0; i < 150; i++) for (const one of [path, '/account']) await get(one)();
  for (let i = 0; i < 60; i++) {
    times.page.push(await milliseconds(get(path)));
    times.readsNothing.push(await milliseconds(get('/account')));
  }
  const ratio = round(at(times.page, 0.5) / at(times.readsNothing, 0.5));
  return { entries: GOAL_ENTRIES, page: summary(times.page), ratio, atMost: 4 };
}

const CLASS = 30;
const CLASS_ENTRIES = 200;

/** The logs of a class of thirty, two hundred entries each, beside a signed-in page that reads nothing. */
export async function classTotalsPage() {
  const categories = ['herbs', 'vegetables'].map((key) => ({ key, label: key }));
  const measure = {
    kind: 'cumulativeTotal',
    unit: { one: 'plant', many: 'plants' },
    total: 900,
    amounts: 'added',
    categories,
  };
  for (let i = 0; i < CLASS; i++) {
    const student = await addStudent(db, `Log ${i}`, [[school.manager, 'caseManager']]);
    const goal = await addGoal(db, student, '1', { measure });
    const rows = Array.from({ length: CLASS_ENTRIES }, (_, at) => ({
      ...row(goal, at),
      student_id: student,
      data: JSON.stringify({ amounts: [{ amount: at % 9, category: at % 3 === 0 ? 'herbs' : 'vegetables' }] }),
    }));
    await db.batchInsert('entries', rows, 500);
  }
  await db.raw('analyze');
  const path = '/class?kind=plant';
  const times = { page: [] as number[], readsNothing: [] as number[] };
  for (let i = 0; i < 100; i++) for (const one of [path, '/account']) await get(one)();
  for (let i = 0; i < 60; i++) {
    times.page.push(await milliseconds(get(path)));
    times.readsNothing.push(await milliseconds(get('/account')));
  }
  const ratio = round(at(times.page, 0.5) / at(times.readsNothing, 0.5));
  return { logs: CLASS, entries: CLASS * CLASS_ENTRIES, page: summary(times.page), ratio, atMost: 3 };
}

/** Compressed bytes of all scripts that the first load of the student's page asks for. */
export async function firstLoad() {
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
export async function lists(as: string) {
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

export async function memory() {
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
