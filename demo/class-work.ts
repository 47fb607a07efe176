import { v5 as idFrom } from 'uuid';
import { wallTime } from '~/core/calendar/zone';
import { typedCode } from '~/core/desk/card-code';
import type { StepState } from '~/core/school/step-words';
import { hashToken } from '~/server/people/tokens';
import type { Database } from '~/server/platform/db/database';
import { timeZone } from './school';

/** Ids that are the same in every demo. */
const SPACE = '6f0f6a1c-98f1-4c6a-9d7b-64c8e4a1d001';
const id = (...of: string[]) => idFrom(of.join(' '), SPACE);

const MINUTE = 60_000;

/** The words on the cards of the demo's students. They are in the README: whoever tries the demo may sit at a desk. */
export const demoCards: Record<string, string> = {
  Ansel: 'acorn banjo cabin daisy fern',
  Briar: 'amber basket cactus deer',
  Ione: 'anchor bean camel desert',
  Jory: 'apple beaver canoe dolphin',
  Kestrel: 'arrow bell canyon donkey',
  Linnea: 'aspen berry carrot dove elm',
};

const steps = [
  { title: 'Pick a pot', hint: 'One without a crack.' },
  { title: 'Fill it', hint: 'Soil up to the line.' },
  { title: 'Set the plant', hint: 'Roots down, not too deep.' },
  { title: 'Press and water', hint: 'Two fingers, then the small can.' },
  { title: 'Write the label', hint: 'Name of the plant and today’s date.' },
];

type Said = [step: number, state: StepState, minutesAgo: number, word?: string];

const said: Record<string, Said[]> = {
  Ansel: [
    [1, 'done', 31],
    [2, 'stuck', 27, 'The bag is too heavy.'],
    [2, 'atIt', 22],
    [2, 'done', 19],
    [3, 'atIt', 18],
    [3, 'stuck', 6, 'The roots do not fit.'],
  ],
  Kestrel: [
    [1, 'done', 30],
    [2, 'done', 24],
    [3, 'done', 15],
    [4, 'pleaseLook', 3],
  ],
  Jory: [
    [1, 'done', 29],
    [2, 'stuck', 2, 'Which line?'],
  ],
  Linnea: [
    [1, 'done', 28],
    [2, 'done', 20],
    [3, 'atIt', 11],
  ],
  Ione: [
    [1, 'done', 26],
    [2, 'stuck', 21],
    [2, 'atIt', 14],
    [2, 'done', 9],
    [3, 'atIt', 8],
  ],
  Briar: [[1, 'atIt', 12]],
};

/** A lesson in the garden, half an hour in: a piece of work, who is at which step of it, and the cards they came in with. */
export async function setClassWork(db: Database, now: Date): Promise<void> {
  const garden = await db('student_groups as g')
    .join('class_groups as c', 'c.id', 'g.group_id')
    .join('students as s', 's.id', 'g.student_id')
    .whereIn('s.first_name', Object.keys(demoCards))
    .whereNull('s.archived_at')
    .distinct('s.id', 's.first_name', 's.school_id');
  const teacher = await db('people').where({ demo_order: 1 }).first('id');
  const school = garden[0]?.school_id;
  if (!teacher || !school) return;
  const workId = id('potting');
  const before = new Date(now.getTime() - 40 * MINUTE);
  await db('works').insert({
    ...{ id: workId, school_id: school, made_by: teacher.id, title: 'Potting, week 4', made_at: before },
  });
  const stepId = (step: number) => id('potting', String(step));
  await db('work_steps').insert(
    steps.map((step, position) => ({ id: stepId(position + 1), work_id: workId, position, ...step })),
  );
  for (const { id: studentId, first_name: name } of garden) {
    const words = demoCards[name];
    if (!words) continue;
    const cardId = id('card', name);
    await db('cards').insert({
      ...{ id: cardId, student_id: studentId, made_by: teacher.id, made_at: before },
      ...{ token_hash: hashToken(`demo ${words}`), code_hash: hashToken(`words ${typedCode(words)}`) },
    });
    await db('student_works').insert({
      ...{ student_id: studentId, work_id: workId, given_by: teacher.id, given_at: before },
    });
    await openGoals(db, studentId);
    await beginSample(db, studentId, teacher.id, now);
    for (const [step, state, ago, word = ''] of said[name] ?? []) {
      const at = new Date(now.getTime() - ago * MINUTE);
      await db('work_states').insert({
        ...{ id: id('said', name, String(step), state, String(ago)), student_id: studentId, card_id: cardId },
        ...{ work_id: workId, step_id: stepId(step), state, word, at, received_at: at },
      });
    }
  }
}

/** A log that is counted stands on the desk, and the first of the other goals as progress, both in plain words. */
async function openGoals(db: Database, studentId: string): Promise<void> {
  const goals = await db('goals as g')
    .join('goal_measures as m', (on) => on.on('m.goal_id', 'g.id').andOn('m.version', 'g.measure_version'))
    .where({ 'g.student_id': studentId, 'g.retired_on': null })
    .orderBy('g.position')
    .select('g.id', 'g.short_name', db.raw(`m.measure ->> 'kind' as kind`));
  const log = goals.find(({ kind }) => kind === 'cumulativeTotal');
  const other = goals.find(({ kind }) => kind !== 'cumulativeTotal');
  const rows = [
    ...(log ? [{ goal_id: log.id, shows: 'log' as const, plain: 'Plants I potted' }] : []),
    ...(other ? [{ goal_id: other.id, shows: 'progress' as const, plain: other.short_name }] : []),
  ];
  if (rows.length > 0) await db('desk_goals').insert(rows.map((row) => ({ ...row, student_id: studentId })));
}

/** A piece that waits for what the student thinks of it, where a goal of theirs is rated by a rubric. */
async function beginSample(db: Database, studentId: string, teacherId: string, now: Date): Promise<void> {
  const goal = await db('goals as g')
    .join('goal_measures as m', (on) => on.on('m.goal_id', 'g.id').andOn('m.version', 'g.measure_version'))
    .where({ 'g.student_id': studentId, 'g.retired_on': null })
    .whereRaw(`m.measure ->> 'kind' = 'rubric'`)
    .first('g.id', 'm.version');
  if (!goal) return;
  await db('work_samples').insert({
    ...{ id: id('sample', studentId), student_id: studentId, goal_id: goal.id, measure_version: goal.version },
    ...{ title: 'Today’s page', made_on: wallTime(now, timeZone).on, made_by: teacherId, made_at: now },
  });
}
