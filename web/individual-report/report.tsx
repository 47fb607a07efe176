import { data, Link, useFetcher, useSearchParams } from 'react-router';
import { z } from 'zod';
import { type IsoDate, longDate, shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { discreetGoal } from '~/core/goals/discreet';
import { readerWords } from '~/core/sharing/reader-kind';
import { type Frequency, frequencies, frequencyWords } from '~/core/sharing/share-link';
import { listed } from '~/core/words/counting';
import { goalsOf } from '~/server/goals/goals';
import { followUpsSaid } from '~/server/individual-report/follow-ups-said';
import { canReadEntry, individualReport } from '~/server/individual-report/individual-report';
import { ownFrequency, setOwnFrequency } from '~/server/messages/frequency';
import { database } from '~/server/platform/db/current';
import type { Database } from '~/server/platform/db/database';
import { NotFound } from '~/server/platform/failures';
import { marksFor } from '~/server/rules/marks';
import { recordAccess } from '~/server/sharing/access-log';
import { decideAmendment } from '~/server/sharing/amendments';
import { hideComment, sayComment, showComment } from '~/server/sharing/comments';
import { entriesNamingOthers, letNamesStand } from '~/server/sharing/other-children';
import { shareLinksOf } from '~/server/sharing/share-links';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { shownEntries } from '../entries/shown-entry';
import { arrangementCookie, readCookie, rememberArrangement, texts } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors, withErrorsAlone } from '../platform/http/with-errors';
import { FileLinks } from '../platform/ui/file-links';
import { MarginTitle, Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import { answerComments } from '../sharing/comment-actions';
import { ShareButton } from '../sharing/share-button';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/report';
import { PagesLine } from './pages-line';
import { ReportControls } from './report-controls';
import { ReportEntries } from './report-entries';
import { reportSearch } from './report-search';
import { ReportViews } from './report-views';
import { teamReader } from './team-reader';
import { reportWords } from './words';

export const loader = withErrorsAlone(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet, now } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'read');
  const [stored, reader, links, chosen] = await Promise.all([
    goalsOf(database(), [student.id]),
    teamReader(student, discreet),
    can(student, 'share') ? shareLinksOf(database(), actor, student.id) : [],
    readCookie(request, arrangementCookie, texts),
  ]);
  const goals = discreet ? stored.map(discreetGoal) : stored;
  const search = new URL(request.url).searchParams;
  const { wanted, ...asked } = reportSearch(search, goals, reader.rule, chosen ?? {});
  const reading = { studentId: student.id, what: 'report', how: 'opened' as const };
  const [report, frequency] = await Promise.all([
    individualReport(database(), student.id, goals, reader, wanted),
    ownFrequency(database(), actor, student.id),
    recordAccess(database(), { personId: actor.personId }, reading, now),
  ]);
  const open = links.filter((link) => link.withdrawnAt === null && link.endsOn >= actor.today);
  const naming = open.length > 0 ? await entriesNamingOthers(database(), student.id, report.entries) : [];
  const answer = {
    student: headerStudent(student, { discreet }),
    schoolName: school.name,
    today: actor.today,
    goals: goals.map(({ id, number, shortName }) => ({ id, number, shortName })),
    ...asked,
    ...report,
    threads: discreet ? {} : report.threads,
    hasBehavior: reader.shows.has('abc'),
    entries: shownEntries(report.entries, goals, {
      discreet,
      // What rules say is the team's.
      marks: can(student, 'see') ? await marksFor(database(), actor, report.entries, [student.id]) : {},
      followUps: await followUpsSaid(database(), student.id, 'team', report.entries),
    }),
    mayShare: can(student, 'share'),
    frequency,
    // What names another child, and would be read as “a classmate”.
    naming: discreet ? [] : naming.map(({ id, version, on, title, names }) => ({ id, version, on, title, names })),
    readers: open.map((link) => ({
      id: link.id,
      name: discreet ? reportWords.aReader : link.readerName,
      kind: readerWords[link.kind].label,
      lastRead: link.lastReadAt && wallTime(link.lastReadAt, school.timeZone).on,
    })),
  };
  return data(answer, { headers: await rememberArrangement(search, chosen) });
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, wall, now } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'read');
  const speaker = { kind: 'team', personId: actor.personId } as const;
  const form = await formOf(request);
  const frequency = z.enum(frequencies).safeParse(form.get('frequency'));
  if (frequency.success) {
    await setOwnFrequency(database(), actor, student.id, frequency.data);
    return data({ said: 'frequency' });
  }
  return answerComments(form, async (asked) => {
    switch (asked.intent) {
      case 'say': {
        const [goals, reader] = await Promise.all([goalsOf(database(), [student.id]), teamReader(student, false)]);
        const mayRead = (db: Database, id: string) => canReadEntry(db, student.id, goals, reader, id);
        if (asked.entryId === null) throw new NotFound(reportWords.noSuchEntry);
        return sayComment(database(), student.id, speaker, asked, { wall, now, mayRead });
      }
      case 'decide':
        return decideAmendment(database(), actor, student.id, asked, { wall, now });
      case 'hide':
        return hideComment(database(), actor, student.id, asked, now);
      case 'show':
        return showComment(database(), actor, student.id, asked.id);
      case 'stand':
        return letNamesStand(database(), actor, student.id, { entryId: asked.id, version: asked.version }, now);
    }
  });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: reportWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

export default function Report({ loaderData }: Route.ComponentProps) {
  const { student, schoolName, today, goals, goal, find, from, to, arrangement, entries, threads, mayShare, ...rest } =
    loaderData;
  const isNarrowed = goal !== null || find !== '' || from !== null || to !== null;
  // A file holds what the page shows: its filter, its order, its groups; all pages of it.
  const [search] = useSearchParams();
  return (
    <Page
      marginName={reportWords.whoReadsThis}
      help="report"
      margin={
        <>
          <Naming naming={rest.naming} />
          <Readers readers={rest.readers} mayShare={mayShare} studentId={student.id} />
          <OwnFrequency frequency={rest.frequency} />
        </>
      }
    >
      <PrintSheet head={reportWords.individualReport(student.shortName, schoolName, longDate(today))}>
        <StudentHeader student={student} />
        <ReportViews studentId={student.id} />
        <div className="flex flex-wrap items-end justify-between gap-x-3">
          <ReportControls {...{ goals, goal, find, from, to, arrangement, today, hasBehavior: rest.hasBehavior }} />
          <div className="no-print mt-4 flex flex-wrap items-center gap-3 text-small">
            <FileLinks
              of={`/students/${student.id}/individual-report`}
              search={search.toString()}
              prints={reportWords.print}
            />
            {mayShare && !student.isDiscreet && <ShareButton studentId={student.id} />}
          </div>
        </div>
        {entries.length === 0 && (
          <p className="py-10 text-ink-2">
            {isNarrowed ? reportWords.nothingInTheReportIs : reportWords.nothingHasBeenWrittenDown}
          </p>
        )}
        <ReportEntries
          {...{ entries, threads, goals, arrangement, today }}
          evidence={rest.evidence}
          evidenceAt={`/students/${student.id}/evidence`}
          linksToEntries={student.maySee}
          answers={{
            ...{ mayAnswer: !student.isDiscreet && !student.hasLeft, mayHide: mayShare, word: 'comment' },
            seenBy: reportWords.everyoneWhoReadsThisEntry,
          }}
        />
        <PagesLine {...rest} oldestFirst={arrangement.oldestFirst} />
      </PrintSheet>
    </Page>
  );
}

interface NamingProps {
  naming: { id: string; version: number; on: IsoDate; title: string; names: string[] }[];
}

/** Notes that name another child: readers from outside see “a classmate”, unless that is let stand. */
function Naming({ naming }: NamingProps) {
  const fetcher = useFetcher();
  if (naming.length === 0) return null;
  return (
    <section aria-label={reportWords.otherChildrensNames} className="mb-8 rounded-box bg-clay-wash p-4">
      <h2 className="text-base">{reportWords.otherChildrenAreNamed}</h2>
      <p className="mt-1 text-small text-ink-2">{reportWords.whoeverReadsFromOutsideSees}</p>
      <ul className="mt-2 grid gap-2">
        {naming.map(({ id, version, on, title, names }) => (
          <li key={id} className="text-small">
            <a href={`#${id}`} className="font-semibold link">
              {shortDate(on)}, {title}
            </a>
            : {listed(names.map((name) => `“${name}”`))}
            <fetcher.Form method="post" className="inline">
              <input type="hidden" name="id" value={id} />
              <input type="hidden" name="version" value={version} />
              <button
                type="submit"
                name="intent"
                value="stand"
                aria-label={reportWords.keepTheNameInThe(listed(names), shortDate(on))}
                className="ml-2 tap link"
              >
                {reportWords.keepTheName}
              </button>
            </fetcher.Form>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface ReadersProps {
  readers: { id: string; name: string; kind: string; lastRead: IsoDate | null }[];
  mayShare: boolean;
  studentId: string;
}

function Readers({ readers, mayShare, studentId }: ReadersProps) {
  if (!mayShare) {
    return (
      <>
        <MarginTitle>{reportWords.whoReadsThis}</MarginTitle>
        <p>{reportWords.theSupportTeamAndReaders}</p>
      </>
    );
  }
  return (
    <>
      <MarginTitle about={reportWords.besidesTheSupportTeam}>{reportWords.whoReadsThis}</MarginTitle>
      {readers.length === 0 && <p className="mb-3 text-ink-2">{reportWords.nobodyYet}</p>}
      <ul>
        {readers.map(({ id, name, kind, lastRead }) => (
          <li key={id} className="border-b border-dotted border-ink-3/50 py-3 first:pt-0">
            <span className="font-semibold">{name}</span>
            <span className="block text-small text-ink-2">
              {kind} · {lastRead ? reportWords.lastRead(shortDate(lastRead)) : reportWords.notOpenedYet}
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-4">
        <Link to={`/students/${studentId}/sharing`} className="font-semibold text-ink-2 hover:underline">
          {reportWords.whatEachReaderSeesAnd}
        </Link>
      </p>
    </>
  );
}

/** When one is told oneself of this student’s new entries. */
function OwnFrequency({ frequency }: { frequency: Frequency }) {
  const fetcher = useFetcher();
  const shown = fetcher.formData?.get('frequency') ?? frequency;
  return (
    <fetcher.Form method="post" className="mt-8">
      <label className="grid gap-1 text-small">
        <span className="font-semibold">{reportWords.emailMeAboutNewEntries}</span>
        <select
          name="frequency"
          className="select w-full"
          value={String(shown)}
          onChange={(event) => fetcher.submit(event.currentTarget.form)}
        >
          {frequencies.map((when) => (
            <option key={when} value={when}>
              {when === 'byHand' ? reportWords.notAtAll : frequencyWords[when]}
            </option>
          ))}
        </select>
      </label>
    </fetcher.Form>
  );
}
