import { describe, expect, it } from 'vitest';
import { type MeasureData, measureOf, readData } from '../measure';
import { measurementDefinition } from './measurement';

const definition = measurementDefinition.parse({
  kind: 'measurement',
  unit: 'cm',
  reading: { one: 'spot', many: 'spots' },
});
const depth = measureOf(definition);
const by = (of: string) => measureOf(measurementDefinition.parse({ ...definition, of }));
const three = { readings: [66, 58, 62] };
const message = (data: unknown) => {
  const read = readData(definition, data);
  return read.ok ? null : read.message;
};

describe('measurement', () => {
  it('is the mean of what was read off, or the highest, lowest or last', () => {
    expect(depth.score(three)).toEqual({ value: 62, amount: 62, weight: 3 });
    expect(['highest', 'lowest', 'last'].map((of) => by(of).score(three).value)).toEqual([66, 58, 62]);
    // Two sessions of a day weigh by what was measured: 10 and 20, 20, 20 are 17.5 in the mean, not 15.
    expect(depth.score(depth.pool([{ readings: [10] }, { readings: [20, 20, 20] }]))).toMatchObject({ value: 17.5 });
    expect(depth.score({ readings: [0] })).toMatchObject({ value: 0 });
  });

  it('says its unit, and the range where there is one', () => {
    expect(depth.sentence(three)).toBe('3 spots: mean 62 cm, from 58 cm to 66 cm.');
    expect(by('highest').sentence({ readings: [7, 7] })).toBe('2 spots: highest 7 cm.');
    expect(depth.sentence({ readings: [62.25] })).toBe('62.3 cm.');
    expect(depth.basis({ value: 62, amount: 62, weight: 1 })).toBe('1 spot');
    expect(depth.breakdown(three).map(({ label, said }) => `${label} ${said}`)).toEqual([
      'Measured 3 times',
      'Mean 62 cm',
      'Highest 66 cm',
      'Lowest 58 cm',
    ]);
  });

  it('refuses what is no measurement', () => {
    expect(message({ readings: [] })).toBe('Note at least one spot, or say why there is no score.');
    expect(message({ readings: [-1] })).toBe('A measurement cannot be below nothing.');
    expect(measurementDefinition.safeParse({ kind: 'measurement', unit: ' ' }).success).toBe(false);
  });

  it('compares two observers by what each came to', () => {
    expect(depth.agreement({ readings: [40, 60] }, { readings: [40] })).toMatchObject({ share: 0.8 });
    expect(depth.agreement({ readings: [] }, three)).toBeNull();
  });

  it('refuses the data of another kind, which the database cannot hand it', () => {
    const trials: MeasureData = { trials: ['independent'] };
    expect(() => depth.score(trials)).toThrow('of another kind');
  });
});
