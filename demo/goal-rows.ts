import { addDays, dayNumber, type IsoDate } from '~/core/calendar/iso-date';
import { type SchoolCalendar, schoolDays } from '~/core/calendar/school-days';
import { type GoalDefinition, goalDefinition, supportStepsOn } from '~/core/goals/goal';
import { successLevels } from '~/core/measures/support-levels';
import type { TrialsDefinition } from '~/core/measures/trials/trials';
import { type GoalPattern, goalPatterns, noteBank } from './goal-patterns';
import { type MoreMeasures, moreMeasures } from './more-measures';
import { type Random, randomFrom } from './random';
import { goalRow, measureRow, observationRow, phaseRows, type Row } from './rows';
import { type CourseShape, type DemoStudent, locations, type StaffKey } from './school';

export const SEED = 20260908;
/** About this many sessions a goal, however far the year has got. */
const SESSIONS_PER_GOAL = 62;

/** What the rows of one student are made in. */
export interface Surroundings {
  random: Random;
  year: number;
  today: IsoDate;
  calendar: SchoolCalendar;
  locationIds: Map<string, string>;
  groupIds: Map<string, string>;
  staffIds: Map<StaffKey, string>;
  schoolId: string;
}

/** The same with the plan that the goals are written for. */
type InPlan = Surroundings & { planId: string };

export interface GoalRows {
  goals: Row[];
  goal_measures: Row[];
  goal_phases: Row[];
  goal_locations: Row[];
  entries: Row[];
}

/** A goal measured by trials, with its sessions. */
export function goalRows(
  student: DemoStudent,
  studentId: string,
  [number, patternKey, shape]: DemoStudent['goals'][number],
  position: number,
  around: InPlan,
): GoalRows {
  const { random, year, today, calendar } = around;
  const pattern = goalPatterns[patternKey] as GoalPattern;
  const id = random.uuid();
  const yearDays = schoolDays(`${year}-09-08`, today, calendar);
  // A goal that it is too early to judge began in the last few school days.
  const days =
    shape === 'tooEarly'
      ? yearDays.slice(-3)
      : shape === 'silent' || shape === 'unchecked'
        ? yearDays.slice(0, -14)
        : yearDays;
  const startsOn = days[0] ?? `${year}-09-08`;
  const statesBaseline = shape === 'tooEarly' || random.happens(0.25);
  const start = random.whole(25, 45);
  const supportFrom = addDays(startsOn, 10);
  const support = {
    label: pattern.support?.label ?? 'New support',
    steps: (pattern.support?.steps ?? []).map((label, i) => ({ key: `step${i + 1}`, label })),
  };
  const definition = goalDefinition.parse({
    measure: {
      kind: 'trials',
      levels: pattern.levels,
      mostSupport: pattern.mostSupport,
      planned: pattern.planned,
      opportunity: { one: pattern.opportunity[0], many: pattern.opportunity[1] },
    },
    criterion: {
      comparison: 'atLeast',
      value: pattern.target,
      rule: Array.isArray(pattern.run)
        ? { kind: 'ofLast', k: pattern.run[0], n: pattern.run[1] }
        : { kind: 'inARow', n: pattern.run },
      minimumOpportunities: Math.ceil(pattern.planned / 2),
    },
    pointPer: 'day',
    baseline: statesBaseline ? { value: start, on: startsOn } : null,
    target: pattern.target,
    targetOn: random.pick([`${year + 1}-01-29`, `${year + 1}-03-26`, `${year + 1}-06-11`]),
    startsOn,
    plannedGap: random.happens(0.3) ? 5 : null,
    phases: statesBaseline
      ? [{ ...support, startsOn, isBaseline: false }]
      : [
          { label: 'Baseline', startsOn, isBaseline: true },
          { ...support, startsOn: supportFrom, isBaseline: false },
        ],
  });
  const observations = sessionRows({ student, studentId, goalId: id, pattern, shape, start, days, definition }, around);
  return {
    goals: [
      goalRow(definition, {
        id,
        student_id: studentId,
        plan_id: around.planId,
        number,
        area: pattern.area,
        short_name: pattern.shortName,
        wording: pattern.wording(student.first),
        position,
      }),
    ],
    goal_measures: [measureRow(id, definition)],
    goal_phases: phaseRows(id, definition),
    goal_locations: [{ goal_id: id, location_id: around.locationIds.get(pattern.location) }],
    entries: observations,
  };
}

interface GoalInTheMaking {
  student: DemoStudent;
  studentId: string;
  goalId: string;
  pattern: GoalPattern;
  shape: CourseShape;
  start: number;
  days: IsoDate[];
  definition: GoalDefinition;
}

/** The share of successes to be expected on a day, 0 … 1. */
function expectedShare({ shape, start, days, definition }: GoalInTheMaking, on: IsoDate, supportFrom: IsoDate): number {
  if (on < supportFrom) return start / 100;
  const sinceSupport = dayNumber(on) - dayNumber(supportFrom);
  const wholeWay = dayNumber(definition.targetOn) - dayNumber(supportFrom);
  const course = start + ((definition.target - start) * sinceSupport) / wholeWay;
  const met = Math.min(definition.target + 10, start + 10 + sinceSupport * 1.1);
  // What had been met is gone again in the last three weeks.
  const isLost = on >= (days.at(-15) ?? on);
  const percent = {
    rising: Math.min(course + 3, definition.target - 10),
    tooEarly: course,
    ahead: Math.min(start + 18 + sinceSupport / 4, course + 22, definition.target - 14),
    flat: start - 6,
    silent: course - 4,
    met,
    unchecked: met,
    lost: isLost ? start : met,
  }[shape];
  return Math.min(0.97, Math.max(0.05, percent / 100));
}

function sessionRows(goal: GoalInTheMaking, around: Surroundings): Row[] {
  const { random, today } = around;
  const supportFrom = goal.definition.phases.at(-1)?.startsOn ?? today;
  const perDay = Math.min(1.22, SESSIONS_PER_GOAL / Math.max(1, goal.days.length));
  const rows: Row[] = [];
  for (const on of goal.days) {
    const sessions = Number(random.happens(Math.min(1, perDay * 0.85))) + Number(random.happens(perDay * 0.15));
    for (let session = 0; session < sessions; session++) {
      rows.push(sessionRow(goal, on, session, expectedShare(goal, on, supportFrom), around));
    }
  }
  return rows;
}

function sessionRow(goal: GoalInTheMaking, on: IsoDate, session: number, share: number, around: Surroundings): Row {
  const { random, locationIds, staffIds } = around;
  const { student, pattern } = goal;
  const team = Object.keys(student.team) as StaffKey[];
  const observerId = staffIds.get(random.pick(team));
  const location = random.happens(0.8) ? pattern.location : random.pick(locations);
  const hour = session === 0 ? random.whole(8, 10) : random.whole(11, 14);
  const minute = random.whole(0, 11) * 5;
  const time = `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
  const recordedLater = random.happens(0.15);
  const reason = random.happens(0.05) ? random.pick(['absent', 'refused', 'noOpportunity'] as const) : null;
  const id = random.uuid();
  const data = reason ? null : { trials: trialsOf(goal, share, random) };
  const note = random.happens(0.35) ? random.pick(noteBank).replace('{name}', student.first) : '';
  return observationRow(id, {
    goal: { id: goal.goalId, studentId: goal.studentId },
    on,
    time,
    observer: observerId,
    location: locationIds.get(location),
    data,
    reason,
    note,
    recordedTime: recordedLater ? '15:10' : time,
    fidelity: data && fidelityOn(goal, on, session, data.trials),
  });
}

/** Which steps of the support were done, where it has some. Its chance is its own, so that the rest of the demo stays as it is. */
function fidelityOn({ definition }: GoalInTheMaking, on: IsoDate, session: number, trials: string[]) {
  const random = randomFrom(SEED + 100 * dayNumber(on) + session);
  const steps = supportStepsOn(definition.phases, on);
  if (steps.length === 0 || random.happens(0.3)) return null;
  // On a day that goes well there is more time for the support, too.
  const hurried = random.happens(trials.filter((outcome) => outcome === 'incorrect').length > 1 ? 0.6 : 0.2);
  return steps.map((step, i) => ({ ...step, isDone: !random.happens((hurried ? 0.45 : 0.08) + (i === 1 ? 0.15 : 0)) }));
}

function trialsOf({ definition, pattern }: GoalInTheMaking, share: number, random: Random): string[] {
  const measure = definition.measure as TrialsDefinition;
  const succeeding = [...successLevels(measure)];
  const helped = measure.levels.map((level) => level.key).filter((key) => !succeeding.includes(key));
  const trials = Math.max(3, pattern.planned - (random.happens(0.25) ? random.whole(1, 2) : 0));
  // A good or a bad day moves one opportunity or so: days are more alike than independent coins would be.
  const mood = random.pick([-1, 0, 0, 0, 1]) * 0.9;
  const right = Math.min(trials, Math.max(0, Math.round(share * trials + mood)));
  const isRight = Array.from({ length: trials }, (_, at) => ({ at: random.whole(0, 9999), right: at < right }));
  isRight.sort((a, b) => a.at - b.at);
  return isRight.map(({ right: wentRight }) => {
    if (wentRight) return succeeding[random.happens(0.6) ? 0 : succeeding.length - 1] as string;
    if (helped.length > 0 && random.happens(0.6)) return random.pick(helped);
    return random.happens(0.6) ? 'incorrect' : random.pick(['noResponse', 'refused']);
  });
}

/** A goal of another measure. Its chance is its own, so that the rest of the demo stays as it is. */
export function moreMeasureRows(
  student: DemoStudent,
  studentId: string,
  more: MoreMeasures,
  position: number,
  around: InPlan,
): GoalRows {
  const { year, today, calendar, locationIds, staffIds } = around;
  const random = randomFrom(SEED + 1 + moreMeasures.indexOf(more));
  const id = random.uuid();
  const days = schoolDays(`${year}-09-08`, today, calendar);
  const startsOn = days[0] ?? `${year}-09-08`;
  const definition = goalDefinition.parse({
    measure: more.measure,
    criterion: more.criterion,
    pointPer: 'day',
    baseline: { value: more.baseline, on: startsOn },
    target: more.target,
    targetOn: `${year + 1}-06-11`,
    startsOn,
    plannedGap: 5,
    phases: [{ label: 'New support', startsOn, isBaseline: false }],
  });
  const team = Object.keys(student.team) as StaffKey[];
  const observations = days
    .filter(() => random.happens(0.4))
    .map((on): Row => {
      // As far on the way as the course, and a little ahead of it.
      const way = Math.min(1, (dayNumber(on) - dayNumber(startsOn)) / 190 + 0.12);
      const time = `${two(random.whole(9, 13))}:${two(5 * random.whole(0, 11))}`;
      const observer = staffIds.get(random.pick(team)) as string;
      return observationRow(random.uuid(), {
        goal: { id, studentId },
        on,
        time,
        observer,
        location: locationIds.get(more.location) as string,
        data: more.session(random, way),
        note: random.happens(0.25) ? random.pick(noteBank).replace('{name}', student.first) : '',
      });
    });
  return {
    goals: [
      goalRow(definition, {
        id,
        student_id: studentId,
        plan_id: around.planId,
        number: String(position + 1),
        area: more.area,
        short_name: more.shortName,
        wording: more.wording(student.first),
        position,
      }),
    ],
    goal_measures: [measureRow(id, definition)],
    goal_phases: phaseRows(id, definition),
    goal_locations: [{ goal_id: id, location_id: around.locationIds.get(more.location) }],
    entries: observations,
  };
}

const two = (n: number) => String(n).padStart(2, '0');
