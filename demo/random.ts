import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** Seeded chance: the same seed gives the same demo. */
export function randomFrom(seed: number) {
  const generator = xoroshiro128plus(seed);
  const whole = (from: number, to: number) => uniformInt(generator, from, to);
  const hex = (digits: number) => Array.from({ length: digits }, () => whole(0, 15).toString(16)).join('');
  return {
    /** A whole number, both ends included. */
    whole,
    /** Whether something of this probability happens. */
    happens: (probability: number) => uniformFloat64(generator) < probability,
    pick: <T>(from: readonly T[]): T => from[whole(0, from.length - 1)] as T,
    uuid: () => `${hex(8)}-${hex(4)}-4${hex(3)}-8${hex(3)}-${hex(12)}`,
  };
}
export type Random = ReturnType<typeof randomFrom>;
