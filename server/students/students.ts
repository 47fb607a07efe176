import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { type Database, preparedRows } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { readStudent, type StudentAccess } from './access';
import { can, membershipRow, type Right } from './rights';

const tabRow = z.object({
  id: readStudent,
  shortName: z.string(),
  initials: z.string(),
  firstName: z.string(),
  lastName: z.string(),
});
export type StudentTab = Omit<z.infer<typeof tabRow>, 'id'> & { id: string };

const studentRow = tabRow.extend({
  ...membershipRow.shape,
  isArchived: z.boolean(),
  grade: z.string(),
  /** The school's own number of them. */
  number: z.string().nullable(),
  groups: z.array(z.string()),
  plan: z.object({ startsOn: z.string(), endsOn: z.string(), nextReportOn: z.string().nullable() }).nullable(),
});

/** A student on whom the one who asks has a right. */
export type Student<R extends Right = 'read'> = Omit<z.infer<typeof studentRow>, 'id'> & { id: StudentAccess<R> };

/** `$1` is the day on which it is asked. */
const memberIsActive = `m.from_date <= $1 and coalesce(m.until_date, 'infinity') >= $1`;

/**
 * Of the plans of a student the one that holds on a day comes first, then the next one, then the newest that is over.
 *
 * @param day  as SQL
 */
export const planFirst = (of: string, day: string) =>
  `${of}.starts_on <= ${day} and ${of}.ends_on >= ${day} desc, ${of}.starts_on > ${day} desc,
   case when ${of}.starts_on > ${day} then ${of}.starts_on end, ${of}.starts_on desc`;

const studentColumns = `
  s.id, s.first_name as "firstName", s.last_name as "lastName", s.short_name as "shortName", s.initials, s.grade, s.sourced_id as "number", m.role, m.rights,
  s.archived_at is not null as "isArchived",
  (select coalesce(json_agg(g.name order by g.position), '[]')
     from student_groups sg join class_groups g on g.id = sg.group_id where sg.student_id = s.id) as groups,
  (select json_build_object('startsOn', p.starts_on, 'endsOn', p.ends_on, 'nextReportOn',
            (select min(r.ends_on) from reporting_periods r where r.plan_id = p.id and r.removed_at is null and r.ends_on >= $1))
     from plans p where p.student_id = s.id order by ${planFirst('p', '$1')} limit 1) as plan`;

/**
 * The student, when the one who asks is on the support team and has the right. Of a student who has left that is to read, and to carry the
 * record out.
 *
 * @throws NotFound otherwise: a student one may not know of does not exist
 */
export async function requireStudent<R extends Right>(
  db: Database,
  actor: Actor,
  studentId: string,
  right: R,
): Promise<Student<R>> {
  const [student] = await preparedRows(
    db,
    'student-for',
    studentRow,
    `select ${studentColumns}
       from students s join team_members m on m.student_id = s.id and m.person_id = $2 and ${memberIsActive}
      where s.id = $3 and s.school_id = $4`,
    [actor.today, actor.personId, studentId, actor.schoolId],
  );
  if (!student || !can(student, right)) throw new NotFound('No such student.');
  // The right was found in the line above; a type has no trace at run time.
  return student as Student<R>;
}

/** Students who have left and whose record the one who asks still may see, by last name. */
export async function studentsWhoLeft(db: Database, actor: Actor): Promise<StudentTab[]> {
  const all = await rowsOf(
    db,
    tabRow.extend(membershipRow.shape),
    `select s.id, s.first_name as "firstName", s.last_name as "lastName", s.short_name as "shortName", s.initials, m.role, m.rights
       from students s join team_members m on m.student_id = s.id and m.person_id = :personId
            and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today
      where s.school_id = :schoolId and s.archived_at is not null order by s.last_name, s.first_name`,
    { ...actor },
  );
  return all.filter((student) => can(student, 'see'));
}

/** All students that the one who asks may see, by last name; not those whose report they may only read. */
export async function studentsOf(db: Database, actor: Actor): Promise<Student<'see'>[]> {
  const all = await preparedRows(
    db,
    'students-of',
    studentRow,
    `select ${studentColumns}
       from students s join team_members m on m.student_id = s.id and m.person_id = $2 and ${memberIsActive}
      where s.school_id = $3 and s.archived_at is null
      order by s.last_name, s.first_name`,
    [actor.today, actor.personId, actor.schoolId],
  );
  // As above: of those who are left, the right was found.
  return all.filter((student) => can(student, 'see')) as Student<'see'>[];
}

const tabFactsRow = tabRow.extend({
  ...membershipRow.shape,
  /** The first of their groups, as the school orders them. */
  group: z.string().nullable(),
  ...{ grade: z.string(), number: z.string().nullable() },
  /** Those that may be observed today. */
  goals: z.array(
    z.object({
      lastOn: z.string().nullable(),
      startsOn: z.string(),
      plannedGap: z.number().nullable(),
      observerIds: z.array(z.string()),
    }),
  ),
  /** Incidents that have no end yet. */
  going: z.array(z.object({ id: z.string(), on: z.string(), time: z.string(), version: z.number() })),
});
export type TabFacts = z.infer<typeof tabFactsRow>;

/** The students as index tabs, with what it takes to say whether something is due: for someone who only reads, no more than their names. */
export async function studentTabs(db: Database, actor: Actor): Promise<TabFacts[]> {
  const tabs = await preparedRows(
    db,
    'student-tabs',
    tabFactsRow,
    `select s.id, s.first_name as "firstName", s.last_name as "lastName", s.short_name as "shortName", s.initials, m.role, m.rights,
            own.group, s.grade, s.sourced_id as "number",
            coalesce((select json_agg(json_build_object('startsOn', g.starts_on, 'plannedGap', g.planned_gap,
                        'observerIds', coalesce((select json_agg(go.person_id) from goal_observers go where go.goal_id = g.id), '[]'), 'lastOn',
                        (select max(o.observed_on) from entries o where o.student_id = s.id and o.goal_id = g.id and o.kind = 'goal' and not o.withdrawn)))
                        from goals g where g.student_id = s.id and g.retired_on is null and not exists (
                          select from absences a where a.student_id = s.id and a.day = $1 and a.part is null and a.withdrawn_at is null)
                       ), '[]') as goals,
            coalesce((select json_agg(json_build_object('id', n.id, 'on', n.observed_on, 'version', n.version,
                        'time', to_char(n.observed_time, 'HH24:MI')) order by n.observed_on, n.observed_time)
                        from entries n where n.student_id = s.id and n.is_going and not n.withdrawn), '[]') as going
       from students s join team_members m on m.student_id = s.id and m.person_id = $2 and ${memberIsActive}
            left join lateral (
              select g.name as group, g.position from student_groups sg join class_groups g on g.id = sg.group_id
               where sg.student_id = s.id order by g.position limit 1) own on true
      where s.school_id = $3 and s.archived_at is null
      order by own.position nulls last, s.last_name, s.first_name`,
    [actor.today, actor.personId, actor.schoolId],
  );
  return tabs.map((tab) => (can(tab, 'see') ? tab : { ...tab, goals: [], going: [] }));
}

const teamMemberRow = membershipRow.extend({ id: z.string(), name: z.string(), shortName: z.string() });
export type TeamMember = z.infer<typeof teamMemberRow>;

/** The support team of a student on a day. */
export async function supportTeam(
  db: Database,
  studentId: StudentAccess<'read'>,
  today: IsoDate,
): Promise<TeamMember[]> {
  return (await supportTeams(db, [studentId], today)).get(studentId) ?? [];
}

/** The support teams of some students on a day, by student; each of them is in it. */
export async function supportTeams<Id extends StudentAccess<'read'>>(
  db: Database,
  studentIds: readonly Id[],
  today: IsoDate,
): Promise<ReadonlyMap<Id, TeamMember[]>> {
  const members = await preparedRows(
    db,
    'support-teams',
    teamMemberRow.extend({ studentId: z.string() }),
    `select m.student_id as "studentId", p.id, p.name, p.short_name as "shortName", m.role, m.rights
       from team_members m join people p on p.id = m.person_id
      where m.student_id = any(cast($2 as uuid[])) and ${memberIsActive}
      order by p.name`,
    [today, [...studentIds]],
  );
  return new Map(
    studentIds.map((of) => [of, members.flatMap(({ studentId, ...member }) => (studentId === of ? [member] : []))]),
  );
}

/** The name of a student’s case manager; empty while there is none. */
export async function caseManagerOf(db: Database, studentId: StudentAccess<'read'>): Promise<string> {
  return (await caseManager(db, studentId))?.name ?? '';
}

/**
 * A student’s case manager, with the address that answers go to; null while there is none. Open a door to the student first.
 *
 * @param today  asks for the one who is it on this day; else for the newest
 */
export async function caseManager(
  db: Database,
  studentId: string,
  today?: IsoDate,
): Promise<{ id: string; name: string; email: string } | null> {
  const row = await db('team_members as m')
    .join('people as p', 'p.id', 'm.person_id')
    .where({ 'm.student_id': studentId, 'm.role': 'caseManager' })
    .modify((query) => {
      if (!today) return;
      query.where('m.from_date', '<=', today).whereRaw(`coalesce(m.until_date, 'infinity') >= ?`, [today]);
    })
    .orderBy('m.from_date', 'desc')
    .first('p.id', 'p.name', 'p.email');
  return row ?? null;
}
