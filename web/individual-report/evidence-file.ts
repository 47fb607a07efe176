import { evidenceFile } from '~/server/entries/evidence/list';
import { goalsOf } from '~/server/goals/goals';
import { mayReadEntry } from '~/server/individual-report/individual-report';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { recordReading } from '~/server/sharing/access-log';
import { may } from '~/server/students/rights';
import { studentFor } from '~/server/students/students';
import { evidenceAnswer } from '../entries/evidence/evidence-answer';
import { answering } from '../platform/http/answering';
import { askerOf, idFrom } from '../platform/http/asker';
import type { Route } from './+types/evidence-file';
import { teamReader } from './team-reader';

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
