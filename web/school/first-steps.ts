import type { SchoolBegun } from '~/server/school/first-steps';
import type { FirstStep } from '../platform/ui/first-steps';
import { firstStepsWords } from './words';

/** What to do for a new school, in order. */
export const schoolFirstSteps = (begun: SchoolBegun): FirstStep[] => [
  { label: firstStepsWords.closures, to: '/school', isDone: begun.closures },
  { label: firstStepsWords.locations, to: '/school', isDone: begun.locations },
  { label: firstStepsWords.student, to: '/roster/new', isDone: begun.students },
  { label: firstStepsWords.staff, to: begun.students ? '/students' : '/roster/new', isDone: begun.staff },
];
