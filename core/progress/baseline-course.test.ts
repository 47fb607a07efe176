import { describe, expect, it } from 'vitest';
import { point } from '~/tests/examples/series';
import { dayNumber } from '../calendar/iso-date';
import { type AimLine, aimLineAt, aimLineOf } from './aim-line';
import { baselineOf, nowOf, progressToTarget } from './baseline';

describe('baseline', () => {
  const inBaseline = (on: string, value: number) => point(on, value, { isBaseline: true });

  it('is the median of the baseline phase, from three points on (Deno & Mirkin 1977, from memory)', () => {
    const points = [inBaseline('2026-09-01', 20), inBaseline('2026-09-02', 50), inBaseline('2026-09-03', 30)];
    expect(baselineOf({ baseline: null }, points)).toEqual({ value: 30, on: '2026-09-03', from: 'phase' });
    expect(baselineOf({ baseline: null }, points.slice(1))).toBeNull();
  });

  it('is what the plan states, where it does', () => {
    const stated = { value: 15, on: '2026-08-25' };
    expect(baselineOf({ baseline: stated }, [])).toEqual({ ...stated, from: 'plan' });
  });
});

describe('now and the way travelled', () => {
  it('takes the median of the last three points, or of what there is', () => {
    expect(nowOf([10, 40, 80, 60].map((value) => ({ value })))).toBe(60);
    expect(nowOf([{ value: 10 }, { value: 20 }])).toBe(15);
    expect(nowOf([])).toBeNull();
  });

  it('is signed, goes beyond 1, works downwards and is undefined without a way', () => {
    expect(progressToTarget(20, 50, 80)).toBe(0.5);
    expect(progressToTarget(8, 5, 2)).toBe(0.5);
    expect(progressToTarget(20, 10, 80)).toBeCloseTo(-1 / 6, 12);
    expect(progressToTarget(20, 95, 80)).toBe(1.25);
    expect(progressToTarget(80, 90, 80)).toBeNull();
  });
});

describe('course', () => {
  const course = aimLineOf({ on: '2026-09-01', value: 20 }, { on: '2026-09-11', value: 70 }) as AimLine;

  it('runs straight from baseline to target and stays there', () => {
    expect(aimLineAt(course, dayNumber('2026-09-01'))).toBe(20);
    expect(aimLineAt(course, dayNumber('2026-09-03'))).toBe(30);
    expect(aimLineAt(course, dayNumber('2026-09-11'))).toBe(70);
    expect(aimLineAt(course, dayNumber('2026-12-01'))).toBe(70);
    expect(course.slopePerWeek).toBeCloseTo(35, 9);
  });

  it('is not there when the target date does not lie ahead', () => {
    expect(aimLineOf({ on: '2026-09-11', value: 20 }, { on: '2026-09-11', value: 70 })).toBeNull();
  });
});
