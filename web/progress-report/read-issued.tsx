import { Printer } from 'lucide-react';
import { useState } from 'react';
import { data, Link, redirect } from 'react-router';
import { issueWords, progressReportDocument } from '~/core/documents/progress-report-document';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { issuedNamed, issuedOutside, issuedReport } from '~/server/progress-report/issued';
import { recordAccess } from '~/server/sharing/access-log';
import { sayComment } from '~/server/sharing/comments';
import { readerBy, visit } from '../individual-report/visit';
import { withErrorsAtDoor } from '../platform/http/at-door';
import { formOf } from '../platform/http/form-of';
import { idFrom } from '../platform/http/request-person';
import { MarginTitle, Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import { answerComments } from '../sharing/comment-actions';
import { AnswerForm } from '../sharing/thread';
import type { Route } from './+types/read-issued';
import { DocumentView } from './document-view';
import { IssuedMarks } from './issued-marks';
import { shownDocument } from './shown-document';
import { readIssuedWords } from './words';

export const loader = withErrorsAtDoor(async (args: Route.LoaderArgs, door) => {
  const { way, school, instant, isOpen } = await visit(args, door);
  // The door is at the report: there the passcode is asked for, and then it goes on here.
  if (!isOpen) throw redirect(`/shared/${args.params.token}?issued=${idFrom(args.params.issuedId)}`);
  const { reader } = await readerBy(way);
  const { kind } = way;
  const seen = { kind, shows: reader.shows, linkId: way.id };
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
    reportId: issued.id,
    mayState: kind === 'family',
  });
});

export const action = withErrorsAtDoor(async (args: Route.ActionArgs, door) => {
  const { way, school, wall, instant, isOpen } = await visit(args, door);
  if (!isOpen) throw redirect(`/shared/${args.params.token}`);
  const form = await formOf(args.request);
  // Only whoever may read this report may say something of it.
  const issued = await issuedReport(database(), way.studentId, idFrom(args.params.issuedId), school, way.kind);
  return answerComments(form, async (asked) => {
    if (asked.intent !== 'say' || asked.reportId === null) throw new NotFound(readIssuedWords.noSuchReport);
    const speaker = { kind: way.kind, linkId: way.id };
    const mayRead = () => Promise.resolve(false);
    await sayComment(database(), way.studentId, speaker, asked, { wall, now: instant, mayRead, openReport: issued.id });
  });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData?.paper.title ?? readIssuedWords.aProgressReport },
  { name: 'robots', content: 'noindex, nofollow' },
];

export default function ReadIssued({ loaderData }: Route.ComponentProps) {
  const { paper, said, correctedSince, replacedBy, back, file, readerName, reportId, mayState } = loaderData;
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
          {mayState && <OwnStatement reportId={reportId} />}
          <div className="pb-16 print:pb-0" />
        </PrintSheet>
      </Page>
    </div>
  );
}

/** A family may state something that stays with the report, or ask for it to be amended. */
function OwnStatement({ reportId }: { reportId: string }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <div className="no-print mt-10 border-t border-rule pt-4">
      {isOpen ? (
        <AnswerForm entryId={null} reportId={reportId} word="comment" mayState onDone={() => setOpen(false)} />
      ) : (
        <>
          <p className="mb-2 max-w-3xl text-small text-ink-2">{readIssuedWords.ifYouSeeItOtherwise}</p>
          <button type="button" className="btn" onClick={() => setOpen(true)}>
            {readIssuedWords.stateOrAsk}
          </button>
        </>
      )}
    </div>
  );
}
