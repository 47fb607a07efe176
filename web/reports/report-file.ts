import { entryLines, runningPaper } from '~/core/paper/running-paper';
import { database } from '~/server/db/current';
import { goalsOf } from '~/server/goals/goals';
import { recordReading } from '~/server/readers/readings';
import { runningReport } from '~/server/report/running';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { teamReader } from '../report/team-reader';
import type { Route } from './+types/report-file';
import { formatFrom, paperFile } from './file-answer';

/** The running report as a file, as the one who asks may see it: all of it, newest first. */
export const loader = answering(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now } = askerOf(context);
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'read');
  const format = formatFrom(params.format);
  const [goals, reader] = await Promise.all([goalsOf(database(), [student.id]), teamReader(student, false)]);
  const wanted = { only: null, find: '', page: 'all' as const, day: null, oldestFirst: false };
  const { entries, threads } = await runningReport(database(), student.id, goals, reader, wanted);
  const reading = { studentId: student.id, what: `report (${format.toUpperCase()})`, how: 'exported' as const };
  await recordReading(database(), { personId: actor.personId }, reading, now);
  const paper = runningPaper({
    ...{ studentShortName: student.shortName, schoolName: school.name, today: actor.today },
    ...{ entries, threads },
  });
  const rows = {
    fields: ['at', 'kind', 'of', 'said', 'note', 'setting', 'observer', 'answers'],
    rows: entries.map((entry) => [
      `${entry.on}T${entry.time}`,
      entry.kind,
      entry.title,
      entry.sentence,
      entry.note ?? '',
      entry.setting ?? '',
      entry.observer ?? '',
      entryLines({ ...entry, sentence: '', note: null }, threads[entry.id] ?? []).join('\n'),
    ]),
  };
  return paperFile(format, 'report', paper, rows);
});
