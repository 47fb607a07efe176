import { z } from 'zod';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import { type ManagerOverview, managerOverview, STRETCH_DAYS } from '~/core/today/overview';
import { wrongCardWords } from '../people/attempts';
import { nightsIn } from '../platform/backup/backup';
import type { Database } from '../platform/db/database';
import { backupProblem } from '../platform/db/health';
import { rowsOf } from '../platform/db/rows';
import type { SchoolAdmin } from '../school/administrators';
import type { School } from '../school/school';
import { staffOfSchool } from '../students/staff';

const factsRow = z.object({
  managerId: z.string().nullable(),
  students: z.number(),
  goals: z.array(z.object({ startsOn: z.string(), plannedGap: z.number().nullable(), lastOn: z.string().nullable() })),
  periods: z.array(z.object({ endsOn: z.string(), isIssued: z.boolean() })),
  planEnds: z.array(z.string()),
  ...{ withoutPlan: z.number(), sessions: z.number(), paired: z.number(), supported: z.number(), told: z.number() },
});

export interface SchoolOverview {
  /** By case manager; of students who have none, without a name. */
  managers: (ManagerOverview & { id: string | null; name: string | null })[];
  /** Accounts of who works here, and those that ask for nothing beside a password. */
  accounts: { all: number; withoutSecondFactor: number };
  /** The day of the newest nightly copy; null where there is none. */
  newestBackup: IsoDate | null;
  /** Whether copies are made by night at all. */
  hasNightly: boolean;
  /** Why the last nightly copy failed, in words; null where it did not. */
  backupProblem: string | null;
  /** Words of desk cards that opened nothing in the last hour, at the whole installation, and how many are too many. */
  cardWords: { wrong: number; most: number };
}

/**
 * What stands open at a school, by case manager: counts and dates, and nothing of what was observed.
 *
 * @param folder  where nightly copies are kept
 * @throws NotFound for everyone but administrators
 */
export async function schoolOverview(
  db: Database,
  admin: SchoolAdmin,
  { school, folder }: { school: School; folder: string | undefined },
): Promise<SchoolOverview> {
  const { today, schoolId } = admin;
  const facts = await rowsOf(
    db,
    factsRow,
    `select manager_id as "managerId", students, goals, periods, plan_ends::text[] as "planEnds", without_plan as "withoutPlan",
            sessions, paired, supported, told
       from school_in_numbers(:schoolId, :today, :since)`,
    { schoolId, today, since: addDays(today, -STRETCH_DAYS) },
  );
  const staff = await staffOfSchool(db, admin);
  const nameOf = new Map(staff.map(({ id, name }) => [id, name]));
  const here = staff.filter(({ isOver }) => !isOver);
  const managers = facts.map(({ managerId, ...one }) => ({
    ...{ id: managerId, name: managerId && (nameOf.get(managerId) ?? null) },
    ...managerOverview(one, { calendar: school.calendar, today }),
  }));
  const nights = folder ? await nightsIn(folder) : [];
  return {
    managers: managers.sort((a, b) => (a.name ?? '~').localeCompare(b.name ?? '~')),
    accounts: { all: here.length, withoutSecondFactor: here.filter(({ hasSecondFactor }) => !hasSecondFactor).length },
    newestBackup: nights[0]?.day ?? null,
    hasNightly: folder !== undefined,
    backupProblem: folder ? await backupProblem(db) : null,
    cardWords: await wrongCardWords(db),
  };
}
