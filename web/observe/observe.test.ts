import { describe, expect, it } from 'vitest';
import { sessionInput } from '~/core/observations/observation';
import { type DraftChange, draftReducer, inputFrom, isTouched, type SessionDraft } from './draft';
import { fieldMessages } from './field-messages';
import { padsOf } from './trials-strip';

const id = (digit: number) => `7f0f2c1e-5a0f-4d0c-8a43-${String(digit).repeat(12)}`;
const empty: SessionDraft = {
  session: { on: '2026-11-24', time: '09:00', observerId: id(1), settingId: null },
  timeIsChosen: false,
  goals: Object.fromEntries(
    [id(2), id(3)].map((goalId, i) => [goalId, { entryId: id(5 + i), trials: [], reason: null, note: '' }]),
  ),
  activeGoal: id(2),
  selected: null,
};
const madeBy = (...changes: DraftChange[]) => changes.reduce(draftReducer, empty);
const mark = (outcome: string, goalId = id(2), time = '09:10'): DraftChange => ({
  type: 'mark',
  goalId,
  outcome,
  time: { on: '2026-11-24', time },
});
const trialsOf = (draft: SessionDraft, goalId = id(2)) => draft.goals[goalId]?.trials;

describe('a session in the making', () => {
  it('lays beads in order, takes the last back, and replaces a chosen one', () => {
    expect(trialsOf(madeBy(mark('independent'), mark('gesture')))).toEqual(['independent', 'gesture']);
    expect(trialsOf(madeBy(mark('independent'), mark('gesture'), { type: 'takeBack', goalId: id(2) }))).toEqual([
      'independent',
    ]);
    const changed = madeBy(
      mark('a'),
      mark('b'),
      mark('c'),
      { type: 'select', goalId: id(2), at: 1 },
      mark('x'),
      mark('d'),
    );
    expect(trialsOf(changed)).toEqual(['a', 'x', 'c', 'd']);
  });

  it('forgets a chosen bead when another goal is marked', () => {
    const changed = madeBy(mark('a'), { type: 'select', goalId: id(2), at: 0 }, mark('b', id(3)), mark('c'));
    expect([trialsOf(changed), trialsOf(changed, id(3))]).toEqual([['a', 'c'], ['b']]);
  });

  it('takes its time from the first tap, unless it was chosen', () => {
    expect(madeBy(mark('a', id(2), '09:10'), mark('b', id(2), '09:20')).session.time).toBe('09:10');
    expect(madeBy({ type: 'session', fields: { time: '08:00' } }, mark('a')).session.time).toBe('08:00');
  });

  it('sends only what was marked: blank is not zero', () => {
    expect(inputFrom(empty).entries).toEqual([]);
    const draft = madeBy(mark('a'), { type: 'note', goalId: id(3), note: 'only a word' });
    expect(inputFrom(draft).entries.map(({ goalId }) => goalId)).toEqual([id(2)]);
    expect([isTouched(empty), isTouched(draft)]).toEqual([false, true]);
    expect(sessionInput.safeParse(inputFrom(draft)).success).toBe(true);
  });

  it('ends without a score for a reason, until something is marked after all', () => {
    const absent = madeBy({ type: 'reason', goalId: id(3), reason: 'absent' });
    expect(inputFrom(absent).entries).toMatchObject([{ goalId: id(3), outcome: { data: null, reason: 'absent' } }]);
    expect(draftReducer(absent, mark('a', id(3))).goals[id(3)]?.reason).toBeNull();
  });
});

describe('messages', () => {
  it('stand at the goal they belong to', () => {
    const body = { ...inputFrom(madeBy(mark('a'))), on: '' };
    body.entries = body.entries.map((entry) => ({ ...entry, note: 'x'.repeat(4001) }));
    const parsed = sessionInput.safeParse(body);
    expect(Object.keys(parsed.success ? {} : fieldMessages(parsed.error, body))).toEqual(['on', `goal.${id(2)}`]);
    const none = sessionInput.safeParse(null);
    expect(Object.keys(none.success ? {} : fieldMessages(none.error, null))).toEqual(['form']);
  });
});

describe('pads', () => {
  it('are the goal’s levels, then what is no success at any level', () => {
    const definition = { levels: [{ key: 'a', label: 'A', words: 'alone' }] } as Parameters<typeof padsOf>[0];
    expect(padsOf(definition).map(({ label }) => label)).toEqual(['A', 'Not yet', 'No answer', 'Declined']);
  });
});
