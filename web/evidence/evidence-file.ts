import { may } from '~/server/access/rights';
import { database } from '~/server/db/current';
import { evidenceFile } from '~/server/evidence/list';
import { NotFound } from '~/server/failures';
import { goalsOf } from '~/server/goals/goals';
import { recordReading } from '~/server/readers/readings';
import { mayReadEntry } from '~/server/report/running';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { teamReader } from '../report/team-reader';
import type { Route } from './+types/evidence-file';
import { evidenceAnswer } from './evidence-answer';

/** A photograph or a file, for the team. */
export const loader = answering(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, now, discreet } = askerOf(context);
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'read');
  const reader = await teamReader(student, discreet);
  if (!reader.shows.has('pictures')) throw new NotFound('No such file.');
  if (discreet) throw new NotFound('No such file.');
  const isThumbnail = new URL(request.url).searchParams.has('small');
  const file = await evidenceFile(database(), student.id, idFrom(params.evidenceId), { isThumbnail });
  // Who only reads is shown files of the entries that they are shown.
  const goals = may(student, 'see') ? null : await goalsOf(database(), [student.id]);
  if (goals && !(await mayReadEntry(database(), student.id, goals, reader, file.entryId))) {
    throw new NotFound('No such file.');
  }
  if (!isThumbnail) {
    const reading = { studentId: student.id, what: `file: ${file.name}`, how: 'opened' as const };
    await recordReading(database(), { personId: actor.personId }, reading, now);
  }
  return evidenceAnswer(file);
});
