import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { usualCriterion } from '../measures/criterion-definition';
import { beginningOf } from '../measures/measure';
import { LONGEST_NOTE } from './observation';
import { readWaiting, type WaitingItem } from './waiting';

const [goalId, observerId] = [randomUUID(), randomUUID()];
const kept: WaitingItem = {
  id: randomUUID(),
  personId: observerId,
  student: { id: randomUUID(), shortName: 'Ansel D.' },
  savedAt: 1_795_000_000_000,
  problem: null,
  kind: 'session',
  session: {
    ...{ on: '2026-11-24', time: '09:45', observerId, locationId: null },
    entries: [
      { id: randomUUID(), goalId, outcome: { data: { trials: ['independent'] }, reason: null }, note: 'By the saw.' },
    ],
  },
  goals: [
    {
      ...{
        id: goalId,
        studentId: randomUUID(),
        number: '1',
        shortName: 'Sands',
        wording: 'Sands an edge.',
        version: 1,
      },
      ...{
        criterion: usualCriterion('atLeast', 80),
        measure: beginningOf('trials'),
        last: [60],
        soFar: null,
        pace: null,
      },
    },
  ],
  choices: { people: [], locations: [], today: '2026-11-24' },
};
const withNote = (note: string): WaitingItem => {
  const changed = structuredClone(kept);
  if (changed.kind === 'session') for (const entry of changed.session.entries) entry.note = note;
  return changed;
};

describe('what a device gives back', () => {
  it('is read as it was kept', () => {
    expect(readWaiting(structuredClone(kept))).toEqual(kept);
  });

  it('is read where only the server would refuse it: it can still be changed', () => {
    const long = withNote('x'.repeat(LONGEST_NOTE + 1));
    expect(readWaiting(long)).toEqual(long);
  });

  it('is not taken for an item where a field is missing, of another type, or of a kind that is no more', () => {
    const { session, ...without } = kept as Extract<WaitingItem, { kind: 'session' }>;
    const otherwise = { ...kept, goals: [{ ...kept.goals[0], measure: { kind: 'items', items: [] } }] };
    for (const raw of [
      undefined,
      {},
      without,
      { ...kept, kind: 'letter' },
      otherwise,
      { ...kept, session: { ...session, on: 5 } },
    ])
      expect(readWaiting(raw)).toBeNull();
  });
});
