import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { startServer } from '~/tests/e2e/server';
import {
  ask,
  at,
  databaseUrl,
  milliseconds,
  page,
  round,
  row,
  school,
  server,
  started,
  summary,
  trials,
} from './ground';

// What it costs to save: one entry, a table of them, and with the database guarding its rows.

/** The same row saved bare by `pg`, and over HTTP with all that comes with it; in turns, so that both see the same machine. */
export async function saving() {
  const bare = new pg.Client({ connectionString: databaseUrl });
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

const TABLE_ROWS = 100;

/** A table of a hundred rows, saved in one transaction. */
export async function tableSave() {
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

/** The same page and the same save of a server that leaves the guarding of rows to the program. */
export async function rowSecurity() {
  const open = await startServer({ DATABASE_URL: databaseUrl, LOG_LEVEL: 'warn', CLOCK: started, ROW_SECURITY: 'off' });
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
