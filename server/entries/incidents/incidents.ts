import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { minutesOfDay } from '~/core/calendar/timetable';
import { type Choice, standingChoices } from '~/core/entries/incidents/choice';
import type { SaidIncident } from '~/core/entries/incidents/incident-sentence';
import type { Database } from '../../platform/db/database';
import { rowsOf } from '../../platform/db/rows';
import { NotFound } from '../../platform/failures';
import type { StudentAccess } from '../../students/access';
import { recordedColumns, recordedNames, recordedRow, revisedEntries } from '../corrections';

/** An ABC incident with everything that its page shows; its choices by id. */
const storedIncidentRow = recordedRow.extend({
  on: z.string(),
  time: z.string(),
  locationId: z.string().nullable(),
  behaviors: z.array(z.string()),
  antecedents: z.array(z.string()),
  consequences: z.array(z.string()),
  functions: z.array(z.string()),
  intensityId: z.string().nullable(),
  seconds: z.number().nullable(),
  isGoing: z.boolean(),
  resolved: z.boolean().nullable(),
  resolvedAfter: z.number().nullable(),
  note: z.string(),
  /** Whose watch it was that this observer sat beside. */
  besideId: z.string().nullable(),
});
export type StoredIncident = z.infer<typeof storedIncidentRow>;

const chosen = (facet: string) => `
  array(select coalesce(c.target_id, c.option_id) from incident_choices c
         where c.entry_id = n.id and c.version = n.version and c.facet = '${facet}' order by c.position)`;

const columns = `
  ${recordedColumns('n')}, n.observed_on as "on", n.observed_time as "time", ${chosen('behavior')} as behaviors,
  ${chosen('antecedent')} as antecedents, ${chosen('consequence')} as consequences, ${chosen('function')} as functions,
  (${chosen('location')})[1] as "locationId", (${chosen('intensity')})[1] as "intensityId", n.seconds, n.is_going as "isGoing",
  n.resolved, n.resolved_after as "resolvedAfter", n.note, n.beside_id as "besideId"`;
const names = recordedNames('n');

/**
 * One incident of a student, withdrawn ones too.
 *
 * @throws NotFound when the student has no such incident
 */
export async function incidentOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  id: string,
  { lock = false } = {},
): Promise<StoredIncident> {
  const found = await rowsOf(
    db,
    storedIncidentRow,
    `select ${columns} from entries n ${names} where n.student_id = ? and n.id = ? and n.kind = 'incident' ${lock ? 'for update of n' : ''}`,
    [studentId, id],
  );
  const incident = found[0];
  if (!incident) throw new NotFound('No such incident.');
  return incident;
}

/** What an incident said before each change, oldest first. */
export async function historyOfIncident(db: Database, id: string): Promise<StoredIncident[]> {
  return rowsOf(db, storedIncidentRow, `select ${columns} from ${revisedEntries} n ${names} order by n.version`, {
    id,
  });
}

interface IncidentsWanted {
  limit?: number | undefined;
  ids?: readonly string[] | undefined;
  recordedBy?: string;
  on?: IsoDate;
  /** From this day on. */
  from?: IsoDate | undefined;
}

/** The incidents of some students that stand, newest first, second observers’ too. */
export async function newestIncidents(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  { limit, ids, recordedBy, on, from }: IncidentsWanted = {},
): Promise<StoredIncident[]> {
  const order = (of: string) => `${of}.observed_on desc, ${of}.observed_time desc, ${of}.recorded_at desc`;
  return rowsOf(
    db,
    storedIncidentRow,
    `select ${columns}
       from unnest(cast(:studentIds as uuid[])) as student (id)
       cross join lateral (
         select * from entries x
          where x.student_id = student.id and x.kind = 'incident' and not x.withdrawn ${ids ? 'and x.id = any(:ids)' : ''}
                ${recordedBy ? 'and x.recorded_by = :recordedBy' : ''} ${on ? 'and x.observed_on = :on' : ''} ${from ? 'and x.observed_on >= :from' : ''}
          order by ${order('x')} ${limit ? 'limit :limit' : ''}) n
       ${names}
      order by ${order('n')} ${limit ? 'limit :limit' : ''}`,
    {
      studentIds: [...studentIds],
      ids: [...(ids ?? [])],
      limit: limit ?? 0,
      recordedBy: recordedBy ?? '',
      on: on ?? '',
      from: from ?? '',
    },
  );
}

/** What choices and people are called: as they are, or so that a passing classmate understands nothing. */
export interface Naming {
  /** By the id of a choice; merged ones under the name of the one that stands for them. */
  choices: ReadonlyMap<string, Choice>;
  /** The step of each intensity on the scale, from 1. */
  steps: ReadonlyMap<string, number>;
}

export function namingOf(choices: readonly Choice[]): Naming {
  const scale = choices.filter(({ kind, mergedInto }) => kind === 'intensity' && mergedInto === null);
  const standing = standingChoices(choices);
  const stepOf = new Map(scale.map(({ id }, i) => [id, i + 1]));
  const steps = [...standing].flatMap(([id, choice]): [string, number][] => {
    const step = stepOf.get(choice.id);
    return step === undefined ? [] : [[id, step]];
  });
  return { choices: standing, steps: new Map(steps) };
}

/** What some choices are called, each name once. */
export const uniqueNames = ({ choices }: Naming, ids: readonly string[]) => [
  ...new Set(ids.map((id) => choices.get(id)?.name ?? '?')),
];

/** An incident as the report says it. */
export function saidIncident(incident: StoredIncident, naming: Naming): SaidIncident {
  const intensity = incident.intensityId ? naming.choices.get(incident.intensityId) : undefined;
  return {
    behaviors: uniqueNames(naming, incident.behaviors),
    antecedents: uniqueNames(naming, incident.antecedents),
    consequences: uniqueNames(naming, incident.consequences),
    functions: uniqueNames(naming, incident.functions),
    seconds: incident.seconds,
    isGoing: incident.isGoing,
    intensity: intensity ? { name: intensity.name, words: intensity.words } : null,
    resolved: incident.resolved,
    resolvedAfter: incident.resolvedAfter,
  };
}

/** At which minutes from midnight somebody noted a behavior, of the incidents of one day. */
export function minutesOfIncidents(
  incidents: readonly StoredIncident[],
  { choices }: Naming,
  { observerId, behaviorId }: { observerId: string; behaviorId: string },
): number[] {
  return incidents
    .filter(
      (incident) =>
        incident.observerId === observerId && incident.behaviors.some((id) => choices.get(id)?.id === behaviorId),
    )
    .map(({ time }) => minutesOfDay(time));
}
