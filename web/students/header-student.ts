import { discreetStudent } from '~/core/discreet/discreet';
import { may } from '~/server/access/rights';
import type { Student } from '~/server/students/students';
import type { HeaderStudent } from './student-header';

/** What a student's header shows, with or without the name. */
export function headerStudent(student: Student, { discreet }: { discreet: boolean }): HeaderStudent {
  const { id, shortName, grade, groups, plan, role } = discreet ? discreetStudent(student) : student;
  return {
    id,
    shortName,
    grade,
    groups,
    plan,
    mayObserve: may(role, 'observe'),
    mayShare: may(role, 'share'),
    maySetUp: may(role, 'setUp'),
    isDiscreet: discreet,
  };
}
