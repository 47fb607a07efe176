import { mean, sum } from '../../statistics/spread';
import { counted, percent } from '../../words/counting';
import type { CountData } from '../count';
import type { DurationData } from '../duration';
import type { IntervalsData } from '../intervals';
import type { ItemsData } from '../items';
import type { LatencyData } from '../latency';
import type { MeasureData, MeasureDefinition } from '../measure';
import type { ReadingAloudData } from '../reading-aloud';
import type { RubricData } from '../rubric';
import type { RunningTotalData } from '../running-total';
import type { StepsData } from '../steps';
import { scoreTrials, type TrialsData } from '../trials';
import {
  intervalByIntervalAgreement,
  totalCountAgreement,
  totalDurationAgreement,
  trialByTrialAgreement,
  USUAL_AGREEMENT,
  USUAL_SHARE_OF_SESSIONS,
} from './agreement';

export interface PairAgreement {
  /** 0 … 1 */
  share: number;
  /** Which kind of agreement it is, and over how much. */
  basis: string;
}

/**
 * How far two observers of the same session agree, by the method that suits the measure: trial by trial, interval by
 * interval, item by item where each single thing can be held against the other's; else the smaller total over the larger.
 *
 * @returns null where they have nothing in common to compare
 * @see Cooper, Heron & Heward, Applied Behavior Analysis, “Improving and assessing the quality of behavioral measurement”
 */
export function pairAgreement(definition: MeasureDefinition, a: MeasureData, b: MeasureData): PairAgreement | null {
  switch (definition.kind) {
    case 'trials': {
      const [x, y] = [a as TrialsData, b as TrialsData];
      if ('trials' in x && 'trials' in y && x.trials.length === y.trials.length) {
        return {
          share: trialByTrialAgreement(x.trials, y.trials),
          basis: `trial by trial, ${x.trials.length} of them`,
        };
      }
      const successes = [x, y].map((data) => {
        const score = scoreTrials(definition, data);
        return score.value === null ? 0 : score.amount;
      });
      return total(successes[0] as number, successes[1] as number, 'successes');
    }
    case 'items':
      return common(
        (a as ItemsData).items.map(({ item, outcome }) => [item, outcome]),
        (b as ItemsData).items.map(({ item, outcome }) => [item, outcome]),
        definition.item,
      );
    case 'steps':
      return common(
        (a as StepsData).steps.map(({ step, outcome }) => [step, outcome]),
        (b as StepsData).steps.map(({ step, outcome }) => [step, outcome]),
        { one: 'step', many: 'steps' },
      );
    case 'rubric':
      return common(
        (a as RubricData).ratings.map(({ criterion, points }) => [criterion, points]),
        (b as RubricData).ratings.map(({ criterion, points }) => [criterion, points]),
        { one: 'criterion', many: 'criteria' },
      );
    case 'intervals': {
      const [x, y] = [(a as IntervalsData).intervals, (b as IntervalsData).intervals];
      const both = x.flatMap((one, i) =>
        one === null || (y[i] ?? null) === null ? [] : [[one, y[i] as boolean] as const],
      );
      if (both.length === 0) return null;
      const share = intervalByIntervalAgreement(
        both.map(([one]) => one),
        both.map(([, other]) => other),
      );
      return { share, basis: `interval by interval, ${both.length} scored by both` };
    }
    case 'latency':
      return latencies((a as LatencyData).responses, (b as LatencyData).responses);
    case 'count':
      return total((a as CountData).count, (b as CountData).count, 'the counts');
    case 'duration': {
      const [x, y] = [(a as DurationData).episodes, (b as DurationData).episodes];
      return { share: totalDurationAgreement(x, y), basis: 'the shorter total over the longer' };
    }
    case 'runningTotal': {
      const amount = (data: MeasureData) => sum((data as RunningTotalData).amounts.map((one) => one.amount));
      return total(amount(a), amount(b), 'the amounts');
    }
    case 'readingAloud': {
      const correct = (data: MeasureData) => (data as ReadingAloudData).words - (data as ReadingAloudData).errors;
      return total(correct(a), correct(b), 'words correct');
    }
  }
}

const total = (a: number, b: number, what: string): PairAgreement => ({
  share: totalCountAgreement(a, b),
  basis: `${what}, the smaller over the larger`,
});

/** Of the things that both looked at, the share of which both say the same. */
function common<T>(
  a: readonly (readonly [string, T])[],
  b: readonly (readonly [string, T])[],
  noun: { one: string; many: string },
): PairAgreement | null {
  const others = new Map(b);
  const both = a.filter(([key]) => others.has(key));
  if (both.length === 0) return null;
  const share = trialByTrialAgreement(
    both.map(([, value]) => value),
    both.map(([key]) => others.get(key) as T),
  );
  return { share, basis: `${noun.one} by ${noun.one}, ${counted(both.length, noun.one, noun.many)} looked at by both` };
}

/** Shorter over longer for each cue, averaged; a response that only one of them saw is no agreement. */
function latencies(a: readonly (number | null)[], b: readonly (number | null)[]): PairAgreement | null {
  if (a.length !== b.length || a.length === 0) return null;
  const shares = a.map((time, i) => {
    const other = b[i] ?? null;
    if (time === null || other === null) return time === other ? 1 : 0;
    return totalCountAgreement(time, other);
  });
  return { share: mean(shares), basis: `cue by cue, ${counted(a.length, 'cue', 'cues')}` };
}

export interface AgreementOfGoal {
  pairs: number;
  /** Sessions that are counted, seen by one or by two. */
  sessions: number;
  /** 0 … 1: the mean of the pairs, the lowest and the highest. */
  mean: number;
  lowest: number;
  highest: number;
}

/** What the pairs of a goal come to; null while there is none. */
export function agreementOfGoal(shares: readonly number[], sessions: number): AgreementOfGoal | null {
  if (shares.length === 0) return null;
  const [lowest, highest] = [Math.min(...shares), Math.max(...shares)];
  return { pairs: shares.length, sessions, mean: mean(shares), lowest, highest };
}

/**
 * What the pairs of a goal come to, in a sentence beside what is usual.
 *
 * @example “3 of 12 sessions were seen by two (25%); they agree to 90% in the mean, from 80% to 100%. Usually …”
 */
export function agreementSentence({ pairs, sessions, mean: middle, lowest, highest }: AgreementOfGoal): string {
  const share = (part: number) => percent(100 * part);
  const seen = `${pairs} of ${counted(sessions, 'session was', 'sessions were')} seen by two (${share(Math.min(1, pairs / sessions))})`;
  const range = pairs === 1 ? '' : `, from ${share(lowest)} to ${share(highest)}`;
  const usual = `Usually at least ${share(USUAL_SHARE_OF_SESSIONS)} of the sessions are seen by two, who agree to at least ${share(USUAL_AGREEMENT)} (common practice).`;
  return `${seen}; they agree to ${share(middle)} in the mean${range}. ${usual}`;
}
