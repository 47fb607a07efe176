import { isoDateField } from '~/core/calendar/date-fields';
import { fileName } from '~/core/documents/file-name';
import { progressPaper, progressRows } from '~/core/documents/progress-report-document';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { draftOf } from '~/server/progress-report/draft';
import { recordReading } from '~/server/sharing/access-log';
import { studentFor } from '~/server/students/students';
import { askerOf, idFrom } from '../platform/http/asker';
import { answeringHeavy } from '../platform/http/heavy';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/draft-file';
import { formatFrom, paperFile } from './file-answer';

/** The draft of a progress report as a file. */
export const loader = answeringHeavy(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now, discreet } = askerOf(context);
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'share');
  const period = isoDateField.safeParse(params.period);
  if (!period.success) throw new NotFound('No such period.');
  const format = formatFrom(params.format);
  const { report } = await draftOf(database(), student, period.data, { school, today: actor.today });
  const reading = {
    studentId: student.id,
    what: `draft of a progress report (${format.toUpperCase()})`,
    how: 'exported' as const,
  };
  await recordReading(database(), { personId: actor.personId }, reading, now);
  return paperFile(
    format,
    fileName(headerStudent(student, { discreet }).shortName, 'progress report draft', actor.today),
    progressPaper(report, null),
    progressRows(report),
  );
});
