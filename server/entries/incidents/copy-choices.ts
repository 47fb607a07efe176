import {
  type Choice,
  type ChoiceRow,
  type ChoicesInput,
  choiceKinds,
  plainName,
} from '~/core/entries/incidents/choice';
import type { Database } from '../../platform/db/database';
import type { Actor } from '../../school/school';
import { can } from '../../students/rights';
import { requireStudent, studentsOf } from '../../students/students';
import { choicesOf, choicesOfAll, startingChoices } from './choices';

/** The choices that are copied from: of another student whose goals one edits, or those that the school begins from. */
export async function choicesFrom(
  db: Database,
  actor: Actor,
  from: 'school' | { studentId: string },
): Promise<Choice[]> {
  if (from === 'school') return startingChoices(db, actor.schoolId);
  return choicesOf(db, (await requireStudent(db, actor, from.studentId, 'editGoals')).id);
}

/** Adds to a form what it has not, by name, each as a choice of its own. @returns how many */
export function addMissing(input: ChoicesInput, found: ChoicesInput): number {
  let added = 0;
  const missing = <Row extends ChoiceRow>(rows: Row[], more: readonly Row[]) => {
    const names = new Set(rows.map(({ name }) => plainName(name)));
    const fresh = more.filter(({ name }) => !names.has(plainName(name)));
    rows.push(...fresh);
    added += fresh.length;
  };
  missing(input.behavior, found.behavior);
  for (const kind of choiceKinds) if (kind !== 'behavior') missing(input[kind], found[kind]);
  return added;
}

/** The students from whom a set-up of behavior can be copied: those whose goals one edits, with a target behavior. */
export async function studentsWithChoices(db: Database, actor: Actor): Promise<{ id: string; shortName: string }[]> {
  const mine = (await studentsOf(db, actor)).filter((student) => can(student, 'editGoals'));
  const choices = await choicesOfAll(
    db,
    mine.map(({ id }) => id),
  );
  return mine
    .filter(({ id }) => choices.get(id)?.some(({ kind, state }) => kind === 'behavior' && state === 'offered'))
    .map(({ id, shortName }) => ({ id, shortName }));
}
