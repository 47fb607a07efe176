import type { PersonBegun } from '~/server/today/first-steps';
import type { FirstStep } from '../platform/ui/first-steps';
import { todayWords } from './words';

/** What to do first for somebody who has recorded nothing yet; nothing for who may record nothing. */
export function personSteps(studentId: string | undefined, { opened, recorded }: PersonBegun): FirstStep[] {
  if (studentId === undefined || recorded) return [];
  const here = `/students/${studentId}`;
  return [
    { label: todayWords.seeAStudentsGoals, to: here, isDone: opened },
    { label: todayWords.recordYourFirstEntry, to: `${here}/observe`, isDone: false },
  ];
}
