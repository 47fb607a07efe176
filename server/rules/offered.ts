import { z } from 'zod';
import { measureOf } from '~/core/measures/measure';
import { partsIn } from '~/core/measures/parts';
import { choicesOfAll } from '../entries/incidents/choices';
import { goalsOf } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import type { Actor } from '../school/school';
import { can } from '../students/rights';
import { studentsOf } from '../students/students';

interface Named {
  id: string;
  name: string;
}

/** What a rule can be made of: everything is chosen from what is there. */
export interface OfferedForRules {
  students: Named[];
  groups: Named[];
  people: Named[];
  goals: (Named & { studentId: string; unit: string })[];
  areas: string[];
  levels: string[];
  items: string[];
  behaviors: string[];
  antecedents: string[];
  locations: string[];
  /** The longest scale of intensity among them. */
  steps: number;
}

/** Each once, in order, whatever they are to be called. */
const each = (names: Iterable<string>) => [...new Set(names)].filter(Boolean).sort((a, b) => a.localeCompare(b));

/** What is there to choose from for the students whose goals the one who asks edits: goals that are worked on, choices that are offered. */
export async function offeredForRules(db: Database, actor: Actor): Promise<OfferedForRules> {
  const students = (await studentsOf(db, actor)).filter((student) => can(student, 'editGoals'));
  const ids = students.map(({ id }) => id);
  const [goals, choices, groups, people] = await Promise.all([
    goalsOf(db, ids),
    choicesOfAll(db, ids),
    db('class_groups').where({ school_id: actor.schoolId }).orderBy('position').select('id', 'name'),
    rowsOf(
      db,
      z.object({ id: z.string(), name: z.string() }),
      `select distinct p.id, p.name from team_members m join people p on p.id = m.person_id
        where m.student_id = any(:ids) and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today order by p.name`,
      { ids, today: actor.today },
    ),
  ]);
  const nameOf = new Map(students.map(({ id, shortName }) => [String(id), shortName]));
  const current = goals.filter(({ retired }) => retired === null);
  const offered = [...choices.values()].flat().filter(({ state, mergedInto }) => state !== 'retired' && !mergedInto);
  const named = (kind: string) => each(offered.filter((one) => one.kind === kind).map(({ name }) => name));
  const scales = [...choices.values()].map(
    (own) => own.filter((one) => one.kind === 'intensity' && !one.mergedInto).length,
  );
  return {
    students: students.map(({ id, shortName }) => ({ id, name: shortName })),
    groups,
    people,
    goals: current.map(({ id, studentId, number, shortName, measure }) => ({
      ...{ id, studentId, name: `${nameOf.get(studentId) ?? ''}: ${number} · ${shortName}` },
      unit: measureOf(measure).axis.unit,
    })),
    areas: each(current.map(({ area }) => area)),
    levels: each(
      current.flatMap(({ measure }) => ('levels' in measure ? measure.levels.map(({ label }) => label) : [])),
    ),
    items: each(current.flatMap(({ measure }) => partsIn(measure).map(({ label }) => label))),
    behaviors: named('behavior'),
    antecedents: named('antecedent'),
    locations: named('location'),
    steps: Math.max(0, ...scales),
  };
}
