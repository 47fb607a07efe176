import { useCallback, useEffect, useState } from 'react';
import type { Outcome } from '~/core/observations/observation';
import { isRunning, stoppedClock } from '../observe/clock';
import type { SessionFields } from '../observe/draft';
import { finished } from '../observe/finished';
import { NoScore, type ObservedGoal } from '../observe/goal-card';
import { MeasureStrip } from '../observe/measure-strip';
import { type SessionChoices, SessionEditor } from '../observe/session-line';
import { FieldMessage } from '../ui/fields';
import { useRetry, useSaving } from '../ui/use-saving';
import { ChangeMessages, messagesOf, versionToReplace } from './change-messages';
import type { ChangeAnswer } from './entry';
import { WhyField } from './withdrawal-form';

interface CorrectionFormProps {
  action: string;
  goal: Pick<ObservedGoal, 'measure' | 'criterion'>;
  entry: { version: number; session: SessionFields; outcome: Outcome; note: string };
  choices: SessionChoices;
  onDone: () => void;
}

/** The entry as it was recorded, open to change. What it says now is kept beside. */
export function CorrectionForm({ action, goal, entry, choices, onDone }: CorrectionFormProps) {
  const [session, setSession] = useState(entry.session);
  const [data, setData] = useState(entry.outcome.data);
  const [clock, setClock] = useState(stoppedClock);
  const [reason, setReason] = useState(entry.outcome.reason);
  const [selected, setSelected] = useState<number | null>(null);
  const [note, setNote] = useState(entry.note);
  const [why, setWhy] = useState('');
  const { answer, isBusy, isUnreachable, save } = useSaving<ChangeAnswer>(action);
  const messages = messagesOf(answer);

  const submit = useCallback(() => {
    const now = finished(goal.measure, { data, clock }, Date.now());
    const outcome = reason === null ? { data: now, reason } : { data: null, reason };
    save({ intent: 'correct', version: versionToReplace(entry.version, answer), ...session, outcome, note, why });
  }, [save, answer, entry.version, goal.measure, session, data, clock, reason, note, why]);
  useRetry({ isUnreachable, isBusy }, submit);
  useEffect(() => {
    if (answer && 'saved' in answer) onDone();
  }, [answer, onDone]);

  return (
    <section aria-label="Correct this entry" className="mt-6 rounded-box border border-rule bg-sheet p-4">
      <h2 className="mb-3 text-lg">Correct this entry</h2>
      <SessionEditor
        session={session}
        choices={choices}
        messages={messages}
        onChange={(fields) => setSession({ ...session, ...fields })}
      />
      <div className="mt-4">
        <MeasureStrip
          definition={goal.measure}
          criterion={goal.criterion}
          data={data}
          clock={clock}
          selected={selected}
          isActive={false}
          openedAt={null}
          soFar={null}
          onMark={(changed, changedClock) => {
            setData(changed);
            if (changedClock) setClock(changedClock);
            setSelected(null);
            if (changed !== null) setReason(null);
          }}
          onSelect={setSelected}
        />
      </div>
      {data === null && !isRunning(clock) && <NoScore chosen={reason} onChoose={setReason} />}
      <FieldMessage messages={messages.outcome ? [messages.outcome] : undefined} />
      <textarea
        aria-label="A word about it"
        placeholder="A word about it …"
        value={note}
        onChange={(event) => setNote(event.target.value)}
        className="textarea mt-3 w-full field-sizing-content"
      />
      <FieldMessage messages={messages.note ? [messages.note] : undefined} />
      <WhyField label="Why is it corrected?" value={why} onChange={setWhy} message={messages.why} />
      <ChangeMessages answer={answer} isUnreachable={isUnreachable} />
      <div className="mt-4 flex gap-2">
        <button type="button" className="btn btn-primary" disabled={isBusy} onClick={submit}>
          Save the correction
        </button>
        <button type="button" className="btn" onClick={onDone}>
          Leave it as it is
        </button>
      </div>
    </section>
  );
}
