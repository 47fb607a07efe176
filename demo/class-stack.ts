import { v5 as idFrom } from 'uuid';
import { wallTime } from '~/core/calendar/zone';
import { rateInStack } from '~/server/entries/ratings/stack-rater';
import { makeStack, putWork, stackOf } from '~/server/entries/ratings/stacks';
import type { Database } from '~/server/platform/db/database';
import { timeZone } from './school';

/** Ids that are the same in every demo. */
const SPACE = '6f0f6a1c-98f1-4c6a-9d7b-64c8e4a1d003';
const id = (...of: string[]) => idFrom(of.join(' '), SPACE);

const work = [
  'Today we sanded the shelf. First along the grain, then the edges. The corner was hard.',
  'I watered row three. Two plants were dry. I told Mr. Akiyama.',
];
const said = [
  { up: 0, words: 'Says what came first and what came next.' },
  { up: 1, words: 'I could do it after reading this.' },
  { up: 1, words: '' },
];

/** A stack of two written pages, rated by two of the staff and by classmates, not all of it yet. */
export async function setClassStack(db: Database, now: Date): Promise<void> {
  const staff = await db('people').whereIn('demo_order', [1, 3]).orderBy('demo_order').select('id');
  const goals = await db('goals as g')
    .join('goal_measures as m', (on) => on.on('m.goal_id', 'g.id').andOn('m.version', 'g.measure_version'))
    .join('students as s', 's.id', 'g.student_id')
    .where({ 'g.retired_on': null, 's.archived_at': null })
    .whereRaw(`m.measure ->> 'kind' = 'rubric'`)
    .orderBy('s.last_name')
    .select('g.id', 'g.student_id', 's.school_id', db.raw('m.measure as measure'));
  const [first] = goals;
  const teacher = staff[0];
  if (!first || !teacher) return;
  const actor = { personId: teacher.id, schoolId: first.school_id, today: wallTime(now, timeZone).on };
  const stackId = id('stack');
  await makeStack(
    db,
    actor,
    {
      ...{ id: stackId, title: 'A page about today', goalIds: goals.map((goal) => goal.id), each: 2 },
      ...{ staffIds: staff.map((person) => person.id), classmateIds: [] },
    },
    now,
  );
  const { samples } = await stackOf(db, actor, stackId);
  for (const [at, sample] of samples.entries()) {
    await putWork(db, actor, { id: stackId, sampleId: sample.id, text: work[at % work.length] ?? '', file: null }, now);
  }
  const turns = await db('stack_turns').where({ stack_id: stackId }).orderBy(['rater_id', 'work_sample_id']).select();
  const levels = (first.measure as { criteria: { key: string; levels: { points: number }[] }[] }).criteria;
  for (const [at, turn] of turns.slice(0, -1).entries()) {
    const one = said[at % said.length];
    const points = Object.fromEntries(
      levels.map(({ key, levels: of }) => [key, of[Math.min(of.length - 1, 1 + (one?.up ?? 0))]?.points ?? 0]),
    );
    const rating = { id: id('rating', String(at)), points, words: one?.words ?? '' };
    await rateInStack(db, { raterId: turn.rater_id, sampleId: turn.work_sample_id }, rating, now);
  }
}
