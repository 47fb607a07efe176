import type { FirstStep } from '../platform/ui/first-steps';
import { firstStepsWords } from './words';

/** What of a new student is there already. */
export interface FirstStepsDone {
  plan: boolean;
  goals: boolean;
  baseline: boolean;
  team: boolean;
}

/**
 * What to do for a new student, in order, up to the first entry.
 *
 * @param withoutBaseline  the first goal that has none yet: where it is set
 */
export function firstStepsOf(studentId: string, done: FirstStepsDone, withoutBaseline: string | null): FirstStep[] {
  const here = `/students/${studentId}`;
  return [
    { label: firstStepsWords.planDatesAndReportingPeriods, to: `${here}/edit`, isDone: done.plan },
    { label: firstStepsWords.goalsWordForWordAs, to: `${here}/goals/new`, isDone: done.goals },
    {
      label: firstStepsWords.aBaselineForEachGoal,
      to: `${here}/goals/${withoutBaseline ? `${withoutBaseline}/edit` : 'new'}`,
      isDone: done.baseline,
    },
    { label: firstStepsWords.theSupportTeam, to: `${here}/team`, isDone: done.team },
    { label: firstStepsWords.theFirstEntry, to: `${here}/observe`, isDone: false },
  ];
}
