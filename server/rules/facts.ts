import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { standsOut } from '~/core/entries/forms/form';
import { plainName } from '~/core/entries/incidents/choice';
import type { Outcome } from '~/core/entries/observation';
import type { MeasureData, MeasureDefinition } from '~/core/measures/measure';
import type { NoScoreReason } from '~/core/measures/score';
import {
  type AnswerFacts,
  type CountFacts,
  type EntryFacts,
  type GoalFacts,
  type IncidentFacts,
  outcomeFacts,
} from '~/core/rules/facts';
import type { RuleTrigger } from '~/core/rules/rule';
import { notesOf } from '../entries/forms/notes';
import { choicesOfAll } from '../entries/incidents/choices';
import { countsOf } from '../entries/incidents/counts';
import { namingOf, newestIncidents } from '../entries/incidents/incidents';
import type { Database } from '../platform/db/database';
import { held, rowsOf, written } from '../platform/db/rows';
import type { StudentAccess } from '../students/access';

interface FactsWanted {
  /** These entries only. */
  ids?: readonly string[] | undefined;
  /** From this day on. */
  from?: IsoDate | undefined;
}

/** What rules ask of the entries of some students that stand, oldest first: of those kinds that any of the triggers looks at. */
export async function factsOf(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  triggers: ReadonlySet<RuleTrigger>,
  wanted: FactsWanted,
): Promise<EntryFacts[]> {
  const [goals, incidents, counts, answers] = await Promise.all([
    triggers.has('goalEntry') ? goalFacts(db, studentIds, wanted) : [],
    triggers.has('incident') || triggers.has('often') ? incidentFacts(db, studentIds, wanted) : [],
    triggers.has('often') ? countFacts(db, studentIds, wanted) : [],
    triggers.has('answer') ? answerFacts(db, studentIds, wanted) : [],
  ]);
  // Those of one day stay in the order in which they happened.
  return [...goals, ...incidents.reverse(), ...counts.reverse(), ...answers].sort((a, b) =>
    a.on < b.on ? -1 : a.on > b.on ? 1 : 0,
  );
}

const goalRow = z.tuple([
  ...[z.string(), z.string(), z.string(), held(z.string())],
  held(z.number()),
  written<MeasureData | null>(),
  written<NoScoreReason | null>(),
] as const);

async function goalFacts(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  { ids, from }: FactsWanted,
): Promise<GoalFacts[]> {
  const rows = await rowsOf(
    db,
    goalRow,
    `select o.id, o.student_id, o.observed_on, o.goal_id, o.measure_version, o.data, o.reason from entries o
      where o.student_id = any(:studentIds) and o.kind = 'goal' and not o.withdrawn
            ${ids ? 'and o.id = any(:ids)' : ''} ${from ? 'and o.observed_on >= :from' : ''}`,
    { studentIds: [...studentIds], ids: [...(ids ?? [])], from: from ?? '' },
  );
  if (rows.length === 0) return [];
  const measures = await rowsOf(
    db,
    z.object({ goalId: z.string(), version: z.number(), area: z.string(), measure: written<MeasureDefinition>() }),
    `select m.goal_id as "goalId", m.version, g.area, m.measure from goal_measures m join goals g on g.id = m.goal_id
      where m.goal_id = any(?)`,
    [[...new Set(rows.map(([, , , goalId]) => goalId))]],
  );
  const byVersion = new Map(measures.map((one) => [`${one.goalId} ${one.version}`, one]));
  return rows.flatMap(([entryId, studentId, on, goalId, version, data, reason]): GoalFacts[] => {
    const under = byVersion.get(`${goalId} ${version}`);
    if (!under) return [];
    // The database holds that one of the two is there, never both.
    const facts = outcomeFacts(under.measure, { data, reason } as Outcome);
    return [{ kind: 'goal', entryId, studentId, on, goalId, area: under.area, ...facts }];
  });
}

async function incidentFacts(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  wanted: FactsWanted,
): Promise<IncidentFacts[]> {
  const incidents = await newestIncidents(db, studentIds, wanted);
  if (incidents.length === 0) return [];
  const choices = await choicesOfAll(db, [...new Set(studentIds)]);
  const namings = new Map([...choices].map(([id, own]) => [id, namingOf(own)]));
  return (
    incidents
      // A second observer's is of an incident that is there already.
      .filter(({ besideId }) => besideId === null)
      .map((one): IncidentFacts => {
        const naming = namings.get(one.studentId);
        const named = (ids: readonly string[]) =>
          new Set(ids.flatMap((id) => plainName(naming?.choices.get(id)?.name ?? '') || []));
        return {
          ...{ kind: 'incident', entryId: one.id, studentId: one.studentId, on: one.on },
          behaviors: named(one.behaviors),
          antecedents: named(one.antecedents),
          location: one.locationId && plainName(naming?.choices.get(one.locationId)?.name ?? ''),
          intensity: one.intensityId ? (naming?.steps.get(one.intensityId) ?? null) : null,
          seconds: one.seconds,
          isUnresolved: one.resolved === false,
        };
      })
  );
}

async function countFacts(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  { ids, from = '' }: FactsWanted,
): Promise<CountFacts[]> {
  // A second observer’s is of a stretch that is there already.
  const counts = (await countsOf(db, studentIds, { ids })).filter(
    ({ besideId, on }) => besideId === null && on >= from,
  );
  if (counts.length === 0) return [];
  const choices = await choicesOfAll(db, [...new Set(studentIds)]);
  const namings = new Map([...choices].map(([id, own]) => [id, namingOf(own)]));
  return counts.map((one): CountFacts => {
    const name = namings.get(one.studentId)?.choices.get(one.behaviorId)?.name ?? '';
    return {
      ...{ kind: 'count', entryId: one.id, studentId: one.studentId, on: one.on, times: one.count },
      behaviors: new Set(name ? [plainName(name)] : []),
    };
  });
}

async function answerFacts(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  wanted: FactsWanted,
): Promise<AnswerFacts[]> {
  const notes = await notesOf(db, studentIds, wanted);
  return notes
    .filter(({ isSelfRecorded, isClassmates }) => isSelfRecorded && !isClassmates)
    .map(({ id, studentId, on, form, answers }) => ({
      ...{ kind: 'answer' as const, entryId: id, studentId, on },
      standsOut: form.questions.some((question) => standsOut(question, answers[question.id])),
    }));
}
