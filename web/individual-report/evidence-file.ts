import { evidenceFile } from '~/server/entries/evidence/list';
import { goalsOf } from '~/server/goals/goals';
import { canReadEntry } from '~/server/individual-report/individual-report';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { recordAccess } from '~/server/sharing/access-log';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { evidenceAnswer } from '../entries/evidence/evidence-answer';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/evidence-file';
import { teamReader } from './team-reader';
import { evidenceFileWords } from './words';

/** A photograph or a file, for the team. */
export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, now, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'read');
  const reader = await teamReader(student, discreet);
  if (!reader.shows.has('pictures')) throw new NotFound(evidenceFileWords.noSuchFile);
  if (discreet) throw new NotFound(evidenceFileWords.noSuchFile);
  const isThumbnail = new URL(request.url).searchParams.has('small');
  const file = await evidenceFile(database(), student.id, idFrom(params.evidenceId), { isThumbnail });
  // Who only reads is shown files of the entries that they are shown.
  const goals = can(student, 'see') ? null : await goalsOf(database(), [student.id]);
  if (goals && !(await canReadEntry(database(), student.id, goals, reader, file.entryId))) {
    throw new NotFound(evidenceFileWords.noSuchFile);
  }
  if (!isThumbnail) {
    const reading = { studentId: student.id, what: `file: ${file.name}`, how: 'opened' as const };
    await recordAccess(database(), { personId: actor.personId }, reading, now);
  }
  return evidenceAnswer(file);
});
