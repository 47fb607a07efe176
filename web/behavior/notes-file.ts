import Papa from 'papaparse';
import { notesBehind } from '~/core/behavior/filter';
import { behaviorOf } from '~/server/behavior/behavior';
import { database } from '~/server/db/current';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import type { Route } from './+types/notes-file';
import { filterFrom, searchFrom } from './search';

/** A student’s ABC notes as comma-separated text, as `npm run analyse -- abc` reads it: docs/analyse.md. */
export const loader = answering(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, discreet } = askerOf(context);
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
  // A cell that begins like a formula would be one to a spreadsheet.
  const text = Papa.unparse({ fields, data: rows }, { escapeFormulae: true });
  return new Response(`${text}\r\n`, {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': 'attachment; filename="abc-notes.csv"',
    },
  });
});
