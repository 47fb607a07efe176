import { useReducer, useState } from 'react';
import { type IsoDate, longDate } from '~/core/calendar/iso-date';
import { outcomeSentence } from '~/core/report/report';
import { counted } from '~/core/words/counting';
import { draftReducer, inputFrom, type SessionDraft, untouched } from '../observe/draft';
import { GoalCard } from '../observe/goal-card';
import { SessionEditor } from '../observe/session-line';
import { Dialog } from '../ui/dialog';
import type { WaitingSession } from './device-store';
import { useWaiting } from './waiting';

/** What waits on this device: read, changed, taken away, sent now. */
export default function WaitingDialog({ onClose }: { onClose: () => void }) {
  const { list, sendNow, remove } = useWaiting();
  const [changing, setChanging] = useState<WaitingSession | null>(null);
  const [removing, setRemoving] = useState<string | null>(null);
  return (
    <Dialog title="Waiting to be sent" onClose={onClose}>
      <div className="max-h-[80dvh] overflow-y-auto p-6">
        <h2 className="text-xl">Waiting to be sent</h2>
        {changing ? (
          <ChangeWaiting waiting={changing} onDone={() => setChanging(null)} />
        ) : (
          <>
            <p className="mt-1 text-small text-ink-2">
              {list.length === 0
                ? 'Nothing waits: the server has everything.'
                : 'It is kept on this device and sent by itself as soon as the server can be reached.'}
            </p>
            <ul className="mt-3">
              {list.map((waiting) => (
                <li key={waiting.id} className="border-t border-rule py-3">
                  <p className="display text-lg">{waiting.student.shortName}</p>
                  <p className="text-small text-ink-2">{whenSaid(waiting)}</p>
                  {waiting.session.entries.map(({ id, goalId, outcome }) => {
                    const goal = waiting.goals.find((one) => one.id === goalId);
                    if (!goal) return null;
                    return (
                      <p key={id} className="mt-1 text-small">
                        <b>
                          {goal.number} · {goal.shortName}:
                        </b>{' '}
                        {outcomeSentence(goal.measure, outcome as never)}
                      </p>
                    );
                  })}
                  {waiting.problem && (
                    <p role="alert" className="mt-1 text-small font-semibold text-clay-deep">
                      {waiting.problem}
                    </p>
                  )}
                  {removing === waiting.id ? (
                    <p className="mt-2 flex flex-wrap items-center gap-2 text-small">
                      It has not been sent and will be gone.
                      <button type="button" className="btn btn-sm h-9" onClick={() => remove(waiting.id)}>
                        Take it away
                      </button>
                      <button type="button" className="btn btn-sm btn-primary h-9" onClick={() => setRemoving(null)}>
                        Keep it
                      </button>
                    </p>
                  ) : (
                    <p className="mt-2 flex gap-2">
                      <button type="button" className="btn btn-sm h-9" onClick={() => setChanging(waiting)}>
                        Change
                      </button>
                      <button type="button" className="btn btn-sm h-9" onClick={() => setRemoving(waiting.id)}>
                        Remove
                      </button>
                    </p>
                  )}
                </li>
              ))}
            </ul>
            <div className="mt-4 flex justify-end gap-2">
              <button type="button" className="btn" onClick={onClose}>
                Close
              </button>
              {list.length > 0 && (
                <button type="button" className="btn btn-primary" onClick={sendNow}>
                  Try now
                </button>
              )}
            </div>
          </>
        )}
      </div>
    </Dialog>
  );
}

function whenSaid({ session: { on, time, entries } }: WaitingSession): string {
  return `${longDate(on as IsoDate)} · ${time} · ${counted(entries.length, 'goal', 'goals')}`;
}

function draftOf({ session, goals }: WaitingSession): SessionDraft {
  const { entries, ...fields } = session;
  return {
    session: fields,
    timeIsChosen: true,
    goals: Object.fromEntries(
      entries.map(({ id, goalId, outcome, note }) => [
        goalId,
        { ...untouched(id), data: outcome.data as never, reason: outcome.reason, note },
      ]),
    ),
    openedAt: Date.now(),
    activeGoal: goals[0]?.id ?? '',
    selected: null,
  };
}

function ChangeWaiting({ waiting, onDone }: { waiting: WaitingSession; onDone: () => void }) {
  const { change } = useWaiting();
  const [draft, dispatch] = useReducer(draftReducer, waiting, draftOf);
  const { goals, choices, student } = waiting;
  const session = inputFrom(draft, goals, Date.now());
  return (
    <div className="mt-2 grid gap-3">
      <p>{student.shortName}</p>
      <SessionEditor
        session={draft.session}
        choices={choices}
        messages={{}}
        onChange={(fields) => dispatch({ type: 'session', fields })}
      />
      {goals.map((goal) => {
        const goalDraft = draft.goals[goal.id];
        const isActive = draft.activeGoal === goal.id;
        if (!goalDraft) return null;
        return (
          <GoalCard
            key={goal.id}
            goal={goal}
            draft={goalDraft}
            isActive={isActive}
            selected={isActive ? draft.selected : null}
            openedAt={draft.openedAt}
            message={session ? undefined : 'Something must be marked.'}
            onChange={dispatch}
            timeNow={() => ({ on: draft.session.on, time: draft.session.time })}
          />
        );
      })}
      <div className="flex justify-end gap-2">
        <button type="button" className="btn" onClick={onDone}>
          Leave it as it was
        </button>
        <button
          type="button"
          className="btn btn-primary"
          disabled={!session}
          onClick={() => session && change({ ...waiting, session }).then(onDone)}
        >
          Keep the change
        </button>
      </div>
    </div>
  );
}
