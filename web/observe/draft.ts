import type { MeasureData, MeasureDefinition } from '~/core/measures/measure';
import type { NoScoreReason } from '~/core/measures/score';
import type { SessionInput } from '~/core/observations/observation';
import { type Clock, isRunning, stoppedClock } from './clock';
import { finished } from './finished';

/** What has been marked of one goal so far. Untouched, it stays blank. */
export interface GoalDraft {
  /** The id the entry will have: sent twice, it is still one entry. */
  entryId: string;
  data: MeasureData | null;
  /** The stopwatch of what is timed. */
  clock: Clock;
  reason: NoScoreReason | null;
  note: string;
}

export type SessionFields = Pick<SessionInput, 'on' | 'time' | 'observerId' | 'settingId'>;

export interface SessionDraft {
  session: SessionFields;
  /** Whether date or time were set by hand; if not, they are those of the first tap. */
  timeIsChosen: boolean;
  goals: Record<string, GoalDraft>;
  activeGoal: string;
  /** When watching began, in milliseconds since 1970. */
  openedAt: number;
  /** The place in the active goal that the next tap replaces: a bead. */
  selected: number | null;
}

export type DraftChange =
  | {
      type: 'mark';
      goalId: string;
      data: MeasureData | null;
      clock?: Clock;
      time: Pick<SessionFields, 'on' | 'time'> | null;
    }
  | { type: 'select'; goalId: string; at: number | null }
  | { type: 'reason'; goalId: string; reason: NoScoreReason | null }
  | { type: 'note'; goalId: string; note: string }
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
});

export const isMarked = ({ data, clock, reason }: Pick<GoalDraft, 'data' | 'clock' | 'reason'>) =>
  data !== null || reason !== null || isRunning(clock);

/** Whether anything at all would be lost with this draft. */
export const isTouched = (draft: SessionDraft) =>
  Object.values(draft.goals).some((goal) => isMarked(goal) || goal.note.trim() !== '');

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
      });
    }
    case 'select':
      return { ...draft, activeGoal: change.goalId, selected: change.at };
    case 'reason':
      return changeGoal({ ...draft, selected: null }, change.goalId, { reason: change.reason });
    case 'note':
      return changeGoal(draft, change.goalId, { note: change.note });
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
 * What is sent: only the goals that were marked, their clocks read now.
 *
 * @param measures  how each goal is measured, and since which version, by its id
 */
export function inputFrom(
  { session, goals }: SessionDraft,
  measures: ReadonlyMap<string, { measure: MeasureDefinition; version: number }>,
  now: number,
): SessionInput {
  const entries = Object.entries(goals).flatMap(([goalId, goal]): SessionInput['entries'] => {
    const { entryId: id, reason, note } = goal;
    const measured = measures.get(goalId);
    if (!measured) return [];
    const what = { id, goalId, goalVersion: measured.version, note };
    if (reason !== null) return [{ ...what, outcome: { data: null, reason } }];
    const data = finished(measured.measure, goal, now);
    return data === null ? [] : [{ ...what, outcome: { data, reason: null } }];
  });
  return { ...session, entries };
}
