import { wallTime } from '~/core/calendar/zone';
import { fileName } from '~/core/documents/file-name';
import { changedFields, changeKindWords, changeSaid, changesWanted } from '~/core/sharing/change';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { changesOf, writeChange } from '~/server/school/changes';
import { csvFile } from '../platform/http/csv';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/changes-file';
import { changesFileWords } from './words';

/** The changes that are asked for, all pages of them, as comma-separated text; as they were written down, too. */
export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet, now } = personOf(context);
  const wanted = changesWanted.parse(Object.fromEntries(new URL(request.url).searchParams));
  const { changes } = await changesOf(database(), await requireSchoolAdmin(database(), actor), {
    ...wanted,
    page: null,
  });
  // The file is made of names.
  if (discreet) throw new NotFound(changesFileWords.noSuchFileInThe);
  const rows = changes.map(({ at, what, student, person, by, before, after }) => {
    const { on, time } = wallTime(at, school.timeZone);
    const said = changeSaid(changedFields(before, after));
    const asWritten = [before, after].map((state) => (state === null ? '' : JSON.stringify(state)));
    return [`${on}T${time}`, changeKindWords[what], student ?? '', person ?? '', by ?? '', said, ...asWritten];
  });
  const { kind, about, from, to } = wanted;
  const after = { of: 'changes', lines: rows.length, kind, about, from, to };
  await writeChange(database(), actor.personId, { what: 'file', schoolId: school.id, before: null, after }, now);
  const fields = ['at', 'what', 'student', 'person', 'by', 'said', 'before', 'after'];
  return csvFile(fileName(school.name, 'changes', actor.today), fields, rows);
});
