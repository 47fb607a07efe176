import { Printer } from 'lucide-react';
import { Link, useSearchParams } from 'react-router';
import { type IsoDate, longDate, shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { discreetGoal } from '~/core/discreet/discreet';
import { newestFirst } from '~/core/report/report';
import { counted } from '~/core/words/counting';
import { may } from '~/server/access/rights';
import { database } from '~/server/db/current';
import { goalsOf } from '~/server/goals/goals';
import { behaviorEntries, reportEntries } from '~/server/report/report';
import { studentFor } from '~/server/students/students';
import { waysInto } from '~/server/ways-in/ways-in';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import { MarginTitle, Page } from '../ui/page';
import type { Route } from './+types/report';
import { BEHAVIOR, GoalFilter } from './goal-filter';
import { PrintSheet } from './print-sheet';
import { ReportWeeks } from './report-weeks';
import { shownEntries } from './shown-entry';

/** Entries that a page begins with; the whole is one tap away. */
const FIRST_ENTRIES = 120;

export const loader = answering(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = askerOf(context);
  const search = new URL(request.url).searchParams;
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'see');
  const stored = await goalsOf(database(), [student.id]);
  const goals = discreet ? stored.map(discreetGoal) : stored;
  const asked = search.get('goal');
  const chosen = asked === BEHAVIOR ? BEHAVIOR : goals.find(({ id }) => id === asked)?.id;
  const showsAll = search.has('all');
  const mayShare = may(student.role, 'share');
  const limit = showsAll ? undefined : FIRST_ENTRIES + 1;
  const ofGoals = chosen === BEHAVIOR ? [] : reportEntries(database(), goals, { goalId: chosen, limit });
  const [observed, behavior, links] = await Promise.all([
    ofGoals,
    behaviorEntries(database(), [student.id], { limit, discreet }),
    mayShare ? waysInto(database(), actor, student.id) : [],
  ]);
  const entries = newestFirst([observed, chosen === undefined || chosen === BEHAVIOR ? behavior : []], limit);
  const open = links.filter((link) => link.withdrawnAt === null && link.endsOn >= actor.today);
  return {
    student: headerStudent(student, { discreet }),
    schoolName: school.name,
    today: actor.today,
    goals: goals.map(({ id, number, shortName }) => ({ id, number, shortName })),
    chosen: chosen ?? null,
    hasBehavior: behavior.length > 0,
    hasMore: !showsAll && entries.length > FIRST_ENTRIES,
    entries: shownEntries(showsAll ? entries : entries.slice(0, FIRST_ENTRIES), goals, { discreet }),
    mayShare,
    readers: open.map((link) => ({
      id: link.id,
      name: discreet ? 'A reader' : link.readerName,
      lastRead: link.lastReadAt && wallTime(link.lastReadAt, school.timeZone).on,
    })),
  };
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Report of ${loaderData?.student.shortName ?? 'a student'} · Gentle Margin` },
];

export default function Report({ loaderData }: Route.ComponentProps) {
  const { student, schoolName, today, goals, chosen, entries, hasMore, readers, mayShare, hasBehavior } = loaderData;
  const [search, setSearch] = useSearchParams();
  const showAll = new URLSearchParams([...search.entries(), ['all', '1']]);
  return (
    <Page marginName="Who reads this" margin={<Readers readers={readers} mayShare={mayShare} studentId={student.id} />}>
      <PrintSheet head={`${student.shortName} · individual report · ${schoolName} · ${longDate(today)}`}>
        <StudentHeader student={student} />
        <div className="no-print mt-5 flex flex-wrap items-center justify-between gap-3">
          <GoalFilter
            goals={goals}
            chosen={chosen}
            hasBehavior={hasBehavior}
            onChoose={(goalId) => setSearch(goalId ? { goal: goalId } : {}, { preventScrollReset: true })}
          />
          <button type="button" className="btn" onClick={() => window.print()}>
            <Printer size={16} aria-hidden /> Print
          </button>
        </div>
        {entries.length === 0 && (
          <p className="py-10 text-ink-2">
            {chosen
              ? 'Nothing has been written down for this goal yet.'
              : 'Nothing has been written down yet. The first observation begins the report.'}
          </p>
        )}
        <ReportWeeks entries={entries} today={today} linksToEntries />
        {hasMore && (
          <p className="no-print mt-6">
            <Link to={`?${showAll}`} preventScrollReset className="btn">
              Show the earlier ones too
            </Link>
          </p>
        )}
        <p className="mt-6 pb-20 text-small text-ink-3 print:pb-0">
          {hasMore
            ? `The newest ${counted(entries.length, 'entry', 'entries')}.`
            : `${counted(entries.length, 'entry', 'entries')}.`}{' '}
          Each is shown as it stands now; what was withdrawn is left out.
        </p>
      </PrintSheet>
    </Page>
  );
}

interface ReadersProps {
  readers: { id: string; name: string; lastRead: IsoDate | null }[];
  mayShare: boolean;
  studentId: string;
}

function Readers({ readers, mayShare, studentId }: ReadersProps) {
  if (!mayShare) {
    return (
      <>
        <MarginTitle>Who reads this</MarginTitle>
        <p>The support team, and the readers to whom the case manager has given a way in.</p>
      </>
    );
  }
  return (
    <>
      <MarginTitle about="besides the support team">Who reads this</MarginTitle>
      {readers.length === 0 && <p className="text-ink-2">Nobody yet.</p>}
      <ul>
        {readers.map(({ id, name, lastRead }) => (
          <li key={id} className="border-b border-dotted border-ink-3/50 py-3 first:pt-0">
            <span className="font-semibold">{name}</span>
            <span className="block text-small text-ink-2">
              {lastRead ? `last read ${shortDate(lastRead)}` : 'not opened yet'}
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-4">
        <Link to={`/students/${studentId}/ways-in`} className="font-semibold text-ink-2 hover:underline">
          Ways in →
        </Link>
      </p>
    </>
  );
}
