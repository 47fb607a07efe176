import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import {
  type EntryCommand,
  type EntryFacts,
  entriesMapping,
  entryMark,
  guessEntries,
  planEntries,
} from '~/core/imports/entries';
import { plainText } from '~/core/imports/file-table';
import { writeEntries } from '../entries/record';
import { goalsOf } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { held, rowsOf, written } from '../platform/db/rows';
import { type Actor, locationsOf } from '../school/school';
import { importKind } from './kind';
import { peopleToName, studentsToName } from './naming';
import type { Part } from './parts';

/** Rows of one statement. */
const AT_ONCE = 1000;

const beginRow = z.object({
  goalId: z.string(),
  opensOn: z.string().nullable(),
  measures: z.array(z.tuple([z.number(), z.string()])),
});
const thereRow = z.tuple([
  held(z.string()),
  z.string(),
  written<EntryCommand['outcome']['data']>(),
  written<EntryCommand['outcome']['reason']>(),
]);

async function factsOf(db: Database, actor: Actor): Promise<EntryFacts> {
  const students = await studentsToName(db, actor, 'observe');
  const ids = students.map(({ student }) => student.id);
  const [all, begins, people, locations] = await Promise.all([
    goalsOf(db, ids),
    rowsOf(
      db,
      beginRow,
      `select g.id as "goalId",
              case when g.continues is not null then g.starts_on when p.starts_on is not null then
                least(p.starts_on, g.starts_on, g.baseline_on, (select min(f.starts_on) from goal_phases f where f.goal_id = g.id)) end as "opensOn",
              (select json_agg(json_build_array(v.version, v.from_date) order by v.version) from goal_measures v where v.goal_id = g.id) as measures
         from goals g left join lateral (select min(starts_on) as starts_on from plans where student_id = g.student_id) p on true
        where g.student_id = any(?)`,
      [ids as string[]],
    ),
    peopleToName(
      db,
      students.map(({ student }) => student),
    ),
    locationsOf(db, actor.schoolId),
  ]);
  const taken = new Set(
    all.filter(({ retired }) => retired === null).map(({ studentId, number }) => `${studentId} ${number}`),
  );
  // Of a number that was given anew the goal that is worked on is meant.
  const goals = all.filter(
    ({ retired, studentId, number }) => retired === null || !taken.has(`${studentId} ${number}`),
  );
  const beginOf = new Map(begins.map((row) => [row.goalId, row]));
  const standing = await rowsOf(
    db,
    thereRow,
    `select goal_id, observed_on, data, reason from entries
      where student_id = any(?) and kind = 'goal' and not withdrawn and pairs_with is null`,
    [ids as string[]],
  );
  const there = new Map<string, number>();
  for (const [goalId, on, data, reason] of standing) {
    // Data is there or a reason is: the database holds it.
    const mark = entryMark(goalId, on, { data, reason } as EntryCommand['outcome']);
    there.set(mark, (there.get(mark) ?? 0) + 1);
  }
  return {
    ...{ today: actor.today, observerId: actor.personId, people, there },
    students: students.map(({ id, name, names }) => ({ id, name, names })),
    locations: locations.map(({ id, name }) => ({ id, names: [plainText(name)] })),
    goals: goals.map((goal) => {
      const begin = beginOf.get(goal.id);
      const ways = [goal.number, `goal ${goal.number}`, goal.shortName, `${goal.number} ${goal.shortName}`];
      return {
        ...{ id: goal.id, studentId: goal.studentId, number: goal.number, shortName: goal.shortName },
        names: [...new Set(ways.map(plainText))],
        opensOn: begin?.opensOn ?? null,
        measures: (begin?.measures ?? []).map(([version, from]) => ({
          ...{ version, from },
          measure: version === goal.version ? goal.measure : (goal.formerMeasures[version] ?? goal.measure),
        })),
      };
    }),
  };
}

/** What was recorded before, in tables of one’s own. */
export const entriesImport = importKind({
  mapping: entriesMapping,
  facts: factsOf,
  guess: ({ table }, facts) => guessEntries(table, facts),
  plan: ({ table }, mapping, facts) => planEntries(table, mapping, facts),
  carryIn: async (db, actor, commands, { now }) => {
    const rows = commands.map(({ studentId, goalId, version, on, time, outcome, note, observerId, locationId }) => ({
      ...{ id: randomUUID(), goal_id: goalId, measure_version: version, student_id: studentId },
      ...{ observed_on: on, observed_time: time, observer_id: observerId, location_id: locationId },
      ...{
        data: outcome.data,
        reason: outcome.reason,
        note,
        fidelity: null,
        recorded_by: actor.personId,
        recorded_at: now,
      },
    }));
    for (let from = 0; from < rows.length; from += AT_ONCE) {
      await writeEntries(db, actor, rows.slice(from, from + AT_ONCE));
    }
    return { parts: rows.map(({ id, student_id }): Part => ({ kind: 'entry', studentId: student_id, rowId: id })) };
  },
});
