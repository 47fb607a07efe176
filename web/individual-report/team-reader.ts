import { everything, shownFields, type VisibilityRule } from '~/core/sharing/visibility-rule';
import type { Reader } from '~/server/individual-report/individual-report';
import { database } from '~/server/platform/db/current';
import { visibilityRules } from '~/server/sharing/visibility';
import { can } from '~/server/students/rights';
import type { Student } from '~/server/students/students';

/** A member of the team as a reader: who works with the entries is shown all of them. */
export async function teamReader(student: Student, discreet: boolean): Promise<Reader & { rule: VisibilityRule }> {
  const { rules } = await visibilityRules(database(), student.id);
  const shows = can(student, 'see') ? everything : shownFields(rules.team.shows);
  return { kind: 'team', linkId: null, discreet, shows, rule: rules.team };
}
