import { addDays, dayNumber, type IsoDate } from '../calendar/iso-date';
import { defined } from '../defined';
import type { WatchedStretch } from '../entries/incidents/incident';
import type { Direction } from '../goals/goal';
import { type PhaseAnalysis, phaseAnalysis } from '../progress/phases/phases';
import { percent, rateFigure } from '../words/counting';
import { compareRates, type RateComparison, timesAsMany } from './rates';

/** A stretch under one set of conditions, from a day on. */
export interface BehaviorPhase {
  label: string;
  startsOn: IsoDate;
}

/** How much of a behavior there was on one day it could be noted. */
export interface DayAmount {
  on: IsoDate;
  n: number;
  /** A school day, or the hours somebody watched for it. */
  exposure: number;
}

export interface DidItHelp extends PhaseAnalysis {
  per: 'schoolDay' | 'hour';
  points: { on: IsoDate; value: number; n: number; phase: number }[];
  /** Neighbouring phases by their rates, in the order of `comparisons`. */
  rates: RateComparison[];
}

/** The incidents of a behavior on each school day: a day on which none was noted counts as none. */
export function perSchoolDay(dates: readonly IsoDate[], days: readonly IsoDate[]): DayAmount[] {
  const counts = new Map(days.map((on) => [on, 0]));
  for (const on of dates) {
    const n = counts.get(on);
    if (n !== undefined) counts.set(on, n + 1);
  }
  return [...counts].map(([on, n]) => ({ on, n, exposure: 1 }));
}

/** What was counted on each day somebody watched, with the hours of watching. */
export function perHourObserved(watched: readonly WatchedStretch[]): DayAmount[] {
  const days = new Map<IsoDate, DayAmount>();
  for (const { on, count, minutes } of watched) {
    const day = days.get(on) ?? { on, n: 0, exposure: 0 };
    days.set(on, { on, n: day.n + count, exposure: day.exposure + minutes / 60 });
  }
  return [...days.values()].sort((a, b) => a.on.localeCompare(b.on));
}

/**
 * A behavior before and after what changed: each day is a point, its amount for each unit of exposure.
 *
 * @param amounts  in order of date
 * @param phases  in order of date; what lies before the first is the baseline
 * @see core/progress/phases for what is compared, rates.ts for the ratio of the two rates
 */
export function didItHelp(
  amounts: readonly DayAmount[],
  phases: readonly BehaviorPhase[],
  direction: Direction,
  per: DidItHelp['per'],
): DidItHelp {
  const all: BehaviorPhase[] = [{ label: 'Before', startsOn: '' }, ...phases];
  const phaseOf = (on: IsoDate) => all.findLastIndex(({ startsOn }) => startsOn <= on);
  const points = amounts
    .filter(({ exposure }) => exposure > 0)
    .map(({ on, n, exposure }) => ({ on, n, exposure, value: n / exposure, phase: phaseOf(on) }));
  const of = (index: number) => points.filter(({ phase }) => phase === index);
  const analysis = phaseAnalysis(
    all.map(({ label }, i) => ({
      name: label,
      points: of(i).map(({ on, value, exposure }) => ({ day: dayNumber(on), value, weight: exposure })),
    })),
    direction,
    // What a day’s count varies by at least: as much as its mean, as counts of unrelated events do (Poisson), and half an event more.
    (level, weight) => Math.max(level, 0) + 0.5 / weight,
  );
  const filled = all.flatMap((_, i) => (of(i).length > 0 ? [of(i)] : []));
  const sumOf = (list: typeof points) => ({
    n: list.reduce((sum, { n }) => sum + n, 0),
    exposure: list.reduce((sum, { exposure }) => sum + exposure, 0),
  });
  return {
    per,
    ...analysis,
    points: points.map(({ on, n, value, phase }) => ({ on, n, value, phase })),
    rates: filled.slice(1).map((list, i) => compareRates(sumOf(defined(filled[i])), sumOf(list))),
  };
}

/**
 * What came of a change, in a sentence: only where both phases have three points or more.
 *
 * @param index  of the comparison
 */
export function helpSentence(help: DidItHelp, index: number): string {
  const { comparisons, rates, per } = help;
  const comparison = comparisons[index];
  const rate = rates[index];
  if (!comparison || !rate) return 'Nothing was noted on one side of the change, so the two cannot be compared.';
  const unit = per === 'schoolDay' ? 'a school day' : 'an hour observed';
  if (comparison.enough === 'tooFew') {
    return `Too few to say: each side of “${comparison.to}” needs three ${per === 'schoolDay' ? 'school days' : 'days of watching'} or more.`;
  }
  const change = (rate.after.rate ?? 0) - (rate.before.rate ?? 0);
  const word = change === 0 ? 'As many' : change < 0 ? 'Fewer' : 'More';
  const near = comparison.enough === 'withReservations' ? ' Few points: with reservations.' : '';
  const times = timesAsMany(rate);
  return `${word} since “${comparison.to}”: ${rateFigure(rate.before.rate)} ${unit} before, ${rateFigure(rate.after.rate)} since${times ? ` (${times})` : ''}. ${percent(100 * comparison.nap)} of the pairs of a day before and a day since improved (a tie counts half).${near}`;
}

/**
 * A range of dates cut to one phase.
 *
 * @param phases  in order of date
 * @param at  which of them; −1 is what lies before the first
 * @returns both ends included; the last before the first where the phase lies outside of the range
 * @example withinPhase([{ label: 'Cards', startsOn: '2026-10-05' }], -1, { from: '2026-09-08', to: '2026-11-24' }).to // '2026-10-04'
 */
export function withinPhase(
  phases: readonly BehaviorPhase[],
  at: number,
  range: { from: IsoDate; to: IsoDate },
): { from: IsoDate; to: IsoDate } {
  const begins = phases[at]?.startsOn ?? range.from;
  const next = phases[at + 1]?.startsOn;
  const ends = next === undefined ? range.to : addDays(next, -1);
  const [, from = begins] = [begins, range.from].sort();
  const [to = ends] = [ends, range.to].sort();
  return { from, to };
}
