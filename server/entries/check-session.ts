import { z } from 'zod';
import { type IsoDate, longDate } from '~/core/calendar/iso-date';
import type { WallTime } from '~/core/calendar/zone';
import { defined } from '~/core/defined';
import type { sessionFields } from '~/core/entries/observation';
import type { MeasureDefinition } from '~/core/measures/measure';
import type { Goal } from '../goals/goals';
import { type Database, preparedRows } from '../platform/db/database';
import { written } from '../platform/db/rows';
import { NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { grant, type StudentAccess } from '../students/access';
import { can, membershipRow, type Right } from '../students/rights';

/** What a session's clock may be ahead of the server's before it counts as the future, in minutes. */
const CLOCK_SLACK = 5;

/** Whether a moment has not come yet, by the school's clock. */
export const isAhead = (session: WallTime, wall: WallTime) => minutes(session) > minutes(wall) + CLOCK_SLACK;

export const aheadWords = 'This lies in the future. An entry says what has been seen.';
export const notOnTeamWords = 'This person was not on the support team that day.';

/**
 * What is wrong with a day on which neither the plan nor the goal had begun; null where nothing is.
 *
 * @param goalBegins  when the goal, its baseline or its first phase began: they may lie before the plan
 */
export function tooEarlyWords(on: IsoDate, planStartsOn: IsoDate | null, goalBegins: readonly (IsoDate | null)[]) {
  if (planStartsOn === null || [planStartsOn, ...goalBegins].some((date) => date !== null && date <= on)) return null;
  return `The plan began on ${longDate(planStartsOn)}: this lies before it.`;
}

const minutes = ({ on, time }: WallTime) => Date.parse(`${on}T${time}:00Z`) / 60_000;

/** What there is to know before a session can be written. */
export interface SessionFacts {
  student: { id: StudentAccess<'see'>; firstName: string; initials: string };
  /** Those of the wanted goals that are this student's, with how they are and were measured. */
  goals: Record<string, MeasuredGoal>;
  /** Messages by field; none when date, observer and place are well. */
  messages: Record<string, string>;
}

export type MeasuredGoal = Pick<Goal, 'version' | 'measure' | 'formerMeasures'>;

const factsRow = membershipRow.extend({
  firstName: z.string(),
  initials: z.string(),
  observerIsOnTeam: z.boolean(),
  settingIsKnown: z.boolean(),
  /** Null where the session does not lie before the plan. */
  planStartsOn: z.string().nullable(),
  goalStartsOn: z.string().nullable(),
  goals: z
    .record(z.string(), z.object({ version: z.number(), measures: written<Record<string, MeasureDefinition>>() }))
    .nullable(),
});

/**
 * Holds a session's date, observer and location against the school and the student's team, in one query: it stands
 * between a tap and “saved”. The case manager answers for the whole of the plan, also for the days before they were put on the team.
 *
 * @throws NotFound when the one who asks may not do this to this student
 */
export async function checkSession(
  db: Database,
  actor: Actor,
  { studentId, right, goalIds }: { studentId: string; right: Right; goalIds: readonly string[] },
  session: z.infer<typeof sessionFields>,
  wall: WallTime,
): Promise<SessionFacts> {
  const { on, observerId, locationId } = session;
  const [row] = await preparedRows(
    db,
    'check-session',
    factsRow,
    `select m.role, m.rights, s.first_name as "firstName", s.initials,
            exists (select from team_members o where o.student_id = s.id and o.person_id = $3
                       and o.from_date <= $4 and coalesce(o.until_date, 'infinity') >= $4)
            or exists (select from team_members o join plans op on op.student_id = o.student_id
                        where o.student_id = s.id and o.person_id = $3 and o.role = 'caseManager'
                          and coalesce(o.until_date, 'infinity') >= $7 and op.starts_on <= $4) as "observerIsOnTeam",
            (cast($5 as uuid) is null or exists (select from locations l where l.id = $5 and l.school_id = s.school_id)) as "settingIsKnown",
            p.starts_on as "planStartsOn",
            case when p.id is not null then
              (select min(least(g.starts_on, g.baseline_on, (select min(f.starts_on) from goal_phases f where f.goal_id = g.id)))
                 from goals g where g.student_id = s.id) end as "goalStartsOn",
            (select json_object_agg(g.id, json_build_object('version', g.measure_version, 'measures',
                      (select json_object_agg(v.version, v.measure) from goal_measures v where v.goal_id = g.id)))
               from goals g where g.student_id = s.id and g.id = any(cast($6 as uuid[]))) as goals
       from students s join team_members m on m.student_id = s.id and m.person_id = $1
        and m.from_date <= $7 and coalesce(m.until_date, 'infinity') >= $7
       left join lateral (select f.id, f.starts_on from plans f where f.student_id = s.id order by f.starts_on limit 1) p on p.starts_on > $4
      where s.id = $2 and s.school_id = $8 and s.archived_at is null`,
    [actor.personId, studentId, observerId, on, locationId, [...goalIds], actor.today, actor.schoolId],
  );
  if (!row || !can(row, right)) throw new NotFound('No such student.');
  const messages: Record<string, string> = {};
  if (isAhead(session, wall)) messages[session.on > wall.on ? 'on' : 'time'] = aheadWords;
  const early = tooEarlyWords(on, row.planStartsOn, [row.goalStartsOn]);
  if (early) messages.on = early;
  if (!row.observerIsOnTeam) messages.observerId = notOnTeamWords;
  if (!row.settingIsKnown) messages.locationId = 'Choose a location from the list.';
  const student = { id: grant(studentId, 'member'), firstName: row.firstName, initials: row.initials };
  return { student, goals: measured(row.goals ?? {}), messages };
}

const measured = (goals: NonNullable<z.infer<typeof factsRow>['goals']>): Record<string, MeasuredGoal> =>
  Object.fromEntries(
    Object.entries(goals).map(([id, { version, measures }]) => {
      const { [version]: measure, ...formerMeasures } = measures;
      return [id, { version, measure: defined(measure), formerMeasures }];
    }),
  );
