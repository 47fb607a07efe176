import type { z } from 'zod';
import type { sessionFields } from '~/core/observations/observation';
import type { WallTime } from '../clock';
import type { Database } from '../db/database';

/** What a session's clock may be ahead of the server's before it counts as the future, in minutes. */
const CLOCK_SLACK = 5;

const minutes = ({ on, time }: WallTime) => Date.parse(`${on}T${time}:00Z`) / 60_000;

/**
 * Holds a session's date, observer and setting against the school and the student's team.
 *
 * @returns messages by field; none when all is well
 */
export async function checkSession(
  db: Database,
  studentId: string,
  session: z.infer<typeof sessionFields>,
  wall: WallTime,
): Promise<Record<string, string>> {
  const messages: Record<string, string> = {};
  if (minutes(session) > minutes(wall) + CLOCK_SLACK) {
    const field = session.on > wall.on ? 'on' : 'time';
    messages[field] = 'This lies in the future. An entry says what has been seen.';
  }
  const found = await db.raw<{ rows: { observer: boolean; setting: boolean }[] }>(
    `select exists (select from team_members where student_id = :studentId and person_id = :observerId
                       and from_date <= :on and coalesce(until_date, 'infinity') >= :on) as observer,
            (cast(:settingId as uuid) is null or exists (select from settings where id = :settingId)) as setting`,
    { studentId, ...session },
  );
  if (!found.rows[0]?.observer) messages.observerId = 'This person was not on the support team that day.';
  if (!found.rows[0]?.setting) messages.settingId = 'Choose a place from the list.';
  return messages;
}
