import type { Incident } from '../entries/incidents/incident';
import { median } from '../statistics/median';
import { largest, sum } from '../statistics/spread';

export interface Durations {
  /** Incidents whose duration is known. */
  n: number;
  medianSeconds: number;
  longestSeconds: number;
  totalSeconds: number;
  /** How many lasted how long: up to a minute, to 5, 15 and 30 minutes, and longer. */
  bands: { upTo: number | null; n: number }[];
}

/** The ends of the bands, in seconds; common practice of rounding durations, no published limits. */
const BANDS = [60, 300, 900, 1800, null] as const;

/**
 * How long it lasted, over the incidents that say so.
 *
 * @returns null when none does
 */
export function durationsOf(incidents: readonly Pick<Incident, 'seconds'>[]): Durations | null {
  const seconds = incidents.flatMap((incident) => incident.seconds ?? []);
  if (seconds.length === 0) return null;
  return {
    n: seconds.length,
    medianSeconds: median(seconds),
    longestSeconds: largest(seconds),
    totalSeconds: sum(seconds),
    bands: BANDS.map((upTo, at) => {
      const above = BANDS[at - 1] ?? 0;
      return { upTo, n: seconds.filter((one) => one > above && (upTo === null || one <= upTo)).length };
    }),
  };
}

export interface Intensities {
  /** Incidents whose intensity is known. */
  n: number;
  median: number;
  /** How many incidents at each step of the scale that came up, in order. */
  levels: { level: number; n: number; share: number }[];
}

/**
 * How strong it was, over the incidents that say so.
 *
 * @returns null when none does
 */
export function intensitiesOf(incidents: readonly Pick<Incident, 'intensity'>[]): Intensities | null {
  const known = incidents.flatMap((incident) => incident.intensity ?? []);
  if (known.length === 0) return null;
  const counts = new Map<number, number>();
  for (const level of known) counts.set(level, (counts.get(level) ?? 0) + 1);
  return {
    n: known.length,
    median: median(known),
    levels: [...counts].map(([level, n]) => ({ level, n, share: n / known.length })).sort((a, b) => a.level - b.level),
  };
}
