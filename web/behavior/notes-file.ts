import { notesBehind } from '~/core/behavior/filter';
import { behaviorOf } from '~/server/behavior/behavior';
import { database } from '~/server/db/current';
import { recordReading } from '~/server/readers/readings';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { csvFile } from '../http/csv';
import type { Route } from './+types/notes-file';
import { filterFrom, searchFrom } from './search';

/** A student’s ABC notes as comma-separated text, as `npm run analyse -- abc` reads it: docs/analyse.md. */
export const loader = answering(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, discreet, now } = askerOf(context);
  const studentId = idFrom(params.studentId);
  await studentFor(database(), actor, studentId, 'see');
  const of = await behaviorOf(database(), studentId, { discreet });
  const notes = notesBehind(of.notes, filterFrom(searchFrom(request), of.naming), of.timetable);
  const several = (names: readonly string[]) => names.map((name) => name.replaceAll('|', '/')).join('|');
  const fields = [
    'at',
    'behavior',
    'antecedent',
    'consequence',
    'setting',
    'observer',
    'function',
    'seconds',
    'intensity',
  ];
  const rows = notes.map((note) => [
    `${note.on}T${note.time}`,
    several(note.behaviors),
    several(note.antecedents),
    several(note.consequences),
    note.setting ?? '',
    of.people.get(note.observer ?? '') ?? '',
    several(note.functions),
    note.seconds ?? '',
    note.intensity ?? '',
  ]);
  const reading = { studentId, what: 'ABC notes (CSV)', how: 'exported' as const };
  await recordReading(database(), { personId: actor.personId }, reading, now);
  return csvFile('abc-notes', fields, rows);
});
