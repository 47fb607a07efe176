import { analyseBehavior, type BehaviorAnalysis } from '../behavior/analysis';
import { byQuarterHour } from '../behavior/when';
import type { IsoDate } from '../calendar/iso-date';
import { type SchoolCalendar, schoolDays } from '../calendar/school-days';
import { defined } from '../defined';
import type { Incident } from '../entries/incidents/incident';

export interface AbcFileAnalysis extends BehaviorAnalysis {
  from: IsoDate;
  to: IsoDate;
  /** From the first date to the last. */
  schoolDays: number;
  quarterHours: ReturnType<typeof byQuarterHour>;
}

/** The stretch of dates in which a note could have been made; a bound is that of the notes where it is null. */
export interface AbcRange {
  from: IsoDate | null;
  to: IsoDate | null;
  /** Stretches without school in it. */
  closures?: SchoolCalendar['closures'];
  /** Stretches in which the student was away. */
  absences?: SchoolCalendar['closures'];
}

/**
 * ABC notes from a file, analysed. School days are Monday to Friday, less the closures and absences that are given; without a timetable
 * there are no hours, so rates are per school day only.
 *
 * @param notes  at least one, in any order
 */
export function analyseAbc(notes: readonly Incident[], range: AbcRange): AbcFileAnalysis {
  const dates = notes.map((note) => note.on).sort();
  const from = range.from ?? defined(dates[0]);
  const to = range.to ?? defined(dates.at(-1));
  const days = schoolDays(from, to, {
    weekdays: [1, 2, 3, 4, 5],
    closures: [...(range.closures ?? []), ...(range.absences ?? [])],
  });
  return {
    from,
    to,
    schoolDays: days.length,
    ...analyseBehavior(notes, { days, timetable: [], watched: [] }),
    quarterHours: byQuarterHour(notes),
  };
}
