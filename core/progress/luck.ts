import type { GoalDefinition } from '../goals/goal';
import type { Comparison } from '../measures/criterion-definition';
import { measureOf } from '../measures/measure';
import { counted } from '../words/counting';

/** What a rule asks of days: so many of any so many neighbouring ones. */
interface LuckRule {
  k: number;
  n: number;
  comparison: Comparison;
  /** The percentage that a day must reach, 0 … 100. */
  value: number;
  /** How many opportunities a day holds. */
  opportunities: number;
}

/** Longer windows have too many states to be counted out. */
export const MOST_DAYS_OF_LUCK = 20;

/**
 * How likely one day of a student who is truly at a share reaches the criterion: the binomial’s tail.
 *
 * @param truly  a percentage, 0 … 100
 * @returns 0 … 1
 * @example chanceOfDay({ value: 80, opportunities: 5, comparison: 'atLeast' }, 60) // .337: 4 or 5 of 5
 */
export function chanceOfDay(
  { value, opportunities, comparison }: Pick<LuckRule, 'value' | 'opportunities' | 'comparison'>,
  truly: number,
): number {
  const p = truly / 100;
  let sum = 0;
  let ways = 1;
  for (let hits = 0; hits <= opportunities; hits++) {
    const share = (100 * hits) / opportunities;
    if (comparison === 'atLeast' ? share >= value - 1e-9 : share <= value + 1e-9) {
      sum += ways * p ** hits * (1 - p) ** (opportunities - hits);
    }
    ways = (ways * (opportunities - hits)) / (hits + 1);
  }
  return Math.min(1, sum);
}

/**
 * How likely a student who is truly at a level meets “k of any n neighbouring days” within some days, by luck or not: an exact Markov
 * chain over which of the last n − 1 days reached it. The days are taken to be independent, and each to hold as many opportunities.
 *
 * @param truly  the student’s true percentage
 * @param days  observation days
 * @returns 0 … 1
 * @throws RangeError for more days in the rule than can be counted out
 * @example chanceMet({ k: 3, n: 4, value: 80, opportunities: 5, comparison: 'atLeast' }, 60, 100) // above .95
 */
export function chanceMet(rule: LuckRule, truly: number, days: number): number {
  const { k, n } = rule;
  if (n > MOST_DAYS_OF_LUCK) throw new RangeError(`At most ${MOST_DAYS_OF_LUCK} days can be counted out.`);
  const passes = chanceOfDay(rule, truly);
  const size = 1 << (n - 1);
  // Which of the last n − 1 days passed, as bits, the newest first; how likely each is while the rule is not yet met.
  let states = new Float64Array(size);
  states[0] = 1;
  let met = 0;
  for (let day = 0; day < days; day++) {
    const next = new Float64Array(size);
    for (let state = 0; state < size; state++) {
      const chance = states[state] ?? 0;
      if (chance === 0) continue;
      const failed = (state << 1) & (size - 1);
      const passed = (failed | 1) & (size - 1);
      next[failed] = (next[failed] ?? 0) + chance * (1 - passes);
      if (bitsOf(state) + 1 >= k) met += chance * passes;
      else next[passed] = (next[passed] ?? 0) + chance * passes;
    }
    states = next;
  }
  return Math.min(1, met);
}

function bitsOf(state: number): number {
  let bits = 0;
  for (let rest = state; rest > 0; rest &= rest - 1) bits++;
  return bits;
}

/** How far below the target a student is taken to be whom luck might carry there, in points. */
const SHORT_BY = 20;
/** Within so many observation days somebody who is truly at the target should meet it. */
const DAYS_AT_TARGET = 20;
/** So likely, and it is worth asking for more opportunities. */
const TOO_EASY = 0.1;

/** How easily luck would meet a goal’s criterion, both ways. */
export interface Luck {
  /** A level short of the target, in percent, and how likely it meets the criterion within the plan’s observation days. */
  level: number;
  chance: number;
  days: number;
  opportunities: number;
  /** How likely a student truly at the target meets it within 20 of them. */
  atTarget: number;
  /** With twice the opportunities, where that helps. */
  advice: { opportunities: number; chance: number } | null;
}

/**
 * How easily luck would meet a goal’s criterion: of shares of independent opportunities only.
 *
 * @param days  observation days of the plan
 * @returns null for other measures, where the goal plans no number of opportunities, and for rules too long to be counted out
 */
export function luckOf(
  { measure, criterion }: Pick<GoalDefinition, 'measure' | 'criterion'>,
  days: number,
): Luck | null {
  const planned = measureOf(measure).opportunities();
  const { rule, value, comparison } = criterion;
  const { k, n } = rule.kind === 'ofLast' ? rule : { k: rule.n, n: rule.n };
  if (!planned?.areIndependent || days < 1 || n > MOST_DAYS_OF_LUCK || k > n) return null;
  const level = comparison === 'atLeast' ? value - SHORT_BY : value + SHORT_BY;
  if (level <= 0 || level >= 100) return null;
  const of = (opportunities: number): LuckRule => ({ k, n, comparison, value, opportunities });
  const chance = chanceMet(of(planned.planned), level, days);
  const more = 2 * planned.planned;
  const withMore = chance > TOO_EASY && planned.planned <= 20 ? chanceMet(of(more), level, days) : chance;
  return {
    ...{ level, chance, days, opportunities: planned.planned },
    atTarget: chanceMet(of(planned.planned), value, DAYS_AT_TARGET),
    advice: withMore < chance - 0.05 ? { opportunities: more, chance: withMore } : null,
  };
}

/** So many of a hundred: never none or all where it is not. */
export function ofHundred(chance: number): string {
  const n = Math.round(100 * chance);
  if (n === 0) return chance === 0 ? 'none' : 'fewer than 1';
  return n === 100 && chance < 1 ? 'more than 99' : `about ${n}`;
}

/**
 * The same in words.
 *
 * @example “Of 100 students who are truly at 60%, about 71 would meet this by luck within 57 observation days.”
 */
export function luckSentences(luck: Luck, goal: Pick<GoalDefinition, 'measure' | 'criterion' | 'pointPer'>): string[] {
  const { one, many } = measureOf(goal.measure).weightNoun;
  const days = counted(luck.days, 'observation day', 'observation days');
  return [
    `Of 100 students who are truly at ${Math.round(luck.level)}%, ${ofHundred(luck.chance)} would meet this by luck within ${days}.`,
    `Of 100 who are truly at ${Math.round(goal.criterion.value)}%, ${ofHundred(luck.atTarget)} meet it within ${DAYS_AT_TARGET}.`,
    ...(luck.advice
      ? [
          `With ${counted(luck.advice.opportunities, one, many)} a ${goal.pointPer} instead of ${luck.opportunities}: ${ofHundred(luck.advice.chance)} instead of ${ofHundred(luck.chance)}.`,
        ]
      : []),
  ];
}

/** Observation days between two dates: school days, one in as many as the plan asks for. */
export const observationDays = (schoolDays: number, plannedGap: number | null) =>
  Math.floor(schoolDays / (plannedGap ?? 1));
