import { describe, expect, it } from 'vitest';
import { sessionInput } from '~/core/entries/observation';
import { type MeasureDefinition, measureDefinition } from '~/core/measures/measure';
import { outcomesOf } from '~/core/measures/support-levels';
import { type Clock, secondsFrom, secondsOn, started, stopped, stoppedClock, stopwatch } from '../measures/clock';
import { finished } from '../measures/finished';
import { restIncorrect, withItem } from '../measures/item-check/item-check-sheet';
import { withTrial } from '../measures/trials/trials-sheet';
import { type DraftChange, draftReducer, inputFrom, isTouched, momentOf, type SessionDraft, untouched } from './draft';
import { fieldMessages } from './field-messages';
import { severalSaved } from './use-save-session';

const id = (digit: number) => `7f0f2c1e-5a0f-4d0c-8a43-${String(digit).repeat(12)}`;
const empty: SessionDraft = {
  session: { on: '2026-11-24', time: '09:00', observerId: id(1), locationId: null },
  timeIsChosen: false,
  goals: Object.fromEntries([id(2), id(3)].map((goalId, i) => [goalId, untouched(id(5 + i))])),
  activeGoal: id(2),
  openedAt: 0,
  selected: null,
};
const madeBy = (...changes: DraftChange[]) => changes.reduce(draftReducer, empty);
const mark = (trials: string[], goalId = id(2), time = '09:10'): DraftChange => ({
  type: 'mark',
  goalId,
  data: { trials },
  time: { on: '2026-11-24', time },
});
const calls = measureDefinition.parse({ kind: 'frequency', per: 'hour' });
const trials = measureDefinition.parse({
  kind: 'trials',
  levels: [{ key: 'a', label: 'A', words: 'a' }],
  mostSupport: 'a',
});
const sent = (draft: SessionDraft, now = 0, measure: MeasureDefinition = trials) =>
  inputFrom(
    draft,
    [id(2), id(3)].map((goalId) => ({ id: goalId, measure, version: 2 })),
    now,
    () => [],
  );

describe('a session in the making', () => {
  it('lays trial marks in order and replaces a chosen one', () => {
    expect(withTrial(['a', 'b'], null, 'c')).toEqual(['a', 'b', 'c']);
    expect(withTrial(['a', 'b', 'c'], 1, 'x')).toEqual(['a', 'x', 'c']);
    expect(withTrial(['a'], 3, 'x')).toEqual(['a', 'x']);
  });

  it('forgets a chosen trial mark when something is marked, there or elsewhere', () => {
    const chosen: DraftChange = { type: 'select', goalId: id(2), at: 0 };
    expect(madeBy(mark(['a']), chosen).selected).toBe(0);
    expect(madeBy(mark(['a']), chosen, mark(['b'], id(3))).selected).toBeNull();
    expect(madeBy(mark(['a']), chosen, mark(['x'])).selected).toBeNull();
  });

  it('takes its time from the first tap, unless it was chosen', () => {
    expect(madeBy(mark(['a'], id(2), '09:10'), mark(['a', 'b'], id(2), '09:20')).session.time).toBe('09:10');
    expect(madeBy({ type: 'session', fields: { time: '08:00' } }, mark(['a'])).session.time).toBe('08:00');
    // In a round each student has the time of their own first mark.
    const round = madeBy(mark(['a'], id(2), '09:10'), mark(['b'], id(3), '09:40'), mark(['a', 'b'], id(2), '09:50'));
    expect([momentOf(round, [id(2)]), momentOf(round, [id(3)])].map(({ time }) => time)).toEqual(['09:10', '09:40']);
    expect(momentOf(madeBy({ type: 'session', fields: { time: '08:00' } }, mark(['a'])), [id(2)]).time).toBe('08:00');
    expect(momentOf(empty, [id(2)]).time).toBe('09:00');
  });

  it('sends only what was marked: blank is not zero', () => {
    expect(sent(empty)).toBeNull();
    const draft = madeBy(mark(['a']), { type: 'note', goalId: id(3), note: 'only a word' });
    expect(sent(draft)?.entries.map(({ goalId }) => goalId)).toEqual([id(2)]);
    expect([isTouched(empty), isTouched(draft)]).toEqual([false, true]);
    expect(sessionInput.safeParse(sent(draft)).success).toBe(true);
    const takenBack = madeBy(mark(['a']), { type: 'mark', goalId: id(2), data: null, time: null });
    expect(sent(takenBack)).toBeNull();
  });

  it('ends without a score for a reason, until something is marked after all', () => {
    const absent = madeBy({ type: 'reason', goalId: id(3), reason: 'absent' });
    expect(sent(absent)?.entries).toMatchObject([{ goalId: id(3), outcome: { data: null, reason: 'absent' } }]);
    expect(draftReducer(absent, mark(['a'], id(3))).goals[id(3)]?.reason).toBeNull();
  });

  it('reads a running clock when it is sent', () => {
    const draft = madeBy({
      type: 'mark',
      goalId: id(2),
      data: { count: 5, minutes: 0 },
      clock: { startedAt: 60_000, before: 0 },
      time: null,
    });
    const session = sent(draft, 60_000 + 12 * 60_000, calls);
    expect(session?.entries[0]).toMatchObject({ goalVersion: 2, outcome: { data: { count: 5, minutes: 12 } } });
  });
});

describe('a clock', () => {
  it('goes by timestamps: over a sleep, a stop and a second start no second is lost', () => {
    const first = started(stoppedClock, 1000);
    expect(secondsOn(first, 3_601_000)).toBe(3600);
    expect(started(first, 9_000_000)).toBe(first);
    const paused = stopped(first, 11_000);
    expect(secondsOn(paused, 999_000)).toBe(10);
    expect(secondsOn(started(paused, 20_000), 25_000)).toBe(15);
    // A device whose clock was set back does not run backwards.
    expect(secondsOn(first, 0)).toBe(0);
  });

  it('is shown and typed as people write it', () => {
    expect([7, 90, 3725].map(stopwatch)).toEqual(['0:07', '1:30', '1:02:05']);
    expect(['45', '45 s', '1:30', '2 min', '1,5 min', '1:02:05'].map(secondsFrom)).toEqual([45, 45, 90, 120, 90, 3725]);
    expect(['', 'soon', '1:3', '-4', '1:2:3'].map(secondsFrom)).toEqual([null, null, null, null, null]);
  });
});

describe('what would be recorded if the session ended now', () => {
  const running: Clock = { startedAt: 0, before: 0 };
  const of = (definition: object, data: object | null, now: number, clock = running) =>
    finished(measureDefinition.parse(definition), { data: data as never, clock }, now);

  it('counts an episode that still runs, and reads on a timer', () => {
    const duration = { kind: 'duration', of: 'total' };
    expect(of(duration, null, 30_000)).toEqual({ episodes: [30], sessionSeconds: null });
    expect(of(duration, { episodes: [5], sessionSeconds: 600 }, 30_000)).toEqual({
      episodes: [5, 30],
      sessionSeconds: 600,
    });
    expect(of(duration, null, 30_000, stoppedClock)).toBeNull();
    expect(of({ kind: 'oralReading' }, { words: 9, errors: 1, seconds: 0 }, 61_400)).toMatchObject({ seconds: 61 });
  });

  it('takes an interval that nobody answered for missed, not for a no; none beyond the planned ones', () => {
    const intervals = { kind: 'intervalRecording', method: 'whole', seconds: 10, planned: 4 };
    expect(of(intervals, { intervals: [true] }, 35_000)).toEqual({ intervals: [true, null, null] });
    expect(of(intervals, { intervals: [true, null, false] }, 99_000)).toEqual({ intervals: [true, null, false, null] });
  });

  it('is nothing where nothing is marked, whatever the clock says', () => {
    expect(of({ kind: 'frequency', per: 'hour' }, null, 60_000)).toBeNull();
    expect(of({ kind: 'latency' }, { responses: [4] }, 60_000)).toEqual({ responses: [4] });
  });
});

describe('items', () => {
  const definition = measureDefinition.parse({
    kind: 'itemCheck',
    items: ['a', 'b', 'c'].map((key) => ({ key, label: key })),
  }) as Extract<MeasureDefinition, { kind: 'itemCheck' }>;

  it('stay in the goal’s order, and leave nothing behind where the last is blank again', () => {
    const two = withItem(definition, withItem(definition, null, 'c', 'right'), 'a', 'incorrect');
    expect(two?.items.map(({ item }) => item)).toEqual(['a', 'c']);
    expect(withItem(definition, withItem(definition, two, 'a', null), 'c', null)).toBeNull();
  });

  it('make the rest incorrect in one tap, and leave what is marked', () => {
    const marked = withItem(definition, null, 'b', 'right');
    expect(marked && restIncorrect(definition, marked).items.map(({ outcome }) => outcome)).toEqual([
      ...['incorrect', 'right', 'incorrect'],
    ]);
  });
});

describe('messages', () => {
  it('stand at the goal they belong to', () => {
    const session = sent(madeBy(mark(['a'])));
    const entries = session?.entries.map((entry) => ({ ...entry, note: 'x'.repeat(4001) }));
    const body = { ...session, on: '', entries };
    const parsed = sessionInput.safeParse(body);
    expect(Object.keys(parsed.success ? {} : fieldMessages(parsed.error, body))).toEqual(['on', `goal.${id(2)}`]);
    const none = sessionInput.safeParse(null);
    expect(Object.keys(none.success ? {} : fieldMessages(none.error, null))).toEqual(['form']);
  });
});

describe('pads', () => {
  it('are the goal’s levels, then what is no success at any level', () => {
    const definition = { levels: [{ key: 'a', label: 'A', words: 'alone' }] };
    expect(outcomesOf(definition).map(({ label }) => label)).toEqual(['A', 'Incorrect', 'No response', 'Refused']);
  });
});

describe('several students saved in one go', () => {
  it('are all named, those whose record waits too', () => {
    const of = (shortName: string, entries: number) => ({
      student: { id: shortName, shortName },
      session: { entries: Array(entries).fill({}) } as never,
    });
    const sessions = [of('Jory B.', 2), of('Fenna K.', 1), of('Wren A.', 1)];
    const said = (...is: ('saved' | 'waits' | 'refused')[]) =>
      severalSaved(
        sessions,
        is.map((one) => ({ is: one })),
      );
    expect(said('saved', 'saved', 'saved')).toBe('Saved for Jory B., Fenna K. and Wren A.: 4 goals.');
    expect(said('saved', 'waits', 'refused')).toBe(
      'Saved for Jory B.: 2 goals. On this device until it can be sent: Fenna K.',
    );
  });
});
