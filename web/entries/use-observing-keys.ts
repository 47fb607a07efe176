import type { Dispatch } from 'react';
import type { ObservedGoal } from '~/core/entries/waiting';
import { useKey } from '../platform/ui/use-key';
import { useSaveKey } from '../platform/ui/use-save-key';
import type { DraftChange, SessionDraft } from './draft';

interface ObservingKeys {
  goals: ObservedGoal[];
  draft: SessionDraft;
  change: Dispatch<DraftChange>;
  save: () => void;
}

/** N goes to the next goal, Enter saves; the digits and U are the active data sheet's. */
export function useObservingKeys({ goals, draft, change, save }: ObservingKeys) {
  const at = Math.max(
    0,
    goals.findIndex(({ id }) => id === draft.activeGoal),
  );
  useKey('n', () => {
    const next = goals[(at + 1) % goals.length];
    if (!next) return;
    change({ type: 'activate', goalId: next.id });
    document.getElementById(`goal-${next.id}`)?.scrollIntoView({ block: 'nearest' });
  });
  useSaveKey(save);
}
