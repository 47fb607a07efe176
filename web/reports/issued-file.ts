import { fileName } from '~/core/paper/file-name';
import { progressPaper, progressReportFor, progressRows } from '~/core/progress-report/paper';
import { everything, shownFields } from '~/core/readers/reader-rule';
import { may } from '~/server/access/rights';
import { database } from '~/server/db/current';
import { issuedReport } from '~/server/progress-reports/issued';
import { recordReading } from '~/server/readers/readings';
import { readerRules } from '~/server/readers/rules';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/issued-file';
import { formatFrom, paperFile } from './file-answer';

/** An issued progress report as a file. */
export const loader = answering(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now, discreet } = askerOf(context);
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'read');
  const format = formatFrom(params.format);
  const [issued, { rules }] = await Promise.all([
    issuedReport(database(), student.id, idFrom(params.issuedId), school),
    readerRules(database(), student.id),
  ]);
  const report = progressReportFor(issued.report, may(student, 'see') ? everything : shownFields(rules.team.shows));
  const what = `progress report no. ${issued.number} (${format.toUpperCase()})`;
  await recordReading(database(), { personId: actor.personId }, { studentId: student.id, what, how: 'exported' }, now);
  return paperFile(
    format,
    fileName(headerStudent(student, { discreet }).shortName, `progress report ${issued.number}`, issued.issuedOn),
    progressPaper(report, issued),
    progressRows(report),
  );
});
