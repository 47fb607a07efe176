import { v4 as newId } from 'uuid';
import type { DayPart, SchoolInput } from '~/core/school/school-input';
import { ownStepWords } from '~/core/school/step-words';
import type { Database } from '../platform/db/database';
import { existing, Invalid, NotFound } from '../platform/failures';
import type { SchoolAdmin } from './administrators';
import { writeChange } from './changes';
import { locationsOf, schoolOf } from './school';

/**
 * The school as it is set up, in the shape of its form.
 *
 * @throws NotFound for everyone but administrators
 */
export async function schoolInForm(db: Database, actor: SchoolAdmin): Promise<SchoolInput> {
  const here = { id: { id: actor.schoolId }, school: { school_id: actor.schoolId } };
  const [school, idle, closures, groups, locations, blocks] = await Promise.all([
    schoolOf(db, actor.schoolId),
    db('schools')
      .where(here.id)
      .first(
        'idle_minutes',
        'shared_idle_minutes',
        'days_on_devices',
        'lock_minutes',
        'step_words',
        'asks_second_factor',
      ),
    db('closures').where(here.school).orderBy('first_day').select('first_day as first', 'last_day as last', 'label'),
    db('class_groups').where(here.school).orderBy('position').select('id', 'name'),
    locationsOf(db, actor.schoolId),
    db('timetable_blocks').where(here.school).whereNull('student_id').orderBy(['starts_at', 'part', 'weekday']),
  ]);
  const { name, timeZone, paper, calendar } = school;
  const dayParts = new Map<string, DayPart>();
  for (const { group_id, part, starts_at, ends_at, location_id, weekday } of blocks) {
    const key = JSON.stringify([group_id, part, starts_at, ends_at, location_id]);
    const known = dayParts.get(key);
    if (known) known.weekdays.push(weekday);
    else {
      const hours = { from: starts_at, to: ends_at };
      dayParts.set(key, { groupId: group_id, part, weekdays: [weekday], ...hours, locationId: location_id });
    }
  }
  return {
    name,
    timeZone,
    weekdays: [...calendar.weekdays],
    idleMinutes: existing(idle).idle_minutes,
    sharedIdleMinutes: existing(idle).shared_idle_minutes,
    daysOnDevices: existing(idle).days_on_devices,
    lockMinutes: existing(idle).lock_minutes,
    paper,
    asksSecondFactor: existing(idle).asks_second_factor,
    stepWords: ownStepWords.parse(existing(idle).step_words),
    closures,
    groups,
    locations,
    dayParts: [...dayParts.values()],
  };
}

/**
 * Writes how the school is set up. Groups and places are added and renamed, never taken away: entries name them.
 *
 * @throws NotFound for everyone but administrators; Invalid for a day part at a place or of a group that is not there
 */
export async function saveSchool(db: Database, actor: SchoolAdmin, input: SchoolInput, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const before = await schoolInForm(trx, actor);
    const { name, timeZone, weekdays } = input;
    const idle = {
      idle_minutes: input.idleMinutes,
      shared_idle_minutes: input.sharedIdleMinutes,
      days_on_devices: input.daysOnDevices,
      lock_minutes: input.lockMinutes,
      paper: input.paper,
      asks_second_factor: input.asksSecondFactor,
    };
    await trx('schools')
      .where({ id: actor.schoolId })
      .update({ name, time_zone: timeZone, weekdays, ...idle, step_words: JSON.stringify(input.stepWords) });
    const here = { school_id: actor.schoolId };
    await trx('closures').where(here).delete();
    await insertAll(
      trx,
      'closures',
      input.closures.map(({ first, last, label }) => ({ ...here, first_day: first, last_day: last, label })),
    );
    await keepNames(trx, 'class_groups', actor.schoolId, input.groups);
    await keepNames(trx, 'locations', actor.schoolId, input.locations);
    await expectKnown(trx, actor.schoolId, input);
    await trx('timetable_blocks').where(here).whereNull('student_id').delete();
    const blocks = input.dayParts.flatMap(blocksOf).map((block) => ({ ...block, ...here }));
    await insertAll(trx, 'timetable_blocks', blocks);
    const change = { schoolId: actor.schoolId, before, after: await schoolInForm(trx, actor) };
    await writeChange(trx, actor.personId, { what: 'school', ...change }, now);
  });
}

function blocksOf({ groupId, part, weekdays, from, to, locationId }: DayPart) {
  const rest = { group_id: groupId, part, starts_at: from, ends_at: to, location_id: locationId };
  return [...new Set(weekdays)].map((weekday) => ({ id: newId(), weekday, ...rest }));
}

async function insertAll(db: Database, table: string, rows: object[]): Promise<void> {
  if (rows.length > 0) await db(table).insert(rows);
}

async function keepNames(
  db: Database,
  table: 'class_groups' | 'locations',
  schoolId: string,
  list: SchoolInput['groups'],
): Promise<void> {
  const rows = list.map(({ id, name }, position) => ({ id, school_id: schoolId, name, position }));
  const ids = rows.map(({ id }) => id);
  const foreign = await db(table).whereIn('id', ids).whereNot({ school_id: schoolId }).first('id');
  if (foreign) throw new NotFound('No such name in this school.');
  // Two that change names with each other would meet halfway.
  for (const { id } of rows)
    await db(table)
      .where({ id })
      .update({ name: `${id} is being renamed` });
  if (rows.length > 0) await db(table).insert(rows).onConflict('id').merge(['name', 'position']);
}

async function expectKnown(db: Database, schoolId: string, { dayParts }: SchoolInput): Promise<void> {
  const own = (table: string) => db(table).where({ school_id: schoolId }).select('id');
  const known = new Set((await own('class_groups').union(own('locations'))).map(({ id }) => id));
  for (const [i, { groupId, locationId }] of dayParts.entries()) {
    if (groupId !== null && !known.has(groupId)) throw new Invalid({ [`dayParts[${i}].groupId`]: 'Choose a group.' });
    if (locationId !== null && !known.has(locationId)) {
      throw new Invalid({ [`dayParts[${i}].locationId`]: 'Choose a location from the list.' });
    }
  }
}
