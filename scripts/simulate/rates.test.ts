// A small seeded part of `npm run simulate`: what is claimed is right as often as it is said to be.
import { describe, expect, it } from 'vitest';
import { pageCases, pagesWithFinding } from './pages';
import { decisionRates, trendCases, trendCoverage } from './rates';

describe('simulated students', () => {
  it.each(trendCases)(
    'have their slope in the trend’s interval: $correlation, $days days of $opportunities',
    (some) => {
      // 300 replications: a true rate of 95% comes out between 92 and 98 in 99 of 100 runs; these are seeded.
      const { coverage, widthRatio } = trendCoverage(some, 300, 7);
      if (some.correlation === 0) expect(coverage).toBeGreaterThanOrEqual(93);
      else if (some.days >= 20) expect(coverage).toBeGreaterThanOrEqual(89);
      expect(coverage).toBeLessThanOrEqual(99.4);
      expect(widthRatio).toBeLessThanOrEqual(1.5);
    },
  );

  it('are said to be behind as often as the table says, and seldom when on the line', () => {
    const at = (below: number) => decisionRates({ below, days: 20 }, 600, 11);
    expect(at(0).behind).toBeLessThanOrEqual(5);
    expect(at(0).ahead).toBeLessThanOrEqual(5);
    expect(at(15).behind).toBeGreaterThanOrEqual(70);
    expect(at(20).behind).toBeGreaterThanOrEqual(90);
    expect(at(20).ahead).toBe(0);
  });

  it.each(pageCases)(
    'have findings as seldom, or as often, as the table says: $threefold, bursts of $burst',
    (some) => {
      const found = pagesWithFinding(some, 60, 5);
      // 60 pages: of 5 in 100 more than 9 would be found once in some hundred runs; these are seeded.
      if (some.threefold === null) expect(found).toBeLessThanOrEqual(12);
      else expect(found).toBeGreaterThanOrEqual(70);
    },
  );
});
