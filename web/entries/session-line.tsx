import { useState } from 'react';
import { longDate } from '~/core/calendar/iso-date';
import type { SessionChoices } from '~/core/entries/waiting';
import { FieldMessage } from '../platform/ui/fields';
import type { SessionFields } from './draft';
import { sessionLineWords } from './words';

interface SessionLineProps {
  session: SessionFields;
  choices: SessionChoices;
  messages: Record<string, string>;
  onChange: (fields: Partial<SessionFields>) => void;
}

const FIELDS = ['on', 'time', 'observerId', 'locationId'] as const;

/** When, where and by whom, filled in; open to change with one tap, and by itself when something needs another look. */
export function SessionLine({ session, choices, messages, onChange }: SessionLineProps) {
  const [isOpen, setOpen] = useState(false);
  const needsLook = FIELDS.some((field) => messages[field]);
  return (
    <div className="min-w-0">
      <p className="text-small text-ink-2">
        {sessionSummary(session, choices)}{' '}
        <button
          type="button"
          aria-expanded={isOpen || needsLook}
          onClick={() => setOpen(!isOpen)}
          className="py-2 link"
        >
          {sessionLineWords.change}
        </button>
      </p>
      {(isOpen || needsLook) && (
        <SessionEditor session={session} choices={choices} messages={messages} onChange={onChange} mayBeSecond />
      )}
    </div>
  );
}

/** “Mon, Nov 23, 2026 · 10:42 · Kitchen · H. Bruun” */
export function sessionSummary(
  { on, time, observerId, locationId, besideId }: SessionFields,
  { people, locations }: SessionChoices,
) {
  const place = locations.find(({ id }) => id === locationId)?.name ?? sessionLineWords.locationChoose;
  const person = people.find(({ id }) => id === observerId)?.name ?? sessionLineWords.observerNotSpecified;
  const first = people.find(({ id }) => id === besideId);
  const who = first ? sessionLineWords.beside(person, first.name) : person;
  return [on ? longDate(on) : sessionLineWords.noDate, time || sessionLineWords.noTime, place, who].join(' · ');
}

interface SessionEditorProps extends SessionLineProps {
  /** Whether it can be said that somebody else observes the same session. */
  mayBeSecond?: boolean;
}

/** The fields themselves. */
export function SessionEditor({ session, choices, messages, onChange, mayBeSecond = false }: SessionEditorProps) {
  return (
    <div className="mt-1 mb-2 grid grid-cols-[repeat(auto-fit,minmax(9.5rem,1fr))] gap-3 rounded-box border border-rule bg-wash p-3">
      <Labelled label={sessionLineWords.date} name="on" message={messages.on}>
        <input
          id="session-on"
          type="date"
          className="input w-full"
          max={choices.today}
          value={session.on}
          aria-describedby="session-on-message"
          onChange={(event) => onChange({ on: event.target.value })}
        />
      </Labelled>
      <Labelled label={sessionLineWords.time} name="time" message={messages.time}>
        <input
          id="session-time"
          type="time"
          className="input w-full"
          value={session.time}
          aria-describedby="session-time-message"
          onChange={(event) => onChange({ time: event.target.value })}
        />
      </Labelled>
      <Labelled label={sessionLineWords.location} name="locationId" message={messages.locationId}>
        <select
          id="session-locationId"
          className="select w-full"
          value={session.locationId ?? ''}
          aria-describedby="session-locationId-message"
          onChange={(event) => onChange({ locationId: event.target.value || null })}
        >
          <option value="">{sessionLineWords.notSaid}</option>
          {choices.locations.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label={sessionLineWords.observer} name="observerId" message={messages.observerId}>
        <select
          id="session-observerId"
          className="select w-full"
          value={session.observerId}
          aria-describedby="session-observerId-message"
          onChange={(event) => onChange({ observerId: event.target.value })}
        >
          {choices.people.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </Labelled>
      {mayBeSecond && (
        <Labelled label={sessionLineWords.secondObserverBeside} name="besideId" message={messages.besideId}>
          <select
            id="session-besideId"
            className="select w-full"
            value={session.besideId ?? ''}
            aria-describedby="session-besideId-message"
            onChange={(event) => onChange({ besideId: event.target.value || null })}
          >
            <option value="">{sessionLineWords.nobodyThisIsTheOnly}</option>
            {choices.people
              .filter(({ id }) => id !== session.observerId)
              .map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
          </select>
        </Labelled>
      )}
    </div>
  );
}

function Labelled(props: { label: string; name: string; message: string | undefined; children: React.ReactNode }) {
  return (
    <div className="grid content-start gap-1">
      <label htmlFor={`session-${props.name}`} className="text-small font-semibold">
        {props.label}
      </label>
      {props.children}
      <FieldMessage id={`session-${props.name}-message`} messages={props.message ? [props.message] : undefined} />
    </div>
  );
}
