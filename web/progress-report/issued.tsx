import { Printer } from 'lucide-react';
import { issueWords, progressReportDocument, progressReportFor } from '~/core/documents/progress-report-document';
import { undecided } from '~/core/sharing/comment';
import { readerWords } from '~/core/sharing/reader-kind';
import { listed } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { issuedNamed, issuedReport } from '~/server/progress-report/issued';
import { recordAccess } from '~/server/sharing/access-log';
import { decideAmendment } from '~/server/sharing/amendments';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { teamReader } from '../individual-report/team-reader';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors, withErrorsAlone } from '../platform/http/with-errors';
import { Covered } from '../platform/ui/covered';
import { FileLinks } from '../platform/ui/file-links';
import { MarginTitle, Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import { answerComments } from '../sharing/comment-actions';
import { Said } from '../sharing/thread';
import type { Route } from './+types/issued';
import { DocumentView } from './document-view';
import { IssuedMarks } from './issued-marks';
import { shownDocument } from './shown-document';
import { WayBack } from './way-back';
import { issuedWords } from './words';

export const loader = withErrorsAlone(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'read');
  if (discreet) return null;
  const [issued, reader] = await Promise.all([
    issuedReport(database(), student.id, idFrom(params.issuedId), school),
    teamReader(student, false),
  ]);
  const what = issuedNamed(issued.number);
  await recordAccess(database(), { personId: actor.personId }, { studentId: student.id, what, how: 'opened' }, now);
  const { report, statements, ...line } = issued;
  return {
    student: { id: student.id, shortName: student.shortName },
    paper: shownDocument(progressReportDocument(progressReportFor(report, reader.shows), issued)),
    issued: { ...line, said: issueWords(issued) },
    requests: can(student, 'share') ? undecided(statements) : [],
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, wall, now } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  return answerComments(await formOf(request), async (asked) => {
    if (asked.intent !== 'decide') throw new NotFound(issuedWords.noSuchAddress);
    await decideAmendment(database(), actor, student.id, asked, { wall, now });
  });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: issuedWords.pageTitle(loaderData?.paper.title ?? issuedWords.aProgressReport) },
];

/** What the page shows outside of the discreet view. */
type Opened = Omit<Route.ComponentProps, 'loaderData'> & {
  loaderData: NonNullable<Route.ComponentProps['loaderData']>;
};

export default function Issued(props: Route.ComponentProps) {
  const { loaderData } = props;
  return loaderData ? (
    <OpenIssued {...props} loaderData={loaderData} />
  ) : (
    <Covered what={issuedWords.aProgressReport} />
  );
}

function OpenIssued({ loaderData: { student, paper, issued, requests } }: Opened) {
  return (
    <Page
      marginName={issuedWords.aboutThisReport}
      margin={
        <>
          <MarginTitle>{issuedWords.no(issued.number)}</MarginTitle>
          <div className="grid gap-3 text-small">
            <p>{issuedWords.by(issued.said, issued.issuedByName)}</p>
            <p className="text-ink-2">
              {issuedWords.forTheTeam}
              {issued.readers.length > 0 &&
                issuedWords.and(listed(issued.readers.map((kind) => readerWords[kind].label.toLowerCase())))}
              {issuedWords.itDoesNotChangeAny}
            </p>
            <FileLinks of={`/students/${student.id}/issued/${issued.id}`} />
            <button type="button" className="btn w-fit" onClick={() => window.print()}>
              <Printer size={16} aria-hidden />
              {issuedWords.print}
            </button>
          </div>
        </>
      }
    >
      <WayBack student={student} />
      <PrintSheet head={paper.head}>
        <h1 className="mt-1 text-3xl">{issuedWords.progressReport}</h1>
        <IssuedMarks correctedSince={issued.correctedSince} replacedBy={issued.replacedBy} />
        {requests.length > 0 && (
          <section aria-label={issuedWords.requests} className="no-print mt-4 rounded-box bg-clay-wash p-4">
            <h2 className="text-base">{issuedWords.requests}</h2>
            <ul>
              {requests.map((one) => (
                <Said key={one.id} comment={one} mayHide isOpen />
              ))}
            </ul>
          </section>
        )}
        <DocumentView paper={paper} />
        <div className="pb-20 print:pb-0" />
      </PrintSheet>
    </Page>
  );
}
