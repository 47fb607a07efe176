import type { IsoDate } from '~/core/calendar/iso-date';
import type { Database } from '~/server/platform/db/database';
import { can } from '~/server/students/rights';
import { type Student, supportTeam } from '~/server/students/students';

/** Those to whom the follow-ups of some students can be given: whoever sees the student; by student, where there are any. */
export async function teamsOf(
  db: Database,
  students: readonly Student<'see'>[],
  followUps: readonly { studentId: string }[],
  today: IsoDate,
): Promise<Record<string, { id: string; name: string }[]>> {
  const asked = students.filter(({ id }) => followUps.some(({ studentId }) => studentId === id));
  const teams = await Promise.all(asked.map(({ id }) => supportTeam(db, id, today)));
  return Object.fromEntries(
    asked.map(({ id }, i) => [
      id,
      (teams[i] ?? []).filter((member) => can(member, 'see')).map((member) => ({ id: member.id, name: member.name })),
    ]),
  );
}
