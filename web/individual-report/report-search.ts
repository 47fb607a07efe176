import { z } from 'zod';
import { isoDateField } from '~/core/calendar/date-fields';
import { type Arrangement, arranged, arrangementInAddress } from '~/core/sharing/visibility-rule';
import type { ReportWanted } from '~/server/individual-report/individual-report';
import { BEHAVIOR } from './goal-filter';

/** On the page’s address in place of a number: every entry on one page, for paper. */
export const ALL = 'all';

const asked = z.object({
  goal: z.string().catch('').default(''),
  find: z.string().max(200).catch('').default(''),
  day: isoDateField.nullable().catch(null).default(null),
  from: isoDateField.nullable().catch(null).default(null),
  to: isoDateField.nullable().catch(null).default(null),
  page: z
    .union([z.literal(ALL), z.coerce.number().int().min(1).max(100_000)])
    .catch(1)
    .default(1),
});

/**
 * What the address of a report asks for, and how it is to be laid out.
 *
 * @param rule  how this kind of reader gets it unless they choose
 * @param chosen  what this device chose before
 */
export function reportSearch(
  search: URLSearchParams,
  goals: readonly { id: string }[],
  rule: Arrangement,
  chosen: Partial<Record<'as' | 'by' | 'order', string>>,
): {
  wanted: ReportWanted;
  arrangement: Arrangement;
  find: string;
  goal: string | null;
  isAll: boolean;
  from: string | null;
  to: string | null;
} {
  const { goal, find, day, page, from, to } = asked.parse(Object.fromEntries(search));
  const arrangement = arranged(rule, arrangementInAddress.parse({ ...chosen, ...Object.fromEntries(search) }));
  const goalId = goals.find(({ id }) => id === goal)?.id;
  const only = goal === BEHAVIOR ? BEHAVIOR : goalId ? { goalId } : null;
  return {
    wanted: { only, find, day, page, from, to, oldestFirst: arrangement.oldestFirst },
    ...{ from, to },
    arrangement,
    find,
    goal: goal === BEHAVIOR ? BEHAVIOR : (goalId ?? null),
    isAll: page === ALL,
  };
}
