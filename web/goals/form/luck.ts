import { z } from 'zod';
import { isoDateField } from '~/core/calendar/date-fields';
import { countSchoolDays } from '~/core/calendar/school-days';
import { luckOf, luckSentences, observationDays } from '~/core/progress/luck';
import { readValue } from '../../platform/ui/read-form';

const WEEKDAYS = { weekdays: [1, 2, 3, 4, 5], closures: [] };
const planned = z.object({
  from: isoDateField,
  to: isoDateField,
  gap: z.number().int().min(1).nullable().default(null),
});

/**
 * How easily luck would meet a criterion, said while it is written: of the form as it stands. Closed days are not known here, so the days
 * are Monday to Friday.
 *
 * @param form  what the fields hold
 * @returns nothing while something is missing, or where it cannot be told
 */
export function luckWhile(
  goal: Parameters<typeof luckSentences>[1],
  form: { from: string | undefined; to: string | undefined; gap: string | undefined },
): string[] {
  const read = readValue(form, planned);
  if (!read || read.to <= read.from) return [];
  const luck = luckOf(goal, observationDays(countSchoolDays(read.from, read.to, WEEKDAYS), read.gap));
  return luck ? luckSentences(luck, goal) : [];
}
