import { data } from 'react-router';
import { evidenceFile } from '~/server/entries/evidence/list';
import { canReadEntry } from '~/server/individual-report/individual-report';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { recordAccess } from '~/server/sharing/access-log';
import { evidenceAnswer } from '../entries/evidence/evidence-answer';
import { withErrorsAtDoor } from '../platform/http/at-door';
import { idFrom } from '../platform/http/request-person';
import type { Route } from './+types/read-evidence';
import { readerBy, visit } from './visit';
import { readEvidenceWords } from './words';

/** A photograph or a file, for a reader by a share link who is shown pictures and its entry. */
export const loader = withErrorsAtDoor(async (args: Route.LoaderArgs, door) => {
  const { way, instant, isOpen } = await visit(args, door);
  if (!isOpen) throw data(null, { status: 404 });
  const { reader, goals } = await readerBy(way);
  if (!reader.shows.has('pictures')) throw new NotFound(readEvidenceWords.noSuchFile);
  const isThumbnail = new URL(args.request.url).searchParams.has('small');
  const file = await evidenceFile(database(), way.studentId, idFrom(args.params.evidenceId), { isThumbnail });
  if (!(await canReadEntry(database(), way.studentId, goals, reader, file.entryId)))
    throw new NotFound(readEvidenceWords.noSuchFile);
  const reading = { studentId: way.studentId, what: `file: ${file.name}`, how: 'opened' as const };
  await recordAccess(database(), { linkId: way.id }, reading, instant);
  // What it was called may say more than it shows.
  return evidenceAnswer({ ...file, name: file.type === 'application/pdf' ? 'file.pdf' : 'picture.jpg' });
});
