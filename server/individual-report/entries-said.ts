import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import { noteWithFidelity } from '~/core/entries/fidelity';
import { answersSentence } from '~/core/entries/forms/form';
import { countSentence, incidentSentence } from '~/core/entries/incidents/incident-sentence';
import { discreetChoices } from '~/core/goals/discreet';
import {
  asSeenBy,
  incidentAsSeenBy,
  newestFirst,
  outcomeSaid,
  type ReportEntry,
} from '~/core/individual-report/report';
import { noteWithDataWords, withoutDataWords } from '~/core/measures/words-in-data';
import { everything, type Shows } from '~/core/sharing/visibility-rule';
import { notesOf } from '../entries/forms/notes';
import { choicesOfAll } from '../entries/incidents/choices';
import { type BehaviorCount, countsOf } from '../entries/incidents/counts';
import {
  type Naming,
  namingOf,
  newestIncidents,
  type StoredIncident,
  saidIncident,
} from '../entries/incidents/incidents';
import { type Observation, observationsOf } from '../entries/read';
import { type Goal, measureAt } from '../goals/goals';
import { type Database, preparedRows } from '../platform/db/database';
import type { StudentAccess } from '../students/access';

/** Which entries, and what of them a reader is shown: all, unless it is said. */
export interface EntriesWanted {
  /** These only. */
  ids?: readonly string[] | undefined;
  shows?: Shows | undefined;
}

/**
 * The entries of some goals as the report says them, newest first. A view: nothing of it is stored.
 */
export async function reportEntries(
  db: Database,
  goals: readonly Goal[],
  { shows = everything, ids }: EntriesWanted = {},
): Promise<ReportEntry[]> {
  const byId = new Map(goals.map((goal) => [goal.id, goal]));
  const observations = await observationsOf(db, [...new Set(goals.map((goal) => goal.studentId))], { ids });
  return observations.map((observation) => reportEntryOf(observation, defined(byId.get(observation.goalId)), shows));
}

/** An observation of a goal as the report says it. */
export function reportEntryOf(observation: Observation, goal: Goal, shows: Shows = everything): ReportEntry {
  const entry: ReportEntry = {
    id: observation.id,
    studentId: observation.studentId,
    kind: 'observation',
    title: `${goal.number} · ${goal.shortName}`,
    goalId: goal.id,
    goalVersion: observation.goalVersion,
    on: observation.on,
    time: observation.time,
    location: observation.locationName,
    observer: observation.observerName,
    // How a support was carried out is of the adults: it is the team’s alone.
    note: noteWithFidelity(
      noteWithDataWords(observation.note, observation.outcome.data),
      shows === everything ? observation.fidelity : null,
    ),
    sentence: outcomeSaid(measureAt(goal, observation.goalVersion), observation.outcome, shows, observation.soFar),
    outcome: withoutDataWords(observation.outcome),
    version: observation.version,
    isCorrected: observation.version > 1,
    isSecond: observation.pairsWith !== null,
  };
  return asSeenBy(entry, shows);
}

/**
 * The ABC notes and counts of some students as the report says them, newest first.
 *
 * @param discreet  choices by their first letters only
 */
export async function behaviorEntries(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  { shows = everything, discreet, ...wanted }: EntriesWanted & { discreet: boolean },
): Promise<ReportEntry[]> {
  if (!shows.has('abc') || !(await anyFollowed(db, studentIds))) return [];
  const [found, counts] = await Promise.all([
    newestIncidents(db, studentIds, wanted),
    countsOf(db, studentIds, wanted),
  ]);
  // What has not ended yet is for those who work with it.
  const notes = shows === everything ? found : found.filter(({ isGoing }) => !isGoing);
  const noted = [...new Set([...notes, ...counts].map(({ studentId }) => studentId))];
  if (noted.length === 0) return [];
  const choices = await choicesOfAll(db, noted);
  const namings = new Map([...choices].map(([id, own]) => [id, namingOf(discreet ? discreetChoices(own) : own)]));
  return newestFirst([
    notes.map((note) => incidentEntry(note, defined(namings.get(note.studentId)), shows)),
    counts.map((count) => countEntry(count, defined(namings.get(count.studentId)), shows)),
  ]);
}

/**
 * The newest entries of some students of any kind, newest first.
 *
 * @param goals  all goals of these students, retired ones too
 * @param on  of this day only
 */
export async function newestEntries(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  goals: readonly Goal[],
  { limit, on = null, discreet }: { limit: number; on?: IsoDate | null; discreet: boolean },
): Promise<ReportEntry[]> {
  const newest = await preparedRows(
    db,
    'newest-entries',
    z.object({ id: z.string(), kind: z.string() }),
    // Student by student, so that each list comes out of its index in order and ends early.
    `select e.id, e.kind
       from unnest(cast($1 as uuid[])) as student (id)
       cross join lateral (
         select * from entries x
          where x.student_id = student.id and x.kind in ('goal', 'incident', 'count', 'note') and not x.withdrawn
                and (cast($2 as date) is null or x.observed_on = $2)
          order by x.observed_on desc, x.observed_time desc, x.recorded_at desc limit $3) e
      order by e.observed_on desc, e.observed_time desc, e.recorded_at desc limit $3`,
    [[...studentIds], on, limit],
  );
  return entriesByIds(db, studentIds, goals, newest, discreet);
}

/** Some entries of any kind by their ids, newest first. */
export async function newestEntriesByIds(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  goals: readonly Goal[],
  { ids, discreet }: { ids: readonly string[]; discreet: boolean },
): Promise<ReportEntry[]> {
  const kinds = await db('entries')
    .whereIn('id', [...ids])
    .whereIn('student_id', [...studentIds])
    .select('id', 'kind');
  return entriesByIds(db, studentIds, goals, kinds, discreet);
}

async function entriesByIds(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  goals: readonly Goal[],
  newest: readonly { id: string; kind: string }[],
  discreet: boolean,
): Promise<ReportEntry[]> {
  const ofGoals = newest.flatMap(({ id, kind }) => (kind === 'goal' ? [id] : []));
  const ofBehavior = newest.flatMap(({ id, kind }) => (kind === 'incident' || kind === 'count' ? [id] : []));
  const ofForms = newest.flatMap(({ id, kind }) => (kind === 'note' ? [id] : []));
  return newestFirst(
    await Promise.all([
      ofGoals.length > 0 ? reportEntries(db, goals, { ids: ofGoals }) : [],
      ofBehavior.length > 0 ? behaviorEntries(db, studentIds, { ids: ofBehavior, discreet }) : [],
      ofForms.length > 0 ? noteEntries(db, studentIds, { ids: ofForms, discreet }) : [],
    ]),
  );
}

/**
 * What was noted of some students by forms, as the report says it, newest first: without texts where notes are not shown, or
 * somebody could read over the shoulder.
 */
export async function noteEntries(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  { shows = everything, ids, discreet }: EntriesWanted & { discreet: boolean },
): Promise<ReportEntry[]> {
  if (!shows.has('forms')) return [];
  return (await notesOf(db, studentIds, { ids })).map((note) =>
    asSeenBy(
      {
        ...{ ...shared({ ...note, note: '', besideId: null }), kind: 'note', title: note.form.title, location: null },
        sentence: answersSentence(note.form.questions, note.answers, { words: shows.has('note') && !discreet }),
      },
      shows,
    ),
  );
}

/** Whether the behavior of any of these students was ever noted: of most it never is, and then there is nothing to read. */
async function anyFollowed(db: Database, studentIds: readonly string[]): Promise<boolean> {
  const [row] = await preparedRows(
    db,
    'any-followed',
    z.object({ any: z.boolean() }),
    // Student by student and in the order of the index: else the plan reads through every note of the school.
    `select exists (
       select from unnest(cast($1 as uuid[])) as student (id)
         cross join lateral (
           select from entries e where e.student_id = student.id and e.kind <> 'goal' and e.kind <> 'note' and not e.withdrawn limit 1) as newest) as any`,
    [[...studentIds]],
  );
  return row?.any ?? false;
}

/** What notes and counts have in common with an observation. */
type InCommon = Pick<
  StoredIncident | BehaviorCount,
  'id' | 'studentId' | 'on' | 'time' | 'observerName' | 'note' | 'version' | 'besideId'
>;
const shared = ({ id, studentId, on, time, observerName, note, version, besideId }: InCommon) => ({
  ...{ id, studentId, on, time, note, goalId: null, goalVersion: 1, outcome: null },
  observer: observerName,
  version,
  isCorrected: version > 1,
  isSecond: besideId !== null,
});

function incidentEntry(note: StoredIncident, naming: Naming, shows: Shows): ReportEntry {
  const said = incidentAsSeenBy(saidIncident(note, naming), shows);
  const location = note.locationId ? (naming.choices.get(note.locationId)?.name ?? null) : null;
  const title = said.behaviors.join(', ');
  return asSeenBy({ ...shared(note), kind: 'incident', title, location, sentence: incidentSentence(said) }, shows);
}

function countEntry(count: BehaviorCount, naming: Naming, shows: Shows): ReportEntry {
  const behavior = naming.choices.get(count.behaviorId)?.name ?? '?';
  const part = shows.has('location') ? count.part : null;
  const sentence = countSentence({ ...count, part, behavior });
  return asSeenBy({ ...shared(count), kind: 'count', title: behavior, location: part, sentence }, shows);
}
