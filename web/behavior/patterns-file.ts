import { sharedKinds } from '~/core/behavior/patterns';
import { fileName } from '~/core/documents/file-name';
import { database } from '~/server/platform/db/current';
import { recordAccess } from '~/server/sharing/access-log';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { personOf } from '../platform/http/request-person';
import { tableFile, tableFormat } from '../platform/http/table-file';
import type { Route } from './+types/patterns-file';
import { patternsSeen, sharedNamed } from './patterns-seen';
import { patternsFileWords } from './words';

/** What repeats across students, a row each: students, parts of the day, and what several have in common. */
export const loader = withErrorsInTurn(async ({ request, context }: Route.LoaderArgs) => {
  const asker = personOf(context);
  const { patterns, names } = await patternsSeen(request, asker);
  const shared = sharedNamed(patterns.shared, (id) => names.get(id) ?? '');
  const rows = [
    ...patterns.students.map(({ id, n }) => [patternsFileWords.student, names.get(id) ?? '', n, null, 1, '']),
    ...patterns.parts.map(({ part, n, rate, students }) => [patternsFileWords.part, part, n, rate, students, '']),
    ...sharedKinds.flatMap((kind) =>
      shared[kind].map(({ name, n, students }) => [
        ...[patternsFileWords.kinds[kind], name, n, null, students.length],
        students.join(', '),
      ]),
    ),
  ];
  const { actor, now } = asker;
  // Whose incidents are in it was taken away.
  for (const { id: studentId, n } of patterns.students) {
    const taken = { studentId, what: patternsFileWords.taken(tableFormat(request)), how: 'exported' as const };
    if (n > 0) await recordAccess(database(), { personId: actor.personId }, taken, now);
  }
  const fields = ['what', 'name', 'incidents', 'per hour', 'students', 'who'];
  return tableFile(request, { name: fileName('', 'patterns', actor.today), sheet: 'Patterns' }, fields, rows);
});
