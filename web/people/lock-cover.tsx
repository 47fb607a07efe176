import { type FormEvent, useEffect, useRef, useState } from 'react';
import { FieldMessage } from '../platform/ui/fields';
import { knowsPin, learnPin } from './known-pin';
import { lockedWords } from './words';

/** Over a page that is open: what is being recorded stays beneath, and goes on when its person is back. */
export default function LockCover(props: { personId: string; name: string; onOpen: () => void }) {
  const { personId, name, onOpen } = props;
  const dialog = useRef<HTMLDialogElement>(null);
  const [secret, setSecret] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  // A dialog keeps keys and focus from what lies beneath.
  useEffect(() => dialog.current?.showModal(), []);
  const open = async (event: FormEvent) => {
    event.preventDefault();
    if (secret === '') return setProblem(lockedWords.type);
    setBusy(true);
    const came = await tried(personId, secret);
    setBusy(false);
    setSecret('');
    if (came === 'open') return onOpen();
    if (came === 'over') return location.assign('/sign-in');
    setProblem(came);
  };
  return (
    <dialog
      ref={dialog}
      aria-label={lockedWords.title}
      onCancel={(event) => event.preventDefault()}
      className="m-auto w-full max-w-sm bg-transparent p-6 text-ink backdrop:bg-paper"
    >
      <h2 className="text-2xl">{lockedWords.title}</h2>
      <p className="mt-2 text-ink-2">{lockedWords.itIs(name)}</p>
      <form onSubmit={open} className="mt-4 grid gap-3">
        <label className="grid gap-1">
          <span className="text-small font-semibold">{lockedWords.secret}</span>
          <input
            type="password"
            autoComplete="off"
            value={secret}
            onChange={(event) => setSecret(event.target.value)}
            aria-describedby="cover-message"
            className="input input-lg w-full"
          />
        </label>
        <FieldMessage id="cover-message" messages={problem ? [problem] : undefined} />
        <button type="submit" className="btn btn-primary btn-lg text-base" disabled={isBusy}>
          {lockedWords.open}
        </button>
      </form>
      <form method="post" action="/locked" className="mt-3 grid">
        <button type="submit" name="intent" value="leave" className="btn">
          {lockedWords.somebodyElse}
        </button>
      </form>
    </dialog>
  );
}

/** What came of a try: open, over, or why not. */
async function tried(personId: string, secret: string): Promise<string> {
  const answer = await fetch('/locked.data', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ intent: 'unlock', secret }),
  }).catch(() => null);
  if (answer?.ok) {
    await learnPin(personId, secret);
    return 'open';
  }
  if (answer?.status === 401) return 'over';
  if (answer && answer.status < 500) return lockedWords.wrong;
  // Without network this device tells by what it learnt when the server opened it last.
  return {
    right: 'open',
    wrong: lockedWords.wrong,
    unknown: lockedWords.notWithoutNetwork,
    spent: lockedWords.tooOften,
  }[await knowsPin(personId, secret)];
}
