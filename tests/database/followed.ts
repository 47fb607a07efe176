import { randomUUID } from 'node:crypto';
import type { Choice, ChoicesInput } from '~/core/entries/incidents/choice';
import type { IncidentInput } from '~/core/entries/incidents/incident-input';
import { choicesOf } from '~/server/entries/incidents/choices';
import { saveChoices } from '~/server/entries/incidents/edit-choices';
import type { Moment } from '~/server/entries/incidents/record-incident';
import type { Database } from '~/server/platform/db/database';
import { actorOf, now, type SmallSchool, today, wall } from './small-school';

export const moment: Moment = { wall, now, timeZone: 'America/New_York' };

export const choiceRow = (name: string, more: object = {}) => ({
  ...{ id: randomUUID(), name, words: '', discreetWord: '', locationId: null, isDifferent: false, ...more },
});

export const behaviorRow = (name: string, more: object = {}) => ({
  ...choiceRow(name),
  ...{ unlike: '', direction: 'decrease' as const, abc: true, counted: true, timed: false, ...more },
});

/** Two behaviors with something before, after, and a scale, as a form sends them. */
export const choices = (school: SmallSchool): ChoicesInput => ({
  behavior: [behaviorRow('Leaves'), behaviorRow('Shouts')],
  antecedent: [choiceRow('Noise'), choiceRow('Waiting')],
  consequence: [choiceRow('A break')],
  location: [choiceRow('Kitchen', { locationId: school.kitchen })],
  intensity: [choiceRow('1', { words: 'quiet' }), choiceRow('2', { words: 'loud' })],
  function: [choiceRow('escape')],
  leftOut: [],
});

/** Sets the school’s student up with choices; what they are called finds their ids. */
export async function follow(db: Database, school: SmallSchool, input = choices(school)) {
  await saveChoices(db, actorOf(school.manager), school.student, input, now);
  const all = await choicesOf(db, school.student);
  const id = (name: string) => (all.find((choice) => choice.name === name) as Choice).id;
  return { input, id };
}

/** An ABC incident as a form sends it. */
export function incidentInputOf(
  school: SmallSchool,
  behaviors: string[],
  changes: Partial<IncidentInput> = {},
): IncidentInput {
  return {
    ...{ id: randomUUID(), on: today, time: '09:30', observerId: school.manager, locationId: null, intensityId: null },
    ...{ behaviors, antecedents: [], consequences: [], functions: [], others: [] },
    ...{ seconds: null, isGoing: false, resolved: null, resolvedAfter: null, note: '' },
    ...changes,
  };
}
