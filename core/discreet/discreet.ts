import { type MeasureDefinition, measureOf } from '../measures/measure';

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
  formerMeasures?: Record<number, MeasureDefinition>;
}

const discreetMeasure = (measure: MeasureDefinition) => measureOf(measure).discreet(measure);

const mapValues = <T>(of: Record<number, T>, change: (value: T) => T): Record<number, T> =>
  Object.fromEntries(Object.entries(of).map(([key, value]) => [key, change(value)]));

/** A goal as a passing classmate may see it: its number, and nothing of its own by name. */
export function discreetGoal<T extends NamedGoal>(goal: T): T {
  return {
    ...goal,
    shortName: `Goal ${goal.number}`,
    wording: '',
    area: '',
    measure: discreetMeasure(goal.measure),
    ...(goal.formerMeasures && { formerMeasures: mapValues(goal.formerMeasures, discreetMeasure) }),
  };
}

/** An entry without its note: notes name people and things. */
export function discreetEntry<T extends { note: string | null }>(entry: T): T {
  return { ...entry, note: null };
}
