import type { Dispatch } from 'react';
import { useKey } from '../ui/use-key';
import type { DraftChange, SessionDraft, SessionFields } from './draft';
import type { ObservedGoal } from './goal-card';
import { padKeys, padsOf } from './trials-strip';

interface ObservingKeys {
  goals: ObservedGoal[];
  draft: SessionDraft;
  change: Dispatch<DraftChange>;
  save: () => void;
  timeNow: () => Pick<SessionFields, 'on' | 'time'>;
}

/** Digits mark, U takes back, N goes to the next goal, Enter saves. */
export function useObservingKeys({ goals, draft, change, save, timeNow }: ObservingKeys) {
  const at = Math.max(
    0,
    goals.findIndex(({ id }) => id === draft.activeGoal),
  );
  const active = goals[at];
  const goalId = active?.id ?? '';
  useKey(padKeys, (event) => {
    const pad = active && padsOf(active.measure)[padKeys.indexOf(event.key)];
    if (pad) change({ type: 'mark', goalId, outcome: pad.key, time: timeNow() });
  });
  useKey('u', () => change({ type: 'takeBack', goalId }));
  useKey('n', () => {
    const next = goals[(at + 1) % goals.length];
    if (!next) return;
    change({ type: 'activate', goalId: next.id });
    document.getElementById(`goal-${next.id}`)?.scrollIntoView({ block: 'nearest' });
  });
  useKey('enter', () => {
    // On a control that has the focus, Enter is that control's.
    if (!document.activeElement?.closest('button, a, summary')) save();
  });
}
