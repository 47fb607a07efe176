import { z } from 'zod';
import type { WallTime } from '~/core/calendar/zone';
import { type FidelityMarks, fidelityMarks } from '~/core/entries/fidelity';
import type { SessionInput } from '~/core/entries/observation';
import type { PhotographInput } from '~/core/entries/photograph';
import { type MeasureData, type MeasureDefinition, measureData } from '~/core/measures/measure';
import { type NoScoreReason, noScoreReasons } from '~/core/measures/score';
import { type Clock, clock, isRunning, stoppedClock } from '../measures/clock';
import { finished } from '../measures/finished';

const wallTime = z.object({ on: z.string(), time: z.string() });

/** What has been marked of one goal so far. Untouched, it stays blank. */
const goalDraft = z.object({
  /** The id the entry will have: sent twice, it is still one entry. */
  entryId: z.string(),
  data: measureData.nullable(),
  /** The stopwatch of what is timed. */
  clock,
  reason: z.enum(noScoreReasons).nullable(),
  note: z.string(),
  /** Which steps of the support were done. */
  fidelity: fidelityMarks.nullable().default(null),
  /** When its first mark was made, by the school's clock. */
  at: wallTime.nullable(),
});
export type GoalDraft = z.infer<typeof goalDraft>;

const sessionFields = z.object({
  on: z.string(),
  time: z.string(),
  observerId: z.string(),
  locationId: z.string().nullable(),
  besideId: z.string().nullable().optional(),
});
export type SessionFields = z.infer<typeof sessionFields>;

/** A session in the making: of one student, or of several in one go. */
export const sessionDraft = z.object({
  session: sessionFields,
  /** Whether date or time were set by hand; if not, they are those of the first tap. */
  timeIsChosen: z.boolean(),
  goals: z.record(z.string(), goalDraft),
  activeGoal: z.string(),
  /** When watching began, in milliseconds since 1970. */
  openedAt: z.number(),
  /** The place in the active goal that the next tap replaces: a trial mark. */
  selected: z.number().nullable(),
});
export type SessionDraft = z.infer<typeof sessionDraft>;

export type DraftChange =
  | {
      type: 'mark';
      goalId: string;
      data: MeasureData | null;
      clock?: Clock;
      time: WallTime | null;
    }
  | { type: 'select'; goalId: string; at: number | null }
  | { type: 'reason'; goalId: string; reason: NoScoreReason | null }
  | { type: 'note'; goalId: string; note: string }
  | { type: 'fidelity'; goalId: string; fidelity: FidelityMarks | null }
  | { type: 'session'; fields: Partial<SessionFields> }
  | { type: 'activate'; goalId: string }
  | { type: 'replace'; draft: SessionDraft };

/** A goal of which nothing is marked. */
export const untouched = (entryId: string): GoalDraft => ({
  entryId,
  data: null,
  clock: stoppedClock,
  reason: null,
  note: '',
  fidelity: null,
  at: null,
});

export const isMarked = ({ data, clock, reason }: Pick<GoalDraft, 'data' | 'clock' | 'reason'>) =>
  data !== null || reason !== null || isRunning(clock);

/** Whether anything at all would be lost with this draft. */
export const isTouched = (draft: SessionDraft) =>
  Object.values(draft.goals).some((goal) => isMarked(goal) || goal.note.trim() !== '' || goal.fidelity !== null);

function changeGoal(draft: SessionDraft, goalId: string, changes: Partial<GoalDraft>): SessionDraft {
  const goal = draft.goals[goalId];
  if (!goal) return draft;
  return { ...draft, activeGoal: goalId, goals: { ...draft.goals, [goalId]: { ...goal, ...changes } } };
}

export function draftReducer(draft: SessionDraft, change: DraftChange): SessionDraft {
  switch (change.type) {
    case 'mark': {
      const isFirst = !Object.values(draft.goals).some(isMarked);
      const session =
        isFirst && change.time && !draft.timeIsChosen ? { ...draft.session, ...change.time } : draft.session;
      const { data, clock } = change;
      return changeGoal({ ...draft, session, selected: null }, change.goalId, {
        data,
        ...(clock && { clock }),
        ...(data !== null && { reason: null }),
        ...(change.time && draft.goals[change.goalId]?.at === null && { at: change.time }),
      });
    }
    case 'select':
      return { ...draft, activeGoal: change.goalId, selected: change.at };
    case 'reason':
      return changeGoal({ ...draft, selected: null }, change.goalId, { reason: change.reason });
    case 'note':
      return changeGoal(draft, change.goalId, { note: change.note });
    case 'fidelity':
      return changeGoal(draft, change.goalId, { fidelity: change.fidelity });
    case 'session': {
      const timeIsChosen = draft.timeIsChosen || 'on' in change.fields || 'time' in change.fields;
      return { ...draft, timeIsChosen, session: { ...draft.session, ...change.fields } };
    }
    case 'activate':
      return draft.activeGoal === change.goalId ? draft : { ...draft, activeGoal: change.goalId, selected: null };
    case 'replace':
      return change.draft;
  }
}

/**
 * When a student was observed: as it was chosen, else at the first mark of a goal of theirs.
 *
 * @param goalIds  the goals of that student
 */
export function momentOf({ session, timeIsChosen, goals }: SessionDraft, goalIds: readonly string[]): WallTime {
  const marked = goalIds.flatMap((id) => (goals[id] && isMarked(goals[id]) && goals[id].at) || []);
  const [first] = marked.toSorted((a, b) => `${a.on} ${a.time}`.localeCompare(`${b.on} ${b.time}`));
  return timeIsChosen || !first ? { on: session.on, time: session.time } : first;
}

/**
 * What is sent for one student: only the goals that were marked, their clocks read now.
 *
 * @param measured  how each goal of the student is measured, and since which version
 * @param photographsOf  those taken at a goal, by its id
 * @returns null where nothing is marked
 */
export function inputFrom(
  draft: SessionDraft,
  measured: readonly { id: string; measure: MeasureDefinition; version: number }[],
  now: number,
  photographsOf: (goalId: string) => readonly PhotographInput[],
): SessionInput | null {
  const entries = measured.flatMap(({ id: goalId, measure, version }): SessionInput['entries'] => {
    const goal = draft.goals[goalId];
    if (!goal) return [];
    const { entryId: id, reason, note, fidelity } = goal;
    const photographs = [...photographsOf(goalId)];
    const what = {
      ...{ id, goalId, goalVersion: version, note },
      ...(fidelity && { fidelity }),
      ...(photographs.length > 0 && { photographs }),
    };
    if (reason !== null) return [{ ...what, outcome: { data: null, reason } }];
    const data = finished(measure, goal, now);
    return data === null ? [] : [{ ...what, outcome: { data, reason: null } }];
  });
  if (entries.length === 0) return null;
  const { observerId, locationId, besideId } = draft.session;
  return {
    ...momentOf(
      draft,
      measured.map(({ id }) => id),
    ),
    observerId,
    locationId,
    ...(besideId && { besideId }),
    entries,
  };
}
