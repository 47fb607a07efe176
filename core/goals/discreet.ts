import { defined } from '../defined';
import { type MeasureDefinition, measureOf } from '../measures/measure';
import { unnamed } from '../measures/named';
import type { Phase } from './goal';

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
  retired?: { note: string } | null;
  phases?: Phase[];
}

const discreetMeasure = (measure: MeasureDefinition) => measureOf(measure).discreet();

const mapValues = <T>(of: Record<number, T>, change: (value: T) => T): Record<number, T> =>
  Object.fromEntries(Object.entries(of).map(([key, value]) => [key, change(value)]));

/** What a goal is called where a passing classmate may see it. */
export const discreetGoalName = ({ number }: { number: string }) => ({ shortName: `Goal ${number}`, area: '' });

/** A goal as a passing classmate may see it: its number, and nothing of its own by name. */
export function discreetGoal<T extends NamedGoal>(goal: T): T {
  return {
    ...goal,
    ...discreetGoalName(goal),
    wording: '',
    measure: discreetMeasure(goal.measure),
    ...(goal.phases && {
      phases: goal.phases.map((phase) => ({ ...phase, steps: unnamed(phase.steps ?? [], 'Step') })),
    }),
    ...(goal.retired && { retired: { ...goal.retired, note: '' } }),
    ...(goal.formerMeasures && { formerMeasures: mapValues(goal.formerMeasures, discreetMeasure) }),
  };
}

/** An entry without its note: notes name people and things. */
export function discreetEntry<T extends { note: string | null }>(entry: T): T {
  return { ...entry, note: null };
}

/**
 * Words of a note as a passing classmate may see them: the first letters only, which who wrote them knows. Those that would
 * read the same are numbered.
 *
 * @returns in the order of the names
 * @example discreetWords(['Asked to begin', 'Alone too briefly', 'Noise']) // ['Atb', 'Atb 2', 'N']
 */
export function discreetWords(names: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((name) => {
    const letters = name
      .split(/\s+/)
      .map((word) => Array.from(word.replace(/[^\p{Letter}\p{Number}]/gu, ''))[0] ?? '')
      .join('');
    const short = letters.charAt(0).toUpperCase() + letters.slice(1).toLowerCase();
    const times = (seen.get(short) ?? 0) + 1;
    seen.set(short, times);
    return times === 1 ? short : `${short} ${times}`;
  });
}

/** Choices as a passing classmate may see them: the short word of their team, else first letters, and no words of a definition. */
export function discreetChoices<
  T extends { kind: string; name: string; words: string; unlike: string; discreetWord: string },
>(choices: readonly T[]): T[] {
  const kinds = [...new Set(choices.map(({ kind }) => kind))];
  const short = new Map<T, string>();
  for (const kind of kinds) {
    const own = choices.filter((choice) => choice.kind === kind);
    for (const [i, name] of discreetWords(own.map(({ name }) => name)).entries()) short.set(defined(own[i]), name);
  }
  return choices.map((choice) => ({
    ...choice,
    name: choice.discreetWord || (short.get(choice) ?? ''),
    words: '',
    unlike: '',
  }));
}
