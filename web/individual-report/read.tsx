import { data, Form, redirect, useNavigation, useSearchParams } from 'react-router';
import { z } from 'zod';
import { longDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { issueWords } from '~/core/documents/progress-report-document';
import { graphKey } from '~/core/progress/graph/graph-key';
import { canAnswer } from '~/core/sharing/comment';
import type { Shows } from '~/core/sharing/visibility-rule';
import { counted } from '~/core/words/counting';
import { graphPicture } from '~/server/documents/graph-svg';
import { goalsWorkedOn } from '~/server/goals/goals';
import { followUpsSaid } from '~/server/individual-report/follow-ups-said';
import { canReadEntry, individualReport, recordedSince } from '~/server/individual-report/individual-report';
import { database } from '~/server/platform/db/current';
import type { Database } from '~/server/platform/db/database';
import { NotFound } from '~/server/platform/failures';
import { goalsAtFirst } from '~/server/progress-report/goal-reports';
import { issuedOf } from '~/server/progress-report/issued';
import { lastReadBefore, recordAccess } from '~/server/sharing/access-log';
import { sayComment } from '~/server/sharing/comments';
import { type FoundShareLink, tryPasscode } from '~/server/sharing/share-links';
import { shownEntries } from '../entries/shown-entry';
import { withErrorsAtDoor } from '../platform/http/at-door';
import { arrangementCookie, passCookie, readCookie, rememberArrangement, texts } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { FieldMessage } from '../platform/ui/fields';
import { FileLinks } from '../platform/ui/file-links';
import { MarginTitle, Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import { saveOrStay } from '../platform/ui/use-saving';
import { answerComments } from '../sharing/comment-actions';
import type { Route } from './+types/read';
import { GoalsAtFirst, NearTheTop, News } from './first-page';
import { PagesLine } from './pages-line';
import { ReportControls } from './report-controls';
import { ReportEntries } from './report-entries';
import { reportSearch } from './report-search';
import { readerBy, visit } from './visit';
import { readWords } from './words';

export const loader = withErrorsAtDoor(async (args: Route.LoaderArgs, door) => {
  const { way, school, wall, instant, isOpen } = await visit(args, door);
  const base = { readerName: way.readerName, schoolName: school.name, endsOn: way.endsOn };
  if (!isOpen) return data({ ...base, isLocked: way.isLocked, report: null });
  const { reader, goals, rule } = await readerBy(way);
  const search = new URL(args.request.url).searchParams;
  const chosen = await readCookie(args.request, arrangementCookie, texts);
  const { wanted, ...asked } = reportSearch(search, goals, rule, chosen ?? {});
  const isFirst = asked.goal === null && asked.find === '' && !asked.from && !asked.to && wanted.page === 1;
  const [report, issued, since] = await Promise.all([
    individualReport(database(), way.studentId, goals, reader, wanted),
    issuedOf(database(), way.studentId, school, way.kind),
    lastReadBefore(database(), way.id, wall.on),
  ]);
  const when = { school, today: wall.on };
  const atFirst = isFirst ? await goalsAtFirst(database(), way.studentId, goalsWorkedOn(goals), reader, when) : [];
  const news = isFirst && since ? await recordedSince(database(), way.studentId, goals, reader, since) : null;
  const reading = { studentId: way.studentId, what: 'report', how: 'opened' as const };
  await recordAccess(database(), { linkId: way.id }, reading, instant);
  const answer = {
    ...base,
    isLocked: false,
    report: {
      shortName: way.shortName,
      kind: way.kind,
      about: aboutWords(reader.shows),
      showsTrialMarks: reader.shows.has('breakdown'),
      today: wall.on,
      goals: goals.map(({ id, number, shortName }) => ({ id, number, shortName })),
      hasBehavior: reader.shows.has('abc'),
      atFirst: atFirst.map(({ graph, ...goal }) => ({
        ...goal,
        drawing: graph && {
          src: graphPicture(graph, { size: 'onScreen' }),
          caption: graph.caption,
          key: graphKey(graph),
        },
      })),
      news: news &&
        since && {
          since: wallTime(since, school.timeZone).on,
          total: news.total,
          isMore: news.isMore,
          entries: news.entries.map(({ id, on, title, sentence }) => ({ id, on, title, sentence })),
        },
      issued: issued.map((one) => ({ id: one.id, label: one.period.label, said: issueWords(one) })),
      here: new URL(args.request.url).pathname.replace(/\.data$/, ''),
      ...asked,
      ...report,
      // Outside, a reader's id is nobody's business but their own.
      threads: Object.fromEntries(
        Object.entries(report.threads).map(([id, said]) => [
          id,
          said.map((one) => ({ ...one, by: { ...one.by, linkId: null }, to: null })),
        ]),
      ),
      entries: shownEntries(report.entries, goals, {
        discreet: false,
        followUps: await followUpsSaid(database(), way.studentId, way.kind, report.entries),
      }),
    },
  };
  return data(answer, { headers: await rememberArrangement(search, chosen) });
});

function aboutWords(shows: Shows): string {
  return [
    readWords.newEntriesAppearHereRight,
    shows.has('abc') ? readWords.incidentsAndCountsOfBehavior : readWords.incidentsAndCountsOfBehaviorAre,
    shows.has('note') ? readWords.wordsBesideAnEntryAre : readWords.wordsBesideAnEntryAreNot,
    shows.has('observer') ? readWords.itSaysWhoObserved : readWords.itDoesNotSayWho,
    readWords.pleaseKeepTheLinkTo,
  ].join(' ');
}

export const action = withErrorsAtDoor(async (args: Route.ActionArgs, door) => {
  const { way, wall, instant, isOpen } = await visit(args, door);
  const form = await formOf(args.request);
  if (!isOpen) return givePasscode(args.request, way, String(form.get('passcode') ?? ''), instant);
  const { reader, goals } = await readerBy(way);
  return answerComments(form, async (asked) => {
    if (asked.intent !== 'say') throw new NotFound(readWords.noSuchAddress);
    const mayRead = (db: Database, id: string) => canReadEntry(db, way.studentId, goals, reader, id);
    const speaker = { kind: way.kind, linkId: way.id };
    await sayComment(database(), way.studentId, speaker, asked, { wall, now: instant, mayRead });
  });
});

async function givePasscode(request: Request, way: FoundShareLink, passcode: string, instant: Date) {
  if (!way.needsPasscode || way.isLocked) return data({ passcode: null }, { status: 400 });
  if (passcode.trim() === '') return data({ passcode: readWords.typeThePasscodeYouWere }, { status: 400 });
  const answer = await tryPasscode(database(), way.id, passcode.trim(), instant);
  if ('pass' in answer) {
    const passes = await readCookie(request, passCookie, texts);
    const cookie = await passCookie.serialize({ ...passes, [way.id]: answer.pass });
    const { pathname, searchParams } = new URL(request.url);
    const issued = z.uuid().safeParse(searchParams.get('issued'));
    const to = pathname.replace(/\.data$/, '') + (issued.success ? `/issued/${issued.data}` : '');
    throw redirect(to, { headers: { 'Set-Cookie': cookie } });
  }
  if ('locked' in answer) return data({ passcode: null, isLocked: true }, { status: 403 });
  const sentence =
    'waitSeconds' in answer
      ? readWords.tooManyWereWrongWait(counted(answer.waitSeconds, 'second', 'seconds'))
      : readWords.thatIsNotThePasscode;
  return data({ passcode: sentence }, { status: 'waitSeconds' in answer ? 429 : 400 });
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData?.report ? readWords.reportOf(loaderData.report.shortName) : 'Report' },
  { name: 'robots', content: 'noindex, nofollow' },
];

export default function Read({ loaderData, actionData }: Route.ComponentProps) {
  const { report, ...rest } = loaderData;
  if (!report) {
    const message = actionData && 'passcode' in actionData ? actionData.passcode : null;
    const isLocked = rest.isLocked || (actionData !== undefined && 'isLocked' in actionData);
    return <Door {...rest} isLocked={isLocked} message={message} />;
  }
  return <OpenReport {...rest} report={report} />;
}

interface DoorProps {
  readerName: string;
  schoolName: string;
  isLocked: boolean;
  message: string | null;
}

/** Before the passcode is given, the page says nothing of any student. */
function Door({ readerName, schoolName, isLocked, message }: DoorProps) {
  const isBusy = useNavigation().state !== 'idle';
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <div className="border-l-2 border-clay pl-6">
        <p className="text-small text-ink-2">{schoolName}</p>
        <h1 className="text-2xl">{readWords.aReportFor(readerName)}</h1>
        {isLocked ? (
          <p role="alert" className="mt-4">
            {readWords.thisLinkIsLockedBecause}
          </p>
        ) : (
          <Form method="post" className="mt-5 grid gap-3">
            <label htmlFor="passcode" className="font-semibold">
              {readWords.thePasscodeThatTheCase}
            </label>
            <input
              id="passcode"
              name="passcode"
              type="password"
              autoComplete="off"
              aria-describedby={message ? 'passcode-message' : undefined}
              className="input w-full text-base"
            />
            <FieldMessage id="passcode-message" messages={message ? [message] : undefined} />
            <button type="submit" className="btn btn-primary" disabled={isBusy}>
              {readWords.openTheReport}
            </button>
          </Form>
        )}
      </div>
    </main>
  );
}

export type OpenedReport = NonNullable<Route.ComponentProps['loaderData']['report']>;

interface OpenReportProps {
  readerName: string;
  schoolName: string;
  endsOn: string;
  report: OpenedReport;
}

function OpenReport({ readerName, schoolName, endsOn, report }: OpenReportProps) {
  const [search] = useSearchParams();
  const { shortName, kind, today, goals, goal, find, from, to, arrangement, entries, threads, total } = report;
  return (
    <div className="mx-auto max-w-6xl">
      <Page
        marginName={readWords.aboutThisReport}
        margin={
          <>
            <MarginTitle>{readWords.aboutThisReport}</MarginTitle>
            <p>{readWords.forOpenUntil(readerName, longDate(endsOn))}</p>
            <p className="mt-3 text-small text-ink-2">{report.about}</p>
            {report.showsTrialMarks && <p className="mt-3 text-small text-ink-2">{readWords.aFilledMarkIsA}</p>}
          </>
        }
      >
        <PrintSheet head={readWords.printedHeading(shortName, schoolName, longDate(today))}>
          <header>
            <p className="text-small text-ink-2">{schoolName}</p>
            <h1 className="text-3xl">{shortName}</h1>
            <p className="mt-1 text-small text-ink-2">
              {readWords.individualReport(counted(total, 'entry', 'entries'))}
            </p>
          </header>
          <NearTheTop {...{ report, readerName }} />
          <GoalsAtFirst goals={report.atFirst} />
          <News news={report.news} />
          {report.atFirst.length > 0 && <h2 className="mt-10 text-2xl">{readWords.allEntries}</h2>}
          <div className="no-print mt-4 text-small">
            <FileLinks of={report.here} search={search.toString()} prints={readWords.print} />
          </div>
          <ReportControls {...{ goals, goal, find, from, to, arrangement, today, hasBehavior: report.hasBehavior }} />
          {entries.length === 0 && (
            <p className="py-10 text-ink-2">
              {goal || find || from || to ? readWords.nothingInTheReportIs : readWords.nothingHasBeenWrittenDown}
            </p>
          )}
          <ReportEntries
            {...{ entries, threads, goals, arrangement, today }}
            evidence={report.evidence}
            evidenceAt={`${report.here}/evidence`}
            linksToEntries={false}
            answers={{
              mayAnswer: canAnswer(kind),
              mayHide: false,
              word: kind === 'student' ? 'reflection' : 'comment',
              mayState: kind === 'family',
              seenBy: kind === 'student' ? readWords.theTeamAndYourFamily : readWords.theSupportTeamSeesIt,
            }}
          />
          <PagesLine {...report} oldestFirst={arrangement.oldestFirst} />
        </PrintSheet>
      </Page>
    </div>
  );
}
