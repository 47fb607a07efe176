import { z } from 'zod';
import { type ReaderKind, readerKinds } from './reader-kind';

/** What a report may show besides the date and the name of the goal. */
export const reportFields = [
  'numbers',
  'breakdown',
  'note',
  'observer',
  'location',
  'abc',
  'function',
  'intensity',
  'forms',
  'pictures',
] as const;
export type ReportField = (typeof reportFields)[number];

export const fieldWords: Record<ReportField, { label: string; about: string }> = {
  numbers: { label: 'Numbers', about: '“3 of 4 (75%)”' },
  breakdown: { label: 'Breakdown', about: 'how much help, which items, trial marks' },
  note: { label: 'Note', about: 'the words beside an entry' },
  observer: { label: 'Observer', about: 'who observed' },
  location: { label: 'Location', about: 'where it was' },
  abc: { label: 'Behavior', about: 'incidents (ABC) and counts' },
  function: { label: 'Function', about: 'what a behavior may have been for' },
  intensity: { label: 'Intensity', about: 'how strong an incident was' },
  forms: { label: 'Forms', about: 'answers to forms; texts only with Note' },
  pictures: { label: 'Pictures', about: 'photographs and files' },
};

/** A field that makes no sense without another. */
const needs: Partial<Record<ReportField, ReportField>> = { breakdown: 'numbers', function: 'abc', intensity: 'abc' };

export const layouts = ['sentences', 'table', 'cards'] as const;
export type Layout = (typeof layouts)[number];
export const groupings = ['week', 'goal', 'none'] as const;
export type Grouping = (typeof groupings)[number];

/** How a report is laid out; a reader may choose another way for themselves. */
export interface Arrangement {
  layout: Layout;
  grouping: Grouping;
  oldestFirst: boolean;
}

export interface VisibilityRule extends Arrangement {
  kind: ReaderKind;
  shows: ReportField[];
}

export type Shows = ReadonlySet<ReportField>;

/** Everything: for whoever works with the entries. */
export const everything: Shows = new Set(reportFields);

/** What a rule comes to: a field without the one it needs is not shown. */
export function shownFields(fields: readonly ReportField[]): Shows {
  const chosen = new Set(fields);
  return new Set(fields.filter((field) => needs[field] === undefined || chosen.has(needs[field] as ReportField)));
}

const usual: Arrangement = { layout: 'sentences', grouping: 'week', oldestFirst: false };

/**
 * The rules before a school has made its own: careful. Families and the student get numbers and their breakdown, which are
 * about what went well; notes, names of adults and behavior only when somebody decides so.
 */
export const carefulRules: Record<ReaderKind, VisibilityRule> = {
  team: { kind: 'team', shows: [...reportFields], ...usual },
  family: { kind: 'family', shows: ['numbers', 'breakdown'], ...usual },
  student: { kind: 'student', shows: ['numbers', 'breakdown'], ...usual, layout: 'cards' },
  specialist: { kind: 'specialist', shows: ['numbers', 'breakdown', 'location'], ...usual, layout: 'table' },
};

/**
 * The rule that holds for each kind of reader: the student's own, else the school's, else the careful one.
 *
 * @param own  the student's
 * @param school  the school's
 */
export function rulesFrom(
  own: readonly VisibilityRule[],
  school: readonly VisibilityRule[],
): Record<ReaderKind, VisibilityRule> {
  const ruleOf = (kind: ReaderKind) =>
    own.find((rule) => rule.kind === kind) ?? school.find((rule) => rule.kind === kind) ?? carefulRules[kind];
  // Every kind has its pair: `fromEntries` only knows that keys are texts.
  return Object.fromEntries(readerKinds.map((kind) => [kind, ruleOf(kind)])) as Record<ReaderKind, VisibilityRule>;
}

/** How a reader arranges the report for themselves, as it stands in an address. */
export const arrangementInAddress = z.object({
  as: z.enum(layouts).optional().catch(undefined),
  by: z.enum(groupings).optional().catch(undefined),
  order: z.enum(['newest', 'oldest']).optional().catch(undefined),
});

/** The rule's arrangement with what the reader chose in its place. */
export function arranged(rule: Arrangement, chosen: z.infer<typeof arrangementInAddress>): Arrangement {
  return {
    layout: chosen.as ?? rule.layout,
    grouping: chosen.by ?? rule.grouping,
    oldestFirst: chosen.order ? chosen.order === 'oldest' : rule.oldestFirst,
  };
}

const ruleField = z.object({
  shows: z.array(z.enum(reportFields)).default([]),
  layout: z.enum(layouts),
  grouping: z.enum(groupings),
  oldestFirst: z
    .boolean()
    .optional()
    .transform((value) => value === true),
});

/** The whole table as its form sends it. */
export const visibilityInput = z.object({
  team: ruleField,
  family: ruleField,
  student: ruleField,
  specialist: ruleField,
});
export type VisibilityInput = z.infer<typeof visibilityInput>;
