import { fileName } from '~/core/paper/file-name';
import { database } from '~/server/db/current';
import { readingsOf } from '~/server/readers/readings';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { csvFile } from '../http/csv';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/readings-file';
import { readingRow } from './reading-row';

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
