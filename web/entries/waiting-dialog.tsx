import { useReducer, useState } from 'react';
import { Link } from 'react-router';
import { longDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import { checkOutcome } from '~/core/entries/observation';
import type { WaitingIncident, WaitingItem, WaitingSession } from '~/core/entries/waiting';
import { outcomeSentence } from '~/core/individual-report/report';
import { type MeasureDefinition, measureData } from '~/core/measures/measure';
import { counted } from '~/core/words/counting';
import type { Unreadable } from '../platform/offline/device-store';
import { whyWords } from '../platform/offline/send';
import { useWaiting } from '../platform/offline/waiting';
import { Dialog } from '../platform/ui/dialog';
import { draftReducer, inputFrom, type SessionDraft, untouched } from './draft';
import { photographsWords } from './evidence/words';
import { GoalCard } from './goal-card';
import {
  changedIncident,
  draftSentence,
  emptyIncident,
  type IncidentDraft,
  incidentInputFrom,
} from './incidents/incident-draft';
import { IncidentFields } from './incidents/incident-fields';
import { SessionEditor } from './session-line';
import { waitingDialogWords } from './words';

/** What waits on this device: read, changed, taken away, sent now. */
export default function WaitingDialog({ onClose }: { onClose: () => void }) {
  const { list, unreadable, sealed, whys, sendNow, remove } = useWaiting();
  const [changing, setChanging] = useState<Changeable | null>(null);
  const [removing, setRemoving] = useState<string | null>(null);
  return (
    <Dialog title={waitingDialogWords.waitingToBeSent} onClose={onClose}>
      <div className="max-h-[80dvh] overflow-y-auto p-6">
        <h2 className="text-xl">{waitingDialogWords.waitingToBeSent}</h2>
        {changing?.kind === 'incident' ? (
          <ChangeIncident waiting={changing} onDone={() => setChanging(null)} />
        ) : changing ? (
          <ChangeWaiting waiting={changing} onDone={() => setChanging(null)} />
        ) : (
          <>
            <p className="mt-1 text-small text-ink-2">
              {list.length + unreadable.length + sealed === 0
                ? waitingDialogWords.nothingWaitsTheServerHas
                : waitingDialogWords.itIsKeptOnThis}
            </p>
            {sealed > 0 && <p className="mt-2 text-small">{waitingDialogWords.moreAreSealed(sealed)}</p>}
            <ul className="mt-3">
              {list.map((waiting) => (
                <li key={waiting.id} className="border-t border-rule py-3">
                  <p className="display text-lg">{waiting.student.shortName}</p>
                  <WhatWaits waiting={waiting} />
                  {!waiting.problem && whys[waiting.id] && (
                    <p className="mt-1 text-small text-ink-2">
                      {Object.values(whyWords[defined(whys[waiting.id])]).join(' ')}
                    </p>
                  )}
                  {waiting.problem && (
                    <p role="alert" className="mt-1 text-small font-semibold text-clay-deep">
                      {waiting.problem}
                    </p>
                  )}
                  {removing === waiting.id ? (
                    <p className="mt-2 flex flex-wrap items-center gap-2 text-small">
                      {waitingDialogWords.itHasNotBeenSent}
                      <button type="button" className="btn btn-sm" onClick={() => remove(waiting.id)}>
                        {waitingDialogWords.takeItAway}
                      </button>
                      <button type="button" className="btn btn-sm btn-primary" onClick={() => setRemoving(null)}>
                        {waitingDialogWords.keepIt}
                      </button>
                    </p>
                  ) : (
                    <p className="mt-2 flex gap-2">
                      {(waiting.kind === 'session' || waiting.kind === 'incident') && (
                        <button type="button" className="btn btn-sm" onClick={() => setChanging(waiting)}>
                          {waitingDialogWords.change}
                        </button>
                      )}
                      <button type="button" className="btn btn-sm" onClick={() => setRemoving(waiting.id)}>
                        {waitingDialogWords.remove}
                      </button>
                    </p>
                  )}
                </li>
              ))}
              {unreadable.map((one) => (
                <UnreadableItem key={one.id} {...one} onRemove={() => remove(one.id)} />
              ))}
            </ul>
            <div className="mt-4 flex justify-end gap-2">
              <button type="button" className="btn" onClick={onClose}>
                {waitingDialogWords.close}
              </button>
              {list.length > 0 && (
                <button type="button" className="btn btn-primary" onClick={sendNow}>
                  {waitingDialogWords.tryNow}
                </button>
              )}
            </div>
          </>
        )}
      </div>
    </Dialog>
  );
}

/** Kept by another version of the page: it is taken away only once it lies in a file. */
function UnreadableItem({ savedAt, raw, onRemove }: Unreadable & { onRemove: () => void }) {
  const [hasFile, setHasFile] = useState(false);
  const when = new Date(savedAt);
  return (
    <li className="border-t border-rule py-3">
      <p className="text-small text-ink-2">
        {waitingDialogWords.savedOnAt(
          when.toLocaleDateString('en-US', { month: 'short', day: 'numeric' }),
          when.toLocaleTimeString('en-US', { hour: 'numeric', minute: '2-digit' }),
        )}
      </p>
      <p role="alert" className="mt-1 text-small font-semibold text-clay-deep">
        {waitingDialogWords.thisPageCannotReadIt}
      </p>
      <p className="mt-2 flex gap-2">
        <a
          href={`data:application/json,${encodeURIComponent(JSON.stringify(raw, null, 2))}`}
          download={`saved-${when.toISOString().slice(0, 10)}.json`}
          className="btn btn-sm"
          onClick={() => setHasFile(true)}
        >
          {waitingDialogWords.download}
        </a>
        {hasFile && (
          <button type="button" className="btn btn-sm" onClick={onRemove}>
            {waitingDialogWords.removeItFromThisDevice}
          </button>
        )}
      </p>
    </li>
  );
}

/** What can be changed before it is sent; a count is taken away and counted anew. */
type Changeable = WaitingSession | WaitingIncident;

/** What waits, in the words of the report. */
function WhatWaits({ waiting }: { waiting: WaitingItem }) {
  if (waiting.kind === 'incident') {
    const { on, time } = waiting.incident;
    return (
      <>
        <p className="text-small text-ink-2">{`${longDate(on)} · ${time} · Incident`}</p>
        <p className="mt-1 text-small">{draftSentence(waiting.incidentScreen, incidentDraftOf(waiting), 0)}</p>
        <PhotographCount photographs={waiting.incident.photographs} />
      </>
    );
  }
  if (waiting.kind === 'counts') {
    const [first] = waiting.counts.counts;
    return (
      <>
        <p className="text-small text-ink-2">{first && waitingDialogWords.count(longDate(first.on), first.time)}</p>
        {waiting.said.map((sentence) => (
          <p key={sentence} className="mt-1 text-small">
            {sentence}
          </p>
        ))}
      </>
    );
  }
  if (waiting.kind === 'change') {
    if (waiting.change.intent === 'photograph') {
      return <p className="text-small text-ink-2">{waitingDialogWords.aPhotograph(waiting.change.name)}</p>;
    }
    const { intent, why, time } = waiting.change;
    return (
      <>
        <p className="text-small text-ink-2">
          {[waitingDialogWords.changes[intent], typeof time === 'string' && intent === 'end' && time]
            .filter(Boolean)
            .join(' · ')}
        </p>
        {typeof why === 'string' && <p className="mt-1 text-small">{waitingDialogWords.why(why)}</p>}
        <Link to={waiting.to} className="text-small link">
          {waitingDialogWords.openTheRecord}
        </Link>
      </>
    );
  }
  if (waiting.kind === 'note') {
    const { note, title, said } = waiting;
    return (
      <>
        <p className="text-small text-ink-2">{`${longDate(note.on)} · ${note.time} · ${title}`}</p>
        <p className="mt-1 text-small">{said}</p>
      </>
    );
  }
  const { on, time, entries } = waiting.session;
  return (
    <>
      <p className="text-small text-ink-2">{`${longDate(on)} · ${time} · ${counted(entries.length, 'goal', 'goals')}`}</p>
      {entries.map(({ id, goalId, outcome }) => {
        const goal = waiting.goals.find((one) => one.id === goalId);
        return (
          goal && (
            <p key={id} className="mt-1 text-small">
              <b>
                {goal.number} · {goal.shortName}:
              </b>{' '}
              {sentenceOf(goal.measure, outcome)}
            </p>
          )
        );
      })}
      <PhotographCount photographs={entries.flatMap(({ photographs }) => photographs ?? [])} />
    </>
  );
}

function PhotographCount({ photographs = [] }: { photographs?: readonly unknown[] | undefined }) {
  if (photographs.length === 0) return null;
  return <p className="mt-1 text-small text-ink-2">{photographsWords.counted(photographs.length)}</p>;
}

function sentenceOf(measure: MeasureDefinition, raw: WaitingSession['session']['entries'][number]['outcome']): string {
  const checked = checkOutcome(measure, raw);
  return checked.ok ? outcomeSentence(measure, checked.outcome) : checked.message;
}

const incidentDraftOf = ({ incident, incidentScreen }: WaitingIncident): IncidentDraft => ({
  ...emptyIncident(incidentScreen, incident.id, incident),
  ...incident,
  besideId: incident.besideId ?? null,
  timeIsChosen: true,
  locationIsChosen: true,
});

function ChangeIncident({ waiting, onDone }: { waiting: WaitingIncident; onDone: () => void }) {
  const { change } = useWaiting();
  const [draft, setDraft] = useState(() => incidentDraftOf(waiting));
  const incident = incidentInputFrom(draft, 0);
  const isWhole = draftSentence(waiting.incidentScreen, draft, 0) !== null;
  const { photographs } = waiting.incident;
  const withPhotographs = photographs && { photographs };
  return (
    <div className="mt-2 grid gap-3">
      <p>{waiting.student.shortName}</p>
      <IncidentFields
        incidentScreen={waiting.incidentScreen}
        draft={draft}
        messages={isWhole ? {} : { behaviors: waitingDialogWords.sayWhatHappened }}
        onChange={(changes) => setDraft((before) => changedIncident(waiting.incidentScreen, before, changes, null))}
      />
      <ChangeButtons
        isWhole={isWhole}
        onLeave={onDone}
        onKeep={() => change({ ...waiting, incident: { ...incident, ...withPhotographs } }).then(onDone)}
      />
    </div>
  );
}

const kept = measureData.nullable().catch(null);

function draftOf({ session, goals }: WaitingSession): SessionDraft {
  const { entries, ...fields } = session;
  return {
    session: fields,
    timeIsChosen: true,
    goals: Object.fromEntries(
      entries.map(({ id, goalId, outcome, note, fidelity }) => [
        goalId,
        { ...untouched(id), data: kept.parse(outcome.data), reason: outcome.reason, note, fidelity: fidelity ?? null },
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
  const session = inputFrom(
    draft,
    goals,
    Date.now(),
    (goalId) => waiting.session.entries.find((entry) => entry.goalId === goalId)?.photographs ?? [],
  );
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
            message={session ? undefined : waitingDialogWords.somethingMustBeMarked}
            onChange={dispatch}
            timeNow={() => ({ on: draft.session.on, time: draft.session.time })}
          />
        );
      })}
      <ChangeButtons
        isWhole={session !== null}
        onLeave={onDone}
        onKeep={() => session && change({ ...waiting, session }).then(onDone)}
      />
    </div>
  );
}

function ChangeButtons(props: { isWhole: boolean; onLeave: () => void; onKeep: () => void }) {
  return (
    <div className="flex justify-end gap-2">
      <button type="button" className="btn" onClick={props.onLeave}>
        {waitingDialogWords.cancel}
      </button>
      <button type="button" className="btn btn-primary" disabled={!props.isWhole} onClick={props.onKeep}>
        {waitingDialogWords.keepTheChange}
      </button>
    </div>
  );
}
