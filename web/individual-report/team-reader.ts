import { everything, type ReaderRule, shownFields } from '~/core/sharing/reader-rule';
import type { Reader } from '~/server/individual-report/individual-report';
import { database } from '~/server/platform/db/current';
import { readerRules } from '~/server/sharing/visibility';
import { may } from '~/server/students/rights';
import type { Student } from '~/server/students/students';

/** A member of the team as a reader: who works with the entries is shown all of them. */
export async function teamReader(student: Student, discreet: boolean): Promise<Reader & { rule: ReaderRule }> {
  const { rules } = await readerRules(database(), student.id);
  const shows = may(student, 'see') ? everything : shownFields(rules.team.shows);
  return { kind: 'team', linkId: null, discreet, shows, rule: rules.team };
}
