import { fileName } from '~/core/documents/file-name';
import { progressReportDocument, progressReportFor, progressTable } from '~/core/documents/progress-report-document';
import { everything, shownFields } from '~/core/sharing/visibility-rule';
import { database } from '~/server/platform/db/current';
import { issuedNamed, issuedReport } from '~/server/progress-report/issued';
import { recordAccess } from '~/server/sharing/access-log';
import { visibilityRules } from '~/server/sharing/visibility';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/issued-file';
import { documentFile, formatFrom } from './file-answer';

/** An issued progress report as a file. */
export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'read');
  const format = formatFrom(params.format);
  const [issued, { rules }] = await Promise.all([
    issuedReport(database(), student.id, idFrom(params.issuedId), school),
    visibilityRules(database(), student.id),
  ]);
  const report = progressReportFor(issued.report, can(student, 'see') ? everything : shownFields(rules.team.shows));
  const what = issuedNamed(issued.number, format);
  await recordAccess(database(), { personId: actor.personId }, { studentId: student.id, what, how: 'exported' }, now);
  return documentFile(
    format,
    fileName(headerStudent(student, { discreet }).shortName, `progress report ${issued.number}`, issued.issuedOn),
    { paper: () => progressReportDocument(report, issued), tables: () => [progressTable(report)], school },
  );
});
