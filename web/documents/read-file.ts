import { data } from 'react-router';
import { fileName } from '~/core/documents/file-name';
import { reportSize } from '~/server/individual-report/individual-report';
import { database } from '~/server/platform/db/current';
import { recordAccess } from '~/server/sharing/access-log';
import { reportSearch } from '../individual-report/report-search';
import { readerBy, visit } from '../individual-report/visit';
import { withErrorsAtDoor } from '../platform/http/at-door';
import { arrangementCookie, readCookie, texts } from '../platform/http/cookies';
import type { Route } from './+types/read-file';
import { documentFile, formatFrom } from './file-answer';
import { reportContents } from './report-contents';
import { readFileWords, reportFileWords } from './words';

/** A file of more entries than this is not made while a reader from outside waits: they choose a stretch of days. */
const MOST_AT_ONCE = 1500;

/** The individual report as a file, for a reader by a share link: what the page shows them, narrowed as they look at it. */
export const loader = withErrorsAtDoor(async (args: Route.LoaderArgs, door) => {
  const { way, school, wall, instant, isOpen } = await visit(args, door);
  if (!isOpen) throw data(null, { status: 404 });
  const format = formatFrom(args.params.format);
  const [{ reader, goals, rule }, chosen] = await Promise.all([
    readerBy(way),
    readCookie(args.request, arrangementCookie, texts),
  ]);
  const asked = reportSearch(new URL(args.request.url).searchParams, goals, rule, chosen ?? {});
  if ((await reportSize(database(), way.studentId, reader, asked)) > MOST_AT_ONCE) {
    return new Response(readFileWords.chooseDays, {
      status: 413,
      headers: { 'Content-Type': 'text/plain; charset=utf-8' },
    });
  }
  const contents = await reportContents({
    ...{ studentId: way.studentId, shortName: way.shortName, school, today: wall.on },
    ...{ goals, reader, asked, format },
  });
  const what = reportFileWords.report(format.toUpperCase());
  await recordAccess(database(), { linkId: way.id }, { studentId: way.studentId, what, how: 'exported' }, instant);
  return documentFile(format, fileName(way.shortName, 'individual report', wall.on), contents);
});
