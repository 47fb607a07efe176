import ical, { ICalCalendarMethod } from 'ical-generator';
import { discreetStudent } from '~/core/goals/discreet';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { followUpsOf } from '~/server/rules/follow-ups';
import { studentsOf } from '~/server/students/students';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/follow-ups-calendar';
import { followUpsWords } from './words';

/**
 * What is open for whoever is signed in, as a calendar (iCalendar, RFC 5545), a whole day each: with initials only, as calendars are seen by
 * others and lie on other people's servers.
 */
export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, now } = personOf(context);
  const students = await studentsOf(database(), actor);
  const initials = new Map(students.map((student) => [String(student.id), discreetStudent(student).shortName]));
  const open = await followUpsOf(
    database(),
    students.map(({ id }) => id),
    { isDone: false, forPerson: actor.personId },
  );
  const calendar = ical({ name: followUpsWords.followUps, method: ICalCalendarMethod.PUBLISH });
  for (const { id, studentId, what, dueOn } of open) {
    calendar.createEvent({
      ...{
        id: `${id}@gentle-margin`,
        stamp: now,
        start: new Date(`${dueOn}T00:00:00Z`),
        allDay: true,
        timezone: 'UTC',
      },
      summary: `${initials.get(studentId) ?? ''}: ${what}`,
      url: `${config.PUBLIC_URL}/students/${studentId}/follow-ups`,
    });
  }
  return new Response(calendar.toString(), {
    headers: {
      'Content-Type': 'text/calendar; charset=utf-8',
      'Content-Disposition': 'attachment; filename="follow-ups.ics"',
    },
  });
});
