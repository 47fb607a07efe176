import { useEffect, useId, useState } from 'react';
import { useFetcher } from 'react-router';
import { v4 as newId } from 'uuid';
import { shortDate } from '~/core/calendar/iso-date';
import { answerable, type Comment, LONGEST_COMMENT } from '~/core/sharing/comment';
import type { ShownEntry } from '../entries/shown-entry';
import { Dialog } from '../platform/ui/dialog';
import { FieldMessage } from '../platform/ui/fields';
import { threadWords } from './words';

interface ThreadProps {
  entry: Pick<ShownEntry, 'id' | 'title' | 'on'>;
  comments: readonly Comment[];
  mayAnswer: boolean;
  mayHide: boolean;
  word: 'comment' | 'reflection';
  /** Who will see what is said here, where nobody in particular is answered. */
  seenBy?: string;
}

/** What was said of an entry, and a place to answer: its button stands in the corner of what is `relative` around it. */
export function Thread({ entry, comments, mayAnswer, mayHide, word, seenBy }: ThreadProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      {comments.length > 0 && (
        <ul className="mt-2 grid gap-2 border-l-2 border-rule pl-3">
          {comments.map((comment) => (
            <Said key={comment.id} comment={comment} mayHide={mayHide} />
          ))}
        </ul>
      )}
      {mayAnswer &&
        (isOpen ? (
          <AnswerForm
            entryId={entry.id}
            word={word}
            to={word === 'comment' ? answerable(comments) : []}
            seenBy={seenBy}
            onDone={() => setOpen(false)}
          />
        ) : (
          <button
            type="button"
            className="no-print absolute top-2 right-2 tap px-1 text-small text-ink-2 link"
            aria-label={`${word === 'reflection' ? threadWords.saySomethingAbout : threadWords.answer} ${entry.title}, ${shortDate(entry.on)}`}
            onClick={() => setOpen(true)}
          >
            {word === 'reflection' ? threadWords.saySomething : threadWords.answer}
          </button>
        ))}
    </>
  );
}

function Said({ comment, mayHide }: { comment: Comment; mayHide: boolean }) {
  const fetcher = useFetcher();
  const [isAsking, setAsking] = useState(false);
  const { by, to, on, time, text, hidden, kind } = comment;
  return (
    <li className={hidden ? 'no-print text-ink-3' : ''}>
      <p className="text-small text-ink-2">
        <span className="font-semibold">{by.name}</span>
        {kind === 'reflection' && ', a reflection'}
        {to && threadWords.toNamed(to.name)} · {shortDate(on)}, {time}
        {hidden && threadWords.hiddenBy(hidden.by, hidden.reason)}
      </p>
      <p className="whitespace-pre-line">{text}</p>
      {mayHide && (
        <span className="no-print">
          {hidden ? (
            <fetcher.Form method="post">
              <input type="hidden" name="id" value={comment.id} />
              <button
                type="submit"
                name="intent"
                value="show"
                className="tap text-small text-ink-2 link"
                aria-label={threadWords.showAgainWhatSaid(by.name)}
              >
                {threadWords.showAgain}
              </button>
            </fetcher.Form>
          ) : (
            <button
              type="button"
              className="tap text-small text-ink-2 link"
              aria-label={threadWords.hideNamed(by.name)}
              onClick={() => setAsking(true)}
            >
              {threadWords.hide}
            </button>
          )}
        </span>
      )}
      {isAsking && <HideDialog comment={comment} onClose={() => setAsking(false)} />}
    </li>
  );
}

/** What the server answers to something that was said or hidden. */
type Answer = { said?: string; messages?: Record<string, string> };

function HideDialog({ comment, onClose }: { comment: Comment; onClose: () => void }) {
  const fetcher = useFetcher<Answer>();
  const reason = useId();
  const isDone = fetcher.data?.said === comment.id;
  useEffect(() => {
    if (isDone) onClose();
  }, [isDone, onClose]);
  return (
    <Dialog title={threadWords.hideThis} onClose={onClose}>
      <fetcher.Form method="post" className="grid gap-3 p-6">
        <h2 className="text-xl">{threadWords.hideQuestion(comment.by.name)}</h2>
        <p>{threadWords.readersNoLongerSeeIt}</p>
        <input type="hidden" name="id" value={comment.id} />
        <div className="grid gap-1">
          <label htmlFor={reason} className="text-small font-semibold">
            {threadWords.why}
          </label>
          <input id={reason} name="reason" maxLength={300} className="input w-full" autoComplete="off" />
          <FieldMessage messages={fetcher.data?.messages?.reason ? [fetcher.data.messages.reason] : undefined} />
        </div>
        <div className="mt-2 flex justify-end gap-2">
          <button type="button" className="btn" onClick={onClose}>
            {threadWords.leaveIt}
          </button>
          <button type="submit" name="intent" value="hide" className="btn btn-primary">
            {threadWords.hideIt}
          </button>
        </div>
      </fetcher.Form>
    </Dialog>
  );
}

interface AnswerFormProps {
  /** Null for a reflection that stands for itself. */
  entryId: string | null;
  word: 'comment' | 'reflection';
  /** Readers from outside who said something here: the team says which of them it answers. */
  to?: { id: string; name: string }[];
  seenBy?: string | undefined;
  onDone: () => void;
}

/** A few lines about an entry. One submission, one id: sent twice it is said once. */
export function AnswerForm({ entryId, word, to = [], seenBy, onDone }: AnswerFormProps) {
  const fetcher = useFetcher<Answer>();
  const [id] = useState(() => newId());
  const field = useId();
  const isDone = fetcher.state === 'idle' && fetcher.data?.said === id;
  const message = fetcher.data?.messages?.text;
  useEffect(() => {
    if (isDone) onDone();
  }, [isDone, onDone]);
  return (
    <fetcher.Form method="post" className="no-print mt-2 grid max-w-xl gap-2">
      <input type="hidden" name="id" value={id} />
      {entryId && <input type="hidden" name="entryId" value={entryId} />}
      {to.length > 0 && (
        <label className="grid gap-1 text-small">
          <span className="font-semibold">{threadWords.to}</span>
          <select name="answers" className="select w-full max-w-xs">
            {to.map(({ id: comment, name }) => (
              <option key={comment} value={comment}>
                {threadWords.andTheTeam(name)}
              </option>
            ))}
            <option value="everyone">{threadWords.everyoneWhoReadsThisEntry}</option>
          </select>
        </label>
      )}
      <label htmlFor={field} className="text-small font-semibold">
        {word === 'reflection' ? threadWords.whatIThinkAboutIt : threadWords.yourAnswer}
      </label>
      <textarea
        id={field}
        name="text"
        rows={3}
        maxLength={LONGEST_COMMENT}
        // biome-ignore lint/a11y/noAutofocus: it was just asked for
        autoFocus
        aria-describedby={message ? `${field}-message` : undefined}
        className="textarea w-full text-base"
      />
      <FieldMessage id={`${field}-message`} messages={message ? [message] : undefined} />
      {seenBy && to.length === 0 && <p className="text-small text-ink-2">{seenBy}</p>}
      <div className="flex gap-2">
        <button type="submit" name="intent" value="say" className="btn btn-primary" disabled={fetcher.state !== 'idle'}>
          {word === 'reflection' ? threadWords.putItInMyReport : threadWords.answer}
        </button>
        <button type="button" className="btn" onClick={onDone}>
          {threadWords.leaveIt}
        </button>
      </div>
    </fetcher.Form>
  );
}
