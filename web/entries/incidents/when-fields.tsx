import { useState } from 'react';
import { entryDay } from '~/core/calendar/iso-date';
import { LabelledInput, LabelledSelect } from '../../platform/ui/labelled';
import { OtherField } from './chips';
import { minutesBefore } from './incident-draft';
import type { IncidentFieldsProps } from './incident-fields';
import { whenFieldsWords } from './words';

/** When, where and by whom; the time goes five minutes back with one tap. */
export function When({ incidentScreen, draft, messages, onChange, mayBeSecond }: IncidentFieldsProps) {
  const [isOpen, setOpen] = useState(false);
  const { people, offered, wall, leftOut } = incidentScreen;
  const typedSetting = draft.others.find(({ kind }) => kind === 'location')?.name;
  const location = typedSetting ?? offered.location.find(({ id }) => id === draft.locationId)?.name;
  const nameOf = (id: string | null) => people.find((person) => person.id === id)?.name;
  const who = [
    nameOf(draft.observerId) ?? whenFieldsWords.observerNotSpecified,
    draft.besideId && whenFieldsWords.beside(nameOf(draft.besideId) ?? ''),
  ];
  const needsLook = ['on', 'time', 'locationId', 'observerId', 'besideId'].some((field) => messages[field]);
  const usesSetting = !leftOut.includes('location');
  return (
    <div>
      <p className="flex flex-wrap items-center gap-x-2.5 gap-y-1 text-small text-ink-2">
        <span>
          {[
            draft.on && draft.on !== wall.on && entryDay(draft.on, wall.on),
            draft.time,
            usesSetting && (location ?? whenFieldsWords.locationChoose),
            who.filter(Boolean).join(' '),
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
        <button type="button" onClick={() => onChange({ time: minutesBefore(draft.time, 5) })} className="btn btn-sm">
          {whenFieldsWords.fiveMinutesEarlier}
        </button>
        <button type="button" aria-expanded={isOpen || needsLook} onClick={() => setOpen(!isOpen)} className="tap link">
          {whenFieldsWords.change}
        </button>
      </p>
      {(isOpen || needsLook) && (
        <div className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(9.5rem,1fr))] gap-3 rounded-box border border-rule bg-wash p-3">
          <LabelledInput
            label={whenFieldsWords.date}
            type="date"
            max={wall.on}
            value={draft.on}
            message={messages.on}
            onChange={(on) => onChange({ on })}
          />
          <LabelledInput
            label={whenFieldsWords.time}
            type="time"
            value={draft.time}
            message={messages.time}
            onChange={(time) => onChange({ time })}
          />
          {usesSetting && (
            <LabelledSelect
              label={whenFieldsWords.where}
              value={draft.locationId}
              none={whenFieldsWords.notSaid}
              options={offered.location}
              message={messages.locationId}
              onChange={(locationId) =>
                onChange({ locationId, others: draft.others.filter(({ kind }) => kind !== 'location') })
              }
            />
          )}
          <LabelledSelect
            label={whenFieldsWords.observer}
            value={draft.observerId}
            options={people}
            message={messages.observerId}
            onChange={(observerId) => onChange({ observerId: observerId ?? '' })}
          />
          {mayBeSecond && (
            <LabelledSelect
              label={whenFieldsWords.secondObserverBeside}
              value={draft.besideId}
              none={whenFieldsWords.nobodyThisIsTheOnly}
              options={people.filter(({ id }) => id !== draft.observerId)}
              message={messages.besideId}
              onChange={(besideId) => onChange({ besideId })}
            />
          )}
          {usesSetting && (
            <OtherField
              kind="location"
              others={draft.others}
              onType={(others) => onChange({ others })}
              label={whenFieldsWords.anotherPlace}
            />
          )}
        </div>
      )}
    </div>
  );
}
