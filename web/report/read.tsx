import { useState } from 'react';
import { data } from 'react-router';
import { longDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { asSeenBy, newestFirst } from '~/core/report/report';
import { counted } from '~/core/words/counting';
import { countUnknownLink, mayOpenLink } from '~/server/access/attempts';
import { now } from '~/server/clock';
import { database } from '~/server/db/current';
import { goalsOf } from '~/server/goals/goals';
import { behaviorEntries, reportEntries } from '~/server/report/report';
import { theSchool } from '~/server/school/school';
import { openWayIn } from '~/server/ways-in/ways-in';
import { answering } from '../http/answering';
import { addressContext } from '../http/context';
import { MarginTitle, Page } from '../ui/page';
import type { Route } from './+types/read';
import { BEHAVIOR, GoalFilter } from './goal-filter';
import { PrintSheet } from './print-sheet';
import { ReportWeeks } from './report-weeks';
import { shownEntries } from './shown-entry';

export const loader = answering(async ({ params, context }: Route.LoaderArgs) => {
  const address = context.get(addressContext);
  if (!(await mayOpenLink(address))) throw data(null, { status: 429 });
  const school = await theSchool(database());
  const instant = now();
  const today = wallTime(instant, school.timeZone).on;
  const opened = await openWayIn(database(), params.token, today, instant);
  if (!opened) {
    await countUnknownLink(address);
    throw data(null, { status: 404 });
  }
  const goals = await goalsOf(database(), [opened.studentId]);
  const [observed, behavior] = await Promise.all([
    reportEntries(database(), goals),
    opened.sees.behavior ? behaviorEntries(database(), [opened.studentId], { discreet: false }) : [],
  ]);
  const entries = newestFirst([observed, behavior]);
  return {
    shortName: opened.shortName,
    readerName: opened.readerName,
    endsOn: opened.endsOn,
    sees: opened.sees,
    schoolName: school.name,
    today,
    goals: goals.map(({ id, number, shortName }) => ({ id, number, shortName })),
    entries: shownEntries(
      entries.map((entry) => asSeenBy(entry, opened.sees)),
      goals,
      { discreet: false },
    ),
  };
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `Report of ${loaderData.shortName}` : 'Report' },
  { name: 'robots', content: 'noindex, nofollow' },
];

export default function Read({ loaderData }: Route.ComponentProps) {
  const { shortName, readerName, endsOn, sees, schoolName, today, goals, entries } = loaderData;
  const [goalId, setGoalId] = useState<string | null>(null);
  const shown = entries.filter((entry) => goalId === null || (entry.goalId ?? BEHAVIOR) === goalId);
  return (
    <div className="mx-auto max-w-6xl">
      <Page
        marginName="About this report"
        margin={
          <>
            <MarginTitle>About this report</MarginTitle>
            <p>
              For {readerName}. Open until {longDate(endsOn)}.
            </p>
            <p className="mt-3 text-small text-ink-2">
              {[
                'Every entry that stands is here, as soon as it is written down.',
                sees.behavior
                  ? 'ABC notes and tallies of behavior are part of it.'
                  : 'Notes of behavior are not part of it.',
                sees.notes ? 'Words beside an entry are shown.' : 'Words beside an entry are not.',
                sees.observers ? 'It says who observed.' : 'It does not say who observed.',
                'Please keep the link to yourself: whoever has it can read this page.',
              ].join(' ')}
            </p>
            <p className="mt-3 text-small text-ink-2">
              A filled bead is a chance that went right: the darker, the less help it took. An outlined one had not come
              right yet.
            </p>
          </>
        }
      >
        <PrintSheet head={`${shortName} · individual report · ${schoolName} · ${longDate(today)}`}>
          <header className="flex flex-wrap items-end justify-between gap-4">
            <div>
              <p className="text-small text-ink-2">{schoolName}</p>
              <h1 className="text-3xl">{shortName}</h1>
              <p className="mt-1 text-small text-ink-2">
                Individual report · {counted(shown.length, 'entry', 'entries')}
              </p>
            </div>
            <GoalFilter
              goals={goals}
              chosen={goalId}
              hasBehavior={entries.some((entry) => entry.goalId === null)}
              onChoose={setGoalId}
            />
          </header>
          {shown.length === 0 && <p className="py-10 text-ink-2">Nothing has been written down yet.</p>}
          <ReportWeeks entries={shown} today={today} linksToEntries={false} />
        </PrintSheet>
      </Page>
    </div>
  );
}
