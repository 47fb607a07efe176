import type { NoScoreReason } from '~/core/measures/score';
import type { SessionInput } from '~/core/observations/observation';

/** What has been marked of one goal so far. Untouched, it stays blank. */
export interface GoalDraft {
  /** The id the entry will have: sent twice, it is still one entry. */
  entryId: string;
  trials: string[];
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
  /** The bead that the next tap replaces, of the active goal. */
  selected: number | null;
}

export type DraftChange =
  | { type: 'mark'; goalId: string; outcome: string; time: Pick<SessionFields, 'on' | 'time'> | null }
  | { type: 'select'; goalId: string; at: number | null }
  | { type: 'takeBack'; goalId: string }
  | { type: 'reason'; goalId: string; reason: NoScoreReason | null }
  | { type: 'note'; goalId: string; note: string }
  | { type: 'session'; fields: Partial<SessionFields> }
  | { type: 'activate'; goalId: string }
  | { type: 'replace'; draft: SessionDraft };

export const isMarked = ({ trials, reason }: Pick<GoalDraft, 'trials' | 'reason'>) =>
  trials.length > 0 || reason !== null;

/** Whether anything at all would be lost with this draft. */
export const isTouched = (draft: SessionDraft) =>
  Object.values(draft.goals).some((goal) => isMarked(goal) || goal.note.trim() !== '');

/** A new trial at the end, or in place of the selected one. */
export function withTrial(trials: readonly string[], selected: number | null, outcome: string): string[] {
  if (selected === null || selected >= trials.length) return [...trials, outcome];
  return trials.map((old, at) => (at === selected ? outcome : old));
}

function changeGoal(draft: SessionDraft, goalId: string, changes: Partial<GoalDraft>): SessionDraft {
  const goal = draft.goals[goalId];
  if (!goal) return draft;
  return { ...draft, activeGoal: goalId, goals: { ...draft.goals, [goalId]: { ...goal, ...changes } } };
}

export function draftReducer(draft: SessionDraft, change: DraftChange): SessionDraft {
  switch (change.type) {
    case 'mark': {
      const goal = draft.goals[change.goalId];
      if (!goal) return draft;
      const selected = draft.activeGoal === change.goalId ? draft.selected : null;
      const isFirst = !Object.values(draft.goals).some(isMarked);
      const session =
        isFirst && change.time && !draft.timeIsChosen ? { ...draft.session, ...change.time } : draft.session;
      const trials = withTrial(goal.trials, selected, change.outcome);
      return changeGoal({ ...draft, session, selected: null }, change.goalId, { trials, reason: null });
    }
    case 'select':
      return { ...draft, activeGoal: change.goalId, selected: change.at };
    case 'takeBack': {
      const trials = draft.goals[change.goalId]?.trials.slice(0, -1) ?? [];
      return changeGoal({ ...draft, selected: null }, change.goalId, { trials });
    }
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

/** What is sent: only the goals that were marked. */
export function inputFrom({ session, goals }: SessionDraft): SessionInput {
  const entries = Object.entries(goals)
    .filter(([, goal]) => isMarked(goal))
    .map(([goalId, { entryId, trials, reason, note }]) => ({
      id: entryId,
      goalId,
      outcome: reason === null ? { data: { trials }, reason } : { data: null, reason },
      note,
    }));
  return { ...session, entries };
}
