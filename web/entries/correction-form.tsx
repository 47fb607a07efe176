import { useState } from 'react';
import type { FidelityMarks } from '~/core/entries/fidelity';
import type { Outcome } from '~/core/entries/observation';
import type { ObservedGoal, SessionChoices } from '~/core/entries/waiting';
import { isRunning } from '../measures/clock';
import { DataSheet } from '../measures/data-sheet';
import { finished } from '../measures/finished';
import { useSheet } from '../measures/use-sheet';
import { FieldMessage } from '../platform/ui/fields';
import { NamesInNote } from '../students/names-in-note';
import { Correction } from './correction';
import type { SessionFields } from './draft';
import { NoScore } from './goal-card';
import { SessionEditor } from './session-line';
import { SupportSteps } from './support-steps';
import { correctionFormWords } from './words';

interface CorrectionFormProps {
  action: string;
  studentId: string;
  goal: Pick<ObservedGoal, 'measure' | 'criterion' | 'supportSteps'>;
  entry: { version: number; session: SessionFields; outcome: Outcome; note: string; fidelity: FidelityMarks | null };
  choices: SessionChoices;
  onDone: () => void;
}

/** The entry as it was recorded, open to change. What it says now is kept beside. */
export function CorrectionForm({ action, studentId, goal, entry, choices, onDone }: CorrectionFormProps) {
  const [session, setSession] = useState(entry.session);
  const sheet = useSheet(entry.outcome.data);
  const { data, clock } = sheet;
  const [reason, setReason] = useState(entry.outcome.reason);
  const [note, setNote] = useState(entry.note);
  const [fidelity, setFidelity] = useState(entry.fidelity);
  const content = () => {
    const now = finished(goal.measure, { data, clock }, Date.now());
    const outcome = reason === null ? { data: now, reason } : { data: null, reason };
    return { ...session, outcome, note, fidelity };
  };
  return (
    <Correction what="entry" action={action} version={entry.version} content={content} onDone={onDone}>
      {(messages) => (
        <>
          <SessionEditor
            session={session}
            choices={choices}
            messages={messages}
            onChange={(fields) => setSession({ ...session, ...fields })}
          />
          <div className="mt-4">
            <DataSheet
              definition={goal.measure}
              criterion={goal.criterion}
              {...sheet}
              isActive
              onMark={(changed, changedClock) => {
                sheet.onMark(changed, changedClock);
                if (changed !== null) setReason(null);
              }}
            />
          </div>
          {data === null && !isRunning(clock) && <NoScore chosen={reason} onChoose={setReason} />}
          <FieldMessage messages={messages.outcome ? [messages.outcome] : undefined} />
          <textarea
            aria-label={correctionFormWords.note}
            placeholder={correctionFormWords.noteOptional}
            value={note}
            onChange={(event) => setNote(event.target.value)}
            className="textarea mt-3 w-full field-sizing-content"
          />
          {(goal.supportSteps ?? []).length > 0 && (
            <SupportSteps steps={goal.supportSteps ?? []} marks={fidelity} onMark={setFidelity} />
          )}
          <NamesInNote studentId={studentId} text={note} />
          <FieldMessage messages={messages.note ? [messages.note] : undefined} />
        </>
      )}
    </Correction>
  );
}
