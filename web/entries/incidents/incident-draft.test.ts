import { describe, expect, it } from 'vitest';
import { choiceKinds } from '~/core/entries/incidents/choice';
import { incidentInput } from '~/core/entries/incidents/incident-input';
import type { IncidentScreen, OfferedChoice } from '~/core/entries/waiting';
import { started, stopped, stoppedClock } from '../../measures/clock';

import {
  changedIncident,
  draftSentence,
  emptyIncident,
  incidentInputFrom,
  isIncidentTouched,
  locationAt,
  minutesBefore,
  nextIncident,
} from './incident-draft';

const uuid = (n: number) => `7f0f2c1e-5a0f-4d0c-8a43-${String(n).padStart(12, '0')}`;
const offeredChoice = (n: number, name: string, more: Partial<OfferedChoice> = {}): OfferedChoice => ({
  ...{ id: uuid(n), name, words: '', locationId: null, abc: true, counted: false, timed: false, isNew: false },
  ...more,
});
const [leaves, noise, rest, kitchen, shop, loud, away] = [1, 2, 3, 4, 5, 6, 7].map(uuid) as [
  ...[string, string, string, string, string, string, string],
];
const incidentScreen: IncidentScreen = {
  student: { id: uuid(90), shortName: 'Ada E.', firstName: 'Ada' },
  offered: {
    behavior: [offeredChoice(1, 'leaves the bench')],
    antecedent: [offeredChoice(2, 'Noise')],
    consequence: [offeredChoice(3, 'A rest')],
    location: [
      offeredChoice(4, 'Kitchen', { locationId: 'place-kitchen' }),
      offeredChoice(5, 'Shop', { locationId: 'place-shop' }),
    ],
    intensity: [offeredChoice(6, '2', { words: 'loud' })],
    function: [offeredChoice(7, 'escape')],
  },
  leftOut: [],
  people: [{ id: uuid(80), name: 'H. Bruun' }],
  timetable: [
    { weekday: 2, part: 'Kitchen', from: '09:00', to: '10:00', location: 'place-kitchen' },
    { weekday: 2, part: 'Workshop', from: '10:00', to: '11:00', location: 'place-shop' },
    { weekday: 2, part: 'Lessons', from: '11:00', to: '12:00', location: null },
  ],
  personId: uuid(80),
  // A Tuesday.
  wall: { on: '2026-11-24', time: '09:58' },
  last: null,
  discreet: false,
};
const empty = emptyIncident(incidentScreen, uuid(50), incidentScreen.wall);
const now = { on: '2026-11-24', time: '10:02' };

describe('an ABC incident in the making', () => {
  it('offers every kind of choice there is', () => {
    expect(Object.keys(incidentScreen.offered).sort()).toEqual([...choiceKinds].sort());
  });

  it('begins blank, now, by whoever opened it, where the timetable has the student', () => {
    expect(empty).toMatchObject({
      on: '2026-11-24',
      time: '09:58',
      observerId: incidentScreen.personId,
      locationId: kitchen,
    });
    expect(isIncidentTouched(empty)).toBe(false);
    expect(draftSentence(incidentScreen, empty, 0)).toBeNull();
    expect(locationAt(incidentScreen, { on: '2026-11-24', time: '11:30' })).toBeNull();
    expect(locationAt(incidentScreen, { on: '2026-11-25', time: '09:30' })).toBeNull();
  });

  it('takes the time of its first mark, and with it the place; later marks leave both', () => {
    const first = changedIncident(incidentScreen, empty, { behaviors: [leaves] }, now);
    expect(first).toMatchObject({ time: '10:02', locationId: shop, timeIsChosen: false });
    const second = changedIncident(
      incidentScreen,
      first,
      { antecedents: [noise] },
      { on: '2026-11-24', time: '11:05' },
    );
    expect(second).toMatchObject({ time: '10:02', locationId: shop });
  });

  it('keeps a time and a place that were chosen', () => {
    const earlier = changedIncident(incidentScreen, empty, { time: minutesBefore('10:02', 5) }, now);
    expect(earlier).toMatchObject({ time: '09:57', locationId: kitchen, timeIsChosen: true });
    expect(changedIncident(incidentScreen, earlier, { behaviors: [leaves] }, now).time).toBe('09:57');
    const elsewhere = changedIncident(incidentScreen, empty, { locationId: null }, now);
    expect(changedIncident(incidentScreen, elsewhere, { time: '09:30' }, now).locationId).toBeNull();
    // An incident that is corrected has its own time.
    expect(changedIncident(incidentScreen, empty, { behaviors: [leaves] }, null).time).toBe('09:58');
  });

  it('goes back within its day only', () => {
    expect(['00:03', '00:05', '13:00'].map((time) => minutesBefore(time, 5))).toEqual(['00:00', '00:00', '12:55']);
  });

  it.each([
    ['a behavior', { behaviors: [leaves] }],
    ['a step', { intensityId: loud }],
    ['a length', { seconds: 60 }],
    ['still going', { isGoing: true }],
    ['not resolved', { resolved: false }],
    ['a word', { note: ' x ' }],
    ['something typed', { others: [{ id: uuid(60), kind: 'antecedent' as const, name: 'A bell' }] }],
    ['a clock that runs', { clock: started(stoppedClock, 0) }],
  ])('would be lost with %s', (_, changes) => {
    expect(isIncidentTouched({ ...empty, ...changes })).toBe(true);
  });

  it('is not touched by its day, place or observer alone', () => {
    expect(
      isIncidentTouched({ ...empty, on: '2026-11-23', timeIsChosen: true, locationId: null, observerId: uuid(81) }),
    ).toBe(false);
  });

  it('is sent with its clock read, and with nothing that does not belong together', () => {
    const clock = stopped(started(stoppedClock, 1000), 46_400);
    const draft = { ...empty, behaviors: [leaves], clock };
    expect(incidentInputFrom(draft, 100_000).seconds).toBe(45);
    expect(incidentInputFrom({ ...draft, clock: started(stoppedClock, 1000) }, 31_000).seconds).toBe(30);
    expect(incidentInputFrom({ ...draft, seconds: 300 }, 0).seconds).toBe(300);
    expect(incidentInputFrom({ ...draft, isGoing: true }, 0)).toMatchObject({ isGoing: true, seconds: null });
    expect(incidentInputFrom({ ...draft, resolved: false, resolvedAfter: 60 }, 0).resolvedAfter).toBeNull();
    expect(incidentInputFrom({ ...draft, note: '  word ' }, 0).note).toBe('word');
    expect(incidentInputFrom(draft, 0)).not.toHaveProperty('besideId');
    // What is sent is what the server’s schema takes.
    const whole = { ...draft, antecedents: [noise], besideId: uuid(81), resolved: true, resolvedAfter: 60 };
    const sent = incidentInput.safeParse(incidentInputFrom(whole, 0));
    expect(sent.data).toMatchObject({ id: uuid(50), behaviors: [leaves], besideId: uuid(81), resolvedAfter: 60 });
  });

  it('reads as it will in the report, with what was typed', () => {
    const draft = {
      ...{ ...empty, behaviors: [leaves], antecedents: [noise], consequences: [rest], functions: [away] },
      ...{ intensityId: loud, seconds: 90, others: [{ id: uuid(60), kind: 'antecedent' as const, name: 'A bell' }] },
    };
    expect(draftSentence(incidentScreen, draft, 0)).toBe(
      'Leaves the bench. Before: “Noise” and “A bell”. Then: “A rest”. It lasted 1 min 30 s. Intensity: 2, loud. ' +
        'It may have been for escape; that is a guess.',
    );
    const typed = { ...empty, others: [{ id: uuid(61), kind: 'behavior' as const, name: 'hides' }] };
    expect(draftSentence(incidentScreen, typed, 0)).toBe('Hides.');
  });

  it('is followed by one with the same day, time, place and observer, and nothing else of it', () => {
    const draft = {
      ...{ ...empty, on: '2026-11-23', time: '10:30', timeIsChosen: true, locationId: shop, locationIsChosen: true },
      ...{ behaviors: [leaves], note: 'x', seconds: 30, observerId: uuid(81) },
    };
    const next = nextIncident(incidentScreen, draft, uuid(51));
    expect(next).toMatchObject({
      id: uuid(51),
      on: '2026-11-23',
      time: '10:30',
      locationId: shop,
      observerId: uuid(81),
    });
    expect(isIncidentTouched(next)).toBe(false);
    expect(changedIncident(incidentScreen, next, { behaviors: [leaves] }, now)).toMatchObject({
      on: '2026-11-23',
      locationId: shop,
    });
  });
});
