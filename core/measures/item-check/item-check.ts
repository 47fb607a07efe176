import { z } from 'zod';
import type { IsoDate } from '../../calendar/iso-date';
import { capitalised, listed, percent } from '../../words/counting';
import { commonAgreement } from '../agreement/pair';
import { choiceCell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import { type MeasureKind, shareOfChances } from '../measure-kind';
import { filled, markExample, marks, otherOutcomes } from '../measure-table';
import { hasDistinctKeys, keysOf, labelOf, named, noun, oneOf, unnamed } from '../named';
import { signsCell } from '../one-cell';
import { asCount, type BreakdownLine, type Score } from '../score';
import {
  checkSupport,
  outcomeField,
  outcomesOf,
  successLevels,
  supportAllowed,
  supportFields,
  unsupportedOutcomes,
  unsupportedWords,
} from '../support-levels';

/** A goal measured item by item: words, facts, question types. Where help is not noted there is one level, “right”. */
export const itemCheckDefinition = z
  .object({
    kind: z.literal('itemCheck'),
    items: z.array(named).min(1).max(60).refine(hasDistinctKeys, { error: 'Two items have the same key.' }),
    levels: supportFields.levels.default([{ key: 'right', label: 'Right', words: 'right' }]),
    mostSupport: supportFields.mostSupport.default('right'),
    item: noun.default({ one: 'item', many: 'items' }),
    /** Whether every item is to be asked: before one is left open, it is asked about. */
    requiresAll: z.boolean().default(false),
  })
  .superRefine(checkSupport);
export type ItemCheckDefinition = z.infer<typeof itemCheckDefinition>;

/** Each item that was asked, with its outcome: a support level's key, or one of `unsupportedOutcomes`. */
export type ItemCheckData = { items: { item: string; outcome: string }[] };

function itemCheckData(definition: ItemCheckDefinition): z.ZodType<ItemCheckData> {
  const { one, many } = definition.item;
  return z.object({
    items: z
      .array(
        z.object({
          item: oneOf(definition.items, `This is not one of the goal’s ${many}.`),
          outcome: outcomeField(definition, unsupportedOutcomes),
        }),
      )
      .min(1, { error: `Mark at least one ${one}, or say why there is no score.` })
      .max(200, { error: `At most 200 ${many} fit in one entry.` })
      .superRefine((items, context) => {
        const twice = items.find(({ item }, i) => items.findIndex((other) => other.item === item) < i);
        if (!twice) return;
        const message = `“${labelOf(definition.items, twice.item)}” is marked twice in one entry.`;
        context.addIssue({ code: 'custom', message, input: items });
      }),
  });
}

/**
 * The share of the items asked that were right, or at a support level that counts. An item that was not asked is blank.
 *
 * @returns value 0 … 100, amount items right, weight items asked
 */
export function scoreItemCheck(definition: ItemCheckDefinition, { items }: ItemCheckData): Score {
  if (items.length === 0) return { value: null, reason: 'noOpportunity' };
  const right = successLevels(definition);
  const successes = items.filter(({ outcome }) => right.has(outcome)).length;
  return { value: (100 * successes) / items.length, amount: successes, weight: items.length };
}

/** The items that were not asked, by name. */
export const openItems = (definition: ItemCheckDefinition, { items }: ItemCheckData): string[] =>
  definition.items.filter(({ key }) => !items.some(({ item }) => item === key)).map(({ label }) => label);

function itemLines(definition: ItemCheckDefinition, data: ItemCheckData): BreakdownLine[] {
  const right = successLevels(definition);
  const words = new Map(outcomesOf(definition).map((outcome) => [outcome.key, outcome.words]));
  return definition.items.map(({ key, label }) => {
    const asked = data.items.filter(({ item }) => item === key);
    return {
      key,
      label,
      value: asked.length === 0 ? null : asked.filter(({ outcome }) => right.has(outcome)).length,
      said: asked.length === 0 ? 'not asked' : asked.map(({ outcome }) => words.get(outcome) ?? outcome).join(', '),
    };
  });
}

/** So many that were not asked are named; more are counted. */
const MOST_NAMED = 5;

/**
 * The session as the report says it: where help is noted, what help each item took; and what was not asked, which is not the same as
 * incorrect.
 *
 * @example “2 of 4 ingredients with a prompt or less help (50%). Alone: flour. With a prompt: bowl. Refused: oven. Not asked: salt.”
 * @example “7 of 9 words right (78%). Incorrect: their, said.”
 */
export function itemCheckSentence(definition: ItemCheckDefinition, data: ItemCheckData): string {
  const score = scoreItemCheck(definition, data);
  if (score.value === null) return `No ${definition.item.one} was asked.`;
  const { one, many } = definition.item;
  const head = `${score.amount} of ${score.weight} ${score.weight === 1 ? one : many} ${supportAllowed(definition)} (${percent(score.value)}).`;
  const named = (label: string, keys: readonly string[]) => {
    const names = definition.items.filter(({ key }) => keys.includes(key)).map(({ label: name }) => name);
    return names.length === 0 ? '' : ` ${label}: ${listed(names)}.`;
  };
  const those = (key: string) => data.items.filter(({ outcome }) => outcome === key).map(({ item }) => item);
  // Where only right or wrong is noted, what was right need not be told.
  const helped =
    definition.levels.length === 1
      ? []
      : definition.levels.map(({ key, words }, i) => named(i === 0 ? capitalised(words) : `With ${words}`, those(key)));
  const others = unsupportedOutcomes.map((key) => named(unsupportedWords[key].label, those(key)));
  const asked = new Set(data.items.map(({ item }) => item));
  const notAsked = definition.items.map(({ key }) => key).filter((key) => !asked.has(key));
  const blank = notAsked.length > MOST_NAMED ? ` Not asked: ${notAsked.length} ${many}.` : named('Not asked', notAsked);
  return [head, ...helped, ...others, blank].join('');
}

/** How an item stands over time. `coming`: right at times, or not often enough to say. */
export type ItemState = 'known' | 'coming' | 'missed' | 'notAsked';

export interface ItemHistory {
  key: string;
  label: string;
  asked: number;
  right: number;
  state: ItemState;
  /** Whether it was asked and has not once been right. */
  neverKnown: boolean;
  /** The last date on which it was right. */
  lastRight: IsoDate | null;
}

/** So many times right in a row, the last ones, make an item known; so many times wrong, missed (our own convention). */
const TIMES_IN_A_ROW = 2;

/**
 * Each item over all sessions: *known* when right the last two times it was asked, *missed* when wrong the last two times,
 * else *coming*.
 *
 * @param sessions  in order of date and time
 */
export function itemHistory(
  definition: ItemCheckDefinition,
  sessions: readonly { on: IsoDate; data: ItemCheckData }[],
): ItemHistory[] {
  const right = successLevels(definition);
  const times = new Map<string, { on: IsoDate; isRight: boolean }[]>(definition.items.map(({ key }) => [key, []]));
  for (const { on, data } of sessions) {
    for (const { item, outcome } of data.items) times.get(item)?.push({ on, isRight: right.has(outcome) });
  }
  return definition.items.map(({ key, label }) => {
    const asked = times.get(key) ?? [];
    const known = asked.filter(({ isRight }) => isRight);
    const last = asked.slice(-TIMES_IN_A_ROW);
    const allSame = (isRight: boolean) => last.length === TIMES_IN_A_ROW && last.every((t) => t.isRight === isRight);
    const state = asked.length === 0 ? 'notAsked' : allSame(true) ? 'known' : allSame(false) ? 'missed' : 'coming';
    return {
      key,
      label,
      asked: asked.length,
      right: known.length,
      state,
      neverKnown: asked.length > 0 && known.length === 0,
      lastRight: known.at(-1)?.on ?? null,
    };
  });
}

export const itemCheck: MeasureKind<ItemCheckDefinition, ItemCheckData> = {
  question: 'Which ones',
  term: 'item check',
  example: 'six words: flour and bowl, not yet oven',
  beginning: itemCheckDefinition.parse({
    kind: 'itemCheck',
    items: [{ key: 'item1', label: 'First word' }],
    item: { one: 'word', many: 'words' },
  }),
  holds: (data): data is ItemCheckData => 'items' in data,
  ...shareOfChances,
  data: itemCheckData,
  pool: (_, sessions) => ({ items: sessions.flatMap((session) => session.items) }),
  score: scoreItemCheck,
  required: (definition, data) => (definition.requiresAll ? openItems(definition, data) : []),
  breakdown: itemLines,
  sentence: itemCheckSentence,
  asCount: (definition, value, comparison) =>
    `${asCount(value, definition.items.length, comparison)} of ${definition.items.length}`,
  opportunities: ({ items }) => ({ planned: items.length, areIndependent: true }),
  usualMinimum: ({ items }) => items.length,
  weightNoun: ({ item }) => item,
  discreet: (definition) => ({
    ...definition,
    items: unnamed(definition.items, 'Item'),
    item: { one: 'item', many: 'items' },
  }),
  defaultCriterion: () => usualCriterion('atLeast', 80),
  // Another list of items is still a share of items: those that stay carry on.
  scale: ({ levels, mostSupport }) => [keysOf(levels), mostSupport],
  meaning: (definition) => [keysOf(definition.items), keysOf(definition.levels), definition.mostSupport],
  table: {
    columns: (definition) =>
      definition.items.map(({ key, label }) => ({ key, label, example: markExample(definition.levels) })),
    read: (definition, cells, take) => ({
      items: filled(definition.items, cells, ({ key }) => {
        const choices = [...definition.levels, ...otherOutcomes];
        const outcome = take(key, (text) => choiceCell(text, choices, marks(definition.levels, 'incorrect')));
        return outcome === undefined ? undefined : { item: key, outcome };
      }),
    }),
    one: ({ items, item }, text) => signsCell(text, items, item.one),
  },
  agreement: ({ item: noun }, a, b) => {
    const outcomes = ({ items }: ItemCheckData) => items.map(({ item, outcome }) => [item, outcome] as const);
    return commonAgreement(outcomes(a), outcomes(b), noun);
  },
};
