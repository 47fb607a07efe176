import { fileName } from '~/core/documents/file-name';
import { progressPaper, progressReportFor, progressRows } from '~/core/documents/progress-report-document';
import { everything, shownFields } from '~/core/sharing/reader-rule';
import { database } from '~/server/platform/db/current';
import { issuedReport } from '~/server/progress-report/issued';
import { recordReading } from '~/server/sharing/access-log';
import { readerRules } from '~/server/sharing/visibility';
import { may } from '~/server/students/rights';
import { studentFor } from '~/server/students/students';
import { answering } from '../platform/http/answering';
import { askerOf, idFrom } from '../platform/http/asker';
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
