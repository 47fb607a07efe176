import { describe, expect, it } from 'vitest';
import { beginningOf, measureDefinition } from '../measures/measure';
import { canBeLogged, checkLog, type LogMeasure, logSaid, logUnit } from './log';

const plants = measureDefinition.parse({
  ...{ kind: 'cumulativeTotal', unit: { one: 'plant', many: 'plants' }, total: 140 },
  categories: [{ key: 'herbs', label: 'Herbs' }],
}) as LogMeasure;
const heart = measureDefinition.parse({ kind: 'measurement', unit: 'beats' }) as LogMeasure;

describe('a log that a student keeps', () => {
  it('takes goals that are one number at a time, and no others', () => {
    expect([plants, heart].every(canBeLogged)).toBe(true);
    expect(canBeLogged(beginningOf('trials'))).toBe(false);
  });

  it('makes of a number what the measure keeps', () => {
    expect(checkLog(plants, { amount: 12, category: 'herbs' })).toEqual({
      ok: true,
      outcome: { data: { amounts: [{ amount: 12, category: 'herbs' }] }, reason: null },
    });
    expect(checkLog(heart, { amount: 92.5, category: null })).toEqual({
      ok: true,
      outcome: { data: { readings: [92.5] }, reason: null },
    });
    // An amount of 0 says that there was time for it, and none came about.
    expect(checkLog(plants, { amount: 0, category: null }).ok).toBe(true);
    expect(checkLog(plants, { amount: 140, category: null }).ok).toBe(true);
  });

  it('says why it will not, in a sentence for a child', () => {
    const said = (measure: LogMeasure, amount: number, category: string | null = null) => {
      const checked = checkLog(measure, { amount, category });
      return checked.ok ? null : checked.message;
    };
    expect(said(plants, 140.5)).toBe('140.5 is more than the whole 140. Look again, or ask your teacher to enter it.');
    expect(said(plants, -3)).toContain('below nothing');
    expect(said(plants, 3, 'roses')).toContain('categories');
    expect(said(heart, -1)).toContain('below nothing');
  });

  it('lets a balance go down, where the goal knows amounts that are taken off', () => {
    const balance = measureDefinition.parse({ ...plants, amounts: 'balance' }) as LogMeasure;
    expect(checkLog(balance, { amount: -3, category: null }).ok).toBe(true);
  });

  it('says the unit as it stands after the number', () => {
    expect([1, 2, 0].map((amount) => logUnit(plants, amount))).toEqual(['plant', 'plants', 'plants']);
    expect(logUnit(heart, 1)).toBe('beats');
  });

  it('refuses what is too long, and a day that there is not', () => {
    const id = 'a2f1f5b0-0000-4000-8000-000000000001';
    const said = { id, goalId: id, on: '2026-11-24', amount: 3 };
    expect(logSaid.parse(said)).toMatchObject({ category: null, note: '' });
    expect(logSaid.safeParse({ ...said, note: 'x'.repeat(201) }).success).toBe(false);
    expect(logSaid.safeParse({ ...said, on: '2026-02-30' }).success).toBe(false);
    expect(logSaid.safeParse({ ...said, amount: '3' }).success).toBe(false);
  });
});
