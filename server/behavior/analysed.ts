import { LRUCache } from 'lru-cache';
import type { AbcNote } from '~/core/behavior/abc-note';
import type { Database } from '../db/database';
import { type Naming, uniqueNames } from './notes';

/** A note as the computation sees it, and which one it is. */
export interface AnalysedNote extends AbcNote {
  id: string;
}

interface Read {
  stamp: string;
  notes: AnalysedNote[];
}

/** Notes that were read before, by student and what their choices were called: reading thousands takes longer than using them. */
const read = new LRUCache<string, Read>({ maxSize: 150_000, sizeCalculation: ({ notes }) => notes.length + 1 });

/**
 * The notes of some students as the computation sees them, oldest first. A second observer’s are left out. What was read
 * before is used again as long as nothing has been written since. Ask `studentFor` or `studentsOf` first.
 *
 * @param namings  by student
 */
export async function analysedNotes(
  db: Database,
  namings: ReadonlyMap<string, Naming>,
): Promise<Map<string, AnalysedNote[]>> {
  const stamps = await stampsOf(db, [...namings.keys()]);
  const keys = new Map([...stamps.keys()].map((id) => [id, keyOf(id, namings.get(id) as Naming)]));
  const stale = [...stamps].filter(([id, stamp]) => read.get(keys.get(id) as string)?.stamp !== stamp);
  const fresh = await readNotes(db, new Map(stale.map(([id]) => [id, namings.get(id) as Naming])));
  const found = new Map<string, AnalysedNote[]>();
  for (const [id, stamp] of stamps) {
    const key = keys.get(id) as string;
    const notes = stale.length > 0 && fresh.has(id) ? (fresh.get(id) as AnalysedNote[]) : (read.get(key)?.notes ?? []);
    read.set(key, { stamp, notes });
    found.set(id, notes);
  }
  return found;
}

/**
 * What changes with every note that is written or changed: notes are never removed, so their number grows with each new
 * one, and the sum of their versions with each change. The newest time tells a database apart that was put back.
 */
async function stampsOf(db: Database, studentIds: readonly string[]): Promise<Map<string, string>> {
  const found = await db
    .raw<{ rows: [string, string][] }>(
      `select student_id, concat_ws(' ', count(*), sum(version), max(recorded_at)) from entries
        where kind = 'incident' and student_id = any(?) group by student_id`,
      [[...studentIds]],
    )
    .options({ rowMode: 'array' });
  return new Map(found.rows);
}

/** A student with what their choices are called, and in which order the steps of intensity stand. */
const keyOf = (studentId: string, { choices, steps }: Naming) =>
  `${studentId} ${JSON.stringify([...choices].map(([id, { name }]) => [id, name, steps.get(id)]))}`;

/** Reads notes; each student’s come as one text, since thousands of rows cost more. */
async function readNotes(db: Database, namings: ReadonlyMap<string, Naming>): Promise<Map<string, AnalysedNote[]>> {
  if (namings.size === 0) return new Map();
  const several = ['behavior', 'antecedent', 'consequence', 'function', 'location', 'intensity'].map(
    (facet) => `coalesce(string_agg(coalesce(c.target_id, c.option_id)::text, ' ' order by c.position)
                           filter (where c.facet = '${facet}'), '') as ${facet}`,
  );
  const found = await db
    .raw<{ rows: [string, string][] }>(
      `select n.student_id, string_agg(
                concat_ws(';', n.id, n.observed_on, to_char(n.observed_time, 'HH24:MI'), c.behavior, c.antecedent, c.consequence,
                          c.function, c.location, n.observer_id, c.intensity, coalesce(n.seconds::text, '')),
                E'\n' order by n.observed_on, n.observed_time, n.recorded_at)
         from entries n
              join (select c.entry_id, c.version, ${several.join(', ')}
                      from incident_choices c where c.student_id = any(:ids) group by c.entry_id, c.version) c
                on c.entry_id = n.id and c.version = n.version
        where n.student_id = any(:ids) and n.kind = 'incident' and not n.withdrawn and n.beside_id is null
        group by n.student_id`,
      { ids: [...namings.keys()] },
    )
    .options({ rowMode: 'array' });
  const notes = new Map<string, AnalysedNote[]>([...namings.keys()].map((id) => [id, []]));
  for (const [studentId, text] of found.rows) {
    const naming = namings.get(studentId) as Naming;
    const lists = new Map<string, string[]>();
    /** The same ids make the same list: most notes repeat one. */
    const namesOf = (ids: string) => {
      const known = lists.get(ids);
      if (known) return known;
      const list = ids === '' ? [] : uniqueNames(naming, ids.split(' '));
      lists.set(ids, list);
      return list;
    };
    notes.set(
      studentId,
      text.split('\n').map((line) => analysed(line.split(';'), naming, namesOf)),
    );
  }
  return notes;
}

function analysed(fields: string[], naming: Naming, namesOf: (ids: string) => string[]): AnalysedNote {
  const [id, on, time, behaviors, antecedents, consequences, functions, setting, observer, intensity, seconds] =
    fields as [string, string, string, string, string, string, string, string, string, string, string];
  return {
    id,
    on,
    time,
    behaviors: namesOf(behaviors),
    antecedents: namesOf(antecedents),
    consequences: namesOf(consequences),
    functions: namesOf(functions),
    setting: setting === '' ? null : (naming.choices.get(setting)?.name ?? null),
    observer,
    intensity: naming.steps.get(intensity) ?? null,
    seconds: seconds === '' ? null : Number(seconds),
  };
}
