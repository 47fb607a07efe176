import { useCallback, useEffect, useRef, useState } from 'react';
import { FieldMessage } from '../platform/ui/fields';
import { useSay } from '../platform/ui/toasts';
import type { ChangeAnswer } from './change-messages';
import { ChangeMessages, messagesOf, versionToReplace } from './change-messages';
import { useChange } from './use-change';
import { withdrawalFormWords } from './words';

/** Takes an entry out of every figure and report; it stays readable, with the reason. */
export function WithdrawalForm(props: { action: string; version: number; onDone: () => void }) {
  const { action, version, onDone } = props;
  const [why, setWhy] = useState('');
  const { answer, isBusy, isUnreachable, waits, save } = useChange<ChangeAnswer>(action);
  const say = useSay();
  const submit = useCallback(() => {
    save({ intent: 'withdraw', version: versionToReplace(version, answer), why });
  }, [save, answer, version, why]);
  useEffect(() => {
    if (!waits) return;
    say(withdrawalFormWords.itWaits);
    onDone();
  }, [waits, say, onDone]);
  useEffect(() => {
    if (answer && 'saved' in answer) onDone();
  }, [answer, onDone]);
  return (
    <section
      aria-label={withdrawalFormWords.withdrawThisEntry}
      className="mt-6 rounded-box border border-rule bg-sheet p-4"
    >
      <h2 className="text-lg">{withdrawalFormWords.withdrawThisEntry}</h2>
      <p className="mt-1 text-ink-2">{withdrawalFormWords.itWillCountInNo}</p>
      <WhyField
        label={withdrawalFormWords.whyIsItWithdrawn}
        value={why}
        onChange={setWhy}
        onEnter={submit}
        message={messagesOf(answer).why}
      />
      <ChangeMessages answer={answer} isUnreachable={isUnreachable} />
      <div className="mt-4 flex gap-2">
        <button type="button" className="btn btn-primary" disabled={isBusy} onClick={submit}>
          {withdrawalFormWords.withdrawEntry}
        </button>
        <button type="button" className="btn" onClick={onDone}>
          {withdrawalFormWords.keepIt}
        </button>
      </div>
    </section>
  );
}

interface WhyFieldProps {
  /** Enter in it saves: it is the last thing asked. */
  onEnter: () => void;
  label: string;
  value: string;
  onChange: (why: string) => void;
  message: string | undefined;
}

/** Every change to what was recorded says why. */
export function WhyField({ label, value, onChange, message, onEnter }: WhyFieldProps) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (message) field.current?.focus();
  }, [message]);
  return (
    <div className="mt-3 grid gap-1">
      <label htmlFor="why" className="text-small font-semibold">
        {label}
      </label>
      <input
        ref={field}
        id="why"
        aria-invalid={message !== undefined}
        onKeyDown={(event) => event.key === 'Enter' && !event.ctrlKey && !event.metaKey && onEnter()}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        aria-describedby="why-message"
        className="input w-full"
      />
      <FieldMessage id="why-message" messages={message ? [message] : undefined} />
    </div>
  );
}
