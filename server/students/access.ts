import { z } from 'zod';
import type { Right } from './rights';

/** What comes with a right: whoever may do anything with a student may read the report, and all but readers see the student. */
type Carried<R extends Right> = R | 'read' | (R extends 'read' ? never : 'see');

declare const granted: unique symbol;

/**
 * The id of a student whom the one who asks may read, see, share … Every query of a student takes one in place of a bare id, so a query
 * without a check does not compile. `requireStudent` and `studentsOf` give it to members of the team; `grant` to those who come in by another
 * door. (The database holds the same rule once more.)
 *
 * @example phasesOf(db, (await requireStudent(db, actor, id, 'see')).id)
 */
export type StudentAccess<R extends Right> = string & { readonly [granted]: { readonly [K in Carried<R>]: true } };

/** By which other door than the team's somebody comes to a student, and what they may do there. */
interface OtherDoors {
  /** A member of the team, whose right was held in the same query as what else was asked. */
  member: 'see';
  /** A share link that is open: for the report of the one student it was made for. */
  'share link': 'read';
  /** A student's own card: for their desk. */
  card: 'read';
  /** The code of a presentation: for answering in it, and nothing else. */
  'class code': 'read';
  /** A rater's link, on whose list the student's work is: for its rubric. */
  'rating link': 'read';
  /** Whoever owns the database, for all of a school. */
  'whole school': 'carryOut';
  /** An administrator of the school, for the roster. */
  roster: 'read';
  /** A message to somebody who is told of the student's entries. */
  message: 'read';
}

/**
 * Access where `requireStudent` is not what checks. Whoever calls this has just checked what it names.
 *
 * @param _by  what was checked
 */
export function grant<By extends keyof OtherDoors>(studentId: string, _by: By): StudentAccess<OtherDoors[By]> {
  // The one place where an id becomes access: a type has no trace at run time.
  return studentId as StudentAccess<OtherDoors[By]>;
}

/** A student’s id as a column of a query that only finds what whoever asks may read. */
export const readStudent = z.custom<StudentAccess<'read'>>((value) => typeof value === 'string');
