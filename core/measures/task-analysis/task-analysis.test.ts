import { describe, expect, it } from 'vitest';
import { stepsToTeach, taskAnalysisDefinition } from '~/core/measures/task-analysis/task-analysis';
import { asCount, levels, message, score, sentence, steps } from '~/tests/examples/measures';

describe('task analysis', () => {
  const done = (...outcomes: string[]) => ({
    steps: outcomes.map((outcome, i) => ({ step: steps.steps[i]?.key ?? '', outcome })),
  });

  it('is the share of the steps done with the support that counts, and says what is next', () => {
    const data = done('independent', 'gesture', 'independent', 'notDone');
    expect(score(steps, data)).toEqual({ value: 50, amount: 2, weight: 4 });
    expect(sentence(steps, data)).toBe('2 of 4 steps done alone (50%). Next step: soap.');
    expect(asCount(steps, 60)).toBe('3 of 4');
  });

  it('teaches forward the first step, backward the last, else all of those not done', () => {
    const data = done('independent', 'gesture', 'independent', 'notDone');
    const next = (chaining: string) =>
      stepsToTeach(taskAnalysisDefinition.parse({ ...steps, chaining }), data).map(({ label }) => label);
    expect([next('forward'), next('backward'), next('whole')]).toEqual([['soap'], ['rinse'], ['soap', 'rinse']]);
    expect(stepsToTeach(steps, done('independent')).map(({ label }) => label)).toEqual(['soap']);
    expect(stepsToTeach(steps, done(...Array(4).fill('independent')))).toEqual([]);
  });

  it('keeps the outcomes of the others apart', () => {
    expect(message(steps, { steps: [{ step: 'soap', outcome: 'incorrect' }] })).toContain('support levels');
    expect(() => taskAnalysisDefinition.parse({ ...steps, levels: [{ ...levels[0], key: 'notDone' }] })).toThrow(
      'may not be',
    );
  });
});
