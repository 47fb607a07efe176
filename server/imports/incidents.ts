import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { wallTime } from '~/core/calendar/zone';
import { plainName } from '~/core/entries/incidents/choice';
import {
  guessIncidents,
  type IncidentCommand,
  type IncidentFacts,
  incidentMark,
  incidentsMapping,
  planIncidents,
} from '~/core/imports/incidents';
import { choicesOf, choicesOfAll } from '../entries/incidents/choices';
import { insertChoice } from '../entries/incidents/edit-choices';
import { recordIncident } from '../entries/incidents/record-incident';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { NotFound, nullIf } from '../platform/failures';
import type { Actor } from '../school/school';
import { schoolOf } from '../school/school';
import { requireStudent } from '../students/students';
import { importKind } from './kind';
import { peopleToName, studentsToName } from './naming';
import type { Part } from './parts';

const thereRow = z.object({ studentId: z.string(), on: z.string(), time: z.string(), behaviors: z.array(z.string()) });

async function factsOf(db: Database, actor: Actor): Promise<IncidentFacts> {
  const students = await studentsToName(db, actor, 'observe');
  const ids = students.map(({ student }) => student.id);
  const standing = await rowsOf(
    db,
    thereRow,
    `select e.student_id as "studentId", e.observed_on as "on", e.observed_time as "time", array(
              select t.name from incident_choices c join behavior_targets t on t.id = c.target_id
               where c.entry_id = e.id and c.version = e.version and c.facet = 'behavior') as behaviors
       from entries e where e.student_id = any(?) and e.kind = 'incident' and not e.withdrawn and e.beside_id is null`,
    [ids as string[]],
  );
  const there = new Map<string, number>();
  for (const { studentId, on, time, behaviors } of standing) {
    const mark = incidentMark(studentId, on, time, behaviors);
    there.set(mark, (there.get(mark) ?? 0) + 1);
  }
  return {
    ...{ today: actor.today, observerId: actor.personId, there },
    students: students.map(({ id, name, names }) => ({ id, name, names })),
    people: await peopleToName(
      db,
      students.map(({ student }) => student),
    ),
    choices: await choicesOfAll(db, ids),
  };
}

/** Tables of incidents: antecedent, behavior, consequence. */
export const incidentsImport = importKind({
  mapping: incidentsMapping,
  facts: factsOf,
  guess: ({ table }, facts) => guessIncidents(table, facts),
  plan: ({ table }, mapping, facts) => planIncidents(table, mapping, facts),
  carryIn: async (db, actor, commands, { now }, { offersNew }) => {
    const { timeZone } = await schoolOf(db, actor.schoolId);
    const moment = { wall: wallTime(now, timeZone), now, timeZone };
    const parts: Part[] = offersNew ? await offer(db, actor, commands) : [];
    for (const command of commands) {
      const { studentId, on, time, observerId, seconds, note } = command;
      const id = randomUUID();
      const ids = (kind: string) => command.named.flatMap((one) => (one.kind === kind && one.id ? [one.id] : []));
      await recordIncident(
        db,
        actor,
        studentId,
        {
          ...{ id, on, time, observerId, seconds, note, isGoing: false, resolved: null, resolvedAfter: null },
          ...{ behaviors: ids('behavior'), antecedents: ids('antecedent'), consequences: ids('consequence') },
          ...{
            functions: ids('function'),
            locationId: ids('location')[0] ?? null,
            intensityId: ids('intensity')[0] ?? null,
          },
          others: command.named.flatMap((one) =>
            one.id === null && one.kind !== 'intensity' ? [{ id: randomUUID(), kind: one.kind, name: one.name }] : [],
          ),
        },
        moment,
      );
      parts.push({ kind: 'entry', studentId, rowId: id });
    }
    return { parts };
  },
});

/** Puts names that are on no list yet on the student's own, where one may set it up: from now on they are offered. */
async function offer(db: Database, actor: Actor, commands: readonly IncidentCommand[]): Promise<Part[]> {
  const parts: Part[] = [];
  for (const studentId of new Set(commands.map((command) => command.studentId))) {
    const student = await nullIf(NotFound, requireStudent(db, actor, studentId, 'editGoals'));
    // Whoever only observes adds nothing to a student's lists: what is new stands in these incidents alone.
    if (!student) continue;
    const { id: access } = student;
    const known = new Set((await choicesOf(db, access)).map(({ kind, name }) => `${kind} ${plainName(name)}`));
    const named = commands.filter((one) => one.studentId === studentId).flatMap((one) => one.named);
    for (const { kind, id, name } of named) {
      const key = `${kind} ${plainName(name)}`;
      if (id !== null || known.has(key)) continue;
      known.add(key);
      const choice = { id: randomUUID(), kind, name, state: 'offered' as const };
      await insertChoice(db, { schoolId: actor.schoolId, studentId: access }, choice);
      parts.push({ kind: 'choice', studentId, rowId: choice.id, after: { kind } });
    }
  }
  return parts;
}
