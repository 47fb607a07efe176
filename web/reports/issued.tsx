import { Printer } from 'lucide-react';
import { Link } from 'react-router';
import { issueWords, progressPaper, progressReportFor } from '~/core/progress-report/paper';
import { readerWords } from '~/core/readers/reader-kind';
import { listed } from '~/core/words/counting';
import { database } from '~/server/db/current';
import { issuedReport } from '~/server/progress-reports/issued';
import { recordReading } from '~/server/readers/readings';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { PrintSheet } from '../report/print-sheet';
import { teamReader } from '../report/team-reader';
import { Covered } from '../ui/covered';
import { MarginTitle, Page } from '../ui/page';
import type { Route } from './+types/issued';
import { formats } from './formats';
import { IssuedMarks } from './issued-marks';
import { PaperView } from './paper-view';
import { shownPaper } from './shown-paper';
import { WayBack } from './way-back';

export const loader = answering(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now, discreet } = askerOf(context);
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'read');
  if (discreet) return null;
  const [issued, reader] = await Promise.all([
    issuedReport(database(), student.id, idFrom(params.issuedId), school),
    teamReader(student, false),
  ]);
  const what = `progress report no. ${issued.number}`;
  await recordReading(database(), { personId: actor.personId }, { studentId: student.id, what, how: 'opened' }, now);
  const { report, ...line } = issued;
  return {
    student: { id: student.id, shortName: student.shortName },
    paper: shownPaper(progressPaper(progressReportFor(report, reader.shows), issued)),
    issued: { ...line, said: issueWords(issued) },
  };
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.paper.title ?? 'A progress report'} · Gentle Margin` },
];

/** What the page shows outside of the discreet view. */
type Opened = Omit<Route.ComponentProps, 'loaderData'> & {
  loaderData: NonNullable<Route.ComponentProps['loaderData']>;
};

export default function Issued(props: Route.ComponentProps) {
  const { loaderData } = props;
  return loaderData ? <OpenIssued {...props} loaderData={loaderData} /> : <Covered what="A progress report" />;
}

function OpenIssued({ loaderData: { student, paper, issued } }: Opened) {
  return (
    <Page
      marginName="About this report"
      margin={
        <>
          <MarginTitle>No. {issued.number}</MarginTitle>
          <div className="grid gap-3 text-small">
            <p>
              {issued.said}, by {issued.issuedByName}.
            </p>
            <p className="text-ink-2">
              For the team
              {issued.readers.length > 0 &&
                ` and ${listed(issued.readers.map((kind) => readerWords[kind].label.toLowerCase()))}`}
              . It does not change any more.
            </p>
            <p className="flex gap-4">
              {formats.map((format) => (
                <Link
                  key={format}
                  to={`/students/${student.id}/issued/${issued.id}/as/${format}`}
                  reloadDocument
                  className="font-semibold underline underline-offset-2"
                >
                  {format.toUpperCase()}
                </Link>
              ))}
            </p>
            <button type="button" className="btn h-11 w-fit" onClick={() => window.print()}>
              <Printer size={16} aria-hidden /> Print
            </button>
          </div>
        </>
      }
    >
      <WayBack student={student} />
      <PrintSheet head={paper.head}>
        <h1 className="mt-1 text-3xl">Progress report</h1>
        <IssuedMarks correctedSince={issued.correctedSince} replacedBy={issued.replacedBy} />
        <PaperView paper={paper} />
        <div className="pb-20 print:pb-0" />
      </PrintSheet>
    </Page>
  );
}
