import type { SchoolCalendar } from '~/core/calendar/school-days';
import type { Database } from '../db/database';
import { NotFound } from '../failures';

export interface School {
  name: string;
  timeZone: string;
  isDemo: boolean;
  calendar: SchoolCalendar;
}

/** The school as one SQL expression in the shape of `School`, for queries that need it beside something else. */
export const schoolExpression = `
  (select json_build_object('name', name, 'timeZone', time_zone, 'isDemo', is_demo, 'calendar', json_build_object(
            'weekdays', weekdays,
            'closures', (select coalesce(json_agg(json_build_object('first', first_day, 'last', last_day, 'label', label) order by first_day), '[]')
                           from closures)))
     from school)`;

/** The school that this installation serves; null while none has been set up. */
export async function schoolIfAny(db: Database): Promise<School | null> {
  const found = await db.raw<{ rows: { school: School | null }[] }>(`select ${schoolExpression} as school`);
  return found.rows[0]?.school ?? null;
}

/**
 * The school that this installation serves.
 *
 * @throws NotFound while none has been set up
 */
export async function theSchool(db: Database): Promise<School> {
  const school = await schoolIfAny(db);
  if (!school) throw new NotFound('No school has been set up.');
  return school;
}

export interface Setting {
  id: string;
  name: string;
}

/** The places where students are observed, in the school's order. */
export async function settings(db: Database): Promise<Setting[]> {
  return db('settings').orderBy('position').select<Setting[]>('id', 'name');
}
