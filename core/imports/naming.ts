import { plainText } from './file-table';

/** Somebody or something that may be named in a file. */
export interface Nameable {
  id: string;
  /** Every way of writing it, as plain text. */
  names: readonly string[];
}

/** The one that a text names; several where it could be more than one. */
export const named = <T extends Nameable>(text: string, among: readonly T[]): T[] =>
  among.filter(({ names }) => names.includes(text));

/** A student whom a file may name. */
export interface ImportStudent extends Nameable {
  name: string;
}

/** The one that a text names; where there is none, or more than one, that is noted. */
export function oneOf(
  text: string,
  among: readonly Nameable[],
  messages: string[],
  { label, none, several }: { label: string; none: string; several: string },
): string | null {
  const found = named(plainText(text), among);
  if (found.length === 1) return found[0]?.id ?? null;
  messages.push(`${label}: ${found.length === 0 ? none : several}`);
  return null;
}

/**
 * The student of a row; where it names none, the one of whom all of the file is.
 *
 * @param whom  whom the one who carries in may name: “whom you observe”
 */
export function studentIn(
  text: string,
  { students, studentId, whom }: { students: readonly ImportStudent[]; studentId: string | null; whom: string },
  messages: string[],
): string | null {
  if (text === '') {
    const isKnown = students.some(({ id }) => id === studentId);
    if (!isKnown) messages.push('Student: say who it is. In a merged cell only the first row holds the name.');
    return isKnown ? studentId : null;
  }
  return oneOf(text, students, messages, {
    label: 'Student',
    none: `nobody ${whom} is called “${text}”.`,
    several: `“${text}” could be more than one student. Write the whole name, or the number that the roster has.`,
  });
}

/** Who observed, of those who are or were on the student's team; where the row names nobody, who carries it in. */
export function observerIn(
  text: string,
  studentId: string,
  { people, observerId }: { people: readonly (Nameable & { studentIds: readonly string[] })[]; observerId: string },
  messages: string[],
): string {
  if (text === '') return observerId;
  const team = people.filter(({ studentIds }) => studentIds.includes(studentId));
  const who = oneOf(text, team, messages, {
    label: 'Observer',
    none: `nobody on the support team is called “${text}”.`,
    several: `“${text}” could be more than one person.`,
  });
  return who ?? observerId;
}
