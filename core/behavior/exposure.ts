import { type IsoDate, weekday } from '../calendar/iso-date';
import type { Exposure } from './rates';

/**
 * What of the exposure is left under a filter, since a filter that cuts the incidents must cut it too. At one place: the parts of the day that
 * the timetable has there, on the days that have one. By one observer: nobody knows how long they watched, so there are counts and no rate.
 */
export function exposureUnder(
  { location, observer }: { location?: string | undefined; observer?: string | undefined },
  exposure: Exposure,
): Exposure {
  const unknown = { ...exposure, days: [], watched: [] };
  if (observer !== undefined) return unknown;
  if (location === undefined) return exposure;
  const timetable = exposure.timetable.filter((block) => block.location === location);
  if (timetable.length === 0) return unknown;
  const weekdays = new Set(timetable.map((block) => block.weekday));
  const days: IsoDate[] = exposure.days.filter((on) => weekdays.has(weekday(on)));
  return { days, timetable, watched: [] };
}
