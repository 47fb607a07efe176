import { Link } from 'react-router';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { issueWords } from '~/core/documents/progress-report-document';
import { readerWords } from '~/core/sharing/reader-kind';
import { listed } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { periodsOf } from '~/server/progress-report/draft';
import { issuedOf } from '~/server/progress-report/issued';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { ReportViews } from '../individual-report/report-views';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/progress';
import { progressWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'read');
  const [periods, issued] = await Promise.all([
    periodsOf(database(), student.id, actor.today),
    issuedOf(database(), student.id, school),
  ]);
  return {
    student: headerStudent(student, { discreet }),
    today: actor.today,
    mayIssue: can(student, 'share'),
    periods: periods.map((period) => ({
      ...period,
      issued: issued.filter(({ period: of }) => of.id === period.id).map(({ number }) => number),
    })),
    issued: issued.map((report) => ({ ...report, said: issueWords(report) })),
  };
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: progressWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

export default function Progress({ loaderData: { student, today, mayIssue, periods, issued } }: Route.ComponentProps) {
  return (
    <Page
      marginName={progressWords.aboutProgressReports}
      margin={
        <>
          <MarginTitle>{progressWords.aboutProgressReports}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{progressWords.aReportIsComputedFrom}</p>
            <p>{progressWords.whenAnEntryIsCorrected}</p>
            <p>{progressWords.familiesAreToldOfProgress}</p>
          </div>
        </>
      }
    >
      <StudentHeader student={student} />
      <ReportViews studentId={student.id} />
      <h2 className="mt-5 text-2xl">{progressWords.reportingPeriods}</h2>
      {periods.length === 0 && (
        <p className="py-4 text-ink-2">
          {progressWords.thePlanHasNoReporting}{' '}
          {student.mayEditGoals && (
            <Link to={`/students/${student.id}/edit`} className="link">
              {progressWords.addThemToThePlan}
            </Link>
          )}
        </p>
      )}
      <ul>
        {periods.map(({ label, first, last, issued: numbers }) => (
          <li key={last} className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-3.5">
            <p>
              <span className="font-semibold">{label}</span>
              <span className="block text-small text-ink-2">
                {shortDate(first)} – {longDate(last)} ·{' '}
                {numbers.length > 0
                  ? `issued: ${listed(numbers.map((number) => progressWords.no(number)))}`
                  : last < today
                    ? progressWords.overAndNotIssued
                    : first > today
                      ? progressWords.notBegunYet
                      : progressWords.goingOn}
              </span>
            </p>
            {mayIssue && first <= today && (
              <Link to={`/students/${student.id}/progress-report/${last}`} className="btn">
                {numbers.length > 0 ? progressWords.issueAnew : progressWords.toTheDraft}
                <span className="sr-only">{progressWords.of(label)}</span>
              </Link>
            )}
          </li>
        ))}
      </ul>
      <h2 className="mt-9 text-2xl">{progressWords.issued}</h2>
      {issued.length === 0 && <p className="py-4 text-ink-2">{progressWords.noneYet}</p>}
      <ul className="pb-20">
        {issued.map((report) => (
          <li key={report.id} className="border-b border-rule py-3.5">
            <Link to={`/students/${student.id}/issued/${report.id}`} className="font-semibold hover:underline">
              {report.period.label}: {report.said}
            </Link>
            <p className="text-small text-ink-2">
              {progressWords.by}
              {report.issuedByName}
              {progressWords.forTheTeam}
              {report.readers.length > 0 &&
                `, ${listed(report.readers.map((kind) => readerWords[kind].label.toLowerCase()))}`}
              {report.replacedBy !== null && progressWords.replacedByNo(report.replacedBy)}
            </p>
          </li>
        ))}
      </ul>
    </Page>
  );
}
