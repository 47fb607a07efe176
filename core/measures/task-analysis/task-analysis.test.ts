import { describe, expect, it } from 'vitest';
import { type MeasureData, measureOf, readData } from '~/core/measures/measure';
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

  it('with a single opportunity ends with the first step that is not done: the rest counts as not done', () => {
    const single = taskAnalysisDefinition.parse({ ...steps, opportunity: 'single' });
    const [first, second, third, fourth] = steps.steps.map(({ key }) => key);
    const marked = (...outcomes: [string | undefined, string][]) => ({
      steps: outcomes.map(([step, outcome]) => ({ step: step as string, outcome })),
    });
    const read = (data: MeasureData) => readData(single, data);
    // The third step took a gesture, which does not count: what comes after it does not either, marked or not.
    const data = marked([first, 'independent'], [second, 'independent'], [third, 'gesture'], [fourth, 'independent']);
    const whole = marked([first, 'independent'], [second, 'independent'], [third, 'gesture'], [fourth, 'notDone']);
    expect(read(data)).toEqual({ ok: true, data: whole });
    expect(read(marked([first, 'independent'], [second, 'independent'], [third, 'gesture']))).toEqual({
      ok: true,
      data: whole,
    });
    expect(read(whole)).toEqual({ ok: true, data: whole });
    expect(score(single, whole)).toMatchObject({ amount: 2, weight: 4, value: 50 });
    // Without an error nothing is added: what was not looked at stays blank. Where each step has its opportunity nothing is ever added.
    const right = marked([first, 'independent'], [second, 'independent']);
    expect(read(right)).toEqual({ ok: true, data: right });
    expect(readData(steps, data)).toEqual({ ok: true, data });
    expect(measureOf(single).meaning()).not.toEqual(measureOf(steps).meaning());
  });
});
