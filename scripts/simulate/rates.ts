// How often what is claimed would be right: made-up students whose true level is known.
import { drawnTrend, meanDistance } from '~/core/progress/trend/drawn-trend';
import { certaintyOf, shareVariance } from '~/core/progress/trend/weighted';
import { randomFrom } from '~/demo/random';

type Chance = () => number;

/** Seeded: the same tables each time. */
function chanceFrom(seed: number): Chance {
  const random = randomFrom(seed);
  return () => random.whole(0, 999_999) / 1_000_000;
}

const normal = (chance: Chance) => Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance());

function hitsOf(chance: Chance, n: number, share: number): number {
  let hits = 0;
  for (let i = 0; i < n; i++) if (chance() < share) hits++;
  return hits;
}

/** So many school days, Monday to Friday. */
const schoolDays = (n: number) => Array.from({ length: n }, (_, i) => 7 * Math.floor(i / 5) + (i % 5));

/** Day by day, how a student’s true share lies beside its mean: unrelated, or each day like the one before. */
function moods(chance: Chance, n: number, { sd, correlation }: { sd: number; correlation: number }): number[] {
  let before = sd * normal(chance);
  return Array.from({ length: n }, (_, i) => {
    if (i > 0) before = correlation * before + Math.sqrt(1 - correlation ** 2) * sd * normal(chance);
    return before;
  });
}

const shareOf = (percent: number) => Math.min(1, Math.max(0, percent / 100));

export interface TrendCase {
  days: number;
  opportunities: number;
  /** Latent, of the true share. */
  correlation: number;
  /** Day to day, in points. */
  sd: number;
}

/**
 * How often the trend’s 95% interval holds the true slope, and how wide it is beside one that knows how alike the days are: for a
 * student who climbs from 30 to 65%.
 */
export function trendCoverage({ days, opportunities, correlation, sd }: TrendCase, replications: number, seed: number) {
  const chance = chanceFrom(seed);
  const at = schoolDays(days);
  const last = at.at(-1) as number;
  const slope = (7 * 35) / last;
  const truth = at.map((day) => 30 + (35 * day) / last);
  const binomial = truth.reduce((sum, level) => sum + level * (100 - level), 0) / days / opportunities;
  const observed = (correlation * sd ** 2) / (sd ** 2 + binomial);
  let holds = 0;
  let [width, knowing] = [0, 0];
  for (let i = 0; i < replications; i++) {
    const mood = moods(chance, days, { sd, correlation });
    const points = at.map((day, j) => {
      const share = shareOf((truth[j] as number) + (mood[j] as number));
      return { day, value: (100 * hitsOf(chance, opportunities, share)) / opportunities, weight: opportunities };
    });
    // Short of three weeks the page says nothing; here the days are drawn apart, so that ten can be looked at too.
    const apart = points.map((point) => ({ ...point, day: 3 * point.day }));
    const trend = drawnTrend(apart, shareVariance);
    if (!trend) throw new Error('Every case has points enough for a trend.');
    const [low, high] = [3 * trend.low, 3 * trend.high];
    if (low <= slope && slope <= high) holds++;
    width += high - low;
    knowing += (high - low) * widening(trend, apart, observed);
  }
  return { coverage: (100 * holds) / replications, widthRatio: width / knowing };
}

/** By what the interval would be multiplied if the correlation were known: the effective points and their t. */
function widening(
  trend: { at: (day: number) => number; correlation: number },
  points: { day: number; value: number; weight: number }[],
  known: number,
): number {
  const levels = points.map(({ day }) => trend.at(day));
  const residuals = points.map(({ value, day }) => value - trend.at(day));
  const { half } = certaintyOf(points, levels, residuals, 2, shareVariance);
  const knowing = certaintyOf(points, levels, residuals, 2, shareVariance, known);
  return knowing.half(() => 1) / half(() => 1);
}

/** How often a student so many points below the aim line is said to be behind it, and ahead: 6 opportunities a day, 8 points day to day. */
export function decisionRates({ below, days }: { below: number; days: number }, replications: number, seed: number) {
  const chance = chanceFrom(seed);
  const at = schoolDays(days);
  const aim = (day: number) => 50 + (20 * day) / (at.at(-1) as number);
  let [behind, ahead] = [0, 0];
  for (let i = 0; i < replications; i++) {
    const points = at.slice(-20).map((day) => {
      const share = shareOf(aim(day) - below + 8 * normal(chance));
      return { day, value: (100 * hitsOf(chance, 6, share)) / 6, weight: 6 };
    });
    const { low, high } = meanDistance(points, aim, shareVariance);
    if (high < 0) behind++;
    if (low > 0) ahead++;
  }
  return { behind: (100 * behind) / replications, ahead: (100 * ahead) / replications };
}

/** The cases of the trend’s table. */
export const trendCases: TrendCase[] = [
  { correlation: 0, sd: 0 },
  { correlation: 0.4, sd: 12 },
].flatMap((kind) =>
  [10, 20, 40].flatMap((days) => [4, 6, 10, 20].map((opportunities) => ({ ...kind, days, opportunities }))),
);
