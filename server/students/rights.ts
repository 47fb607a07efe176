import { z } from 'zod';
import { type Granted, grantable, type Role, roles } from '~/core/students/roles';

/**
 * - `read`: the report, as the team is shown it
 * - `see`: the student, the goals, the entries and all of the report
 * - `observe`: record entries
 * - `changeOwn`: correct or withdraw entries one recorded or observed oneself
 * - `changeOwnRecent`: the same, for `RECENT_DAYS` days
 * - `changeAny`: correct or withdraw any entry
 * - `editGoals`: change the student, the plan and the goals
 * - `share`: make and withdraw share links, say who sees what, and see who read
 * - `manage`: the team itself
 * - `carryOut`: take the whole record out, and note who asks to see it; whoever shares may, also of a student who has left
 */
export type Right =
  | 'read'
  | 'see'
  | 'observe'
  | 'changeOwn'
  | 'changeOwnRecent'
  | 'changeAny'
  | 'editGoals'
  | 'share'
  | 'manage'
  | 'carryOut';

export const RECENT_DAYS = 7;

/** A member, as far as rights go. */
export const membershipRow = z.object({
  role: z.enum(roles),
  /** What was given to this member; null for what the role usually carries. A case manager may always do everything. */
  rights: z.array(z.enum(grantable)).readonly().nullable(),
  /** Whether the student has left: then the record is read, and nothing is added to it. */
  isArchived: z.boolean().optional(),
});
export type Membership = z.infer<typeof membershipRow>;

/** What a role usually carries. */
export const usualRights: Record<Role, readonly Granted[]> = {
  caseManager: grantable,
  educator: ['observe'],
  specialist: ['observe'],
  paraprofessional: ['observe'],
};

/** What comes with each of them. Who may do nothing but read is shown the report, and not what it is made from. */
const carries: Record<Granted, (role: Role) => Right[]> = {
  observe: (role) => ['see', 'observe', role === 'paraprofessional' ? 'changeOwnRecent' : 'changeOwn'],
  editGoals: () => ['see', 'editGoals'],
  share: () => ['see', 'share', 'carryOut'],
};

const ofWhoHasLeft: ReadonlySet<Right> = new Set(['read', 'see', 'carryOut']);

/** Whether a member has a right. Somebody who is not on the team may do nothing, and is not told of the student. */
export function can({ role, rights, isArchived }: Membership, right: Right): boolean {
  if (isArchived && !ofWhoHasLeft.has(right)) return false;
  if (right === 'read') return true;
  if (role === 'caseManager') return right !== 'changeOwnRecent';
  return (rights ?? usualRights[role]).some((granted) => carries[granted](role).includes(right));
}

/**
 * Whether someone may correct or withdraw an entry.
 *
 * @param entry.isOwn  they recorded it or are named as its observer
 * @param entry.ageInDays  calendar days since it was recorded
 */
export function canChange(member: Membership, entry: { isOwn: boolean; ageInDays: number }): boolean {
  if (can(member, 'changeAny')) return true;
  if (!entry.isOwn) return false;
  return can(member, 'changeOwn') || (can(member, 'changeOwnRecent') && entry.ageInDays <= RECENT_DAYS);
}
