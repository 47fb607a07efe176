import { describe, expect, it } from 'vitest';
import {
  type FidelityMarks,
  fidelityMarks,
  fidelityOf,
  fidelitySentence,
  noteWithFidelity,
} from '~/core/entries/fidelity';
import type { Outcome } from '~/core/entries/observation';
import { supportStepsOn } from '~/core/goals/goal';
import { trialsDefinition } from '~/core/measures/trials/trials';
import { calls, levels } from '~/tests/examples/measures';

const trials = trialsDefinition.parse({
  ...{ kind: 'trials', levels, mostSupport: 'independent', planned: 4, opportunity: { one: 'try', many: 'tries' } },
});
const steps = ['Card', 'Waits', 'Points', 'Praises'];
/** Marks of the four steps, by one letter each: done, not done, or nothing said. */
const marks = (said: string): FidelityMarks =>
  [...said].flatMap((letter, i) =>
    letter === ' ' ? [] : [{ key: `step${i + 1}`, label: steps[i] as string, isDone: letter === 'd' }],
  );
const tried = (right: number, of: number): Outcome => ({
  data: { trials: Array.from({ length: of }, (_, i) => (i < right ? 'independent' : 'incorrect')) },
  reason: null,
});
const on = '2026-10-05';

describe('fidelity', () => {
  it('is the share of the steps that were done among those said, and names the others', () => {
    expect(fidelitySentence(marks('ddnd'))).toBe('3 of 4 support steps done (75%); not done: Points.');
    expect(fidelitySentence(marks('nd n'))).toBe('1 of 3 support steps done (33%); not done: Card and Praises.');
    expect(fidelitySentence(marks('dddd'))).toBe('4 of 4 support steps done (100%).');
    expect(fidelitySentence(marks('d'))).toBe('1 of 1 support step done (100%).');
    expect(noteWithFidelity('A loud day.', marks('d'))).toBe('A loud day.\n1 of 1 support step done (100%).');
    expect(noteWithFidelity('A loud day.', null)).toBe('A loud day.');
  });

  it('says something, of each step once', () => {
    expect(fidelityMarks.safeParse([]).success).toBe(false);
    expect(fidelityMarks.safeParse([...marks('d'), ...marks('n')]).success).toBe(false);
    expect(fidelityMarks.safeParse(marks('dn')).success).toBe(true);
  });

  it('has the steps of the phase a day lies in: none before the first, none where it has none', () => {
    const card = { label: 'Card', startsOn: '2026-10-01', isBaseline: false, steps: [{ key: 'step1', label: 'Card' }] };
    const phases = [{ label: 'Baseline', startsOn: '2026-09-08', isBaseline: true }, card];
    expect(supportStepsOn(phases, '2026-09-07')).toEqual([]);
    expect(supportStepsOn(phases, '2026-09-30')).toEqual([]);
    expect(supportStepsOn(phases, '2026-10-01')).toEqual(card.steps);
    expect(supportStepsOn([], '2026-10-01')).toEqual([]);
  });

  it('stands beside what the student did: pooled where it is a share, sessions that say nothing left out', () => {
    const found = fidelityOf(trials, [
      { on, marks: marks('dddd'), outcome: tried(9, 10) },
      { on, marks: marks('dddd'), outcome: tried(0, 2) },
      // 75% is less than 80%.
      { on, marks: marks('dddn'), outcome: tried(1, 4) },
      { on, marks: marks('nn'), outcome: { data: null, reason: 'refused' } },
      { on, marks: null, outcome: tried(4, 4) },
    ]);
    expect(found).toMatchObject({ said: 4, of: 5 });
    // 4 + 4 + 3 of 4 + 4 + 4 + 2 steps.
    expect(found?.share).toBeCloseTo((100 * 11) / 14, 10);
    expect(found?.steps).toEqual([
      { label: 'Card', done: 3, of: 4 },
      { label: 'Waits', done: 3, of: 4 },
      { label: 'Points', done: 3, of: 3 },
      { label: 'Praises', done: 2, of: 3 },
    ]);
    expect(found?.outcomes).toEqual([
      { isEnough: true, sessions: 2, value: 75 },
      { isEnough: false, sessions: 2, value: 25 },
    ]);
  });

  it('takes the median of sessions where the figure is no share, and says nothing of no session', () => {
    const counted = (count: number): Outcome => ({ data: { count, minutes: 10 }, reason: null });
    const found = fidelityOf(calls, [
      { on, marks: marks('d'), outcome: counted(1) },
      { on, marks: marks('d'), outcome: counted(2) },
      { on, marks: marks('d'), outcome: counted(30) },
    ]);
    expect(found?.outcomes.map(({ sessions }) => sessions)).toEqual([3, 0]);
    const [enough, less] = found?.outcomes ?? [];
    const rate = fidelityOf(calls, [{ on, marks: marks('d'), outcome: counted(2) }])?.outcomes[0]?.value;
    expect(enough?.value).toBe(rate);
    expect(less?.value).toBeNull();
    expect(fidelityOf(trials, [{ on, marks: null, outcome: tried(1, 2) }])).toBeNull();
  });
});
