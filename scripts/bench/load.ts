// How many pages a second one process answers, and what the lists over a caseload and the guard of the database cost.
import autocannon from 'autocannon';
import { beginSession } from '~/server/people/sessions';
import type { Database } from '~/server/platform/db/database';
import { addGoal, addPerson, addStudent } from '~/tests/database/small-school';

export const signedInAt = new Date('2026-11-24T20:29:00Z');

/** What a browser carries that has signed in. */
export async function cookieOf(db: Database, personId: string): Promise<string> {
  const token = await beginSession(db, personId, signedInAt);
  return `gm-session=${encodeURIComponent(Buffer.from(JSON.stringify(token)).toString('base64'))}`;
}

const STUDENTS = 12;
const GOALS = 46;
const ENTRIES_A_GOAL = 60;

/** Somebody with a usual caseload: 12 students with 46 goals between them. */
export async function caseload(db: Database, row: (goal: string, day: number) => object): Promise<string> {
  const manager = await addPerson(db, 'caseload');
  const students: string[] = [];
  for (let i = 0; i < STUDENTS; i++) students.push(await addStudent(db, `Kid${i}`, [[manager, 'caseManager']]));
  for (let i = 0; i < GOALS; i++) {
    const student = students[i % STUDENTS] as string;
    const goal = await addGoal(db, student, String(i + 1));
    const rows = Array.from({ length: ENTRIES_A_GOAL }, (_, n) => ({ ...row(goal, n), student_id: student }));
    await db.batchInsert('entries', rows, 500);
  }
  return manager;
}

/**
 * Pages a second of one process, asked by 32 at once for a few seconds.
 *
 * @returns the pages, and as a share of those of a signed-in page that reads nothing: that page stays the same on a slower machine
 */
export async function pagesASecond(url: string, path: string, cookie: string, atLeast: number) {
  const pagesOf = async (of: string) => {
    const ask = (duration: number) => autocannon({ url: url + of, connections: 32, duration, headers: { cookie } });
    await ask(2);
    const result = await ask(6);
    if (result.non2xx > 0) throw new Error(`${of}: ${result.non2xx} answers were none.`);
    return result.requests.average;
  };
  const emptyPage = await pagesOf('/account');
  const pages = await pagesOf(path);
  return {
    path: path.replace(/[0-9a-f-]{36}/, ':id'),
    pagesASecond: Math.round(pages),
    ofEmptyPage: Math.round((100 * pages) / emptyPage) / 100,
    atLeast,
  };
}
