import { fileName } from '~/core/documents/file-name';
import { database } from '~/server/platform/db/current';
import { accessLogOf } from '~/server/sharing/access-log';
import { requireStudent } from '~/server/students/students';
import { idFrom, personOf } from '../platform/http/request-person';
import { tableFile } from '../platform/http/table-file';
import { withErrors } from '../platform/http/with-errors';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/access-log-file';
import { readingRow } from './access-log-row';

/** The access log of a student as comma-separated text, or as a spreadsheet. */
export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const { shortName } = headerStudent(student, { discreet });
  const readings = await accessLogOf(database(), actor, student.id);
  const rows = readings.map((reading) => {
    const { on, time, who, by, what, how, purpose } = readingRow(reading, school.timeZone);
    return [`${on}T${time}`, who, by, what, how, purpose];
  });
  const name = fileName(shortName, 'access log', actor.today);
  return tableFile(request, { name, sheet: 'Access log' }, ['at', 'who', 'by', 'what', 'how', 'purpose'], rows);
});
