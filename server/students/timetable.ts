import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { type IsoDate, weekday } from '~/core/calendar/iso-date';
import { layered } from '~/core/calendar/layered';
import type { WallTime } from '~/core/calendar/zone';
import type { OwnDayPart, OwnTimetableInput } from '~/core/school/school-input';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid } from '../platform/failures';
import { type Actor, locationsOf } from '../school/school';
import type { StudentAccess } from './access';
import { requireStudent } from './students';

const blockRow = z.object({
  studentId: z.string(),
  weekday: z.number(),
  part: z.string(),
  from: z.string(),
  to: z.string(),
  /** The location’s id, and its name. */
  location: z.string().nullable(),
  locationName: z.string().nullable(),
  layer: z.union([z.literal(0), z.literal(1), z.literal(2)]),
});
type Block = Omit<z.infer<typeof blockRow>, 'studentId' | 'layer'>;

/**
 * The timetables of some students: a student’s own parts of the day stand before their group’s, and those before the whole
 * school’s.
 *
 * @param day  only this weekday, 1 is Monday
 */
export async function timetablesOf(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  day?: number,
): Promise<Map<string, Block[]>> {
  const found = await rowsOf(
    db,
    blockRow,
    `select s.id as "studentId", b.weekday, b.part, to_char(b.starts_at, 'HH24:MI') as "from",
            to_char(b.ends_at, 'HH24:MI') as "to", b.location_id as location, st.name as "locationName",
            case when b.student_id is not null then 0 when b.group_id is not null then 1 else 2 end as layer
       from students s
       join timetable_blocks b on b.school_id = s.school_id and (b.student_id = s.id or (b.student_id is null and (b.group_id is null or exists
              (select from student_groups sg where sg.student_id = s.id and sg.group_id = b.group_id))))
       left join locations st on st.id = b.location_id
      where s.id = any(?) and (cast(? as int) is null or b.weekday = ?)
      order by b.weekday, b.starts_at, b.part`,
    [[...studentIds], day ?? null, day ?? null],
  );
  const own = new Map<string, [Block[], Block[], Block[]]>(studentIds.map((id) => [id, [[], [], []]]));
  for (const { studentId, layer, ...block } of found) own.get(studentId)?.[layer].push(block);
  return new Map([...own].map(([id, layers]) => [id, layered(layers)]));
}

export interface PlannedPart {
  studentId: string;
  /** “Kitchen” */
  part: string;
  from: string;
  to: string;
  locationId: string | null;
  locationName: string | null;
}

/** What is planned for some students on a day, in order of time. */
export async function plannedOn(
  db: Database,
  studentIds: readonly StudentAccess<'see'>[],
  on: IsoDate,
): Promise<PlannedPart[]> {
  const timetables = await timetablesOf(db, studentIds, weekday(on));
  return [...timetables]
    .flatMap(([studentId, blocks]) =>
      blocks.map(({ part, from, to, location, locationName }): PlannedPart => {
        return { studentId, part, from, to, locationId: location, locationName };
      }),
    )
    .sort((a, b) => a.from.localeCompare(b.from) || a.part.localeCompare(b.part));
}

/** What is planned for a student at a moment: the first part of the day that holds it. */
export function partAt(parts: readonly PlannedPart[], studentId: string, { time }: WallTime): PlannedPart | null {
  return parts.find((part) => part.studentId === studentId && part.from <= time && time < part.to) ?? null;
}

/** A student’s own parts of the day, as one form row for all their weekdays. */
export async function ownDayParts(db: Database, studentId: StudentAccess<'read'>): Promise<OwnDayPart[]> {
  const blocks = await db('timetable_blocks')
    .where({ student_id: studentId })
    .orderBy(['starts_at', 'part', 'weekday']);
  const parts = new Map<string, OwnDayPart>();
  for (const { part, starts_at: from, ends_at: to, location_id: locationId, weekday: day } of blocks) {
    const key = JSON.stringify([part, from, to, locationId]);
    const known = parts.get(key) ?? { part, from, to, locationId, weekdays: [] };
    parts.set(key, { ...known, weekdays: [...known.weekdays, day] });
  }
  return [...parts.values()];
}

/**
 * Writes a student’s own parts of the day; without any, the group’s and the school’s hold.
 *
 * @throws NotFound for someone who may not edit this student’s goals; Invalid for a place that is not there
 */
export async function saveOwnDayParts(
  db: Database,
  actor: Actor,
  studentId: string,
  { dayParts }: OwnTimetableInput,
): Promise<void> {
  await db.transaction(async (trx) => {
    await requireStudent(trx, actor, studentId, 'editGoals');
    const locations = new Set((await locationsOf(trx, actor.schoolId)).map(({ id }) => id));
    const wrong = dayParts.findIndex(({ locationId }) => locationId !== null && !locations.has(locationId));
    if (wrong >= 0) throw new Invalid({ [`dayParts[${wrong}].locationId`]: 'Choose a location from the list.' });
    await trx('timetable_blocks').where({ student_id: studentId }).delete();
    const rows = dayParts.flatMap(({ weekdays, part, from, to, locationId }) =>
      [...new Set(weekdays)].map((day) => ({
        ...{ id: newId(), school_id: actor.schoolId, student_id: studentId, weekday: day, part },
        ...{ starts_at: from, ends_at: to, location_id: locationId },
      })),
    );
    if (rows.length > 0) await trx('timetable_blocks').insert(rows);
  });
}
