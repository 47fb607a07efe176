import { Link } from 'react-router';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import { counted, listed } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { type DraftInBrief, draftsInBrief, reportStandings } from '~/server/progress-report/overview';
import { can } from '~/server/students/rights';
import { studentsOf } from '~/server/students/students';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { personOf } from '../platform/http/request-person';
import { MarginTitle, Page } from '../platform/ui/page';
import { ReportsNav } from '../progress-report/reports-nav';
import type { Route } from './+types/reports';
import { BatchList } from './batch-list';
import { batchesShown } from './batches-shown';
import { reportsWords } from './words';

export const loader = withErrorsInTurn(async ({ context }: Route.LoaderArgs) => {
  const { actor, school, person, discreet } = personOf(context);
  const students = (await studentsOf(database(), actor)).filter((student) => can(student, 'share'));
  const ids = students.map(({ id }) => id);
  const standings = await reportStandings(database(), ids, { school, today: actor.today });
  const drafts = await draftsInBrief(database(), standings);
  const lines = students.map(({ id, shortName, initials, groups }) => {
    const { period, issued } = defined(standings.get(id));
    return {
      ...{ id, groups, name: discreet ? initials : shortName },
      period,
      issued: issued && { id: issued.id, number: issued.number, on: issued.issuedOn },
      draft: drafts.get(id) ?? null,
    };
  });
  return {
    lines,
    setsUp: person.isSchoolAdmin,
    batches: await batchesShown(actor, { school, discreet }),
  };
});

export const meta: Route.MetaFunction = () => [{ title: reportsWords.pageTitle }];

export default function Reports({ loaderData }: Route.ComponentProps) {
  const { lines, batches, setsUp } = loaderData;
  const due = lines.filter(({ period }) => period);
  return (
    <Page
      marginName={reportsWords.forAWholeGroup}
      help="reports"
      margin={
        <>
          <MarginTitle about={reportsWords.onePdfToPrintSorted}>{reportsWords.forAWholeGroup}</MarginTitle>
          {lines.length > 0 && (
            <Link to="/reports/several" className="btn btn-primary">
              {reportsWords.chooseWhatToMake}
            </Link>
          )}
          <BatchList batches={batches} />
        </>
      }
    >
      <ReportsNav setsUp={setsUp} />
      <h1 className="text-3xl">{reportsWords.progressReports}</h1>
      <p className="mt-1.5 text-small text-ink-2">{reportsWords.ofTheStudentsWhoseReport}</p>
      {due.length > 0 && (
        <p className="mt-3 font-semibold">
          {reportsWords.issuedOf(due.filter(({ issued }) => issued).length, counted(due.length, 'report', 'reports'))}
        </p>
      )}
      {lines.length === 0 && <p className="py-8 text-ink-2">{reportsWords.thereIsNoStudentWhose}</p>}
      <ul className="mt-4 pb-20">
        {lines.map(({ id, name, groups: own, period, issued, draft }) => (
          <li key={id} className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-3">
            <p>
              <Link to={`/students/${id}/progress-report`} className="font-semibold hover:underline">
                {name}
              </Link>
              <span className="block text-small text-ink-2">
                {own.join(', ')}
                {period ? reportsWords.ends(period.label, longDate(period.last)) : reportsWords.noReportingPeriodsYet}
              </span>
              {!issued && draft && <span className="block text-small text-ink-2">{draftSaid(draft)}</span>}
            </p>
            {issued ? (
              <Link
                to={`/students/${id}/issued/${issued.id}`}
                className="inline-flex tap items-center text-small font-semibold link"
              >
                <span aria-hidden>● </span>
                {reportsWords.no}
                {issued.number}
                {reportsWords.issued}
                {shortDate(issued.on)}
              </Link>
            ) : (
              period && (
                <Link to={`/students/${id}/progress-report/${period.last}`} className="btn">
                  {reportsWords.toTheDraft}
                  <span className="sr-only">{reportsWords.ofStudent(name)}</span>
                </Link>
              )
            )}
          </li>
        ))}
      </ul>
    </Page>
  );
}

/** What is written in a draft and what is missing. */
function draftSaid({ goals, written, hasWhole, unseen }: DraftInBrief): string {
  return [
    reportsWords.written(written, goals) + (hasWhole ? reportsWords.wordsForTheWhole : reportsWords.noneForTheWhole),
    unseen.length > 0 && reportsWords.unseen(listed(unseen)),
  ]
    .filter(Boolean)
    .join(' · ');
}
