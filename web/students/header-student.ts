import { discreetStudent } from '~/core/goals/discreet';
import { can } from '~/server/students/rights';
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
    maySee: can(student, 'see'),
    mayObserve: can(student, 'observe'),
    mayShare: can(student, 'share'),
    mayEditGoals: can(student, 'editGoals'),
    mayCarryOut: can(student, 'carryOut'),
    hasLeft: student.isArchived,
    isDiscreet: discreet,
  };
}
