import { compareRates, timesAsMany } from '../behavior/rates';
import type { IsoDate } from '../calendar/iso-date';
import { countSchoolDays, type SchoolCalendar } from '../calendar/school-days';
import { counted, rateFigure } from '../words/counting';

interface BriefIncident {
  on: IsoDate;
  behaviors: readonly string[];
}

interface Stretch {
  from: IsoDate;
  to: IsoDate;
}

/**
 * Behavior in brief for a progress report: each behavior that was recorded, how often per school day, and against the period
 * before where both can be compared.
 *
 * @param incidents  those that count, any order
 * @param before  the period before; null for the first
 * @param since  the day of the first incident or count: before it nothing can be said
 */
export function behaviorBrief(
  incidents: readonly BriefIncident[],
  period: Stretch,
  before: Stretch | null,
  { calendar, since, today }: { calendar: SchoolCalendar; since: IsoDate | null; today: IsoDate },
): string[] {
  if (since === null || since > period.to) return [];
  const within = ({ from, to }: Stretch) => incidents.filter(({ on }) => on >= from && on <= to);
  const daysIn = ({ from, to }: Stretch) => {
    const first = from < since ? since : from;
    const last = to < today ? to : today;
    return first > last ? 0 : countSchoolDays(first, last, calendar);
  };
  const days = daysIn(period);
  const daysBefore = before ? daysIn(before) : 0;
  const [now, then] = [within(period), before ? within(before) : []];
  const names = [...new Set(incidents.flatMap(({ behaviors }) => behaviors))];
  const times = (list: readonly BriefIncident[], name: string) =>
    list.filter(({ behaviors }) => behaviors.includes(name)).length;
  return names
    .map((name) => ({ name, n: times(now, name), before: times(then, name) }))
    .filter(({ n, before: earlier }) => n + earlier > 0)
    .sort((a, b) => b.n - a.n)
    .map(({ name, n, before: earlier }) => {
      const rate = days === 0 ? '' : ` in ${counted(days, 'school day', 'school days')}, ${rateFigure(n / days)} a day`;
      const against =
        days > 0 && daysBefore > 0
          ? timesAsMany(compareRates({ n: earlier, exposure: daysBefore }, { n, exposure: days }), 'a school day')
          : null;
      return `${name}: ${n === 0 ? 'none' : counted(n, 'time', 'times')}${rate}.${against ? ` Against the period before, ${against}.` : ''}`;
    });
}
