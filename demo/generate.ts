import { createHash } from 'node:crypto';
import { addDays, dayNumber, type IsoDate } from '~/core/calendar/iso-date';
import { type SchoolCalendar, schoolDays } from '~/core/calendar/school-days';
import { instantAt } from '~/core/calendar/zone';
import { type GoalDefinition, goalDefinition } from '~/core/goals/goal';
import { successLevels } from '~/core/measures/support-levels';
import type { TrialsDefinition } from '~/core/measures/trials';
import { type GoalPattern, goalPatterns, noteBank } from './goal-patterns';
import { type MoreMeasures, moreMeasures } from './more-measures';
import { type Random, randomFrom } from './random';
import {
  type CourseShape,
  classGroups,
  closuresFor,
  type DemoStudent,
  places,
  type StaffKey,
  schoolName,
  staff,
  students,
  timeZone,
  weekdays,
} from './school';

const SEED = 20260908;
/** About this many sessions a goal, however far the year has got. */
const SESSIONS_PER_GOAL = 62;

type Row = Record<string, unknown>;

/** Every table's rows, in the order in which they can be inserted. */
export type DemoRows = [table: string, rows: Row[]][];

/** The calendar year in which the school year of a date began. */
export function schoolYearOf(today: IsoDate): number {
  const [year, month] = today.split('-').map(Number) as [number, number];
  return month >= 9 ? year : year - 1;
}

const initialsOf = (name: string) =>
  name
    .split(' ')
    .map((part) => part.charAt(0))
    .join('');

/**
 * A school year of the made-up school from early September up to a day. The same day gives the same rows.
 *
 * @param passwordHash  the stored hash of the demo people's password
 */
export function generateDemo(today: IsoDate, passwordHash: string): DemoRows {
  const random = randomFrom(SEED);
  const year = schoolYearOf(today);
  const closures = closuresFor(year);
  const calendar: SchoolCalendar = {
    weekdays,
    closures: closures.map((closure) => ({ first: closure.first_day, last: closure.last_day })),
  };
  const placeIds = new Map(places.map((name) => [name, random.uuid()]));
  const groupIds = new Map(classGroups.map((name) => [name, random.uuid()]));
  const staffIds = new Map((Object.keys(staff) as StaffKey[]).map((key) => [key, random.uuid()]));
  const perStudent = students.map((student) => {
    return studentRows(student, { random, year, today, calendar, placeIds, groupIds, staffIds });
  });
  const together = (table: string): [string, Row[]] => [table, perStudent.flatMap((rows) => rows[table] ?? [])];
  return [
    ['school', [{ name: schoolName, time_zone: timeZone, weekdays, is_demo: true }]],
    ['closures', closures],
    ['settings', places.map((name, position) => ({ id: placeIds.get(name), name, position }))],
    ['class_groups', classGroups.map((name, position) => ({ id: groupIds.get(name), name, position }))],
    ['people', peopleRows(staffIds, passwordHash)],
    ...['students', 'student_groups', 'plans', 'reporting_periods', 'team_members', 'goals', 'goal_phases'].map(
      together,
    ),
    ...['observations', 'share_links', 'share_link_openings'].map(together),
  ];
}

function peopleRows(ids: Map<StaffKey, string>, passwordHash: string): Row[] {
  return (Object.entries(staff) as [StaffKey, { name: string; work: string }][]).map(([key, { name, work }], i) => {
    const [first = '', last = ''] = name.split(' ');
    return {
      id: ids.get(key),
      name,
      short_name: `${first.charAt(0)}. ${last}`,
      initials: initialsOf(name),
      work,
      email: `${first}.${last}@quince-lane.example`.toLowerCase(),
      password_hash: passwordHash,
      demo_order: i + 1,
    };
  });
}

interface Surroundings {
  random: Random;
  year: number;
  today: IsoDate;
  calendar: SchoolCalendar;
  placeIds: Map<string, string>;
  groupIds: Map<string, string>;
  staffIds: Map<StaffKey, string>;
}

function studentRows(student: DemoStudent, around: Surroundings): Record<string, Row[]> {
  const { random, year, groupIds, staffIds } = around;
  const id = random.uuid();
  const planId = random.uuid();
  const startsOn = `${year}-09-08`;
  const goals = [
    ...student.goals.map((goal, position) => goalRows(student, id, goal, position, around)),
    ...moreMeasures
      .filter((more) => more.student === student.first)
      .map((more, i) => moreMeasureRows(student, id, more, student.goals.length + i, around)),
  ];
  const of = (table: keyof GoalRows) => goals.flatMap((rows) => rows[table]);
  const links = student.first === 'Ansel' || student.first === 'Emrys' ? linkRows(id, student, around) : [];
  return {
    students: [
      {
        id,
        first_name: student.first,
        last_name: student.last,
        short_name: `${student.first} ${student.last.charAt(0)}.`,
        initials: student.first.charAt(0) + student.last.charAt(0),
        grade: student.grade,
      },
    ],
    student_groups: [{ student_id: id, group_id: groupIds.get(student.group) }],
    plans: [{ id: planId, student_id: id, starts_on: startsOn, ends_on: `${year + 1}-06-11` }],
    reporting_periods: [`${year}-12-04`, `${year + 1}-02-26`, `${year + 1}-04-30`, `${year + 1}-06-11`].map(
      (ends_on, i) => ({ plan_id: planId, label: `Quarter ${i + 1}`, ends_on }),
    ),
    team_members: (Object.entries(student.team) as [StaffKey, string][]).map(([key, role]) => ({
      student_id: id,
      person_id: staffIds.get(key),
      role,
      from_date: `${year}-09-01`,
    })),
    goals: of('goals'),
    goal_phases: of('goal_phases'),
    observations: of('observations'),
    share_links: links.map(({ link }) => link),
    share_link_openings: links.flatMap(({ openings }) => openings),
  };
}

interface GoalRows {
  goals: Row[];
  goal_phases: Row[];
  observations: Row[];
}

function goalRows(
  student: DemoStudent,
  studentId: string,
  [number, patternKey, shape]: DemoStudent['goals'][number],
  position: number,
  around: Surroundings,
): GoalRows {
  const { random, year, today, calendar } = around;
  const pattern = goalPatterns[patternKey] as GoalPattern;
  const id = random.uuid();
  const yearDays = schoolDays(`${year}-09-08`, today, calendar);
  // A goal that it is too early to judge began in the last few school days.
  const days = shape === 'tooEarly' ? yearDays.slice(-3) : shape === 'silent' ? yearDays.slice(0, -14) : yearDays;
  const startsOn = days[0] ?? `${year}-09-08`;
  const statesBaseline = shape === 'tooEarly' || random.happens(0.25);
  const start = random.whole(25, 45);
  const supportFrom = addDays(startsOn, 10);
  const definition = goalDefinition.parse({
    measure: {
      kind: 'trials',
      levels: pattern.levels,
      mostSupport: pattern.mostSupport,
      planned: pattern.planned,
      chance: { one: pattern.chance[0], many: pattern.chance[1] },
    },
    criterion: {
      comparison: 'atLeast',
      value: pattern.target,
      rule: Array.isArray(pattern.run)
        ? { kind: 'ofLast', k: pattern.run[0], n: pattern.run[1] }
        : { kind: 'inARow', n: pattern.run },
      minimumOpportunities: 3,
    },
    pointPer: 'day',
    baseline: statesBaseline ? { value: start, on: startsOn } : null,
    target: pattern.target,
    targetOn: random.pick([`${year + 1}-01-29`, `${year + 1}-03-26`, `${year + 1}-06-11`]),
    startsOn,
    plannedGap: random.happens(0.3) ? 5 : null,
    phases: statesBaseline
      ? [{ label: 'New support', startsOn, isBaseline: false }]
      : [
          { label: 'Baseline', startsOn, isBaseline: true },
          { label: 'New support', startsOn: supportFrom, isBaseline: false },
        ],
  });
  const observations = sessionRows({ student, studentId, goalId: id, pattern, shape, start, days, definition }, around);
  return {
    goals: [
      goalRow(definition, {
        id,
        student_id: studentId,
        number,
        area: pattern.area,
        short_name: pattern.shortName,
        wording: pattern.wording(student.first),
        position,
      }),
    ],
    goal_phases: phaseRows(id, definition),
    observations,
  };
}

function goalRow(definition: GoalDefinition, named: Row): Row {
  return {
    ...named,
    measure: JSON.stringify(definition.measure),
    criterion: JSON.stringify(definition.criterion),
    point_per: definition.pointPer,
    baseline_value: definition.baseline?.value ?? null,
    baseline_on: definition.baseline?.on ?? null,
    target: definition.target,
    target_on: definition.targetOn,
    starts_on: definition.startsOn,
    planned_gap: definition.plannedGap,
  };
}

const phaseRows = (goalId: string, { phases }: GoalDefinition): Row[] =>
  phases.map((phase) => ({
    goal_id: goalId,
    label: phase.label,
    starts_on: phase.startsOn,
    is_baseline: phase.isBaseline,
  }));

interface ObservationInTheMaking {
  goal: { id: string; studentId: string };
  on: IsoDate;
  time: string;
  observer: string | undefined;
  place: string | undefined;
  data: object | null;
  reason?: string | null;
  note: string;
  recordedTime?: string;
}

function observationRow(id: string, made: ObservationInTheMaking): Row {
  const { goal, on, time, observer, place, data, reason = null, note, recordedTime = time } = made;
  return {
    id,
    goal_id: goal.id,
    student_id: goal.studentId,
    observed_on: on,
    observed_time: time,
    observer_id: observer,
    setting_id: place,
    data: data && JSON.stringify(data),
    reason,
    note,
    recorded_by: observer,
    recorded_at: instantAt({ on, time: recordedTime }, timeZone),
    version: 1,
    changed_by: null,
    changed_at: null,
    change_reason: null,
    withdrawn: false,
  };
}

/** A goal of another measure. Its chance is its own, so that the rest of the demo stays as it is. */
function moreMeasureRows(
  student: DemoStudent,
  studentId: string,
  more: MoreMeasures,
  position: number,
  around: Surroundings,
): GoalRows {
  const { year, today, calendar, placeIds, staffIds } = around;
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
        place: placeIds.get(more.place) as string,
        data: more.session(random, way),
        note: random.happens(0.25) ? random.pick(noteBank).replace('{name}', student.first) : '',
      });
    });
  return {
    goals: [
      goalRow(definition, {
        id,
        student_id: studentId,
        number: String(position + 1),
        area: more.area,
        short_name: more.shortName,
        wording: more.wording(student.first),
        position,
      }),
    ],
    goal_phases: phaseRows(id, definition),
    observations,
  };
}

const two = (n: number) => String(n).padStart(2, '0');

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
function expectedShare({ shape, start, definition }: GoalInTheMaking, on: IsoDate, supportFrom: IsoDate): number {
  if (on < supportFrom) return start / 100;
  const sinceSupport = dayNumber(on) - dayNumber(supportFrom);
  const wholeWay = dayNumber(definition.targetOn) - dayNumber(supportFrom);
  const course = start + ((definition.target - start) * sinceSupport) / wholeWay;
  const percent = {
    rising: Math.min(course + 3, definition.target - 10),
    tooEarly: course,
    ahead: Math.min(start + 18 + sinceSupport / 4, course + 22, definition.target - 14),
    flat: start - 6,
    silent: course - 4,
    met: Math.min(definition.target + 10, start + 10 + sinceSupport * 1.1),
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
  const { random, placeIds, staffIds } = around;
  const { student, pattern } = goal;
  const team = Object.keys(student.team) as StaffKey[];
  const observerId = staffIds.get(random.pick(team));
  const place = random.happens(0.8) ? pattern.place : random.pick(places);
  const hour = session === 0 ? random.whole(8, 10) : random.whole(11, 14);
  const minute = random.whole(0, 11) * 5;
  const time = `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
  const recordedLater = random.happens(0.15);
  const reason = random.happens(0.05) ? random.pick(['absent', 'declined', 'noOpportunity'] as const) : null;
  const id = random.uuid();
  const data = reason ? null : { trials: trialsOf(goal, share, random) };
  const note = random.happens(0.35) ? random.pick(noteBank).replace('{name}', student.first) : '';
  return observationRow(id, {
    goal: { id: goal.goalId, studentId: goal.studentId },
    on,
    time,
    observer: observerId,
    place: placeIds.get(place),
    data,
    reason,
    note,
    recordedTime: recordedLater ? '15:10' : time,
  });
}

function trialsOf({ definition, pattern }: GoalInTheMaking, share: number, random: Random): string[] {
  const measure = definition.measure as TrialsDefinition;
  const succeeding = [...successLevels(measure)];
  const helped = measure.levels.map((level) => level.key).filter((key) => !succeeding.includes(key));
  const trials = Math.max(3, pattern.planned - (random.happens(0.25) ? random.whole(1, 2) : 0));
  // A good or a bad day moves one chance or so: days are more alike than independent coins would be.
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

/** Two ways in: one open and read, one that has ended. Nobody holds their tokens. */
function linkRows(studentId: string, student: DemoStudent, { random, year, today, staffIds }: Surroundings) {
  const family = `Family of ${student.first} ${student.last.charAt(0)}.`;
  const make = (reader_name: string, ends_on: IsoDate, opened: IsoDate[]) => {
    const id = random.uuid();
    return {
      link: {
        id,
        student_id: studentId,
        reader_name,
        token_hash: createHash('sha256').update(id).digest(),
        shows_notes: true,
        shows_observers: false,
        ends_on,
        created_by: staffIds.get('hanneke'),
        created_at: instantAt({ on: `${year}-09-15`, time: '15:30' }, timeZone),
      },
      openings: opened.map((on) => ({ link_id: id, opened_at: instantAt({ on, time: '18:42' }, timeZone) })),
    };
  };
  return [
    make(family, `${year + 1}-06-11`, [addDays(today, -8), addDays(today, -1)]),
    make('Dr. Anouk Perrin, pediatrician', `${year}-10-31`, [`${year}-10-02`]),
  ];
}
