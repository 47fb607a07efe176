import type { SchoolCalendar } from '~/core/calendar/school-days';
import type { Database } from '../db/database';
import { NotFound } from '../failures';

export interface School {
  name: string;
  timeZone: string;
  isDemo: boolean;
  calendar: SchoolCalendar;
}

/** The school that this installation serves. */
export async function theSchool(db: Database): Promise<School> {
  const found = await db.raw<{
    rows: {
      name: string;
      time_zone: string;
      is_demo: boolean;
      weekdays: number[];
      closures: SchoolCalendar['closures'];
    }[];
  }>(
    `select name, time_zone, is_demo, weekdays,
            (select coalesce(json_agg(json_build_object('first', first_day, 'last', last_day) order by first_day), '[]')
               from closures) as closures
       from school`,
  );
  const row = found.rows[0];
  if (!row) throw new NotFound('No school has been set up.');
  return {
    name: row.name,
    timeZone: row.time_zone,
    isDemo: row.is_demo,
    calendar: { weekdays: row.weekdays, closures: row.closures },
  };
}

export interface Setting {
  id: string;
  name: string;
}

/** The places where students are observed, in the school's order. */
export async function settings(db: Database): Promise<Setting[]> {
  return db('settings').orderBy('position').select<Setting[]>('id', 'name');
}
