import { randomUUID } from 'node:crypto';
import { Agent, request } from 'node:http';
import { connect } from '~/server/platform/db/database';
import { migrate } from '~/server/platform/db/migrate';
import { dropDatabase, makeDatabase, newName, urlOf } from '~/tests/database/databases';
import { addGoal, smallSchool } from '~/tests/database/small-school';
import { startServer } from '~/tests/e2e/server';
import { cookieOf } from './load';

// The ground on which everything is measured: a small school with ten goals, a server before it, somebody signed in.
export const GOALS = 10;
const OBSERVATIONS = 2000;

const name = newName('bench');
await makeDatabase(name);
export const databaseUrl = urlOf(name);
export const db = connect(databaseUrl);
await migrate(databaseUrl);
export const school = await smallSchool(db);
const goals = [school.goal];
while (goals.length < GOALS) goals.push(await addGoal(db, school.student, String(goals.length + 1)));
export const trials = () => Array.from({ length: 6 }, () => (Math.random() < 0.6 ? 'independent' : 'incorrect'));
export const row = (goal: string, day: number) => ({
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

export const started = new Date('2026-11-24T15:30:00-05:00').toISOString();
export const server = await startServer({
  DATABASE_URL: databaseUrl,
  LOG_LEVEL: 'warn',
  CLOCK: started,
});
export const cookie = await cookieOf(db, school.manager);
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
export function ask(path: string, { body, encoding, as = cookie, of = server.url }: Asked = {}): Promise<Answer> {
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

export async function milliseconds(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

export const at = (times: number[], share: number) =>
  times.toSorted((a, b) => a - b)[Math.floor(share * (times.length - 1))] as number;
export const summary = (times: number[]) => ({ medianMs: round(at(times, 0.5)), p95Ms: round(at(times, 0.95)) });
export const round = (n: number) => Math.round(n * 100) / 100;

export const page = `/students/${school.student}`;

/** A page asked for, as one more to be timed; throws where it is none. */
export const get = (path: string) => async () => {
  const { status } = await ask(path);
  if (status >= 400) throw new Error(`${path} answered ${status}.`);
};

/** What was begun here, ended. */
export async function clear(): Promise<void> {
  agent.destroy();
  await server.stop();
  await db.destroy();
  await dropDatabase(name);
}
