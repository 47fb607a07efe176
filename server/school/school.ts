import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { SchoolCalendar } from '~/core/calendar/school-days';
import { type PageSize, pageSizes } from '~/core/school/page-size';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { existing, NotFound } from '../platform/failures';

export interface School {
  id: string;
  name: string;
  timeZone: string;
  isDemo: boolean;
  /** What its documents are printed on. */
  paper: PageSize;
  calendar: SchoolCalendar;
}

/** A school in a column of its own: see `schoolJson`. */
export const schoolColumn = z.object({
  id: z.string(),
  name: z.string(),
  timeZone: z.string(),
  isDemo: z.boolean(),
  paper: z.enum(pageSizes),
  calendar: z.object({
    weekdays: z.array(z.number()),
    closures: z.array(z.object({ first: z.string(), last: z.string(), label: z.string() })),
  }),
}) satisfies z.ZodType<School>;
const schoolRow = z.object({ school: schoolColumn });

/**
 * A school as one SQL expression in the shape of `School`, for queries that need it beside something else.
 *
 * @param of  what the query calls the row of `schools`
 */
export const schoolJson = (of: string) => `
  json_build_object('id', ${of}.id, 'name', ${of}.name, 'timeZone', ${of}.time_zone, 'isDemo', ${of}.is_demo, 'paper', ${of}.paper,
    'calendar', json_build_object('weekdays', ${of}.weekdays, 'closures',
      (select coalesce(json_agg(json_build_object('first', cl.first_day, 'last', cl.last_day, 'label', cl.label) order by cl.first_day), '[]')
         from closures cl where cl.school_id = ${of}.id)))`;

/** All schools of this installation, by name. */
export async function allSchools(db: Database): Promise<School[]> {
  const found = await rowsOf(db, schoolRow, `select ${schoolJson('c')} as school from schools c order by c.name`);
  return found.map(({ school }) => school);
}

/** The first school of this installation, for a page that comes before anybody has signed in; null while none has been set up. */
export async function schoolIfAny(db: Database): Promise<School | null> {
  return (await allSchools(db))[0] ?? null;
}

/** For how many days a school’s devices may keep what they need without network; 0 for not at all. */
export async function daysOnDevices(db: Database, schoolId: string): Promise<number> {
  return existing(await db('schools').where({ id: schoolId }).first('days_on_devices')).days_on_devices;
}

/**
 * A school.
 *
 * @throws NotFound
 */
export async function schoolOf(db: Database, id: string): Promise<School> {
  const found = await rowsOf(db, schoolRow, `select ${schoolJson('c')} as school from schools c where c.id = ?`, [id]);
  const school = found[0]?.school;
  if (!school) throw new NotFound('No such school.');
  return school;
}

/**
 * The school of a student. Open a door to the student first.
 *
 * @throws NotFound
 */
export async function schoolOfStudent(db: Database, studentId: string): Promise<School> {
  const row = await db('students').where({ id: studentId }).first('school_id');
  if (!row) throw new NotFound('No such student.');
  return schoolOf(db, row.school_id);
}

export interface Location {
  id: string;
  name: string;
}

/** The locations where students of a school are observed, in the school's order. */
export async function locationsOf(db: Database, schoolId: string): Promise<Location[]> {
  return db('locations').where({ school_id: schoolId }).orderBy('position').select<Location[]>('id', 'name');
}

/** Someone who asks, and the day on which they ask: memberships have dates. */
export interface Actor {
  personId: string;
  /** The school they are at: students of another one are not there. */
  schoolId: string;
  today: IsoDate;
  /** Whether they began with a PIN at a shared device: then nothing of the school is set up. */
  isByPin?: boolean;
}
