import { Printer } from 'lucide-react';
import { data, Link, redirect } from 'react-router';
import { issueWords, progressReportDocument } from '~/core/documents/progress-report-document';
import { database } from '~/server/platform/db/current';
import { issuedNamed, issuedOutside } from '~/server/progress-report/issued';
import { recordAccess } from '~/server/sharing/access-log';
import { readerBy, visit } from '../individual-report/visit';
import { withErrorsAtDoor } from '../platform/http/at-door';
import { idFrom } from '../platform/http/request-person';
import { MarginTitle, Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import type { Route } from './+types/read-issued';
import { DocumentView } from './document-view';
import { IssuedMarks } from './issued-marks';
import { shownDocument } from './shown-document';
import { readIssuedWords } from './words';

export const loader = withErrorsAtDoor(async (args: Route.LoaderArgs, door) => {
  const { way, school, instant, isOpen } = await visit(args, door);
  // The door is at the report: there the passcode is asked for.
  if (!isOpen) throw redirect(`/shared/${args.params.token}`);
  const { reader } = await readerBy(way);
  const { kind } = way;
  const seen = { kind, shows: reader.shows };
  const issued = await issuedOutside(database(), way.studentId, idFrom(args.params.issuedId), school, seen);
  const reading = { studentId: way.studentId, what: issuedNamed(issued.number), how: 'opened' as const };
  await recordAccess(database(), { linkId: way.id }, reading, instant);
  return data({
    paper: shownDocument(progressReportDocument(issued.report, issued)),
    said: issueWords(issued),
    correctedSince: issued.correctedSince,
    replacedBy: issued.replacedBy,
    back: `/shared/${args.params.token}`,
    file: `/shared/${args.params.token}/issued/${issued.id}/pdf`,
    readerName: way.readerName,
  });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData?.paper.title ?? readIssuedWords.aProgressReport },
  { name: 'robots', content: 'noindex, nofollow' },
];

export default function ReadIssued({ loaderData }: Route.ComponentProps) {
  const { paper, said, correctedSince, replacedBy, back, file, readerName } = loaderData;
  return (
    <div className="mx-auto max-w-6xl">
      <Page
        marginName={readIssuedWords.aboutThisReport}
        margin={
          <>
            <MarginTitle>{readIssuedWords.aboutThisReport}</MarginTitle>
            <div className="grid gap-3 text-small">
              <p>{readIssuedWords.forItDoesNotChange(readerName, said)}</p>
              <p className="flex items-center gap-4">
                <Link to={file} reloadDocument className="font-semibold link">
                  {readIssuedWords.pdf}
                </Link>
                <button type="button" className="btn" onClick={() => window.print()}>
                  <Printer size={16} aria-hidden />
                  {readIssuedWords.print}
                </button>
              </p>
              <p>
                <Link to={back} className="link">
                  {readIssuedWords.theIndividualReport}
                </Link>
              </p>
            </div>
          </>
        }
      >
        <PrintSheet head={paper.head}>
          <h1 className="text-3xl">{readIssuedWords.progressReport}</h1>
          <IssuedMarks correctedSince={correctedSince} replacedBy={replacedBy} />
          <DocumentView paper={paper} />
          <div className="pb-16 print:pb-0" />
        </PrintSheet>
      </Page>
    </div>
  );
}
