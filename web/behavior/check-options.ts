import type { IsoDate } from '~/core/calendar/iso-date';
import type { SchoolCalendar } from '~/core/calendar/school-days';
import type { StudentBehavior } from '~/server/behavior/behavior';

/**
 * The file of the incidents that a page is made of, and what `analyse -- abc` is told to give its figures; null where school is held on
 * other days than Monday to Friday, which the command does not know.
 */
export function checkOf(
  studentId: string,
  { absences, timetable, watched }: StudentBehavior,
  range: { from: IsoDate; to: IsoDate },
  calendar: SchoolCalendar,
) {
  if (calendar.weekdays.toSorted().join() !== '1,2,3,4,5') return null;
  const away = new Set(absences);
  const inRange = ({ first, last }: { first: IsoDate; last: IsoDate }) => first <= range.to && last >= range.from;
  const said = ({ first, last }: { first: IsoDate; last: IsoDate }) => (first === last ? first : `${first}..${last}`);
  const closures = calendar.closures.filter((one) => inRange(one) && !(one.first === one.last && away.has(one.first)));
  const absent = absences.filter((on) => inRange({ first: on, last: on })).toSorted();
  const options = [
    `--from ${range.from} --to ${range.to}`,
    closures.length > 0 && `--closures ${closures.map(said).join(',')}`,
    absent.length > 0 && `--absences ${absent.join(',')}`,
    timetable.length > 0 && '--timetable timetable.csv',
    watched.length > 0 && '--windows windows.csv',
  ];
  return {
    incidents: `/students/${studentId}/incidents.csv?from=${range.from}&to=${range.to}`,
    options: options.filter(Boolean).join(' '),
  };
}
