import { isoDateField } from '~/core/calendar/date-fields';
import { fileName } from '~/core/documents/file-name';
import { progressReportDocument, progressTable } from '~/core/documents/progress-report-document';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { draftOf } from '~/server/progress-report/draft';
import { recordAccess } from '~/server/sharing/access-log';
import { requireStudent } from '~/server/students/students';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/draft-file';
import { documentFile, formatFrom } from './file-answer';
import { draftFileWords } from './words';

/** The draft of a progress report as a file. */
export const loader = withErrorsInTurn(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const period = isoDateField.safeParse(params.period);
  if (!period.success) throw new NotFound(draftFileWords.noSuchPeriod);
  const format = formatFrom(params.format);
  const { report } = await draftOf(database(), student, period.data, { school, today: actor.today });
  const reading = {
    studentId: student.id,
    what: draftFileWords.draftOfAProgressReport(format.toUpperCase()),
    how: 'exported' as const,
  };
  await recordAccess(database(), { personId: actor.personId }, reading, now);
  return documentFile(
    format,
    fileName(headerStudent(student, { discreet }).shortName, 'progress report draft', actor.today),
    { paper: () => progressReportDocument(report, null), tables: () => [progressTable(report)], school },
  );
});
