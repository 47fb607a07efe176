/** What a member of a student's support team is to that student. */
export const roles = ['caseManager', 'educator', 'paraprofessional', 'specialist'] as const;
export type Role = (typeof roles)[number];

export const roleWords: Record<Role, string> = {
  caseManager: 'Case manager',
  educator: 'Educator',
  paraprofessional: 'Paraprofessional',
  specialist: 'Specialist',
};

/**
 * - `see`: the student, the goals, the entries and the report
 * - `observe`: record entries
 * - `changeOwn`: correct or withdraw entries one recorded or observed oneself
 * - `changeOwnRecent`: the same, for `RECENT_DAYS` days
 * - `changeAny`: correct or withdraw any entry
 * - `setUp`: change the student, the plan and the goals
 * - `share`: make and withdraw ways in, and see when they were used
 */
export type Right = 'see' | 'observe' | 'changeOwn' | 'changeOwnRecent' | 'changeAny' | 'setUp' | 'share';

export const RECENT_DAYS = 7;

/** Who may do what: the whole of it. Somebody who is not on the team may do nothing, and is not told of the student. */
const rightsOf: Record<Role, ReadonlySet<Right>> = {
  caseManager: new Set<Right>(['see', 'observe', 'changeOwn', 'changeAny', 'setUp', 'share']),
  educator: new Set<Right>(['see', 'observe', 'changeOwn']),
  specialist: new Set<Right>(['see', 'observe', 'changeOwn']),
  paraprofessional: new Set<Right>(['see', 'observe', 'changeOwnRecent']),
};

/** Whether a role carries a right. */
export function may(role: Role, right: Right): boolean {
  return rightsOf[role].has(right);
}

/**
 * Whether someone may correct or withdraw an entry.
 *
 * @param entry.isOwn  they recorded it or are named as its observer
 * @param entry.ageInDays  calendar days since it was recorded
 */
export function mayChange(role: Role, entry: { isOwn: boolean; ageInDays: number }): boolean {
  if (may(role, 'changeAny')) return true;
  if (!entry.isOwn) return false;
  return may(role, 'changeOwn') || (may(role, 'changeOwnRecent') && entry.ageInDays <= RECENT_DAYS);
}
