import { useEffect, useId, useState } from 'react';
import { useFetcher } from 'react-router';
import { v4 as newId } from 'uuid';
import { shortDate } from '~/core/calendar/iso-date';
import {
  answerable,
  type Comment,
  type CommentInput,
  commentSaid,
  kindWords,
  LONGEST_COMMENT,
  undecided,
} from '~/core/sharing/comment';
import type { ShownEntry } from '../entries/shown-entry';
import { Dialog } from '../platform/ui/dialog';
import { FieldMessage } from '../platform/ui/fields';
import { Decide } from './decide';
import { threadWords } from './words';

interface ThreadProps {
  entry: Pick<ShownEntry, 'id' | 'title' | 'on'>;
  comments: readonly Comment[];
  mayAnswer: boolean;
  mayHide: boolean;
  word: 'comment' | 'reflection';
  /** Whether a family may state something that stays, or ask for an amendment. */
  mayState?: boolean;
  /** Who will see what is said here, where nobody in particular is answered. */
  seenBy?: string;
}

/** What was said of an entry, and a place to answer: its button stands in the corner of what is `relative` around it. */
export function Thread({ entry, comments, mayAnswer, mayHide, word, mayState, seenBy }: ThreadProps) {
  const [isOpen, setOpen] = useState(false);
  const open = new Set(undecided(comments).map(({ id }) => id));
  return (
    <>
      {comments.length > 0 && (
        <ul className="mt-2 grid gap-2 border-l-2 border-rule pl-3">
          {comments.map((comment) => (
            <Said key={comment.id} comment={comment} mayHide={mayHide} isOpen={open.has(comment.id)} />
          ))}
        </ul>
      )}
      {mayAnswer &&
        (isOpen ? (
          <AnswerForm
            entryId={entry.id}
            word={word}
            mayState={mayState}
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

interface SaidProps {
  comment: Comment;
  /** Whether it may be taken out of sight, or decided on. */
  mayHide: boolean;
  /** A request that nobody has decided on. */
  isOpen: boolean;
}

export function Said({ comment, mayHide, isOpen }: SaidProps) {
  const fetcher = useFetcher();
  const [isAsking, setAsking] = useState(false);
  const { by, to, on, time, hidden, kind } = comment;
  // What the law gives a family the right to say stays in sight.
  const mayBeHidden = kind === 'comment' || kind === 'reflection';
  return (
    <li className={hidden ? 'no-print text-ink-3' : ''}>
      <p className="text-small text-ink-2">
        <span className="font-semibold">{by.name}</span>
        {kindWords[kind] && `, ${kindWords[kind]}`}
        {to && threadWords.toNamed(to.name)} · {shortDate(on)}, {time}
        {hidden && threadWords.hiddenBy(hidden.by, hidden.reason)}
      </p>
      <p className="whitespace-pre-line">{commentSaid(comment)}</p>
      {isOpen && mayHide && <Decide request={comment} />}
      {mayHide && mayBeHidden && (
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

type StatedKind = NonNullable<CommentInput['kind']>;

interface AnswerFormProps {
  /** Null for a reflection that stands for itself. */
  entryId: string | null;
  word: 'comment' | 'reflection';
  /** Readers from outside who said something here: the team says which of them it answers. */
  to?: { id: string; name: string }[];
  mayState?: boolean | undefined;
  /** What of an issued report is said. */
  reportId?: string;
  /** What it may be about, where the page has several: chosen first. */
  about?: readonly { id: string; name: string }[];
  seenBy?: string | undefined;
  onDone: () => void;
}

/** A few lines about an entry. One submission, one id: sent twice it is said once. */
export function AnswerForm(props: AnswerFormProps) {
  const { entryId, word, to = [], mayState = false, reportId, about = [], seenBy, onDone } = props;
  const fetcher = useFetcher<Answer>();
  const [id] = useState(() => newId());
  // Of a report there is no plain answer.
  const kinds: readonly StatedKind[] = reportId ? ['statement', 'amendment'] : ['comment', 'statement', 'amendment'];
  const [kind, setKind] = useState<StatedKind>(kinds[0] ?? 'comment');
  const field = useId();
  const isDone = fetcher.state === 'idle' && fetcher.data?.said === id;
  const message = fetcher.data?.messages?.text;
  useEffect(() => {
    if (isDone) onDone();
  }, [isDone, onDone]);
  return (
    <fetcher.Form method="post" className="no-print mt-2 grid max-w-xl gap-2">
      <input type="hidden" name="id" value={id} />
      {entryId && about.length === 0 && <input type="hidden" name="entryId" value={entryId} />}
      {reportId && <input type="hidden" name="reportId" value={reportId} />}
      {about.length > 0 && (
        <label className="grid gap-1 text-small">
          <span className="font-semibold">{threadWords.about}</span>
          <select name="entryId" className="select w-full max-w-md">
            {about.map(({ id: entry, name }) => (
              <option key={entry} value={entry}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      {mayState && (
        <div className="grid gap-1 text-small">
          <label htmlFor={`${field}-kind`} className="font-semibold">
            {threadWords.as}
          </label>
          <select
            id={`${field}-kind`}
            name="kind"
            aria-describedby={`${field}-about`}
            className="select w-full max-w-md"
            value={kind}
            onChange={(event) => setKind(event.target.value as StatedKind)}
          >
            {kinds.map((one) => (
              <option key={one} value={one}>
                {threadWords.kinds[one].name}
              </option>
            ))}
          </select>
          <p id={`${field}-about`} className="text-ink-2">
            {threadWords.kinds[kind].about}
          </p>
        </div>
      )}
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
        {word === 'reflection' ? threadWords.whatIThinkAboutIt : threadWords.kinds[kind].label}
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
          {word === 'reflection' ? threadWords.putItInMyReport : threadWords.kinds[kind].send}
        </button>
        <button type="button" className="btn" onClick={onDone}>
          {threadWords.leaveIt}
        </button>
      </div>
    </fetcher.Form>
  );
}
