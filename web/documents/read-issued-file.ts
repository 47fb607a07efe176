import { data } from 'react-router';
import { fileName } from '~/core/documents/file-name';
import { progressReportDocument, progressTable } from '~/core/documents/progress-report-document';
import { database } from '~/server/platform/db/current';
import { issuedNamed, issuedOutside } from '~/server/progress-report/issued';
import { recordAccess } from '~/server/sharing/access-log';
import { readerBy, visit } from '../individual-report/visit';
import { withErrorsAtDoor } from '../platform/http/at-door';
import { idFrom } from '../platform/http/request-person';
import type { Route } from './+types/read-issued-file';
import { documentFile } from './file-answer';

/** An issued report as a PDF, for a reader by a share link. */
export const loader = withErrorsAtDoor(async (args: Route.LoaderArgs, door) => {
  const { way, school, instant, isOpen } = await visit(args, door);
  if (!isOpen) throw data(null, { status: 404 });
  const { reader } = await readerBy(way);
  const { kind } = way;
  const seen = { kind, shows: reader.shows, linkId: way.id };
  const issued = await issuedOutside(database(), way.studentId, idFrom(args.params.issuedId), school, seen);
  const reading = {
    studentId: way.studentId,
    what: issuedNamed(issued.number, 'pdf'),
    how: 'exported' as const,
  };
  await recordAccess(database(), { linkId: way.id }, reading, instant);
  const { report } = issued;
  return documentFile('pdf', fileName(way.shortName, `progress report ${issued.number}`, issued.issuedOn), {
    paper: () => progressReportDocument(report, issued),
    tables: () => [progressTable(report)],
    school,
  });
});
