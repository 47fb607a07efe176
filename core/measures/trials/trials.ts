import { z } from 'zod';
import { sum } from '../../statistics/spread';
import { capitalised, percent } from '../../words/counting';
import { refusal } from '../../words/refusal';
import { numberCell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import { type MeasureKind, shareOfChances } from '../measure-kind';
import { otherOutcomes } from '../measure-table';
import { keysOf, noun } from '../named';
import { shareCell } from '../one-cell';
import { asCount, type BreakdownLine, type Score } from '../score';
import {
  checkSupport,
  levelCounts,
  outcomeField,
  outcomesOf,
  successLevels,
  supportAllowed,
  supportFields,
  unsupportedOutcomes,
  unsupportedWords,
  usualLevels,
} from '../support-levels';

/** A goal measured by trials: its own ordered support levels, first the least help. */
export const trialsDefinition = z
  .object({
    kind: z.literal('trials'),
    ...supportFields,
    /** Whether a refusal is an opportunity that was not taken (usual) or no opportunity at all. */
    refusalIsOpportunity: z.boolean().default(true),
    /** How many opportunities a session is meant to hold, when the goal says. */
    planned: z.number().int().min(1).max(40).nullable().default(null),
    /** More than this in one session is taken for a slip. */
    mostTrials: z.number().int().min(1).max(100).default(40),
    /** What an opportunity is called in this goal's sentences. */
    opportunity: noun.default({ one: 'try', many: 'tries' }),
  })
  .superRefine(checkSupport);
export type TrialsDefinition = z.infer<typeof trialsDefinition>;

/** The outcome of each trial in order: a support level's key, or one of `unsupportedOutcomes`. */
export type TrialByTrial = { trials: string[] };

/** The same trials counted by outcome, where their order was not noted; the counts add up to the opportunities. */
export type CountedTrials = { counts: Record<string, number>; opportunities: number };

export type TrialsData = TrialByTrial | CountedTrials;

/** The schema of what one session of this goal may hold; a level that is not the goal's is refused. */
function trialsData(definition: TrialsDefinition): z.ZodType<TrialsData> {
  const { mostTrials, opportunity } = definition;
  const outcome = outcomeField(definition, unsupportedOutcomes);
  const tooMany = `At most ${mostTrials} ${opportunity.many} fit in one entry. Save this one and begin another.`;
  const nothing = `Mark at least one ${opportunity.one}, or say why there is no score.`;
  const inOrder = z.object({
    trials: z.array(outcome).min(1, { error: nothing }).max(mostTrials, { error: tooMany }),
  });
  const counted = z
    .object({
      counts: z.partialRecord(outcome, z.number().int().min(0, { error: 'A count cannot be below nothing.' })),
      opportunities: z.number().int().min(1, { error: nothing }).max(mostTrials, { error: tooMany }),
    })
    .superRefine(({ counts, opportunities }, context) => {
      const all = sum(Object.values(counts).map((n) => n ?? 0));
      if (all === opportunities) return;
      const message = `The counts add up to ${all}, and there were ${opportunities} ${opportunities === 1 ? opportunity.one : opportunity.many}.`;
      context.addIssue({ code: 'custom', message, path: ['counts'], input: counts });
    });
  // Told apart by what they hold, so that the message is that of the one meant.
  return z.unknown().transform((data, context): TrialsData => {
    const isCounted = typeof data === 'object' && data !== null && 'counts' in data;
    const parsed = isCounted
      ? counted.safeParse(data, { error: refusal })
      : inOrder.safeParse(data, { error: refusal });
    // What either of the two schemas gives is trials data; together their types say less than each.
    if (parsed.success) return parsed.data as TrialsData;
    for (const { message, path } of parsed.error.issues) {
      context.issues.push({ code: 'custom', message, path, input: data });
    }
    return z.NEVER;
  });
}

export interface TrialsShare {
  key: string;
  label: string;
  words: string;
  isSuccess: boolean;
  n: number;
  /** Share of the opportunities, 0 … 100. */
  share: number;
  /** Share with at most this much support, 0 … 100; null for what is no support level. */
  cumulative: number | null;
}

const countsOf = (data: TrialsData): ReadonlyMap<string, number> =>
  'trials' in data ? levelCounts(data.trials) : new Map(Object.entries(data.counts));

function poolTrials(_: TrialsDefinition, sessions: readonly [TrialsData, ...TrialsData[]]): TrialsData {
  const trials: string[] = [];
  // Every goal's every day goes through here: plain loops.
  for (const session of sessions) {
    if (!('trials' in session)) return poolCounts(sessions);
    for (const outcome of session.trials) trials.push(outcome);
  }
  return { trials };
}

function poolCounts(sessions: readonly TrialsData[]): CountedTrials {
  const counts: Record<string, number> = {};
  let opportunities = 0;
  for (const session of sessions) {
    for (const [key, n] of countsOf(session)) {
      counts[key] = (counts[key] ?? 0) + n;
      opportunities += n;
    }
  }
  return { counts, opportunities };
}

/**
 * Successes per hundred opportunities. No response is an opportunity; a refusal is one unless the goal says otherwise.
 *
 * @returns value 0 … 100, amount successes, weight opportunities; no value when no opportunity is left
 * @see docs/measures.md, “Trials”; common practice for prompt levels
 */
export function scoreTrials(definition: TrialsDefinition, data: TrialsData): Score {
  const succeeding = successLevels(definition);
  let successes = 0;
  let refused = 0;
  let total = 0;
  if ('trials' in data) {
    total = data.trials.length;
    for (const outcome of data.trials) {
      if (succeeding.has(outcome)) successes++;
      else if (outcome === 'refused') refused++;
    }
  } else {
    for (const [outcome, n] of Object.entries(data.counts)) {
      total += n;
      if (succeeding.has(outcome)) successes += n;
      else if (outcome === 'refused') refused += n;
    }
  }
  const opportunities = definition.refusalIsOpportunity ? total : total - refused;
  if (opportunities === 0) return { value: null, reason: total > 0 ? 'refused' : 'noOpportunity' };
  return { value: (100 * successes) / opportunities, amount: successes, weight: opportunities };
}

/**
 * How often each outcome came up, in the goal's order, those with none included.
 * The counts add up to the number of trials; the shares are of the opportunities.
 */
export function breakDownTrials(definition: TrialsDefinition, data: TrialsData): TrialsShare[] {
  const counts = countsOf(data);
  const total = sum([...counts.values()]);
  const opportunities = definition.refusalIsOpportunity ? total : total - (counts.get('refused') ?? 0);
  const share = (n: number) => (opportunities === 0 ? 0 : (100 * n) / opportunities);
  const successes = successLevels(definition);
  let atMost = 0;
  const levels = definition.levels.map(({ key, label, words }): TrialsShare => {
    const n = counts.get(key) ?? 0;
    atMost += n;
    return { key, label, words, isSuccess: successes.has(key), n, share: share(n), cumulative: share(atMost) };
  });
  const others = unsupportedOutcomes.map((key): TrialsShare => {
    const n = counts.get(key) ?? 0;
    const { label, words } = unsupportedWords[key];
    const isCounted = key !== 'refused' || definition.refusalIsOpportunity;
    return { key, label, words, isSuccess: false, n, share: isCounted ? share(n) : 0, cumulative: null };
  });
  return [...levels, ...others];
}

function trialsLines(definition: TrialsDefinition, data: TrialsData): BreakdownLine[] {
  return breakDownTrials(definition, data).map(({ key, label, n, share }) => ({
    key,
    label,
    value: n,
    said: `${n}, ${percent(share)}`,
  }));
}

/**
 * The session as the report says it.
 *
 * @example “3 of 4 ingredients with a gesture or less help (75%). Alone: 2. With a gesture: 1. Incorrect: 1.”
 */
export function trialsSentence(definition: TrialsDefinition, data: TrialsData): string {
  const score = scoreTrials(definition, data);
  const parts = breakDownTrials(definition, data).filter((part) => part.n > 0);
  const alone = definition.levels[0]?.key;
  const detail = parts
    .map(({ key, words, cumulative, n }) => {
      const isHelp = cumulative !== null && key !== alone;
      return ` ${isHelp ? `With ${words}` : capitalised(words)}: ${n}.`;
    })
    .join('');
  if (score.value === null) return detail.trim();
  // “5 of 5 places alone” says already that all were.
  const saysAll = definition.mostSupport === alone && parts.length === 1 && parts[0]?.key === alone;
  const { one, many } = definition.opportunity;
  const head = `${score.amount} of ${score.weight} ${score.weight === 1 ? one : many} ${supportAllowed(definition)}`;
  return `${head} (${percent(score.value)}).${saysAll ? '' : detail}`;
}

export const trials: MeasureKind<TrialsDefinition, TrialsData> = {
  question: 'How many go right',
  term: 'trials',
  example: '5 of 6 edges, alone or with a gesture',
  beginning: trialsDefinition.parse({ kind: 'trials', levels: usualLevels, mostSupport: 'independent', planned: 10 }),
  holds: (data): data is TrialsData => 'trials' in data || 'counts' in data,
  ...shareOfChances,
  data: trialsData,
  pool: poolTrials,
  score: scoreTrials,
  breakdown: trialsLines,
  sentence: trialsSentence,
  asCount: ({ planned }, value, comparison) =>
    planned === null ? null : `${asCount(value, planned, comparison)} of ${planned}`,
  opportunities: ({ planned }) => ({ planned, areIndependent: true }),
  weightNoun: ({ opportunity }) => opportunity,
  discreet: (definition) => ({ ...definition, opportunity: { one: 'try', many: 'tries' } }),
  defaultCriterion: () => usualCriterion('atLeast', 80),
  meaning: ({ levels, mostSupport, refusalIsOpportunity }) => [keysOf(levels), mostSupport, refusalIsOpportunity],
  table: {
    columns: ({ levels, opportunity }) => [
      ...[...levels, ...otherOutcomes].map(({ key, label }) => ({ key, label, example: '2' })),
      { key: 'opportunities', label: `Of ${opportunity.many}`, example: 'adds up' },
    ],
    read: ({ levels }, cells, take) => {
      const all = [...levels, ...otherOutcomes].map(({ key }) => key);
      const counts = Object.fromEntries(
        all.flatMap((key) => {
          const count = take(key, numberCell);
          return count === undefined || count === null ? [] : [[key, count]];
        }),
      );
      const said = cells.opportunities ? take('opportunities', numberCell) : null;
      return { counts, opportunities: said ?? sum(Object.values(counts)) };
    },
    columnOf: (_, path) => (path[0] === 'counts' && path[1] ? String(path[1]) : 'opportunities'),
    one: ({ levels, mostSupport, planned }, text, about) => {
      const read = shareCell(text, about, planned);
      if (!read.ok) return read;
      const { amount, of } = read.value;
      const level = about.help === 'least' ? levels[0]?.key : mostSupport;
      const right = amount > 0 && level ? { [level]: String(amount) } : {};
      // That so many went right says nothing of the help: the entry says so too.
      const isTold = amount === 0 || successLevels({ levels, mostSupport }).size === 1;
      const note = `From a file: “${text}”, without how much help it took.`;
      return {
        ok: true,
        value: { ...right, ...(of > amount && { incorrect: String(of - amount) }), ...(!isTold && { note }) },
      };
    },
  },
  agreement: (definition, a, b) => {
    if ('trials' in a && 'trials' in b) {
      const most = Math.max(a.trials.length, b.trials.length);
      const same = a.trials.filter((outcome, i) => outcome === b.trials[i]).length;
      // A trial that only one of them noted is a disagreement.
      return { share: same / most, basis: `trial by trial, ${most} of them` };
    }
    const [first, second] = [countsOf(a), countsOf(b)];
    const keys = outcomesOf(definition).map(({ key }) => key);
    const same = sum(keys.map((key) => Math.min(first.get(key) ?? 0, second.get(key) ?? 0)));
    const most = Math.max(sum([...first.values()]), sum([...second.values()]));
    return most === 0 ? null : { share: same / most, basis: `outcome by outcome, ${most} of them: at best` };
  },
};
