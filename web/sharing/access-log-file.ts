import { fileName } from '~/core/documents/file-name';
import { database } from '~/server/platform/db/current';
import { readingsOf } from '~/server/sharing/access-log';
import { studentFor } from '~/server/students/students';
import { answering } from '../platform/http/answering';
import { askerOf, idFrom } from '../platform/http/asker';
import { csvFile } from '../platform/http/csv';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/access-log-file';
import { readingRow } from './access-log-row';

/** The record of reading of a student as comma-separated text. */
export const loader = answering(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = askerOf(context);
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'share');
  const { shortName } = headerStudent(student, { discreet });
  const readings = await readingsOf(database(), actor, student.id);
  const rows = readings.map((reading) => {
    const { on, time, who, by, what, how, purpose } = readingRow(reading, school.timeZone);
    return [`${on}T${time}`, who, by, what, how, purpose];
  });
  return csvFile(fileName(shortName, 'access log', actor.today), ['at', 'who', 'by', 'what', 'how', 'purpose'], rows);
});
