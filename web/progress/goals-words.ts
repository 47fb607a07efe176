import { counted } from '~/core/words/counting';

// What the student’s page says: apart from the other words of this room, as it is a page that is often the first.

/** `goals.tsx` */
export const goalsWords = {
  meetingView: 'Meeting view',
  followUps: 'Follow-ups',
  followUpsOpen: (open: number) => `Follow-ups: ${open} open`,
  passing: (target: string, n: number, needed: number, point: string) =>
    `of ${target} · ${n} of ${counted(needed, point, `${point}s`)}`,
  ofReached: (reached: string, metOn: string) => `of ${reached} · reached ${metOn}`,
  pageTitle: (shortName: string) => `${shortName} · Gentle Margin`,
  inTheMargin: 'In the margin',
  seeTheWholeReport: 'See the whole report →',
  noGoalIsWorkedOn: 'No goal is worked on yet.',
  noGoalsYetTheyCome: 'No goals yet. They come with the plan.',
  addAGoal: 'Add a goal',
  nextPlan: 'Next plan',
  arrangeOrRetire: 'Arrange or retire',
  retired: 'Retired',
  on: (retirementWords: string, on: string) => `, ${retirementWords} on ${on}`,
  solidLineThisStudentDotted:
    'Solid line: this student · dotted line: the aim line from baseline to target · band: the target zone · dashed line: where the support changed',
};
