import { dateSeenFrom, mondayOf } from '~/core/calendar/iso-date';
import { discreetGoal, discreetStudent } from '~/core/goals/discreet';
import type { CumulativeTotalDefinition } from '~/core/measures/cumulative-total/cumulative-total';
import { classTotals, kindOfLog } from '~/core/progress/class-totals';
import type { Pace } from '~/core/progress/pace';
import { percent } from '~/core/words/counting';
import { type Goal, goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import type { Database } from '~/server/platform/db/database';
import { loggedAmounts } from '~/server/progress/class-totals';
import { progressOfGoals } from '~/server/progress/progress';
import { studentsOf } from '~/server/students/students';
import type { RequestPerson } from '../platform/http/request-person';
import { classTotalsWords } from './words';

type LogGoal = Goal & { measure: CumulativeTotalDefinition };

const isLog = (goal: Goal): goal is LogGoal => goal.measure.kind === 'cumulativeTotal';

const sortings = ['name', 'share', 'week'] as const;
export type Sorting = (typeof sortings)[number];

/** What of the class is asked for, from an address. */
function askedFrom(search: URLSearchParams) {
  return {
    group: search.get('group'),
    kind: search.get('kind'),
    sort: sortings.find((one) => one === search.get('sort')) ?? 'name',
  };
}

/**
 * A group's logs of one kind side by side, as the page and its file show them.
 *
 * @param search  `group`, `kind` (the unit) and `sort`; what is unknown is passed over
 */
export async function classTotalsView(
  db: Database,
  { actor, school, discreet }: RequestPerson,
  search: URLSearchParams,
) {
  const asked = askedFrom(search);
  const everyone = await studentsOf(db, actor);
  const groups = [...new Set(everyone.flatMap((student) => student.groups))].sort();
  const group = groups.find((name) => name === asked.group) ?? null;
  const students = group === null ? everyone : everyone.filter((student) => student.groups.includes(group));
  const all = goalsWorkedOn(
    await goalsOf(
      db,
      students.map(({ id }) => id),
    ),
  ).filter(isLog);
  const kinds = new Map(all.map(({ measure }) => [kindOfLog(measure), measure.unit]));
  const kind = [...kinds.keys()].find((one) => one === asked.kind) ?? [...kinds.keys()][0] ?? null;
  const stored = all.filter(({ measure }) => kindOfLog(measure) === kind);
  const goals = discreet ? stored.map((goal) => discreetGoal(goal)) : stored;
  const [amounts, progress] = await Promise.all([
    loggedAmounts(db, stored),
    progressOfGoals(db, goals, { school, today: actor.today }),
  ]);
  const nameOf = new Map(
    students.map((student) => [student.id as string, (discreet ? discreetStudent(student) : student).shortName]),
  );
  const named = goals.map((goal) => ({ ...goal, student: nameOf.get(goal.studentId) ?? '' }));
  const totals = classTotals(named, amounts, mondayOf(actor.today));
  const rows = totals.rows.map((row, i) => {
    const goal = named[i] as (typeof named)[number];
    const pace = progress.get(row.goalId)?.pace ?? null;
    return {
      ...row,
      studentId: goal.studentId as string,
      number: goal.number,
      shortName: goal.shortName,
      share: percent((100 * row.amount) / row.total),
      lately: progress.get(row.goalId)?.lately ?? null,
      projected: projectedSaid(row, pace, actor.today),
      // Without a pace nothing is late before its day.
      isLate: row.amount < row.total && (pace ? !isInTime(pace, goal.targetOn) : goal.targetOn < actor.today),
      isWithoutPace: pace === null && row.amount < row.total,
      needed: pace?.needed == null ? null : classTotalsWords.needs(pace.neededSaid, pace.days),
      targetOn: goal.targetOn,
    };
  });
  const order = {
    name: (a: (typeof rows)[number], b: typeof a) => a.student.localeCompare(b.student),
    share: (a: (typeof rows)[number], b: typeof a) => a.amount / a.total - b.amount / b.total,
    week: (a: (typeof rows)[number], b: typeof a) => (a.thisWeek ?? 0) - (b.thisWeek ?? 0),
  };
  return {
    ...{ groups, group, kind, sort: asked.sort, discreet, today: actor.today, schoolName: school.name },
    kinds: [...kinds].map(([id, unit]) => ({ id, name: discreet ? classTotalsWords.logOf(id) : unit.many })),
    unit: (goals[0]?.measure as CumulativeTotalDefinition | undefined)?.unit.many ?? '',
    categories: totals.categories,
    weeks: totals.weeks,
    rows: rows.sort(order[asked.sort]),
    sum: { ...totals.all, share: totals.all.total === 0 ? '–' : percent((100 * totals.all.amount) / totals.all.total) },
  };
}

/** Whether a log is full by its target date at its present pace. */
const isInTime = ({ on }: Pace, targetOn: string) => on !== null && on <= targetOn;

/** When a log is full at its present pace. */
function projectedSaid({ amount, total }: { amount: number; total: number }, pace: Pace | null, today: string): string {
  if (amount >= total) return classTotalsWords.there;
  if (!pace) return classTotalsWords.noPaceYet;
  return pace.on ? dateSeenFrom(pace.on, today) : classTotalsWords.notForeseen;
}
