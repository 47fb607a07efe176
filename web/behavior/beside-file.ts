import { fileName } from '~/core/documents/file-name';
import { behaviorOf } from '~/server/behavior/behavior';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { recordAccess } from '~/server/sharing/access-log';
import { requireStudent } from '~/server/students/students';
import { idFrom, personOf } from '../platform/http/request-person';
import { tableFile, tableFormat } from '../platform/http/table-file';
import { withErrors } from '../platform/http/with-errors';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/beside-file';
import { besideFileWords } from './words';

/** What the rates of a student’s behavior rest on besides the incidents, as `npm run analyse -- abc` reads it: docs/analyse.md. */
export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, discreet, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  const student = await requireStudent(database(), actor, studentId, 'see');
  const { what = '' } = params;
  if (!(what === 'timetable' || what === 'windows')) throw new NotFound(besideFileWords.noSuchFile);
  const { shortName } = headerStudent(student, { discreet });
  const of = await behaviorOf(database(), student.id, { discreet });
  const files = {
    timetable: {
      fields: ['weekday', 'part', 'from', 'to', 'location'],
      rows: of.timetable.map(({ weekday, part, from, to, location }) => [weekday, part, from, to, location ?? '']),
    },
    windows: {
      fields: ['date', 'part', 'behavior', 'count', 'minutes'],
      rows: of.watched.map(({ on, part, behavior, count, minutes }) => [on, part ?? '', behavior, count, minutes]),
    },
  };
  const reading = { studentId, what: besideFileWords[what](tableFormat(request)), how: 'exported' as const };
  await recordAccess(database(), { personId: actor.personId }, reading, now);
  const { fields, rows } = files[what];
  return tableFile(request, { name: fileName(shortName, what, actor.today), sheet: what }, fields, rows);
});
