// A lesson: thirty desks that change at once, five boards that are open, and three hundred streams on one server.
import { randomBytes, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { request } from 'node:http';
import pg from 'pg';
import { saveWork } from '~/server/desk/works';
import { hashToken, newToken } from '~/server/people/tokens';
import { actorOf, addStudent } from '~/tests/database/small-school';
import { ask, at, cookie, databaseUrl, db, milliseconds, round, school, server, summary } from './ground';

const DESKS = 30;
const BOARDS = 5;
const ROUNDS = 6;
const STREAMS = 300;
const SEEN_AT = new Date('2026-11-24T20:30:00Z');

interface Desk {
  student: string;
  cardId: string;
  cookie: string;
}

async function openDesk(i: number): Promise<Desk> {
  const student = await addStudent(db, `Desk ${i}`, [[school.manager, 'caseManager']]);
  const [cardId, token] = [randomUUID(), newToken()];
  await db('cards').insert({
    ...{ id: cardId, student_id: student, made_by: school.manager, made_at: SEEN_AT },
    ...{ token_hash: randomBytes(32), code_hash: randomBytes(32) },
  });
  await db('desk_sessions').insert({
    ...{ id: randomUUID(), card_id: cardId, student_id: student, token_hash: hashToken(token) },
    ...{ began_at: SEEN_AT, seen_at: SEEN_AT },
  });
  const carried = encodeURIComponent(Buffer.from(JSON.stringify(token)).toString('base64'));
  return { student, cardId, cookie: `gm-desk=${carried}` };
}

/** A stream that stands open; gives back what ends it. */
function listen(onEvent: () => void): Promise<() => void> {
  return new Promise((resolve, reject) => {
    const sent = request(`${server.url}/live`, { headers: { cookie, accept: 'text/event-stream' } }, (answer) => {
      if (answer.statusCode !== 200) reject(new Error(`The stream answered ${answer.statusCode}.`));
      answer.on('data', (text) => {
        if (String(text).includes('"what":"steps"')) onEvent();
      });
      answer.on('error', () => {});
      resolve(() => sent.destroy());
    });
    sent.on('error', () => {});
    sent.end();
  });
}

/** A board as a browser has it: told of a change, it asks for itself anew, several changes at once. */
async function openBoard(workId: string, onShown: (body: string) => void) {
  let isAsking = false;
  return listen(() => {
    if (isAsking) return;
    isAsking = true;
    setTimeout(async () => {
      isAsking = false;
      onShown((await ask(`/class/works/${workId}.data`)).body.toString());
    }, 120);
  });
}

const resident = () =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.process.pid}/status`, 'utf8'))?.[1]) / 1024;

export async function live() {
  const desks: Desk[] = [];
  for (let i = 0; i < DESKS; i++) desks.push(await openDesk(i));
  const [workId, stepId] = [randomUUID(), randomUUID()];
  const work = { id: workId, title: 'A lesson', steps: [{ id: stepId, title: 'Cut', hint: '' }] };
  await saveWork(db, actorOf(school.manager), { ...work, studentIds: desks.map(({ student }) => student) }, SEEN_AT);
  await db.raw('analyze');

  const pending = new Map<string, { began: number }>();
  const shown: number[] = [];
  const ends: (() => void)[] = [];
  for (let board = 0; board < BOARDS; board++) {
    const known = new Set<string>();
    const onShown = (body: string) => {
      for (const [id, { began }] of pending) {
        if (known.has(id) || !body.includes(id)) continue;
        known.add(id);
        shown.push(performance.now() - began);
      }
    };
    ends.push(await openBoard(workId, onShown));
  }
  const change = async (desk: Desk, state: string) => {
    const said = { id: randomUUID(), workId, stepId, state, at: Date.now() };
    pending.set(said.id, { began: performance.now() });
    const { status } = await ask(`/desk/steps?of=${desk.student}`, { body: JSON.stringify(said), as: desk.cookie });
    if (status !== 200) throw new Error(`The desk was answered ${status}.`);
  };
  for (let turn = 0; turn < ROUNDS; turn++) {
    await Promise.all(desks.map((desk) => change(desk, turn % 2 === 0 ? 'stuck' : 'atIt')));
    await new Promise((resolve) => setTimeout(resolve, 2500));
  }
  for (const end of ends) end();
  const wanted = DESKS * BOARDS * ROUNDS;

  const before = resident();
  const streams: (() => void)[] = [];
  for (let i = 0; i < STREAMS; i++) streams.push(await listen(() => {}));
  const more = resident() - before;
  for (const end of streams) end();

  return {
    changesAtOnce: {
      ...{ desks: DESKS, boards: BOARDS, shownOf: `${shown.length} of ${wanted}` },
      ...{ medianMs: round(at(shown, 0.5)), p95Ms: round(at(shown, 0.95)), atMost: 1000 },
    },
    oneChange: await oneChange(desks[0] as Desk, workId, stepId),
    streams: { open: STREAMS, moreMB: round(more), atMost: 100 },
  };
}

/** The bare statement, and the same over HTTP with all that comes with it; in turns. */
async function oneChange(desk: Desk, workId: string, stepId: string) {
  const bare = new pg.Client({ connectionString: databaseUrl });
  await bare.connect();
  await bare.query('set role gentle_margin_app');
  const insert = async () => {
    await bare.query('begin');
    await bare.query(`select set_config('app.door', $1, true)`, [desk.student]);
    await bare.query(
      `insert into work_states (id, student_id, work_id, step_id, state, at, received_at, card_id)
       values ($1, $2, $3, $4, 'atIt', now(), now(), $5)`,
      [randomUUID(), desk.student, workId, stepId, desk.cardId],
    );
    await bare.query('commit');
  };
  const save = async () => {
    const said = { id: randomUUID(), workId, stepId, state: 'atIt', at: Date.now() };
    const { status } = await ask(`/desk/steps?of=${desk.student}`, { body: JSON.stringify(said), as: desk.cookie });
    if (status !== 200) throw new Error(`The desk was answered ${status}.`);
  };
  const times = { bare: [] as number[], save: [] as number[] };
  for (let i = 0; i < 100; i++) await Promise.all([await insert(), await save()]);
  for (let i = 0; i < 300; i++) {
    times.bare.push(await milliseconds(insert));
    times.save.push(await milliseconds(save));
  }
  await bare.end();
  return {
    bare: summary(times.bare),
    change: summary(times.save),
    ratio: round(at(times.save, 0.5) / at(times.bare, 0.5)),
    atMost: 5,
  };
}
