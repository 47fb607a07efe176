import { quickselect } from 'simple-statistics';
import { defined } from '../../defined';
import type { Columns } from './trend-line';

/** Up to so many pairs all slopes are kept; beyond, only those near the ranks asked for. */
const MOST_PAIRS_KEPT = 5000;
const LARGEST_SAMPLE = 20_000;
const SAMPLED_SHARE = 0.1;

interface Bracket {
  low: number;
  high: number;
  /** The most slopes that are looked for within it. */
  room: number;
}

/**
 * How many pairs of points lie on different days.
 *
 * @param dayTies  how many points each day with more than one holds
 */
export function pairCount(n: number, dayTies: readonly number[]): number {
  const pairs = (t: number) => (t * (t - 1)) / 2;
  return dayTies.reduce((left, t) => left - pairs(t), pairs(n));
}

/**
 * The slopes per day that stand at certain ranks when those of all pairs of points on different days are sorted.
 * Of many points a sample tells where those ranks lie, so that the slopes beyond need to be counted only, not kept.
 *
 * @param series  in order of date
 * @param pairs  how many pairs of points lie on different days
 * @param ranks  from 0, ascending, below the number of such pairs
 */
export function slopesAtRanks(series: Columns, pairs: number, ranks: readonly number[]): number[] {
  const first = defined(ranks[0]);
  const last = defined(ranks.at(-1));
  if (pairs > MOST_PAIRS_KEPT) {
    const found = slopesWithin(series, sampledBracket(series, pairs, first, last));
    if (found && found.below <= first && last < found.below + found.kept.length) {
      return atRanks(found.kept, ranks, found.below);
    }
  }
  const all = { low: Number.NEGATIVE_INFINITY, high: Number.POSITIVE_INFINITY, room: pairs };
  return atRanks(defined(slopesWithin(series, all)).kept, ranks, 0);
}

/** The slopes at ranks in ascending order: each puts what is below it before it, so that the next looks at the rest only. */
function atRanks(slopes: Float64Array, ranks: readonly number[], below: number): number[] {
  let from = 0;
  return ranks.map((rank) => {
    const at = rank - below;
    // It is written for lists, and takes any row of numbers.
    quickselect(slopes as unknown as number[], at, from, slopes.length - 1);
    from = at;
    return defined(slopes[at]);
  });
}

/** Between which slopes two ranks lie, with some room, from pairs spread evenly over the series. */
function sampledBracket({ days, values }: Columns, pairs: number, first: number, last: number): Bracket {
  const size = Math.min(LARGEST_SAMPLE, Math.ceil(SAMPLED_SHARE * pairs));
  const sample = new Float64Array(size);
  const n = days.length;
  let taken = 0;
  // The two steps are those of Roberts' R2 sequence, which leaves no holes in the plane.
  for (let i = 1; taken < size && i < 4 * size; i++) {
    const a = Math.floor(n * ((i * 0.7548776662466927) % 1));
    const b = Math.floor(n * ((i * 0.5698402909980532) % 1));
    const length = defined(days[b]) - defined(days[a]);
    if (length !== 0) sample[taken++] = (defined(values[b]) - defined(values[a])) / length;
  }
  const sorted = sample.subarray(0, taken).sort();
  const at = (share: number) => defined(sorted[Math.min(taken - 1, Math.round(share * taken))]);
  // Four standard errors of a sampled rank.
  const margin = 2 / Math.sqrt(taken);
  const [low, high] = [first / pairs - margin, last / pairs + margin];
  return {
    low: low < 0 ? Number.NEGATIVE_INFINITY : at(low),
    high: high > 1 ? Number.POSITIVE_INFINITY : at(high),
    room: Math.ceil(pairs * Math.min(1, high - low + 2 * margin)),
  };
}

/** The slopes within a bracket, and how many lie below it; null where more lie within than it has room for. */
function slopesWithin(series: Columns, bracket: Bracket): { below: number; kept: Float64Array } | null {
  const kept = new Float64Array(bracket.room);
  const found = { below: 0, kept: 0 };
  for (let i = 0; i < series.days.length; i++) slopesFrom(i, series, bracket, kept, found);
  return found.kept > bracket.room ? null : { below: found.below, kept: kept.subarray(0, found.kept) };
}

/** One point with all on later days. A function of its own: so the loop is compiled after its first few rounds. */
function slopesFrom(
  i: number,
  { days, values }: Columns,
  { low, high }: Bracket,
  kept: Float64Array,
  found: { below: number; kept: number },
): void {
  const n = days.length;
  const day = defined(days[i]);
  const value = defined(values[i]);
  let { below, kept: at } = found;
  let j = i + 1;
  while (j < n && days[j] === day) j++;
  for (; j < n; j++) {
    const rise = defined(values[j]) - value;
    const length = defined(days[j]) - day;
    // A product is cheaper than a quotient; should they differ in the last digit, the order still holds.
    if (rise < low * length) below++;
    else if (rise <= high * length) kept[at++] = rise / length;
  }
  found.below = below;
  found.kept = at;
}
