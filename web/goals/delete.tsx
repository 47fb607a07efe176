import { useId } from 'react';
import { useFetcher } from 'react-router';
import { Dialog } from '../platform/ui/dialog';
import { FieldMessage } from '../platform/ui/fields';
import type { action, Line } from './arrange';
import { deleteWords } from './words';

/** Asks for the name of a goal of which nothing was recorded, before it is deleted. */
export function DeleteDialog({ goal, onClose }: { goal: Line; onClose: () => void }) {
  const fetcher = useFetcher<typeof action>();
  const messages = fetcher.data?.result?.error ?? {};
  const id = useId();
  return (
    <Dialog title={deleteWords.heading(goal.number, goal.shortName)} onClose={onClose}>
      <fetcher.Form method="post" className="grid gap-4 p-6">
        <h2 className="text-xl">{deleteWords.heading(goal.number, goal.shortName)}</h2>
        <p>{deleteWords.what}</p>
        <input type="hidden" name="intent" value="delete" />
        <input type="hidden" name="goalId" value={goal.id} />
        <div className="grid gap-1">
          <label htmlFor={id} className="text-small font-semibold">
            {deleteWords.typeName(goal.shortName)}
          </label>
          <input
            id={id}
            name="typedName"
            autoComplete="off"
            className="input w-full"
            aria-describedby={`${id}-message`}
          />
          <FieldMessage id={`${id}-message`} messages={messages.typedName ?? undefined} />
        </div>
        <div className="flex justify-end gap-2">
          <button type="button" className="btn" onClick={onClose}>
            {deleteWords.cancel}
          </button>
          <button type="submit" className="btn btn-primary" disabled={fetcher.state !== 'idle'}>
            {deleteWords.delete}
          </button>
        </div>
      </fetcher.Form>
    </Dialog>
  );
}
