import { useEffect, useId, useState } from 'react';
import { useFetcher } from 'react-router';
import { v4 as newId } from 'uuid';
import { type Comment, LONGEST_COMMENT, outcomes } from '~/core/sharing/comment';
import { Dialog } from '../platform/ui/dialog';
import { FieldMessage } from '../platform/ui/fields';
import { threadWords } from './words';

/** What a family asked to have amended is decided by whoever shares the report; the family reads the decision and why. */
export function Decide({ request }: { request: Pick<Comment, 'id' | 'text' | 'by'> }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <p className="no-print">
      <button type="button" className="tap text-small font-semibold link" onClick={() => setOpen(true)}>
        {threadWords.decide}
      </button>
      {isOpen && <DecideDialog request={request} onClose={() => setOpen(false)} />}
    </p>
  );
}

type Answer = { said?: string; messages?: Record<string, string> };

function DecideDialog({ request, onClose }: { request: Pick<Comment, 'id' | 'text' | 'by'>; onClose: () => void }) {
  const fetcher = useFetcher<Answer>();
  const [id] = useState(() => newId());
  const why = useId();
  const isDone = fetcher.state === 'idle' && fetcher.data?.said === id;
  const messages = fetcher.data?.messages;
  useEffect(() => {
    if (isDone) onClose();
  }, [isDone, onClose]);
  return (
    <Dialog title={threadWords.decide} onClose={onClose}>
      <fetcher.Form method="post" className="grid gap-3 p-6">
        <h2 className="text-xl">{threadWords.asksToAmend(request.by.name)}</h2>
        <p className="border-l-2 border-rule pl-3 whitespace-pre-line">{request.text}</p>
        <p className="text-small text-ink-2">{threadWords.correctFirst}</p>
        <input type="hidden" name="id" value={id} />
        <input type="hidden" name="answers" value={request.id} />
        <fieldset className="grid gap-1">
          <legend className="mb-1 text-small font-semibold">{threadWords.decision}</legend>
          {outcomes.map((outcome) => (
            <label key={outcome} className="flex tap items-center gap-2.5">
              <input type="radio" name="outcome" value={outcome} className="radio radio-sm" />
              {threadWords.outcomes[outcome]}
            </label>
          ))}
          <FieldMessage messages={messages?.outcome ? [messages.outcome] : undefined} />
        </fieldset>
        <div className="grid gap-1">
          <label htmlFor={why} className="text-small font-semibold">
            {threadWords.whyForTheFamily}
          </label>
          <textarea id={why} name="text" rows={3} maxLength={LONGEST_COMMENT} className="textarea w-full text-base" />
          <FieldMessage messages={messages?.text ? [messages.text] : undefined} />
        </div>
        <div className="mt-2 flex justify-end gap-2">
          <button type="button" className="btn" onClick={onClose}>
            {threadWords.leaveIt}
          </button>
          <button
            type="submit"
            name="intent"
            value="decide"
            className="btn btn-primary"
            disabled={fetcher.state !== 'idle'}
          >
            {threadWords.saveDecision}
          </button>
        </div>
      </fetcher.Form>
    </Dialog>
  );
}
