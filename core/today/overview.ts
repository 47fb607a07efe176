import { addDays, type IsoDate } from '../calendar/iso-date';
import type { SchoolCalendar } from '../calendar/school-days';
import { silenceOf } from '../progress/coverage';

/** What is counted of a case manager’s students: dates and numbers, and nothing of what was observed. */
export interface ManagerFacts {
  students: number;
  goals: readonly { startsOn: IsoDate; plannedGap: number | null; lastOn: IsoDate | null }[];
  /** Reporting periods of the plans that hold, or held last. */
  periods: readonly { endsOn: IsoDate; isIssued: boolean }[];
  /** The last days of the students' last plans, and how many have none that holds. */
  planEnds: readonly IsoDate[];
  withoutPlan: number;
  /** Sessions of the stretch that count, those with a second observer; those under a support with steps, and with what was done of them. */
  sessions: number;
  paired: number;
  supported: number;
  told: number;
}

export interface ManagerOverview {
  students: number;
  goals: number;
  /** Goals of which nothing was written down for longer than planned, and the longest of these in school days. */
  quiet: number;
  longest: number;
  /** Of these, those of which nothing ever was. */
  never: number;
  reports: { due: number; late: number; issued: number };
  plansEnding: number;
  withoutPlan: number;
  /** Percentages of the sessions; null where there is none that it could be a share of. */
  agreement: number | null;
  fidelity: number | null;
}

/** So many days ahead something counts as due. Our own convention: as much as a month’s meetings take to plan. */
export const DUE_DAYS = 30;
/** A plan that ends within so many days wants a meeting (our own convention; the plan is reviewed at least annually, 34 CFR 300.324(b)). */
export const PLAN_DAYS = 60;
/** The stretch of days of which sessions are counted. */
export const STRETCH_DAYS = 90;

const share = (part: number, whole: number) => (whole === 0 ? null : (100 * part) / whole);

/** What stands open with one case manager’s students. */
export function managerOverview(
  { goals, periods, planEnds, ...facts }: ManagerFacts,
  { calendar, today }: { calendar: SchoolCalendar; today: IsoDate },
): ManagerOverview {
  const quiet = goals.map((goal) => silenceOf(goal, { calendar, today })).filter(({ isLong }) => isLong);
  const open = periods.filter(({ isIssued }) => !isIssued);
  return {
    ...{ students: facts.students, goals: goals.length, quiet: quiet.length },
    longest: Math.max(0, ...quiet.map(({ schoolDays }) => schoolDays)),
    never: quiet.filter(({ lastOn }) => lastOn === null).length,
    reports: {
      due: open.filter(({ endsOn }) => endsOn >= today && endsOn <= addDays(today, DUE_DAYS)).length,
      late: open.filter(({ endsOn }) => endsOn < today).length,
      issued: periods.length - open.length,
    },
    plansEnding: planEnds.filter((on) => on <= addDays(today, PLAN_DAYS)).length,
    withoutPlan: facts.withoutPlan,
    agreement: share(facts.paired, facts.sessions),
    fidelity: share(facts.told, facts.supported),
  };
}
