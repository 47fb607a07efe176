import { discreetStudent } from '~/core/goals/discreet';
import type { Database } from '~/server/platform/db/database';
import { can } from '~/server/students/rights';
import { studentsOf } from '~/server/students/students';
import type { RequestPerson } from '../platform/http/request-person';

/** The students whom the one who asks may observe, as a form offers them to be chosen. */
export async function choosableStudents(db: Database, { actor, discreet }: Pick<RequestPerson, 'actor' | 'discreet'>) {
  const students = (await studentsOf(db, actor)).filter((student) => can(student, 'observe'));
  return students.map((student) => {
    const { id, shortName } = discreet ? discreetStudent(student) : student;
    return { id, name: shortName, groups: student.groups };
  });
}
