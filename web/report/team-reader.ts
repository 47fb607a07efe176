import { everything, type ReaderRule, shownFields } from '~/core/readers/reader-rule';
import { may } from '~/server/access/rights';
import { database } from '~/server/db/current';
import { readerRules } from '~/server/readers/rules';
import type { Reader } from '~/server/report/running';
import type { Student } from '~/server/students/students';

/** A member of the team as a reader: who works with the entries is shown all of them. */
export async function teamReader(student: Student, discreet: boolean): Promise<Reader & { rule: ReaderRule }> {
  const { rules } = await readerRules(database(), student.id);
  const shows = may(student, 'see') ? everything : shownFields(rules.team.shows);
  return { kind: 'team', linkId: null, discreet, shows, rule: rules.team };
}
