import { randomUUID } from 'node:crypto';
import type { Rule } from '~/core/rules/rule';
import { previewOf } from '~/server/rules/preview';
import { saveRule } from '~/server/rules/rules';
import { allSchools } from '~/server/school/school';
import { actorOf, addGoal, addStudent } from '~/tests/database/small-school';
import { ask, at, db, get, milliseconds, round, row, school, summary, trials } from './ground';
import { saving } from './saving';
import { startWorker } from './worker-beside';

const RULES = 50;
const ENTRIES = 200_000;
const STUDENTS = 20;

const figure = (value: number): Rule => ({
  when: {
    trigger: 'goalEntry',
    fulfils: 'any',
    conditions: [
      { is: 'figure', comparison: 'below', value },
      { is: 'level', level: 'Spoken' },
    ],
  },
  does: { mark: { word: `Below ${value}`, look: 'line' }, followUp: null, message: null },
});

/** Fifty rules over two hundred thousand entries: what their marks cost a page of forty, what one would have done in a year. */
export async function rules() {
  const students = [school.student];
  while (students.length < STUDENTS) {
    students.push(await addStudent(db, `Kid${students.length}`, [[school.manager, 'caseManager']]));
  }
  for (const student of students) {
    const goals = [await addGoal(db, student, 'A'), await addGoal(db, student, 'B')];
    const rows = Array.from({ length: ENTRIES / STUDENTS }, (_, i) => ({
      ...row(goals[i % 2] as string, i),
      student_id: student,
      data: JSON.stringify({ trials: trials() }),
    }));
    await db.batchInsert('entries', rows, 1000);
  }
  await db.raw('analyze');
  const manager = actorOf(school.manager);
  const path = `/students/${students[1]}/individual-report`;
  const ids: string[] = [];
  for (let n = 0; n < RULES; n++) {
    const id = randomUUID();
    ids.push(id);
    const input = { id, name: `Rule ${n}`, scope: { of: 'mine' as const }, rule: figure(n), mayTellOften: true };
    await saveRule(db, manager, input, new Date());
  }
  const switched = (isOff: boolean) =>
    db('rules')
      .whereIn('id', ids)
      .update({ switched_off_at: isOff ? new Date() : null });
  const times = { with: [] as number[], without: [] as number[] };
  for (let i = 0; i < 40; i++) await get(path)();
  for (let turn = 0; turn < 10; turn++) {
    for (const isOff of [true, false]) {
      await switched(isOff);
      for (let i = 0; i < 8; i++) times[isOff ? 'without' : 'with'].push(await milliseconds(get(path)));
    }
  }
  const [whole] = await allSchools(db);
  if (!whole) throw new Error('There is no school.');
  const preview: number[] = [];
  for (let i = 0; i < 8; i++) {
    preview.push(
      await milliseconds(async () => {
        const scope = { of: 'student' as const, studentId: students[1] as string };
        await previewOf(db, manager, { rule: figure(50), scope }, whole.calendar, 180);
      }),
    );
  }
  return {
    ...{ rules: RULES, entries: ENTRIES },
    with: summary(times.with),
    without: summary(times.without),
    ratio: round(at(times.with, 0.5) / at(times.without, 0.5)),
    atMost: 1.3,
    previewOfAYearOfAStudent: summary(preview),
    previewAtMostMs: 500,
    saveWithRulesOn: await saving(),
    followsWithinMs: await followsWithin(ids[0] as string),
    followsAtMostMs: 2000,
  };
}

/** How long after a save what follows from a rule is there. */
async function followsWithin(ruleId: string): Promise<number[]> {
  const rule = figure(101);
  const followUp = { what: 'Look at it', forWhom: 'caseManager' as const, inDays: 1 };
  const input = {
    name: 'Follows',
    scope: { of: 'mine' as const },
    rule: { ...rule, does: { ...rule.does, followUp } },
  };
  await saveRule(db, actorOf(school.manager), { ...input, id: ruleId, mayTellOften: true }, new Date());
  await db('rules')
    .where({ id: ruleId })
    .update({ on_since: new Date(0) });
  const worker = await startWorker();
  const times: number[] = [];
  try {
    for (let i = 0; i < 5; i++) {
      const id = randomUUID();
      const entry = { id, goalId: school.goal, outcome: { data: { trials: trials() }, reason: null }, note: '' };
      const when = { on: '2026-11-24', time: '09:30', observerId: school.manager, locationId: school.kitchen };
      const body = JSON.stringify({ personId: school.manager, session: { ...when, entries: [entry] } });
      const { status } = await ask(`/students/${school.student}/sessions`, { body });
      if (status !== 200) throw new Error(`Saving answered ${status}.`);
      times.push(
        Math.round(
          await milliseconds(async () => {
            while (!(await db('follow_ups').where({ entry_id: id }).first('id')))
              await new Promise((resolve) => setTimeout(resolve, 10));
          }),
        ),
      );
    }
  } finally {
    worker.kill('SIGKILL');
  }
  return times;
}
