import { useEffect } from 'react';
import { data, Form, Link, useNavigation, useRevalidator } from 'react-router';
import { z } from 'zod';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { defined } from '~/core/defined';
import { BATCH_DAYS } from '~/core/progress-report/input';
import { counted, listed } from '~/core/words/counting';
import { askForBatch, batchesOf } from '~/server/documents/batches';
import { database } from '~/server/platform/db/current';
import { reportStandings } from '~/server/progress-report/overview';
import { can } from '~/server/students/rights';
import { studentsOf } from '~/server/students/students';
import { formOf } from '../platform/http/form-of';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { useFreshId } from '../platform/ui/use-fresh-id';
import type { Route } from './+types/reports';
import { ReportsNav } from './reports-nav';
import { reportsWords } from './words';

export const loader = withErrorsInTurn(async ({ context }: Route.LoaderArgs) => {
  const { actor, school, person, discreet } = personOf(context);
  const students = (await studentsOf(database(), actor)).filter((student) => can(student, 'share'));
  const ids = students.map(({ id }) => id);
  const standings = await reportStandings(database(), ids, { school, today: actor.today });
  const lines = students.map(({ id, shortName, initials, groups }) => {
    const { period, issued } = defined(standings.get(id));
    return {
      ...{ id, groups, name: discreet ? initials : shortName },
      period,
      issued: issued && { id: issued.id, number: issued.number, on: issued.issuedOn },
    };
  });
  const batches = await batchesOf(database(), actor);
  return {
    lines,
    groups: [...new Set(students.flatMap(({ groups }) => groups))].sort(),
    setsUp: person.isSchoolAdmin,
    batches: batches.map(({ madeAt, ...batch }) => {
      const { on, time } = wallTime(madeAt, school.timeZone);
      const leftOut = discreet ? batch.leftOut.map(() => 'a student') : batch.leftOut;
      return { ...batch, leftOut, at: `${shortDate(on)}, ${time}` };
    }),
  };
});

const wanted = z.object({
  id: z.uuid(),
  group: z
    .string()
    .optional()
    .transform((name) => name || null),
  what: z.enum(['progress', 'running']),
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const { refused } = await submitted(await formOf(request), wanted, (input) =>
    askForBatch(database(), actor, input, now),
  );
  return refused ?? data({ result: undefined });
});

export const meta: Route.MetaFunction = () => [{ title: reportsWords.pageTitle }];

export default function Reports({ loaderData, actionData }: Route.ComponentProps) {
  const { lines, groups, batches, setsUp } = loaderData;
  const isMaking = batches.some(({ state }) => state === 'waiting' || state === 'making');
  const { revalidate, state } = useRevalidator();
  useEffect(() => {
    if (!isMaking || state !== 'idle') return;
    const timer = setTimeout(revalidate, 1000);
    return () => clearTimeout(timer);
  }, [isMaking, state, revalidate]);
  return (
    <Page
      marginName={reportsWords.forAWholeGroup}
      help="reports"
      margin={
        <>
          <MarginTitle about={reportsWords.onePdfToPrintSorted}>{reportsWords.forAWholeGroup}</MarginTitle>
          {lines.length > 0 && (
            <BatchForm key={batches[0]?.id ?? 'first'} groups={groups} error={actionData?.result?.error?.group?.[0]} />
          )}
          <ul aria-label={reportsWords.filesForGroups} aria-live="polite" className="mt-6">
            {batches.map((batch) => (
              <li key={batch.id} className="border-b border-dotted border-ink-3/50 py-3 text-small">
                <p className="font-semibold">
                  {batch.label},{' '}
                  {batch.what === 'progress' ? reportsWords.manyProgressReports : reportsWords.manyIndividualReports}
                </p>
                <p className="text-ink-2">{batch.at}</p>
                {batch.state === 'ready' ? (
                  <Link to={`/batches/${batch.id}`} reloadDocument className="font-semibold link">
                    {reportsWords.pdf(
                      counted(batch.of - batch.leftOut.length, 'student', 'students'),
                      counted(batch.pages ?? 0, 'page', 'pages'),
                    )}
                  </Link>
                ) : batch.state === 'over' ? (
                  <p className="text-ink-2">{reportsWords.itCouldBeFetchedFor(BATCH_DAYS)}</p>
                ) : batch.state === 'failed' ? (
                  <p className="font-semibold text-clay-deep">{batch.problem}</p>
                ) : (
                  <>
                    <progress
                      className="progress mt-1 w-full text-fern"
                      value={batch.done}
                      max={batch.of}
                      aria-label={reportsWords.beingMade(batch.label)}
                    />
                    <p>
                      {reportsWords.ofMade(batch.done, batch.of, batch.problem ?? reportsWords.youMayLeaveThisPage)}
                    </p>
                  </>
                )}
                {batch.leftOut.length > 0 && batch.state !== 'over' && (
                  <p className="text-ink-2">{reportsWords.leftOutNoLongerYours(listed(batch.leftOut))}</p>
                )}
              </li>
            ))}
          </ul>
        </>
      }
    >
      <ReportsNav setsUp={setsUp} />
      <h1 className="text-3xl">{reportsWords.progressReports}</h1>
      <p className="mt-1.5 text-small text-ink-2">{reportsWords.ofTheStudentsWhoseReport}</p>
      {lines.length === 0 && <p className="py-8 text-ink-2">{reportsWords.thereIsNoStudentWhose}</p>}
      <ul className="mt-4 pb-20">
        {lines.map(({ id, name, groups: own, period, issued }) => (
          <li key={id} className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-3">
            <p>
              <Link to={`/students/${id}/progress-report`} className="font-semibold hover:underline">
                {name}
              </Link>
              <span className="block text-small text-ink-2">
                {own.join(', ')}
                {period ? reportsWords.ends(period.label, longDate(period.last)) : reportsWords.noReportingPeriodsYet}
              </span>
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

function BatchForm({ groups, error }: { groups: string[]; error: string | undefined }) {
  const id = useFreshId();
  const isBusy = useNavigation().state !== 'idle';
  return (
    <Form method="post" className="grid gap-3 text-small">
      <input type="hidden" name="id" value={id} />
      <label className="grid gap-1">
        <span className="font-semibold">{reportsWords.of}</span>
        <select name="group" className="select w-full">
          <option value="">{reportsWords.allStudents}</option>
          {groups.map((group) => (
            <option key={group}>{group}</option>
          ))}
        </select>
      </label>
      {error && (
        <p role="alert" className="font-semibold text-clay-deep">
          {error}
        </p>
      )}
      <label className="grid gap-1">
        <span className="font-semibold">{reportsWords.what}</span>
        <select name="what" className="select w-full">
          <option value="progress">{reportsWords.progressReportsOrTheirDrafts}</option>
          <option value="running">{reportsWords.individualReports}</option>
        </select>
      </label>
      <button type="submit" className="btn btn-primary" disabled={isBusy || id === ''}>
        {reportsWords.makeThePdf}
      </button>
    </Form>
  );
}
