import { noteSentence, tallySentence } from '~/core/behavior/sentence';
import { discreetChoices } from '~/core/discreet/discreet';
import { newestFirst, outcomeSentence, type ReportEntry } from '~/core/report/report';
import { choicesOfAll } from '../behavior/choices';
import { type Naming, type Note, namingOf, newestNotes, saidNote } from '../behavior/notes';
import { type Tally, talliesOf } from '../behavior/tallies';
import { type Database, preparedRows } from '../db/database';
import { type Goal, measureAt } from '../goals/goals';
import { type Observation, observationsOf } from '../observations/read';

/**
 * The entries of some goals as the report says them, newest first. A view: nothing of it is stored.
 * Ask `studentFor` or `studentsOf` first.
 */
export async function reportEntries(
  db: Database,
  goals: readonly Goal[],
  options: { goalId?: string | undefined; limit?: number | undefined } = {},
): Promise<ReportEntry[]> {
  const byId = new Map(goals.map((goal) => [goal.id, goal]));
  const observations = await observationsOf(db, [...new Set(goals.map((goal) => goal.studentId))], options);
  return observations.map((observation) => reportEntryOf(observation, byId.get(observation.goalId) as Goal));
}

/** An observation of a goal as the report says it. */
export function reportEntryOf(observation: Observation, goal: Goal): ReportEntry {
  return {
    id: observation.id,
    studentId: observation.studentId,
    kind: 'observation',
    title: `${goal.number} · ${goal.shortName}`,
    goalId: goal.id,
    goalVersion: observation.goalVersion,
    on: observation.on,
    time: observation.time,
    setting: observation.settingName,
    observer: observation.observerName,
    note: observation.note,
    sentence: outcomeSentence(measureAt(goal, observation.goalVersion), observation.outcome),
    outcome: observation.outcome,
    isCorrected: observation.version > 1,
    isSecond: observation.pairsWith !== null,
  };
}

/**
 * The ABC notes and tallies of some students as the report says them, newest first. Ask `studentFor` or `studentsOf` first.
 *
 * @param discreet  choices by their first letters only
 */
export async function behaviorEntries(
  db: Database,
  studentIds: readonly string[],
  { limit, discreet }: { limit?: number | undefined; discreet: boolean },
): Promise<ReportEntry[]> {
  if (!(await anyFollowed(db, studentIds))) return [];
  const [notes, tallies] = await Promise.all([
    newestNotes(db, studentIds, { limit }),
    talliesOf(db, studentIds, { limit }),
  ]);
  const noted = [...new Set([...notes, ...tallies].map(({ studentId }) => studentId))];
  if (noted.length === 0) return [];
  const choices = await choicesOfAll(db, noted);
  const namings = new Map([...choices].map(([id, own]) => [id, namingOf(discreet ? discreetChoices(own) : own)]));
  return newestFirst(
    [
      notes.map((note) => noteEntry(note, namings.get(note.studentId) as Naming)),
      tallies.map((tally) => tallyEntry(tally, namings.get(tally.studentId) as Naming)),
    ],
    limit,
  );
}

/** Whether the behavior of any of these students was ever noted: of most it never is, and then there is nothing to read. */
async function anyFollowed(db: Database, studentIds: readonly string[]): Promise<boolean> {
  const [row] = await preparedRows<{ any: boolean }>(
    db,
    'any-followed',
    `select exists (select from abc_notes where student_id = any($1)) or
            exists (select from tallies where student_id = any($1)) as any`,
    [[...studentIds]],
  );
  return row?.any ?? false;
}

/** What notes and tallies have in common with an observation. */
const shared = ({ id, studentId, on, time, observerName, note, version, besideId }: Note | Tally) => ({
  ...{ id, studentId, on, time, note, goalId: null, goalVersion: 1, outcome: null },
  observer: observerName,
  isCorrected: version > 1,
  isSecond: besideId !== null,
});

function noteEntry(note: Note, naming: Naming): ReportEntry {
  const said = saidNote(note, naming);
  const setting = note.settingId ? (naming.choices.get(note.settingId)?.name ?? null) : null;
  return { ...shared(note), kind: 'abcNote', title: said.behaviors.join(', '), setting, sentence: noteSentence(said) };
}

function tallyEntry(tally: Tally, naming: Naming): ReportEntry {
  const behavior = naming.choices.get(tally.behaviorId)?.name ?? '?';
  return {
    ...shared(tally),
    kind: 'tally',
    title: behavior,
    setting: tally.part,
    sentence: tallySentence({ ...tally, behavior }),
  };
}
