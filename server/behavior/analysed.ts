import { LRUCache } from 'lru-cache';
import { z } from 'zod';
import { defined } from '~/core/defined';
import type { Incident } from '~/core/entries/incidents/incident';
import { type Naming, uniqueNames } from '../entries/incidents/incidents';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';

/** An incident as the computation sees it, and which one it is. */
export interface AnalysedIncident extends Incident {
  id: string;
}

interface Read {
  stamp: string;
  incidents: AnalysedIncident[];
}

/** Notes that were read before, by student and what their choices were called: reading thousands takes longer than using them. */
const read = new LRUCache<string, Read>({ maxSize: 150_000, sizeCalculation: ({ incidents }) => incidents.length + 1 });

/**
 * The incidents of some students as the computation sees them, oldest first. A second observer’s are left out. What was read
 * before is used again as long as nothing has been written since.
 *
 * @param namings  by student
 */
export async function analysedIncidents(
  db: Database,
  namings: ReadonlyMap<string, Naming>,
): Promise<Map<string, AnalysedIncident[]>> {
  const stamps = await stampsOf(db, [...namings.keys()]);
  const keys = new Map([...stamps.keys()].map((id) => [id, keyOf(id, defined(namings.get(id)))]));
  const stale = [...stamps].filter(([id, stamp]) => read.get(defined(keys.get(id)))?.stamp !== stamp);
  const fresh = await readIncidents(db, new Map(stale.map(([id]) => [id, defined(namings.get(id))])));
  const found = new Map<string, AnalysedIncident[]>();
  for (const [id, stamp] of stamps) {
    const key = defined(keys.get(id));
    const incidents = stale.length > 0 && fresh.has(id) ? defined(fresh.get(id)) : (read.get(key)?.incidents ?? []);
    read.set(key, { stamp, incidents });
    found.set(id, incidents);
  }
  return found;
}

/**
 * What changes with every incident that is written or changed: incidents are never removed, so their number grows with each new
 * one, and the sum of their versions with each change. The newest time tells a database apart that was put back.
 */
async function stampsOf(db: Database, studentIds: readonly string[]): Promise<Map<string, string>> {
  const found = await rowsOf(
    db,
    z.tuple([z.string(), z.string()]),
    `select student_id, concat_ws(' ', count(*), sum(version), max(recorded_at)) from entries
        where kind = 'incident' and student_id = any(?) group by student_id`,
    [[...studentIds]],
  );
  return new Map(found);
}

/** A student with what their choices are called, and in which order the steps of intensity stand. */
const keyOf = (studentId: string, { choices, steps }: Naming) =>
  `${studentId} ${JSON.stringify([...choices].map(([id, { name }]) => [id, name, steps.get(id)]))}`;

const incidentRow = z.object({
  studentId: z.string(),
  id: z.string(),
  on: z.string(),
  time: z.string(),
  observer: z.string(),
  seconds: z.number().nullable(),
  named: z.string(),
});

/** Reads incidents, each student’s in the order in which they happened. */
async function readIncidents(
  db: Database,
  namings: ReadonlyMap<string, Naming>,
): Promise<Map<string, AnalysedIncident[]>> {
  const found = new Map<string, AnalysedIncident[]>([...namings.keys()].map((id) => [id, []]));
  if (namings.size === 0) return found;
  const rows = await rowsOf(
    db,
    incidentRow,
    `select n.student_id as "studentId", n.id, n.observed_on as "on", to_char(n.observed_time, 'HH24:MI') as time,
            n.observer_id as observer, n.seconds::float as seconds, c.named
       from entries n
            join (select entry_id, version,
                         string_agg(left(facet, 1) || coalesce(target_id, option_id), ' ' order by facet, position) as named
                    from incident_choices where student_id = any(:ids) group by entry_id, version) c
              on c.entry_id = n.id and c.version = n.version
      where n.student_id = any(:ids) and n.kind = 'incident' and not n.withdrawn and n.beside_id is null
      order by n.observed_on, n.observed_time, n.recorded_at`,
    { ids: [...namings.keys()] },
  );
  /** The same ids mean the same: most incidents of a student name what another one names. */
  const known = new Map<string, Named>();
  for (const { studentId, named, ...incident } of rows) {
    const key = `${studentId} ${named}`;
    const words = known.get(key) ?? namedIn(named, defined(namings.get(studentId)));
    known.set(key, words);
    found.get(studentId)?.push({ ...incident, ...words });
  }
  return found;
}

/** What an incident names, in the words of its student. */
type Named = Pick<
  AnalysedIncident,
  'behaviors' | 'antecedents' | 'consequences' | 'functions' | 'location' | 'intensity'
>;

/** Each choice is written as the first letter of its facet and its id. */
function namedIn(named: string, naming: Naming): Named {
  const ids = { b: [], a: [], c: [], f: [], l: [], i: [] } as Record<string, string[]>;
  for (const one of named.split(' ')) ids[one.charAt(0)]?.push(one.slice(1));
  const names = (facet: string) => uniqueNames(naming, ids[facet] ?? []);
  return {
    ...{ behaviors: names('b'), antecedents: names('a'), consequences: names('c'), functions: names('f') },
    location: naming.choices.get(ids.l?.[0] ?? '')?.name ?? null,
    intensity: naming.steps.get(ids.i?.[0] ?? '') ?? null,
  };
}
