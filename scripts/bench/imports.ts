import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { fateCounts } from '~/core/imports/preview';
import { importPage, takeOver, uploadImport } from '~/server/imports/imports';
import { undoImport } from '~/server/imports/undo';
import { actorOf, addGoal, addPerson, addStudent } from '~/tests/database/small-school';
import { db, milliseconds, round, row } from './ground';

// As the server has it.
z.config({ jitless: true });

const CLASS = 30;
const WEEKS = 40;
const PER_WEEK = 5;

/** The past of a class in one file: a row a day, a column a student; beside the bare rows in one statement. */
export async function imports() {
  const teacher = await addPerson(db, 'importing');
  const actor = actorOf(teacher);
  const names: string[] = [];
  let goal = '';
  for (let n = 0; n < CLASS; n++) {
    const name = `Pupil${n}`;
    names.push(name);
    goal = await addGoal(db, await addStudent(db, name, [[teacher, 'caseManager']]), '1', { starts_on: '2026-01-05' });
  }
  const days = Array.from({ length: WEEKS * PER_WEEK }, (_, at) => {
    const day = 5 + 7 * Math.floor(at / PER_WEEK) + (at % PER_WEEK);
    return new Date(Date.UTC(2026, 0, day)).toISOString().slice(0, 10);
  });
  const lines = days.map((day, at) => [day, ...names.map((_, n) => `${(at + n) % 6}/5`)].join(','));
  const bytes = Buffer.from([['Date', ...names.map((name) => `${name} Example`)].join(','), ...lines].join('\n'));
  const [id, now] = [randomUUID(), new Date('2026-11-24T15:30:00Z')];
  const upload = await milliseconds(() =>
    uploadImport(db, actor, { id, kind: 'entries' }, { name: 'class.csv', bytes }, now),
  );
  let rows = 0;
  const preview = await milliseconds(async () => {
    rows = fateCounts((await importPage(db, actor, id)).open?.planned.rows ?? []).new;
  });
  const taken = await milliseconds(() => takeOver(db, actor, id, { now, readsOut: true }));
  const undone = await milliseconds(() => undoImport(db, actor, id, now));
  const { student_id } = (await db('goals').where({ id: goal }).first('student_id'))!;
  const bareRows = Array.from({ length: rows }, (_, at) => ({
    ...{ ...row(goal, at % 200), kind: 'goal' as const, id: randomUUID(), student_id },
  }));
  const bare = await milliseconds(async () => {
    for (let from = 0; from < rows; from += 500) await db('entries').insert(bareRows.slice(from, from + 500));
  });
  const seconds = (ms: number) => round(ms / 1000);
  return {
    ...{
      entries: rows,
      uploadSeconds: seconds(upload),
      previewSeconds: seconds(preview),
      undoSeconds: seconds(undone),
    },
    allSeconds: { measured: seconds(upload + preview + taken), atMost: 10 },
    takenToBareInsert: round(taken / bare),
  };
}
