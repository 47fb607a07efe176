import ical, { ICalCalendarMethod } from 'ical-generator';
import { data } from 'react-router';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { canOpenLink, countUnknownLink } from '~/server/people/attempts';
import { personBehindCalendar } from '~/server/people/calendar-address';
import { now } from '~/server/platform/clock';
import { config } from '~/server/platform/config';
import { asking, database } from '~/server/platform/db/current';
import { type DueDate, dueDatesOf } from '~/server/progress-report/due-dates';
import { withFailures } from '../platform/http/failure-answer';
import { addressContext } from '../platform/http/security';
import type { Route } from './+types/due-dates-calendar';
import { dueDatesWords } from './words';

/** What was due so long ago still stands in a calendar that is fetched. */
const DAYS_BACK = 30;

/**
 * What falls due for whoever made the address, as a calendar (iCalendar, RFC 5545), a whole day each: fetched by a calendar program, without a
 * sign-in. With initials only, unless names were chosen: calendars lie on other people's servers.
 */
export const loader = withFailures(async ({ params, context }: Route.LoaderArgs) => {
  const address = context.get(addressContext);
  if (!(await canOpenLink(database(), address))) throw data(null, { status: 429 });
  const at = now();
  const behind = await personBehindCalendar(database(), params.token, at);
  if (!behind) {
    await countUnknownLink(database(), address);
    throw data(null, { status: 404 });
  }
  const { personId, hasNames, timeZone } = behind;
  const { on: today } = wallTime(at, timeZone);
  const due = await asking({ personId, today }, () =>
    dueDatesOf(database(), personId, addDays(today, -DAYS_BACK), today),
  );
  const calendar = ical({ name: dueDatesWords.calendar, method: ICalCalendarMethod.PUBLISH });
  for (const one of due) {
    calendar.createEvent({
      ...{
        id: `${one.kind}-${one.id}@gentle-margin`,
        stamp: at,
        start: midnight(one.on),
        allDay: true,
        timezone: 'UTC',
      },
      summary: summaryOf(one, hasNames),
      url: `${config.PUBLIC_URL}/students/${one.studentId}/progress-report`,
    });
  }
  return new Response(calendar.toString(), {
    headers: { 'Content-Type': 'text/calendar; charset=utf-8', 'Cache-Control': 'private, no-store' },
  });
});

const midnight = (day: IsoDate) => new Date(`${day}T00:00:00Z`);

const summaryOf = ({ kind, label, shortName, initials, isIssued }: DueDate, hasNames: boolean) => {
  const who = hasNames ? shortName : initials;
  return kind === 'plan' ? dueDatesWords.planEnds(who) : dueDatesWords.reportDue(who, label, isIssued);
};
