import { useState } from 'react';
import { data, Link, redirect } from 'react-router';
import { z } from 'zod';
import { isoDateField } from '~/core/calendar/date-fields';
import { progressReportDocument } from '~/core/documents/progress-report-document';
import { missingIn } from '~/core/progress-report/content';
import { type DraftWords, draftInput, issueInput } from '~/core/progress-report/input';
import { listed } from '~/core/words/counting';
import { readable } from '~/core/words/readable';
import { asking, askingAtOneMoment, database } from '~/server/platform/db/current';
import { Conflict, NotFound } from '~/server/platform/failures';
import { draftOf, saveDraft } from '~/server/progress-report/draft';
import { issuedOf, issueReport, namesInReport } from '~/server/progress-report/issued';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { withFailures } from '../platform/http/failure-answer';
import { jsonOf } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { Covered } from '../platform/ui/covered';
import { FileLinks } from '../platform/ui/file-links';
import { MarginTitle, Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import { saveOrStay } from '../platform/ui/use-saving';
import type { Route } from './+types/draft';
import { EditedDocument } from './edited-document';
import { IssueDialog } from './issue-dialog';
import { shownDocument } from './shown-document';
import { useKeptWords } from './use-kept-words';
import { WayBack } from './way-back';
import { draftWords } from './words';

const periodFrom = (text: string | undefined) => {
  const parsed = isoDateField.safeParse(text);
  if (!parsed.success) throw new NotFound(draftWords.noSuchPeriod);
  return parsed.data;
};

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  if (discreet) return null;
  const period = periodFrom(params.period);
  const [draft, issued] = await Promise.all([
    draftOf(database(), student, period, { school, today: actor.today }),
    issuedOf(database(), student.id, school),
  ]);
  const standing = issued.find(({ period: of, replacedBy }) => of.id === draft.periodId && replacedBy === null);
  return {
    student: { id: student.id, shortName: student.shortName },
    period,
    paper: shownDocument(progressReportDocument(draft.report, null, { keepsEmpty: true })),
    goals: draft.report.goals.map(({ goalId, number, shortName }) => ({
      id: goalId,
      name: `${number} · ${shortName}`,
    })),
    words: draft.words,
    version: draft.version,
    changedByName: draft.changedByName,
    missing: missingIn(draft.report, actor.today),
    named: await namesInReport(database(), student.id, draft.report),
    standing: standing ? { id: standing.id, number: standing.number } : null,
    next: (issued[0]?.number ?? 0) + 1,
  };
});

const change = z.discriminatedUnion('intent', [
  draftInput.extend({ intent: z.literal('save') }),
  issueInput.extend({ intent: z.literal('issue') }),
]);

/** What the server answers to a draft that is kept or issued. */
export type DraftAnswer =
  | { version: number }
  | { theirs: { words: DraftWords; version: number } }
  | { problem: string }
  | { unreachable: true };

export const action = withFailures(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await asking(actor, () => requireStudent(database(), actor, studentId, 'share'));
  const parsed = readable(change).safeParse(await jsonOf(request));
  if (!parsed.success || parsed.data.period !== params.period) {
    return data({ problem: draftWords.thisCannotBeKeptAs }, { status: 400 });
  }
  const asked = parsed.data;
  try {
    if (asked.intent === 'save') {
      const save = () => saveDraft(database(), actor, studentId, asked, now);
      return data({ version: await asking(actor, save) });
    }
    await askingAtOneMoment(actor, () => issueReport(database(), actor, studentId, asked, { school, now }));
    throw redirect(`/students/${studentId}/issued/${asked.id}`, {
      headers: await sayNext({ text: draftWords.issuedItIsNumberedAnd }),
    });
  } catch (error) {
    if (!(error instanceof Conflict)) throw error;
    // What `saveDraft` says when somebody else wrote or issued meanwhile.
    const current = error.current as { words: DraftWords; version: number } | { issued: number | null };
    if ('words' in current) return data({ theirs: current }, { status: 409 });
    const problem = current.issued ? draftWords.noWasIssuedForThis(current.issued) : draftWords.theReportThatThisOne;
    return data({ problem }, { status: 409 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

// What was saved is what stands in the editors: they need not be filled again.
export const shouldRevalidate = () => false;

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: draftWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

/** What the page shows outside of the discreet view. */
type Opened = Omit<Route.ComponentProps, 'loaderData'> & {
  loaderData: NonNullable<Route.ComponentProps['loaderData']>;
};

export default function Draft(props: Route.ComponentProps) {
  const { loaderData } = props;
  return loaderData ? <OpenDraft {...props} loaderData={loaderData} /> : <Covered what={draftWords.aProgressReport} />;
}

function OpenDraft({ loaderData }: Opened) {
  const { student, period, paper, goals, missing, named, standing, next, changedByName } = loaderData;
  const path = `/students/${student.id}/progress-report/${period}`;
  const { words, version, isDirty, isBusy, isUnreachable, answer, theirs, change, keepMine, issue } = useKeptWords(
    path,
    loaderData,
  );
  const [isIssuing, setIssuing] = useState(false);
  const state = isUnreachable
    ? draftWords.theServerCannotBeReached
    : isDirty
      ? draftWords.beingKept
      : version > 0
        ? `Kept${changedByName && version === loaderData.version ? draftWords.by(changedByName) : ''}.`
        : draftWords.nothingWrittenYet;
  return (
    <Page
      marginName={draftWords.beforeItIsIssued}
      margin={
        <>
          <MarginTitle>{draftWords.beforeItIsIssued}</MarginTitle>
          {named.length > 0 && (
            <p role="status" className="mb-4 text-small text-clay-deep">
              {draftWords.anotherChildReadersFromOutside(listed(named.map((name) => `“${name}”`)))}
            </p>
          )}
          {missing.length === 0 ? (
            <p className="text-small text-ink-2">{draftWords.everyGoalHasBeenObserved}</p>
          ) : (
            <ul aria-label={draftWords.whatIsMissing} className="grid gap-2 text-small">
              {missing.map(({ text }) => (
                <li key={text} className="rounded-field bg-clay-wash px-3 py-2">
                  <span aria-hidden>▽ </span>
                  {text}
                </li>
              ))}
            </ul>
          )}
          {standing && (
            <p className="mt-4 text-small">
              <Link to={`/students/${student.id}/issued/${standing.id}`} className="link">
                {draftWords.no(standing.number)}
              </Link>{' '}
              {draftWords.wasIssuedForThisPeriod}
            </p>
          )}
          <p
            role="status"
            className={`mt-5 text-small ${isUnreachable ? 'font-semibold text-clay-deep' : 'text-ink-2'}`}
          >
            {state}
          </p>
          {theirs && (
            <div role="alert" className="mt-3 grid gap-2 alert alert-error alert-soft block text-small">
              <p className="font-semibold">{draftWords.somebodyElseHasWrittenHere}</p>
              <button type="button" className="btn" onClick={keepMine}>
                {draftWords.keepMine}
              </button>
              <button type="button" className="btn" onClick={() => window.location.reload()}>
                {draftWords.showTheirsAndLoseMine}
              </button>
            </div>
          )}
          {answer && 'problem' in answer && (
            <p role="alert" className="mt-3 font-semibold text-clay-deep">
              {answer.problem}
            </p>
          )}
          <button
            type="button"
            className="btn btn-primary mt-5 w-full"
            disabled={theirs !== null}
            onClick={() => setIssuing(true)}
          >
            {draftWords.issueIt}
          </button>
          <div className="mt-3 flex flex-wrap items-center gap-4 text-small">
            <FileLinks of={path} />
            <span className="text-ink-2">{draftWords.ofTheDraft}</span>
          </div>
        </>
      }
    >
      <WayBack student={student} />
      <PrintSheet head={paper.head}>
        <h1 className="mt-1 text-3xl">{draftWords.heading}</h1>
        <EditedDocument paper={paper} studentId={student.id} goals={goals} words={words} onChange={change} />
      </PrintSheet>
      {isIssuing && (
        <IssueDialog
          number={next}
          missing={missing.length}
          replaces={standing?.number ?? null}
          isBusy={isBusy}
          onClose={() => setIssuing(false)}
          onIssue={(id, readers) => issue({ id, readers, replaces: standing?.id ?? null })}
        />
      )}
    </Page>
  );
}
