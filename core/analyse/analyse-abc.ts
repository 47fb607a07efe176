import { analyseBehavior, type BehaviorAnalysis } from '../behavior/analysis';
import { byQuarterHour } from '../behavior/when';
import type { IsoDate } from '../calendar/iso-date';
import { type SchoolCalendar, schoolDays } from '../calendar/school-days';
import type { Timetable } from '../calendar/timetable';
import { defined } from '../defined';
import type { Incident, WatchedStretch } from '../entries/incidents/incident';

export interface AbcFileAnalysis extends Omit<BehaviorAnalysis, 'incidents'> {
  /** How many incidents: the file calls them notes, and so does what is printed of it (docs/analyse.md). */
  notes: number;
  from: IsoDate;
  to: IsoDate;
  /** From the first date to the last. */
  schoolDays: number;
  quarterHours: ReturnType<typeof byQuarterHour>;
}

/** The stretch of dates in which an incident could have been made; a bound is that of the incidents where it is null. */
export interface AbcRange {
  from: IsoDate | null;
  to: IsoDate | null;
  /** Stretches without school in it. */
  closures?: SchoolCalendar['closures'];
  /** Stretches in which the student was away. */
  absences?: SchoolCalendar['closures'];
  /** Where there is one, parts of the day have hours. */
  timetable?: Timetable;
  /** Observation windows, those without an occurrence too. */
  watched?: readonly WatchedStretch[];
}

/**
 * ABC incidents from a file, analysed. School days are Monday to Friday, less the closures and absences that are given. Without a
 * timetable there are no hours, so rates are per school day only.
 *
 * @param incidents  at least one, in any order
 */
export function analyseAbc(incidents: readonly Incident[], range: AbcRange): AbcFileAnalysis {
  const dates = incidents.map((incident) => incident.on).sort();
  const from = range.from ?? defined(dates[0]);
  const to = range.to ?? defined(dates.at(-1));
  const days = schoolDays(from, to, {
    weekdays: [1, 2, 3, 4, 5],
    closures: [...(range.closures ?? []), ...(range.absences ?? [])],
  });
  const { incidents: notes, ...analysis } = analyseBehavior(incidents, {
    days,
    timetable: range.timetable ?? [],
    watched: (range.watched ?? []).filter(({ on }) => from <= on && on <= to),
  });
  return {
    notes,
    from,
    to,
    schoolDays: days.length,
    ...analysis,
    quarterHours: byQuarterHour(incidents),
  };
}
