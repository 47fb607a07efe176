import { fileName } from '~/core/documents/file-name';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { recordAccess } from '~/server/sharing/access-log';
import { personOf } from '../platform/http/request-person';
import { tableFile, tableFormat } from '../platform/http/table-file';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/class-totals-file';
import { classTotalsView } from './class-totals-view';
import { classTotalsFileWords } from './words';

/** The class's totals as comma-separated text or as a spreadsheet: a row for each log, in numbers. */
export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const asking = personOf(context);
  const { actor, now, discreet } = asking;
  // The file is made of names.
  if (discreet) throw new NotFound(classTotalsFileWords.noSuchFileInThe);
  const { rows, categories, unit, schoolName, today } = await classTotalsView(
    database(),
    asking,
    new URL(request.url).searchParams,
  );
  for (const studentId of new Set(rows.map((row) => row.studentId))) {
    const taken = {
      studentId,
      what: classTotalsFileWords.what(tableFormat(request)),
      how: 'exported',
    } as const;
    await recordAccess(database(), { personId: actor.personId }, taken, now);
  }
  const name = fileName(schoolName, 'class totals', today);
  const fields = ['student', 'goal', 'unit', 'so far', 'target', 'percent', 'this week', 'target date', ...categories];
  const cells = rows.map((row) => [
    ...[row.student, `${row.number} ${row.shortName}`, unit, row.amount, row.total],
    ...[
      (100 * row.amount) / row.total,
      row.thisWeek ?? '',
      row.targetOn,
      ...row.categories.map((amount) => amount ?? ''),
    ],
  ]);
  return tableFile(request, { name, sheet: 'Class totals' }, fields, cells);
});
