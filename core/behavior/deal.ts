import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** So often the incidents are dealt anew. */
export const DEALS = 2000;
/** Always the same: the same incidents say the same. */
export const SEED = 1_936;
/** Counts that luck brings less often than this on the average are not looked at: they have no spread to speak of. */
const LEAST_EXPECTED = 1;

/** How one count stands among those that luck brings. */
export interface Standing {
  /** What luck brings on the average. */
  expected: number;
  /** How many standard deviations above it the count lies; to either side, where that is asked. */
  z: number;
  /** How often luck brings anything in its family that stands out as much. */
  p: number;
}

/** What was looked at, each by its key; one family shares one yardstick. */
export type Family = Map<string, Standing>;

export type Chance = (n: number) => number;

/** Whole numbers below n, seeded. */
export function chanceFrom(seed: number): Chance {
  const generator = xoroshiro128plus(seed);
  return (n) => Math.floor(((generator.next() >>> 0) / 4_294_967_296) * n);
}

/**
 * Holds counts against those of all deals.
 *
 * @param drawn  the counts of each deal, one deal after the other
 */
export function familyOf(
  keys: readonly string[],
  observed: Float64Array,
  drawn: Float64Array,
  { eitherSide = false, least = LEAST_EXPECTED } = {},
): Family {
  const size = keys.length;
  const [means, sds] = [new Float64Array(size), new Float64Array(size)];
  for (let i = 0; i < drawn.length; i++) means[i % size] = (means[i % size] ?? 0) + (drawn[i] ?? 0) / DEALS;
  for (let i = 0; i < drawn.length; i++) {
    sds[i % size] = (sds[i % size] ?? 0) + ((drawn[i] ?? 0) - (means[i % size] ?? 0)) ** 2 / DEALS;
  }
  const isLooked = keys.map((_, i) => (sds[i] ?? 0) > 0 && (eitherSide || (means[i] ?? 0) >= least));
  const zOf = (value: number, i: number) => {
    const z = (value - (means[i] ?? 0)) / Math.sqrt(sds[i] ?? 1);
    return eitherSide ? Math.abs(z) : z;
  };
  const largest = new Float64Array(DEALS).fill(Number.NEGATIVE_INFINITY);
  for (let deal = 0; deal < DEALS; deal++) {
    for (let i = 0; i < size; i++) {
      if (isLooked[i]) largest[deal] = Math.max(largest[deal] ?? 0, zOf(drawn[deal * size + i] ?? 0, i));
    }
  }
  largest.sort();
  const found: Family = new Map();
  keys.forEach((key, i) => {
    if (!isLooked[i]) return;
    const z = zOf(observed[i] ?? 0, i);
    // How many deals reach it, found by halving.
    let [low, high] = [0, DEALS];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((largest[middle] ?? 0) >= z - 1e-9) high = middle;
      else low = middle + 1;
    }
    found.set(key, { expected: means[i] ?? 0, z, p: (1 + DEALS - low) / (1 + DEALS) });
  });
  return found;
}

/** The first few of a list put in random order, in place: a partial Fisher–Yates. */
export function shuffleFirst(list: Int32Array, few: number, chance: Chance): void {
  for (let i = 0; i < few; i++) {
    const j = i + chance(list.length - i);
    const kept = list[i] ?? 0;
    list[i] = list[j] ?? 0;
    list[j] = kept;
  }
}
