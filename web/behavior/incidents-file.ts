import { incidentsBehind } from '~/core/behavior/filter';
import { fileName } from '~/core/documents/file-name';
import { behaviorOf } from '~/server/behavior/behavior';
import { newestIncidents, type StoredIncident } from '~/server/entries/incidents/incidents';
import { database } from '~/server/platform/db/current';
import { recordAccess } from '~/server/sharing/access-log';
import { requireStudent } from '~/server/students/students';
import { idFrom, personOf } from '../platform/http/request-person';
import { tableFile, tableFormat } from '../platform/http/table-file';
import { withErrors } from '../platform/http/with-errors';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/incidents-file';
import { filterFrom, searchFrom } from './search';
import { incidentsFileWords } from './words';

/** What else an incident says, and how it came about; no words of it in the discreet view. */
function restOf(incident: StoredIncident | undefined, discreet: boolean): (string | number)[] {
  if (!incident) return Array<string>(8).fill('');
  const { isGoing, resolved, resolvedAfter, version, recordedByName, recordedAt, changeReason } = incident;
  return [
    isGoing ? 'yes' : 'no',
    resolved === null ? '' : resolved ? 'yes' : 'no',
    resolvedAfter ?? '',
    discreet ? '' : incident.note,
    recordedByName,
    recordedAt.toISOString(),
    version,
    discreet ? '' : (changeReason ?? ''),
  ];
}

/** A student’s ABC incidents as comma-separated text, as `npm run analyse -- abc` reads it: docs/analyse.md. */
export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, discreet, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  const student = await requireStudent(database(), actor, studentId, 'see');
  const { shortName } = headerStudent(student, { discreet });
  const of = await behaviorOf(database(), student.id, { discreet });
  const incidents = incidentsBehind(of.incidents, filterFrom(searchFrom(request), of.naming), of.timetable);
  const several = (names: readonly string[]) => names.map((name) => name.replaceAll('|', '/')).join('|');
  const fields = [
    'at',
    'behavior',
    'antecedent',
    'consequence',
    'location',
    'observer',
    'function',
    'seconds',
    'intensity',
    'going',
    'resolved',
    'resolvedAfterSeconds',
    'note',
    'recordedBy',
    'recordedAt',
    'version',
    'changedBecause',
  ];
  const written = await newestIncidents(database(), [student.id], { ids: incidents.map(({ id }) => id) });
  const wholeOf = new Map(written.map((incident) => [incident.id, incident]));
  const rows = incidents.map((incident) => [
    `${incident.on}T${incident.time}`,
    several(incident.behaviors),
    several(incident.antecedents),
    several(incident.consequences),
    incident.location ?? '',
    of.people.get(incident.observer ?? '') ?? '',
    several(incident.functions),
    incident.seconds ?? '',
    incident.intensity ?? '',
    ...restOf(wholeOf.get(incident.id), discreet),
  ]);
  const reading = { studentId, what: incidentsFileWords.taken(tableFormat(request)), how: 'exported' as const };
  await recordAccess(database(), { personId: actor.personId }, reading, now);
  const sheet = discreet ? 'notes' : incidentsFileWords.abcIncidents;
  return tableFile(request, { name: fileName(shortName, sheet, actor.today), sheet }, fields, rows);
});
