import { database } from '~/server/db/current';
import { evidenceFile } from '~/server/evidence/list';
import { NotFound } from '~/server/failures';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { teamReader } from '../report/team-reader';
import type { Route } from './+types/evidence-file';
import { evidenceAnswer } from './evidence-answer';

/** A photograph or a file, for the team. */
export const loader = answering(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, discreet } = askerOf(context);
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'read');
  const reader = await teamReader(student, discreet);
  if (!reader.shows.has('pictures')) throw new NotFound('No such file.');
  const isThumbnail = new URL(request.url).searchParams.has('small');
  return evidenceAnswer(await evidenceFile(database(), student.id, idFrom(params.evidenceId), { isThumbnail }));
});
