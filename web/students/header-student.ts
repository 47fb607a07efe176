import { discreetStudent } from '~/core/goals/discreet';
import { may } from '~/server/students/rights';
import type { Student } from '~/server/students/students';
import type { HeaderStudent } from './student-header';

/** What a student's header shows, with or without the name. */
export function headerStudent(student: Student, { discreet }: { discreet: boolean }): HeaderStudent {
  const { id, shortName, grade, groups, plan } = discreet ? discreetStudent(student) : student;
  return {
    id,
    shortName,
    grade,
    groups,
    plan,
    maySee: may(student, 'see'),
    mayObserve: may(student, 'observe'),
    mayShare: may(student, 'share'),
    maySetUp: may(student, 'setUp'),
    isDiscreet: discreet,
  };
}
