import type { MeasureDefinition } from '../measures/measure';

interface NamedStudent {
  firstName: string;
  lastName: string;
  shortName: string;
  initials: string;
}

/** A student as a passing classmate may see it: initials, no name. */
export function discreetStudent<T extends NamedStudent>(student: T): T {
  return { ...student, firstName: student.initials, lastName: '', shortName: student.initials };
}

interface NamedGoal {
  number: string;
  shortName: string;
  wording: string;
  area: string;
  measure: MeasureDefinition;
}

/** A goal as a passing classmate may see it: its number, and chances without a name of their own. */
export function discreetGoal<T extends NamedGoal>(goal: T): T {
  return {
    ...goal,
    shortName: `Goal ${goal.number}`,
    wording: '',
    area: '',
    measure: { ...goal.measure, chance: { one: 'chance', many: 'chances' } },
  };
}

/** An entry without its note: notes name people and things. */
export function discreetEntry<T extends { note: string | null }>(entry: T): T {
  return { ...entry, note: null };
}
