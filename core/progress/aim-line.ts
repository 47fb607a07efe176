import { dayNumber, type IsoDate } from '../calendar/iso-date';

/** The straight line from the baseline to the target on its date. */
export interface AimLine {
  from: { on: IsoDate; value: number };
  to: { on: IsoDate; value: number };
  slopePerWeek: number;
}

/**
 * The aim line from baseline to target.
 *
 * @returns null when the target date does not lie after the baseline's
 * @see data-based program modification (Deno & Mirkin 1977)
 */
export function aimLineOf(from: { on: IsoDate; value: number }, to: { on: IsoDate; value: number }): AimLine | null {
  const days = dayNumber(to.on) - dayNumber(from.on);
  if (days <= 0) return null;
  return {
    from: { on: from.on, value: from.value },
    to: { on: to.on, value: to.value },
    slopePerWeek: (7 * (to.value - from.value)) / days,
  };
}

/**
 * Where the aim line runs on a day. After the target date it stays at the target.
 *
 * @param day  a day number, not before the aim line begins
 * @example aimLineAt(aimLineOf({ on: '2026-09-01', value: 20 }, { on: '2026-09-11', value: 70 })!, dayNumber('2026-09-03')) // 30
 */
export function aimLineAt(aimLine: AimLine, day: number): number {
  const start = dayNumber(aimLine.from.on);
  const share = (day - start) / (dayNumber(aimLine.to.on) - start);
  return aimLine.from.value + Math.min(1, share) * (aimLine.to.value - aimLine.from.value);
}
