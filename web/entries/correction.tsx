import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react';
import { FieldMessage } from '../platform/ui/fields';
import { useSay } from '../platform/ui/toasts';
import { useSaveKey } from '../platform/ui/use-save-key';
import type { ChangeAnswer } from './change-messages';
import { ChangeMessages, messagesOf, versionToReplace } from './change-messages';
import { useChange } from './use-change';
import { WhyField } from './withdrawal-form';
import { correctionWords } from './words';

interface CorrectionProps {
  /** What is corrected: “entry”. */
  what: string;
  action: string;
  /** The version that the correction was made from. */
  version: number;
  /** What it should say, read when it is sent. */
  content: () => object;
  onDone: () => void;
  /** The fields, with the messages that belong to them. */
  children: (messages: Record<string, string>) => ReactNode;
}

/** A record open to change: its fields, why it is changed, and what stands in the way. What it says now is kept beside. */
export function Correction({ what, action, version, content, onDone, children }: CorrectionProps) {
  const [why, setWhy] = useState('');
  const { answer, isBusy, isUnreachable, waits, save } = useChange<ChangeAnswer>(action);
  const say = useSay();
  const messages = messagesOf(answer);
  const latest = useRef(content);
  useEffect(() => {
    latest.current = content;
  });
  const submit = useCallback(() => {
    save({ ...latest.current(), intent: 'correct', version: versionToReplace(version, answer), why });
  }, [save, answer, version, why]);
  useSaveKey(submit);
  useEffect(() => {
    if (!waits) return;
    say(correctionWords.itWaits);
    onDone();
  }, [waits, say, onDone]);
  useEffect(() => {
    if (answer && 'saved' in answer) onDone();
  }, [answer, onDone]);
  return (
    <section
      aria-label={correctionWords.correctThis(what)}
      className="mt-6 rounded-box border border-rule bg-sheet p-4"
    >
      <h2 className="mb-3 text-lg">{correctionWords.correctThis(what)}</h2>
      {children(messages)}
      <WhyField
        label={correctionWords.whyIsItCorrected}
        value={why}
        onChange={setWhy}
        message={messages.why}
        onEnter={submit}
      />
      <FieldMessage messages={messages.form ? [messages.form] : undefined} />
      <ChangeMessages answer={answer} isUnreachable={isUnreachable} />
      <div className="mt-4 flex gap-2">
        <button type="button" className="btn btn-primary" disabled={isBusy} onClick={submit}>
          {correctionWords.saveTheCorrection}
        </button>
        <button type="button" className="btn" onClick={onDone}>
          {correctionWords.cancel}
        </button>
      </div>
    </section>
  );
}
