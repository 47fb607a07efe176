// What the screens of this room say, together: to be read in one go, and one day translated.
import { counted } from '~/core/words/counting';

/** `retire.tsx` */
export const retireWords = {
  dialogTitle: (shortName: string) => `Retire ${shortName}`,
  heading: (number: string, shortName: string) => `Retire ${number} ${shortName}`,
  why: 'Why',
  noScore: 'not yet: there is no score',
  theGoalThatTakesIts: 'The goal that takes its place',
  on: 'On',
  note: 'Note',
  keepIt: 'Keep it',
  retire: 'Retire',
  replacedBy: (replacedBy: string) => `replaced by ${replacedBy}`,
  howAndWhen: (how: string, on: string) => `${how} on ${on}`,
  bringBackNamed: (number: string, shortName: string) => `Bring back ${number} ${shortName}`,
  bringBack: 'Bring back',
};

/** `delete.tsx` */
export const deleteWords = {
  heading: (number: string, shortName: string) => `Delete ${number} ${shortName}`,
  what: 'Nothing was recorded for this goal. Deleting it cannot be undone; the change log keeps its name.',
  typeName: (shortName: string) => `Type its short name to delete it: ${shortName}`,
  cancel: 'Cancel',
  delete: 'Delete goal',
};

/** `arrange.tsx` */
export const arrangeWords = {
  theGoal: 'the goal',
  theGoalIsRetiredAll: 'The goal is retired. All that was recorded stays, and it can be brought back.',
  pageTitle: (shortName: string) => `Goals of ${shortName}, arranged · Gentle Margin`,
  isPickedUpArrowKeys: (id: string) => `${id} is picked up. Arrow keys move it, Space puts it down.`,
  isAtThePlaceOf: (id: string, id2: string) => `${id} is at the place of ${id2}.`,
  isPutDown: (id: string) => `${id} is put down.`,
  staysWhereItWas: (id: string) => `${id} stays where it was.`,
  aboutTheOrder: 'About the order',
  everyoneOnTheTeamSees: 'Everyone on the team sees the goals in this order, when they look and when they observe.',
  aRetiredGoalIsNo:
    'A retired goal is no longer observed and no longer due. Its entries stay in the report, and it can be brought back.',
  goalsInOrder: 'Goals, in order',
  addAGoal: 'Add a goal',
  noGoalIsWorkedOn: 'No goal is worked on.',
  retired: 'Retired',
  drag: (named: string) => `Drag ${named}`,
  moveUp: (named: string) => `Move ${named} up`,
  moveDown: (named: string) => `Move ${named} down`,
  retireNamed: (named: string) => `Retire ${named}`,
  retire: 'Retire',
  delete: 'Delete',
  deleteNamed: (named: string) => `Delete ${named}`,
  deleted: 'Goal deleted.',
};

/** `edit-goal.tsx` */
export const editGoalWords = {
  aGoal: 'A goal',
  goalIsInTheGoal: (number: string) => `Goal ${number} is in the goal bank.`,
  thereAreNoThreeScores: 'There are no three scores to take a baseline from, or there is a baseline already.',
  theBaselineIsEditThe: (goal: string) => `The baseline is ${goal}. “Edit the goal” changes it.`,
  goalIsChanged: (number: string) => `Goal ${number} is changed.`,
  pageTitle: (number: string | undefined) => `${number ? `Editing ${number}` : 'A goal'} · Gentle Margin`,
  editTheGoal: 'Edit the goal',
  putItIntoTheSchools: 'Put it into the school’s goal bank',
  everyoneWhoSetsUpGoals: (name: string) =>
    `Everyone who sets up goals can begin from it then. It stands there as “${name}”, in these words; see that they name nobody:`,
  inTheGoalBank: 'In the goal bank ✓',
  putItThere: 'Put it there',
};

/** `new-goal.tsx` */
export const newGoalWords = {
  goalIsInThePlan: (number: string) => `Goal ${number} is in the plan.`,
  pageTitle: 'A new goal · Gentle Margin',
  aGoal: 'A goal',
  aNewGoal: 'A new goal',
  theWordingNames: (from: string, times: string) => `The wording names ${from} ${times}`,
  forItWouldRead: (to: string) => `For ${to} it would read:`,
  putIn: (to: string) => `Put ${to} in`,
  keepTheWording: 'Keep the wording',
  beginFromSomethingElse: 'Begin from something else',
  beginFromAnotherGoalOr: 'Begin from another goal or from the goal bank',
  fromTheGoalBank: 'From the goal bank',
  takeOutOfTheGoal: (name: string) => `Remove ${name} from the goal bank`,
  takeOff: 'Remove',
  aGoalThatIsThere: 'A goal that is there',
};

/** `for-group.tsx` */
export const forGroupWords = {
  pageTitle: 'A goal for a group · Gentle Margin',
  title: 'A goal for a group',
  aGoal: 'A goal for a group',
  class: 'Class',
  about: 'One goal, many students',
  aboutCopies:
    'Each chosen student gets the goal under the next number of their plan, with their own name in it and a target of their own.',
  aboutPasting:
    'Copy a column of targets in a spreadsheet and paste it into the first box: it fills the boxes below of the students you have chosen, in order.',
  aboutPast: 'Nothing of the first student’s past comes along: no baseline, no phases, no entries.',
  whichGoal: 'The goal to give',
  choose: 'choose',
  show: 'Show',
  goalOf: (student: string, number: string, name: string) => `${student}: ${number} ${name}`,
  targetOf: (student: string) => `Target of ${student}`,
  hasIt: 'Has a goal of this name already.',
  addTo: (students: string) => `Add to ${students}`,
  given: (count: number) => `Added to ${counted(count, 'student', 'students')}.`,
  takenBack: (count: number) => `${counted(count, 'goal', 'goals')} deleted again.`,
  back: 'Back',
};
