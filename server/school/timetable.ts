import { type IsoDate, weekday } from '~/core/calendar/iso-date';
import type { WallTime } from '~/core/calendar/zone';
import type { Database } from '../db/database';

export interface PlannedPart {
  studentId: string;
  /** “Kitchen” */
  part: string;
  from: string;
  to: string;
  settingId: string | null;
  settingName: string | null;
}

/**
 * What is planned for some students on a day, in order of time. A class group's own part of the day stands before one of
 * the whole school at the same time. Ask `studentFor` or `studentsOf` first.
 */
export async function plannedOn(db: Database, studentIds: readonly string[], on: IsoDate): Promise<PlannedPart[]> {
  const found = await db.raw<{ rows: PlannedPart[] }>(
    `select s.id as "studentId", b.part, to_char(b.starts_at, 'HH24:MI') as "from", to_char(b.ends_at, 'HH24:MI') as "to",
            b.setting_id as "settingId", st.name as "settingName"
       from students s
       join timetable_blocks b on b.weekday = ? and (b.group_id is null or exists
              (select from student_groups sg where sg.student_id = s.id and sg.group_id = b.group_id))
       left join settings st on st.id = b.setting_id
      where s.id = any(?)
      order by b.starts_at, (b.group_id is null), b.part`,
    [weekday(on), [...studentIds]],
  );
  return found.rows;
}

/** What is planned for a student at a moment: the first part of the day that holds it. */
export function partAt(parts: readonly PlannedPart[], studentId: string, { time }: WallTime): PlannedPart | null {
  return parts.find((part) => part.studentId === studentId && part.from <= time && time < part.to) ?? null;
}
