import { Printer } from 'lucide-react';
import { Form, Link } from 'react-router';
import { isoDateField } from '~/core/calendar/date-fields';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { memberSentence, shareLinkSentence } from '~/core/sharing/who-can-see';
import { grantable, grantedWords, roleWords } from '~/core/students/roles';
import { database } from '~/server/platform/db/current';
import { shareLinksOf } from '~/server/sharing/share-links';
import { visibilityRulesOn } from '~/server/sharing/visibility';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { membersOn } from '~/server/students/team';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/who';
import { ReadersNav } from './sharing-nav';
import { whoWords } from './words';

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const { timeZone } = school;
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const asked = isoDateField.safeParse(new URL(request.url).searchParams.get('day'));
  const day = asked.success && asked.data < actor.today ? asked.data : actor.today;
  const [onTeam, ways, rules] = await Promise.all([
    membersOn(database(), actor, student.id, day),
    shareLinksOf(database(), actor, student.id),
    visibilityRulesOn(database(), actor, student.id, { day, timeZone }),
  ]);
  const dayOf = (at: Date) => wallTime(at, timeZone).on;
  const open = ways.filter(
    ({ createdAt, withdrawnAt, endsOn }) =>
      dayOf(createdAt) <= day && endsOn >= day && (withdrawnAt === null || dayOf(withdrawnAt) > day),
  );
  return {
    student: headerStudent(student, { discreet }),
    schoolName: school.name,
    today: actor.today,
    day,
    team: onTeam.map((member) => ({
      id: member.id,
      name: member.name,
      sentence: memberSentence(
        {
          role: roleWords[member.role],
          may: grantable.filter((right) => can(member, right)).map((right) => grantedWords[right]),
          seesAll: can(member, 'see'),
          until: member.until,
        },
        rules.team,
      ),
    })),
    readers: open.map((way) => ({
      id: way.id,
      name: discreet ? whoWords.aReader : way.readerName,
      sentence: shareLinkSentence({ ...way, isLocked: way.lockedAt !== null && day === actor.today }, rules[way.kind]),
      lastRead: way.lastReadAt && wallTime(way.lastReadAt, school.timeZone).on,
    })),
    manages: can(student, 'manage'),
  };
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: whoWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

export default function Who({ loaderData }: Route.ComponentProps) {
  const { student, schoolName, today, day, team, readers, manages } = loaderData;
  const isPast = day < today;
  return (
    <Page
      marginName={whoWords.nobodyElse}
      help="sharing"
      margin={
        <>
          <MarginTitle>{whoWords.nobodyElse}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{whoWords.whoeverIsNotOnThis(student.shortName)}</p>
            <p>{whoWords.whoSetsUpTheSchool}</p>
            <p>{whoWords.aReaderFromOutsideSees}</p>
          </div>
        </>
      }
    >
      <PrintSheet
        head={`${student.shortName} · ${isPast ? whoWords.couldSeeOn(longDate(day)) : whoWords.canSee} · ${schoolName} · ${longDate(today)}`}
      >
        <StudentHeader student={student} />
        <ReadersNav studentId={student.id} />
        <div className="mt-5 flex flex-wrap items-end justify-between gap-3">
          <h2 className="text-2xl">{isPast ? whoWords.couldSeeOnQuestion(longDate(day)) : whoWords.canSeeQuestion}</h2>
          <button type="button" className="btn no-print" onClick={() => window.print()}>
            <Printer size={16} aria-hidden />
            {whoWords.print}
          </button>
        </div>
        <Form className="no-print mt-3 flex flex-wrap items-end gap-3">
          <label className="grid gap-1 text-small">
            <span className="font-semibold">{whoWords.onAnotherDay}</span>
            <input type="date" name="day" key={day} max={today} defaultValue={day} className="input w-40" />
          </label>
          <button type="submit" className="btn">
            {whoWords.showThatDay}
          </button>
          {isPast && (
            <Link to={`/students/${student.id}/sharing`} className="py-2.5 text-small link">
              {whoWords.backToToday}
            </Link>
          )}
        </Form>
        {isPast && <p className="mt-3 text-small text-ink-2">{whoWords.asItStoodAtThe}</p>}
        <section aria-label={whoWords.theSupportTeam} className="mt-5">
          <h3 className="border-b border-rule pb-1.5 text-lg">{whoWords.theSupportTeam}</h3>
          <ul>
            {team.map(({ id, name, sentence }) => (
              <Person key={id} name={name} sentence={sentence} />
            ))}
          </ul>
          {manages && (
            <p className="no-print mt-3 text-small">
              <Link to={`/students/${student.id}/team`} className="link">
                {whoWords.changeTheTeam}
              </Link>
            </p>
          )}
        </section>
        <section aria-label={whoWords.readersFromOutside} className="mt-8 pb-20 print:pb-0">
          <h3 className="border-b border-rule pb-1.5 text-lg">{whoWords.readersFromOutside}</h3>
          {readers.length === 0 && <p className="py-4 text-ink-2">{whoWords.nobody}</p>}
          <ul>
            {readers.map(({ id, name, sentence, lastRead }) => (
              <Person
                key={id}
                name={name}
                sentence={`${sentence} ${lastRead ? whoWords.lastRead(shortDate(lastRead)) : whoWords.notOpenedYet}`}
              />
            ))}
          </ul>
        </section>
      </PrintSheet>
    </Page>
  );
}

function Person({ name, sentence }: { name: string; sentence: string }) {
  return (
    <li className="grid break-inside-avoid gap-x-5 border-b border-dotted border-ink-3/40 py-3 sm:grid-cols-[14rem_minmax(0,1fr)]">
      <span className="font-semibold">{name}</span>
      <span>{sentence}</span>
    </li>
  );
}
