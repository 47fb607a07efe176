import { createHash } from 'node:crypto';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import type { SchoolCalendar } from '~/core/calendar/school-days';
import { instantAt } from '~/core/calendar/zone';
import { usualPurposes } from '~/core/sharing/share-link';
import { behaviorRows } from './behavior-rows';
import { type GoalRows, goalRows, moreMeasureRows, SEED, type Surroundings } from './goal-rows';
import { moreMeasures } from './more-measures';
import { randomFrom } from './random';
import type { Row } from './rows';
import {
  classGroups,
  closuresFor,
  type DemoStudent,
  dayParts,
  dayRounds,
  locations,
  type StaffKey,
  schoolName,
  staff,
  students,
  timeZone,
  weekdays,
} from './school';

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
  const schoolId = randomFrom(SEED - 7).uuid();
  const locationIds = new Map(locations.map((name) => [name, random.uuid()]));
  const groupIds = new Map(classGroups.map((name) => [name, random.uuid()]));
  const staffIds = new Map((Object.keys(staff) as StaffKey[]).map((key) => [key, random.uuid()]));
  const perStudent = students.map((student) => {
    return studentRows(student, { random, year, today, calendar, locationIds, groupIds, staffIds, schoolId });
  });
  const studentIds = new Map(students.map(({ first }, i) => [first, perStudent[i]?.students?.[0]?.id as string]));
  const behavior = behaviorRows(studentIds, { year, today, calendar, locationIds, groupIds, staffIds, schoolId });
  const together = (table: string): [string, Row[]] => [table, perStudent.flatMap((rows) => rows[table] ?? [])];
  return [
    ['schools', [{ id: schoolId, name: schoolName, time_zone: timeZone, weekdays, is_demo: true }]],
    ['closures', closures.map((closure) => ({ ...closure, school_id: schoolId }))],
    [
      'locations',
      locations.map((name, position) => ({ id: locationIds.get(name), school_id: schoolId, name, position })),
    ],
    [
      'class_groups',
      classGroups.map((name, position) => ({ id: groupIds.get(name), school_id: schoolId, name, position })),
    ],
    ['people', peopleRows(staffIds, passwordHash, instantAt({ on: `${year}-09-01`, time: '08:00' }, timeZone))],
    ['school_staff', staffRows(staffIds, schoolId, `${year}-09-01`)],
    ['timetable_blocks', timetableRows(groupIds, locationIds).map((block) => ({ ...block, school_id: schoolId }))],
    ...[
      'students',
      'student_groups',
      'plans',
      'reporting_periods',
      'team_members',
      'goals',
      'goal_measures',
      'goal_phases',
      'goal_locations',
    ].map(together),
    ...behavior.lists,
    ['entries', [...together('entries')[1], ...behavior.entries]],
    ['incident_choices', behavior.choices],
    ...['share_links', 'share_link_tokens', 'access_log'].map(together),
    ...roundRows(perStudent, groupIds, { madeBy: staffIds.get('hanneke') as string, schoolId }),
  ];
}

/** A round for the morning of each group: the first goal of each student in it. */
function roundRows(
  perStudent: Record<string, Row[]>[],
  groupIds: Map<string, string>,
  { madeBy, schoolId }: { madeBy: string; schoolId: string },
): DemoRows {
  const random = randomFrom(SEED - 2);
  const rounds = dayRounds.map((round) => ({ ...round, id: random.uuid() }));
  const goals = rounds.flatMap(({ id: round_id, group }) =>
    perStudent
      .filter(({ student_groups }) => student_groups?.[0]?.group_id === groupIds.get(group))
      .filter(({ team_members }) => team_members?.some((member) => member.person_id === madeBy))
      .map(({ goals }, position) => ({
        round_id,
        goal_id: goals?.[0]?.id,
        student_id: goals?.[0]?.student_id,
        position,
      })),
  );
  const rows = rounds.map(({ id, name, weekday, startsAt }) => ({
    ...{ id, name, made_by: madeBy, school_id: schoolId, weekday, starts_at: startsAt },
  }));
  return [
    ['rounds', rows],
    ['round_goals', goals],
  ];
}

function peopleRows(ids: Map<StaffKey, string>, passwordHash: string, provenAt: Date): Row[] {
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
      email_proven_at: provenAt,
    };
  });
}

/** All work at the one school; two of them keep its lists. */
function staffRows(ids: Map<StaffKey, string>, schoolId: string, from: IsoDate): Row[] {
  return [...ids].map(([key, id]) => ({
    ...{ school_id: schoolId, person_id: id, is_admin: key === 'hanneke' || key === 'samir', from_date: from },
  }));
}

/** The same hours every school day: each group begins where it is at home. */
function timetableRows(groupIds: Map<string, string>, locationIds: Map<string, string>): Row[] {
  const random = randomFrom(SEED - 1);
  return dayParts.flatMap(({ group, part, from, to, location }) =>
    weekdays.map((weekday) => ({
      id: random.uuid(),
      group_id: group ? groupIds.get(group) : null,
      weekday,
      part,
      starts_at: from,
      ends_at: to,
      location_id: locationIds.get(location),
    })),
  );
}

function studentRows(student: DemoStudent, around: Surroundings): Record<string, Row[]> {
  const { random, year, groupIds, staffIds, schoolId } = around;
  const id = random.uuid();
  const planId = random.uuid();
  const startsOn = `${year}-09-08`;
  const goals = [
    ...student.goals.map((goal, position) => goalRows(student, id, goal, position, { ...around, planId })),
    ...moreMeasures
      .filter((more) => more.student === student.first)
      .map((more, i) => moreMeasureRows(student, id, more, student.goals.length + i, { ...around, planId })),
  ];
  const of = (table: keyof GoalRows) => goals.flatMap((rows) => rows[table]);
  const links = student.first === 'Ansel' || student.first === 'Emrys' ? linkRows(id, student, around) : [];
  return {
    students: [
      {
        id,
        school_id: schoolId,
        first_name: student.first,
        last_name: student.last,
        short_name: `${student.first} ${student.last.charAt(0)}.`,
        initials: student.first.charAt(0) + student.last.charAt(0),
        grade: student.grade,
      },
    ],
    student_groups: [{ student_id: id, group_id: groupIds.get(student.group), school_id: schoolId }],
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
    goal_measures: of('goal_measures'),
    goal_phases: of('goal_phases'),
    goal_locations: of('goal_locations'),
    entries: of('entries'),
    share_links: links.map(({ link }) => link),
    share_link_tokens: links.flatMap(({ tokens }) => tokens),
    access_log: links.flatMap(({ readings }) => readings),
  };
}

/** Two ways in: one open and read, one that has ended. Nobody holds their tokens. */
function linkRows(studentId: string, student: DemoStudent, { random, year, today, staffIds }: Surroundings) {
  const madeAt = instantAt({ on: `${year}-09-15`, time: '15:30' }, timeZone);
  const family = `Family of ${student.first} ${student.last.charAt(0)}.`;
  const make = (reader_name: string, ends_on: IsoDate, opened: IsoDate[]) => {
    const id = random.uuid();
    return {
      link: {
        id,
        student_id: studentId,
        reader_name,
        kind: reader_name === family ? 'family' : 'specialist',
        purpose: usualPurposes[reader_name === family ? 'family' : 'specialist'],
        ends_on,
        created_by: staffIds.get('hanneke'),
        created_at: madeAt,
      },
      tokens: [{ token_hash: createHash('sha256').update(id).digest(), link_id: id, made_at: madeAt }],
      readings: opened.map((on) => ({
        ...{ student_id: studentId, link_id: id, what: 'report', how: 'opened' },
        at: instantAt({ on, time: '18:42' }, timeZone),
        day: on,
      })),
    };
  };
  return [
    make(family, `${year + 1}-06-11`, [addDays(today, -8), addDays(today, -1)]),
    make('Dr. Anouk Perrin, pediatrician', `${year}-10-31`, [`${year}-10-02`]),
  ];
}
