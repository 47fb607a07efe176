import { lazy, Suspense, useCallback, useEffect, useRef, useState } from 'react';
import { data, Link, redirect, useBlocker } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { isoDateField } from '~/core/calendar/date-fields';
import { noWords, type RichText } from '~/core/paper/rich-text';
import { missingIn } from '~/core/progress-report/content';
import { type DraftWords, draftInput, issueInput } from '~/core/progress-report/input';
import { progressPaper } from '~/core/progress-report/paper';
import { outsideKinds, readerWords } from '~/core/readers/reader-kind';
import { counted } from '~/core/words/counting';
import { database } from '~/server/db/current';
import { Conflict, NotFound } from '~/server/failures';
import { draftOf, saveDraft } from '~/server/progress-reports/draft';
import { issuedOf, issueReport } from '~/server/progress-reports/issued';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { sayNext } from '../http/cookies';
import { PrintSheet } from '../report/print-sheet';
import { Dialog } from '../ui/dialog';
import { MarginTitle, Page } from '../ui/page';
import { saveOrStay, useRetry, useSaving } from '../ui/use-saving';
import type { Route } from './+types/draft';
import { formats } from './formats';
import { PaperView } from './paper-view';
import { type ShownBlock, shownPaper } from './shown-paper';
import { WayBack } from './way-back';

const WordsEditor = lazy(() => import('./words-editor'));

const periodFrom = (text: string | undefined) => {
  const parsed = isoDateField.safeParse(text);
  if (!parsed.success) throw new NotFound('No such period.');
  return parsed.data;
};

export const loader = answering(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school } = askerOf(context);
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'share');
  const period = periodFrom(params.period);
  const [draft, issued] = await Promise.all([
    draftOf(database(), student, period, { school, today: actor.today }),
    issuedOf(database(), student.id, school),
  ]);
  const standing = issued.find(({ period: of, replacedBy }) => of.to === period && replacedBy === null);
  return {
    student: { id: student.id, shortName: student.shortName },
    period,
    paper: shownPaper(progressPaper(draft.report, null)),
    goals: draft.report.goals.map(({ goalId, number, shortName }) => ({
      id: goalId,
      name: `${number} · ${shortName}`,
    })),
    words: draft.words,
    version: draft.version,
    changedByName: draft.changedByName,
    missing: missingIn(draft.report, actor.today),
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

export const action = answering(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, now } = askerOf(context);
  const studentId = idFrom(params.studentId);
  await studentFor(database(), actor, studentId, 'share');
  const parsed = change.safeParse(await request.json().catch(() => null));
  if (!parsed.success || parsed.data.period !== params.period) {
    return data({ problem: 'This cannot be kept as it is: the words may be too long.' }, { status: 400 });
  }
  try {
    if (parsed.data.intent === 'save') {
      return data({ version: await saveDraft(database(), actor, studentId, parsed.data, now) });
    }
    await issueReport(database(), actor, studentId, parsed.data, { school, now });
  } catch (error) {
    if (!(error instanceof Conflict)) throw error;
    const current = error.current as { words: DraftWords; version: number } | { issued: number | null };
    if ('words' in current) return data({ theirs: current }, { status: 409 });
    const problem = current.issued
      ? `No. ${current.issued} was issued for this period in the meantime. Load the page again to see it.`
      : 'The report that this one replaces was replaced already.';
    return data({ problem }, { status: 409 });
  }
  throw redirect(`/students/${studentId}/issued/${parsed.data.id}`, {
    headers: await sayNext({ text: 'Issued. It is numbered and dated, and does not change any more.' }),
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

// What was saved is what stands in the editors: they need not be filled again.
export const shouldRevalidate = () => false;

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Draft of a progress report, ${loaderData?.student.shortName ?? 'a student'} · Gentle Margin` },
];

/** After so long without a key the words are kept. */
const PAUSE = 1500;

export default function Draft({ loaderData }: Route.ComponentProps) {
  const { student, period, paper, goals, missing, standing, next, changedByName } = loaderData;
  const path = `/students/${student.id}/progress/${period}`;
  const { answer, isBusy, isUnreachable, save } = useSaving<DraftAnswer>(path);
  const [words, setWords] = useState(loaderData.words);
  const [version, setVersion] = useState(loaderData.version);
  const [isDirty, setDirty] = useState(false);
  const [isIssuing, setIssuing] = useState(false);
  // What is typed while something is being kept is kept next.
  const sent = useRef(words);
  const latest = useRef(words);
  latest.current = words;
  const theirs = answer && 'theirs' in answer && version !== answer.theirs.version ? answer.theirs : null;

  const keep = useCallback(() => {
    sent.current = words;
    save({ intent: 'save', period, version, words });
  }, [save, period, version, words]);
  useEffect(() => {
    if (!answer || !('version' in answer)) return;
    setVersion(answer.version);
    setDirty(sent.current !== latest.current);
  }, [answer]);
  useEffect(() => {
    if (!isDirty || isBusy || theirs || isUnreachable) return;
    const timer = setTimeout(keep, PAUSE);
    return () => clearTimeout(timer);
  }, [isDirty, isBusy, theirs, isUnreachable, keep]);
  useRetry({ isUnreachable, isBusy }, keep);
  useBlocker(
    isDirty && !isIssuing
      ? ({ currentLocation, nextLocation }) => leavesUnkept(currentLocation.pathname, nextLocation.pathname)
      : false,
  );
  const change = (place: string | null, to: RichText) => {
    setDirty(true);
    setWords((before) =>
      place === null ? { ...before, whole: to } : { ...before, goals: { ...before.goals, [place]: to } },
    );
  };

  const state = isUnreachable
    ? 'The server cannot be reached; what you typed is still here and is kept as soon as it can.'
    : isDirty
      ? 'Being kept …'
      : version > 0
        ? `Kept${changedByName && version === loaderData.version ? `, by ${changedByName}` : ''}.`
        : 'Nothing written yet.';
  return (
    <Page
      marginName="Before it is issued"
      margin={
        <>
          <MarginTitle>Before it is issued</MarginTitle>
          {missing.length === 0 ? (
            <p className="text-small text-ink-2">Every goal has been observed in this period.</p>
          ) : (
            <ul aria-label="What is missing" className="grid gap-2 text-small">
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
              <Link to={`/students/${student.id}/issued/${standing.id}`} className="underline underline-offset-2">
                No. {standing.number}
              </Link>{' '}
              was issued for this period. A new one replaces it openly.
            </p>
          )}
          <p
            role="status"
            className={`mt-5 text-small ${isUnreachable ? 'font-semibold text-clay-deep' : 'text-ink-2'}`}
          >
            {state}
          </p>
          {theirs && (
            <div
              role="alert"
              className="mt-3 grid gap-2 rounded-field border border-clay bg-clay-wash px-3 py-2 text-small"
            >
              <p className="font-semibold">
                Somebody else has written here in the meantime. Yours is still on this page.
              </p>
              <button
                type="button"
                className="btn"
                onClick={() => {
                  setVersion(theirs.version);
                  setDirty(true);
                }}
              >
                Keep mine
              </button>
              <button type="button" className="btn" onClick={() => window.location.reload()}>
                Show theirs, and lose mine
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
            className="btn btn-primary mt-5 h-11 w-full"
            disabled={theirs !== null}
            onClick={() => setIssuing(true)}
          >
            Issue it …
          </button>
          <p className="mt-3 flex gap-4 text-small">
            {formats.map((format) => (
              <Link key={format} to={`${path}/as/${format}`} reloadDocument className="underline underline-offset-2">
                {format.toUpperCase()}
              </Link>
            ))}
            <span className="text-ink-2">of the draft</span>
          </p>
        </>
      }
    >
      <WayBack student={student} />
      <PrintSheet head={paper.head}>
        <h1 className="mt-1 text-3xl">Draft of a progress report</h1>
        <EditedPaper paper={paper} goals={goals} words={words} onChange={change} />
      </PrintSheet>
      {isIssuing && (
        <IssueDialog
          number={next}
          missing={missing.length}
          replaces={standing?.number ?? null}
          isBusy={isBusy}
          onClose={() => setIssuing(false)}
          onIssue={(id, readers) => {
            sent.current = words;
            save({ intent: 'issue', id, period, version, words, readers, replaces: standing?.id ?? null });
          }}
        />
      )}
    </Page>
  );
}

const leavesUnkept = (from: string, to: string) =>
  from !== to && !window.confirm('What you typed last has not been kept yet. Leave it?');

interface EditedPaperProps {
  paper: Route.ComponentProps['loaderData']['paper'];
  goals: { id: string; name: string }[];
  words: DraftWords;
  onChange: (place: string | null, words: RichText) => void;
}

/** The paper with an editor for the own words of each goal, where they will stand, and for the whole. */
function EditedPaper({ paper, goals, words, onChange }: EditedPaperProps) {
  const blocks = paper.blocks.filter(({ kind }) => kind !== 'rich');
  const goalAt = (at: number): { id: string; name: string } | undefined => {
    const name = blocks.slice(0, at + 1).findLast((block): block is Extract<ShownBlock, { kind: 'heading' }> => {
      return block.kind === 'heading' && block.level === 2;
    })?.text;
    return goals.find((goal) => goal.name === name);
  };
  const endsGoal = (at: number) => {
    const after = blocks[at + 1];
    return after === undefined || after.kind === 'signatures' || (after.kind === 'heading' && after.level === 2);
  };
  const lastQuiet = blocks.findIndex((block, at) => at > 0 && block.kind === 'heading' && block.level === 2) - 1;
  return (
    <div className="pb-24">
      <PaperView paper={{ ...paper, blocks }}>
        {(block, at) => {
          const goal = endsGoal(at) ? goalAt(at) : undefined;
          const isWhole = at === lastQuiet;
          if (!goal && !isWhole) return null;
          return (
            <>
              <PaperView paper={{ ...paper, blocks: [block] }} />
              <Suspense fallback={<p className="min-h-20 text-small text-ink-2">The editor is being fetched …</p>}>
                <WordsEditor
                  label={goal ? `Your words about ${goal.name}` : 'Your words for the whole'}
                  words={(goal ? words.goals[goal.id] : words.whole) ?? noWords}
                  onChange={(to) => onChange(goal?.id ?? null, to)}
                />
              </Suspense>
            </>
          );
        }}
      </PaperView>
    </div>
  );
}

interface IssueDialogProps {
  number: number;
  missing: number;
  replaces: number | null;
  isBusy: boolean;
  onClose: () => void;
  onIssue: (id: string, readers: string[]) => void;
}

function IssueDialog({ number, missing, replaces, isBusy, onClose, onIssue }: IssueDialogProps) {
  const [id] = useState(() => newId());
  const [readers, setReaders] = useState<string[]>(['family']);
  return (
    <Dialog title="Issue this report?" onClose={onClose}>
      <div className="grid gap-3 p-6">
        <h2 className="text-xl">Issue it as no. {number}?</h2>
        <p>
          It is dated today and does not change any more, whatever is entered or corrected later.
          {replaces !== null && ` It replaces no. ${replaces}, which stays readable and says so.`}
        </p>
        {missing > 0 && (
          <p className="font-semibold">{counted(missing, 'thing is', 'things are')} missing: see the margin.</p>
        )}
        <fieldset className="grid gap-1">
          <legend className="mb-1 text-small font-semibold">Besides the team, for</legend>
          {outsideKinds.map((kind) => (
            <label key={kind} className="flex min-h-9 items-center gap-2.5">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={readers.includes(kind)}
                onChange={(event) =>
                  setReaders(event.target.checked ? [...readers, kind] : readers.filter((one) => one !== kind))
                }
              />
              {readerWords[kind].label}
            </label>
          ))}
        </fieldset>
        <p className="text-small text-ink-2">Readers who have an e-mail address get a message.</p>
        <div className="mt-2 flex justify-end gap-2">
          <button type="button" className="btn" onClick={onClose}>
            Not yet
          </button>
          <button type="button" className="btn btn-primary" disabled={isBusy} onClick={() => onIssue(id, readers)}>
            Issue it
          </button>
        </div>
      </div>
    </Dialog>
  );
}
