import { addDays, type IsoDate } from './iso-date';

export interface ReportingPeriod {
  label: string;
  first: IsoDate;
  last: IsoDate;
}

/**
 * The reporting periods of a plan, one after the other without a gap: the first begins with the plan, each next one on the
 * day after the last ended. What would end before it begins, or begin after the plan has ended, is left out; the last
 * period does not go beyond the plan.
 *
 * @param ends  the periods' labels and last days, in any order; what else is known of them comes along
 * @see 34 CFR 300.320(a)(3): periodic reports on the progress towards the annual goals
 */
export function reportingPeriods<Known extends object>(
  plan: { startsOn: IsoDate; endsOn: IsoDate },
  ends: readonly (Known & { label: string; endsOn: IsoDate })[],
): (Omit<Known, 'endsOn'> & ReportingPeriod)[] {
  const periods: (Omit<Known, 'endsOn'> & ReportingPeriod)[] = [];
  for (const { endsOn, ...known } of ends.toSorted((a, b) => a.endsOn.localeCompare(b.endsOn))) {
    const before = periods.at(-1);
    const first = before ? addDays(before.last, 1) : plan.startsOn;
    // Two go in, two come out.
    const [last] = [endsOn, plan.endsOn].sort() as [IsoDate, IsoDate];
    if (first <= last) periods.push({ ...known, first, last });
  }
  return periods;
}

/** The period a date lies in; null outside of all. */
export function periodAt<Period extends ReportingPeriod>(periods: readonly Period[], on: IsoDate): Period | null {
  return periods.find(({ first, last }) => first <= on && on <= last) ?? null;
}

/**
 * The period that is to be reported now: the last one that has ended, until a report was issued for it; then the one that is going
 * on. Common practice: a report goes out in the days after its period.
 *
 * @param issued  the last days of the periods for which a report was issued
 * @returns null when there is no period, or none has begun
 */
export function periodToReport<Period extends ReportingPeriod>(
  periods: readonly Period[],
  today: IsoDate,
  issued: readonly IsoDate[],
): Period | null {
  const ended = periods.findLast(({ last }) => last < today);
  if (ended && !issued.includes(ended.last)) return ended;
  return periodAt(periods, today) ?? ended ?? null;
}
