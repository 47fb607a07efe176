import type { IsoDate } from '~/core/calendar/iso-date';
import type { Database } from '~/server/platform/db/database';
import { can } from '~/server/students/rights';
import { type Student, supportTeams, type TeamMember } from '~/server/students/students';

/** Those to whom the follow-ups of some students can be given: whoever sees the student; by student, where there are any. */
export async function teamsOf(
  db: Database,
  students: readonly Student<'see'>[],
  followUps: readonly { studentId: string }[],
  today: IsoDate,
): Promise<Record<string, { id: string; name: string }[]>> {
  const asked = students.flatMap(({ id }) => (followUps.some(({ studentId }) => studentId === id) ? [id] : []));
  const seeing = (team: readonly TeamMember[]) =>
    team.flatMap((member) => (can(member, 'see') ? [{ id: member.id, name: member.name }] : []));
  return Object.fromEntries([...(await supportTeams(db, asked, today))].map(([id, team]) => [id, seeing(team)]));
}
