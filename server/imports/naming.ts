import { z } from 'zod';
import type { EntryFacts } from '~/core/imports/entries';
import { plainText } from '~/core/imports/file-table';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import type { Actor } from '../school/school';
import { can, type Right } from '../students/rights';
import { type Student, studentsOf } from '../students/students';

/** The students on whom one has a right, with every way of writing their names. */
export async function studentsToName(db: Database, actor: Actor, right: Right) {
  const students = (await studentsOf(db, actor)).filter((student) => can(student, right));
  const ids = students.map(({ id }) => id as string);
  const sourced = await db('students').whereIn('id', ids).select('id', 'sourced_id');
  const numberOf = new Map(sourced.map(({ id, sourced_id }) => [id, sourced_id]));
  return students.map((student) => {
    const { id, firstName, lastName, shortName, initials } = student;
    const ways = [
      `${firstName} ${lastName}`,
      `${lastName} ${firstName}`,
      shortName,
      initials,
      firstName,
      numberOf.get(id) ?? '',
    ];
    return { student, id, name: `${firstName} ${lastName}`, names: [...new Set(ways.map(plainText))].filter(Boolean) };
  });
}

const memberRow = z.object({ id: z.string(), name: z.string(), shortName: z.string(), studentId: z.string() });

/** Everybody who is or was on the teams of some students, by every way of writing their names. */
export async function peopleToName(db: Database, students: readonly Student<'see'>[]): Promise<EntryFacts['people']> {
  const found = await rowsOf(
    db,
    memberRow,
    `select distinct p.id, p.name, p.short_name as "shortName", m.student_id as "studentId"
       from team_members m join people p on p.id = m.person_id where m.student_id = any(?)`,
    [students.map(({ id }) => id as string)],
  );
  const people = new Map<string, { id: string; names: string[]; studentIds: string[] }>();
  for (const { id, name, shortName, studentId } of found) {
    const known = people.get(id) ?? { id, names: [...new Set([name, shortName].map(plainText))], studentIds: [] };
    known.studentIds.push(studentId);
    people.set(id, known);
  }
  return [...people.values()];
}
