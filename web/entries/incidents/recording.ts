import { type Choice, type ChoiceKind, choiceKinds } from '~/core/entries/incidents/choice';
import type { IncidentScreen, RepeatedIncident } from '~/core/entries/waiting';
import { discreetChoices, discreetStudent } from '~/core/goals/discreet';
import { choicesOf, fieldsLeftOut } from '~/server/entries/incidents/choices';
import { namingOf, newestIncidents, type StoredIncident } from '~/server/entries/incidents/incidents';
import type { Database } from '~/server/platform/db/database';
import { type Student, supportTeam } from '~/server/students/students';
import { timetablesOf } from '~/server/students/timetable';
import type { RequestPerson } from '../../platform/http/request-person';

/**
 * What it takes to record an incident or a count of a student.
 *
 * @param student  from `requireStudent`
 * @param including  ids of choices that are offered here although they are not any more: those of an incident that is changed
 */
export async function incidentScreenOf(
  db: Database,
  { actor, person, wall, discreet }: RequestPerson,
  student: Student,
  including: readonly string[] = [],
): Promise<IncidentScreen> {
  const [stored, leftOut, team, timetables, incidents] = await Promise.all([
    choicesOf(db, student.id),
    fieldsLeftOut(db, student.id),
    supportTeam(db, student.id, actor.today),
    timetablesOf(db, [student.id]),
    newestIncidents(db, [student.id], { limit: 1, recordedBy: person.id }),
  ]);
  const choices = discreet ? discreetChoices(stored) : stored;
  const { choices: standing } = namingOf(choices);
  const kept = new Set(including.map((id) => standing.get(id)?.id ?? id));
  // What was typed is offered too, marked as new, until somebody says whether it stays.
  const isOffered = ({ id, state, mergedInto }: Choice) => (state !== 'retired' && mergedInto === null) || kept.has(id);
  const offered = (kind: ChoiceKind) =>
    choices
      .filter((choice) => choice.kind === kind && isOffered(choice))
      .map(({ id, name, words, locationId, abc, counted, timed, state }) => ({
        ...{ id, name, words, locationId, abc, counted, timed },
        isNew: state === 'other',
      }));
  const { id, shortName, firstName } = discreet ? discreetStudent(student) : student;
  const offeredByKind = Object.fromEntries(
    choiceKinds.map((kind) => [kind, offered(kind)]),
  ) as IncidentScreen['offered'];
  return {
    student: { id, shortName, firstName },
    offered: offeredByKind,
    leftOut,
    people: team.map((member) => ({ id: member.id, name: member.shortName })),
    timetable: (timetables.get(id) ?? []).map(({ weekday, part, from, to, location }) => ({
      ...{ weekday, part, from, to, location },
    })),
    personId: person.id,
    wall,
    last: incidents[0] ? repeated(incidents[0], offeredByKind, (one) => standing.get(one)?.id ?? one) : null,
    discreet,
  };
}

/** What of an incident can be chosen again: merged choices by the one that stands for them, retired ones left out. */
function repeated(
  incident: StoredIncident,
  offered: IncidentScreen['offered'],
  standing: (id: string) => string,
): RepeatedIncident | null {
  const still = (kind: ChoiceKind, ids: readonly (string | null)[]) =>
    [...new Set(ids.flatMap((id) => (id ? standing(id) : [])))].filter((id) =>
      offered[kind].some((choice) => choice.id === id),
    );
  const behaviors = still('behavior', incident.behaviors);
  if (behaviors.length === 0) return null;
  return {
    behaviors,
    locationId: still('location', [incident.locationId])[0] ?? null,
    antecedents: still('antecedent', incident.antecedents),
    consequences: still('consequence', incident.consequences),
    functions: still('function', incident.functions),
    intensityId: still('intensity', [incident.intensityId])[0] ?? null,
  };
}
