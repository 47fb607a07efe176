import { z } from 'zod';
import { addDays, type IsoDate } from '../../calendar/iso-date';
import { countSchoolDays, type SchoolCalendar } from '../../calendar/school-days';
import { defined } from '../../defined';
import { changeFigure, counted, figure, percent } from '../../words/counting';
import { totalAgreement } from '../agreement/pair';
import { choiceCell, numberCell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import { type MeasureKind, percentAxis } from '../measure-kind';
import { hasDistinctKeys, labelOf, named, noun, oneOf, unnamed } from '../named';
import { asCount, type BreakdownLine, type Score } from '../score';

/** A goal measured by how much altogether: hours, pages, pieces. */
export const cumulativeTotalDefinition = z.object({
  kind: z.literal('cumulativeTotal'),
  unit: noun,
  /** What it should come to altogether, in the unit. */
  total: z.number().positive(),
  /** Whether amounts are only added, or may be taken off too: then the total is a balance. */
  amounts: z.enum(['added', 'balance']).default('added'),
  /** What the amounts are told apart by, when the goal does. */
  categories: z
    .array(named)
    .max(20)
    .refine(hasDistinctKeys, { error: 'Two categories have the same key.' })
    .default([]),
});
export type CumulativeTotalDefinition = z.infer<typeof cumulativeTotalDefinition>;

/**
 * The amounts of one session. An amount of 0 says that there was time for it and nothing was done; one below 0, in a balance, that it was
 * taken off. A title says what an amount was for, in words of one's own; it reads as a note.
 */
export type CumulativeTotalData = {
  amounts: { amount: number; category: string | null; title?: string | undefined }[];
};

const MOST = 1_000_000;

function cumulativeTotalData({
  unit,
  categories,
  amounts: kind,
}: CumulativeTotalDefinition): z.ZodType<CumulativeTotalData> {
  const category = z.string().nullable();
  return z.object({
    amounts: z
      .array(
        z.object({
          amount: z
            .number({ error: `Say how many ${unit.many}.` })
            .min(kind === 'balance' ? -MOST : 0, {
              error: 'An amount cannot be below nothing; correct the entry that was too much.',
            })
            .max(MOST, { error: `That is more than ${MOST.toLocaleString('en-US')} ${unit.many} in one entry.` }),
          category:
            categories.length === 0
              ? category.refine((key) => key === null, { error: 'This goal has no categories.' })
              : oneOf(categories, 'This is not one of the goal’s categories.').nullable(),
          title: z.string().trim().max(80, { error: 'A title has at most 80 characters.' }).optional(),
        }),
      )
      .min(1, { error: `Say how many ${unit.many}, or say why there is no score.` })
      .max(100, { error: 'At most 100 amounts fit in one entry.' }),
  });
}

const sumOf = ({ amounts }: CumulativeTotalData) => amounts.reduce((sum, { amount }) => sum + amount, 0);

/**
 * What the amounts come to, in percent of the whole. A point of the series holds all amounts up to its date.
 *
 * @returns value in percent, above 100 where more was done; amount in the unit, weight the number of amounts
 */
export function scoreCumulativeTotal({ total }: CumulativeTotalDefinition, data: CumulativeTotalData): Score {
  if (data.amounts.length === 0) return { value: null, reason: 'noOpportunity' };
  const amount = sumOf(data);
  return { value: (100 * amount) / total, amount, weight: data.amounts.length };
}

/** An amount in the goal’s unit: “3.5 hours”. */
export const amountSaid = (amount: number, { one, many }: CumulativeTotalDefinition['unit']) =>
  `${figure(amount)} ${amount === 1 ? one : many}`;

/** Units of which halves are done as well. */
const HALVED = /^(hour|mile|kilomet(er|re)|cup|page)s?$/i;

/**
 * The amounts that are one tap away: as large as such an amount usually is, about a fortieth of the whole.
 *
 * @returns three amounts in the unit; of a balance, the last is taken off
 * @example of 40 hours: 0.5, 1, 2; of 60 trays: 1, 2, 5; of 1,000 words: 20, 50, 100
 */
export function quickAmounts({ unit, total, amounts }: CumulativeTotalDefinition): number[] {
  const usual = total / 40;
  // 1, 2 and 5 in each power of ten are the steps that scales are divided by.
  const steps = [0.5, ...[1, 10, 100, 1000, 10_000].flatMap((ten) => [ten, 2 * ten, 5 * ten])];
  const from = HALVED.test(unit.one) ? 0 : 1;
  const at = Math.max(
    from,
    Math.min(
      steps.length - 3,
      steps.findLastIndex((step) => step <= usual),
    ),
  );
  const quick = steps.slice(at, at + 3);
  return amounts === 'balance' ? [...quick.slice(0, 2), -defined(quick[0])] : quick;
}

/** How much and how often, by category; what has none comes last. */
function amountLines(
  { categories, unit }: CumulativeTotalDefinition,
  { amounts }: CumulativeTotalData,
): BreakdownLine[] {
  const lines = [...categories, { key: '', label: categories.length === 0 ? 'Altogether' : 'Other' }];
  return lines.flatMap(({ key, label }): BreakdownLine[] => {
    const own = amounts.filter(({ category }) => (category ?? '') === key);
    if (own.length === 0 && key === '' && categories.length > 0) return [];
    const sum = own.reduce((total, { amount }) => total + amount, 0);
    return [{ key, label, value: own.length === 0 ? null : sum, said: `${amountSaid(sum, unit)} in ${own.length}` }];
  });
}

/**
 * Today’s amount and the sum so far.
 *
 * @param soFar  everything up to and with this session; null where it is not known
 * @example “Garden 2.5 hours, Kitchen 1 hour. Today 3.5; so far 14 of 40 hours (35%).”
 * @example “3 trays, 14 of 60 so far (23%).”
 */
export function cumulativeTotalSentence(
  { unit, total, categories }: CumulativeTotalDefinition,
  data: CumulativeTotalData,
  soFar?: number | null,
): string {
  const sum = sumOf(data);
  const parts = data.amounts.flatMap(({ amount, category }) =>
    category === null ? [] : [`${labelOf(categories, category)} ${amountSaid(amount, unit)}`],
  );
  if (soFar == null) return parts.length === 0 ? `${amountSaid(sum, unit)}.` : `${parts.join(', ')}.`;
  const share = percent((100 * soFar) / total);
  if (parts.length === 0) return `${amountSaid(sum, unit)}, ${figure(soFar)} of ${figure(total)} so far (${share}).`;
  const today = data.amounts.length === 1 ? 'So far' : `That day ${figure(sum)}; so far`;
  return `${parts.join(', ')}. ${today} ${figure(soFar)} of ${amountSaid(total, unit)} (${share}).`;
}

/**
 * What is missing of a cumulative total, shared out over the school days that are left.
 *
 * @param share  where it stands, in percent of the whole
 * @param targetOn  the last day that counts
 * @returns null when it is reached, and when no school day is left
 * @example “0.3 hours a school day needed; 120 school days are left”
 */
export function neededSentence(
  { total, unit }: CumulativeTotalDefinition,
  share: number,
  { targetOn, today, calendar }: { targetOn: IsoDate; today: IsoDate; calendar: SchoolCalendar },
): string | null {
  const left = countSchoolDays(addDays(today, 1), targetOn, calendar);
  const missing = total - (share * total) / 100;
  if (left === 0 || missing <= 0) return null;
  const days = counted(left, 'school day is', 'school days are');
  return `${changeFigure(missing / left)} ${unit.many} a school day needed; ${days} left`;
}

export const cumulativeTotal: MeasureKind<CumulativeTotalDefinition, CumulativeTotalData> = {
  question: 'How much altogether',
  term: 'cumulative total',
  example: '18 of 40 hours in the garden',
  beginning: cumulativeTotalDefinition.parse({
    kind: 'cumulativeTotal',
    unit: { one: 'hour', many: 'hours' },
    total: 40,
  }),
  holds: (data): data is CumulativeTotalData => 'amounts' in data,
  data: cumulativeTotalData,
  pool: (_, sessions) => ({ amounts: sessions.flatMap((session) => session.amounts) }),
  accumulates: true,
  isShare: false,
  score: scoreCumulativeTotal,
  breakdown: amountLines,
  sentence: cumulativeTotalSentence,
  said: (_, value) => percent(value),
  basis: ({ unit, total }, { amount }) => `${figure(amount)} of ${amountSaid(total, unit)}`,
  asCount: ({ unit, total }, value, comparison) =>
    Number.isInteger(total)
      ? `${asCount(value, total, comparison)} of ${amountSaid(total, unit)}`
      : `${figure((value * total) / 100)} of ${amountSaid(total, unit)}`,
  weightNoun: () => ({ one: 'entry', many: 'entries' }),
  axis: () => ({ ...percentAxis, max: null }),
  discreet: (definition) => ({
    ...definition,
    unit: { one: 'unit', many: 'units' },
    categories: unnamed(definition.categories, 'Category'),
  }),
  defaultCriterion: () => ({ ...usualCriterion('atLeast', 100), rule: { kind: 'inARow', n: 1 } }),
  meaning: ({ unit }) => [unit.one],
  table: {
    columns: ({ unit, categories }) => [
      { key: 'amount', label: unit.many, example: '1.5' },
      ...(categories.length > 0 ? [{ key: 'category', label: 'Of', example: categories[0]?.label ?? '' }] : []),
      { key: 'title', label: 'Title', example: '' },
    ],
    read: ({ categories }, cells, take) => {
      const category = cells.category ? take('category', (text) => choiceCell(text, categories)) : null;
      const { title } = cells;
      return { amounts: [{ amount: take('amount', numberCell) ?? undefined, category, ...(title && { title }) }] };
    },
    columnOf: (_, path) => ['category', 'title'].find((key) => key === path.at(-1)) ?? 'amount',
  },
  agreement: (_, a, b) => totalAgreement(sumOf(a), sumOf(b), 'the amounts'),
};
