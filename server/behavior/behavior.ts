import type { StudentIncidents } from '~/core/behavior/patterns';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { Timetable } from '~/core/calendar/timetable';
import type { Choice } from '~/core/entries/incidents/choice';
import type { WatchedStretch } from '~/core/entries/incidents/incident';
import { discreetChoices } from '~/core/goals/discreet';
import { choicesOf, choicesOfAll } from '../entries/incidents/choices';
import { type BehaviorCount, countsOf, watchedStretches } from '../entries/incidents/counts';
import { type Naming, namingOf } from '../entries/incidents/incidents';
import { peopleById } from '../people/people';
import type { Database } from '../platform/db/database';
import { daysAway } from '../students/absences';
import type { StudentAccess } from '../students/access';
import { timetablesOf } from '../students/timetable';
import { type AnalysedIncident, analysedIncidents } from './analysed';
import { phasesOf, type StoredPhase } from './phases';

/** All that a student’s behavior is seen from. */
export interface StudentBehavior {
  choices: Choice[];
  naming: Naming;
  /** Oldest first; without second observers’. */
  incidents: AnalysedIncident[];
  /** Newest first; second observers’ too. */
  counts: BehaviorCount[];
  watched: WatchedStretch[];
  timetable: Timetable;
  phases: StoredPhase[];
  /** Short names by id. */
  people: Map<string, string>;
  /** The day of the first incident or count: before it nothing could have been noted. */
  since: IsoDate | null;
  /** Days on which the student was away: in no rate. */
  absences: IsoDate[];
}

/**
 * What there is to see of a student’s behavior.
 *
 * @param discreet  choices by their first letters only
 */
export async function behaviorOf(
  db: Database,
  studentId: StudentAccess<'see'>,
  { discreet }: { discreet: boolean },
): Promise<StudentBehavior> {
  const stored = await choicesOf(db, studentId);
  const choices = discreet ? discreetChoices(stored) : stored;
  const naming = namingOf(choices);
  const [incidents, counts, timetables, phases, people, away] = await Promise.all([
    analysedIncidents(db, new Map([[studentId, naming]])).then((found) => found.get(studentId) ?? []),
    countsOf(db, [studentId]),
    timetablesOf(db, [studentId]),
    phasesOf(db, studentId),
    peopleById(db),
    daysAway(db, [studentId]),
  ]);
  const [since = null] = [incidents[0]?.on ?? [], counts.at(-1)?.on ?? []].flat().sort();
  return {
    choices,
    naming,
    incidents,
    counts,
    watched: watchedStretches(counts, naming),
    timetable: withLocationNames(timetables.get(studentId) ?? [], choices),
    phases,
    people,
    since,
    absences: away.get(studentId) ?? [],
  };
}

/**
 * The incidents of those of several students whose behavior is followed, with their timetables.
 */
export async function incidentsAcross(
  db: Database,
  studentIds: readonly StudentAccess<'see'>[],
  { discreet }: { discreet: boolean },
): Promise<StudentIncidents[]> {
  const [all, timetables, away] = await Promise.all([
    choicesOfAll(db, studentIds),
    timetablesOf(db, studentIds),
    daysAway(db, studentIds),
  ]);
  const followed = studentIds.filter((id) => (all.get(id)?.length ?? 0) > 0);
  const namings = new Map(
    [...all].map(([id, choices]) => [id, namingOf(discreet ? discreetChoices(choices) : choices)]),
  );
  const incidents = await analysedIncidents(db, namings);
  return followed.map((id) => ({
    id,
    incidents: incidents.get(id) ?? [],
    timetable: timetables.get(id) ?? [],
    absences: away.get(id) ?? [],
  }));
}

/** A timetable whose places are called as the incidents call them. */
function withLocationNames(timetable: Timetable, choices: readonly Choice[]): Timetable {
  const names = new Map(
    choices.flatMap(({ locationId, name, mergedInto }) =>
      locationId && !mergedInto ? [[locationId, name] as const] : [],
    ),
  );
  return timetable.map((block) => ({ ...block, location: names.get(block.location ?? '') ?? null }));
}
