import { data, Form, Link, redirect, useNavigation } from 'react-router';
import { z } from 'zod';
import { turnNames } from '~/core/desk/turn-names';
import { openDesk } from '~/server/desk/cards';
import { hasFeedback, presentationsFor } from '~/server/desk/feedback';
import { deskForms } from '~/server/desk/own-notes';
import { deskWorks } from '~/server/desk/steps';
import { takeTurn, turnOf } from '~/server/desk/turns';
import { stepWordsOf } from '~/server/desk/works';
import { ownWorkSamples } from '~/server/entries/ratings/own';
import { cardWordsWereRight, mayTypeCardWords } from '~/server/people/attempts';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { deskCookie, readCookie, turnCookie } from '../platform/http/cookies';
import { demoIsOpen } from '../platform/http/demo-open';
import { withFailures } from '../platform/http/failure-answer';
import { formOf } from '../platform/http/form-of';
import { addressContext } from '../platform/http/security';
import type { Route } from './+types/desk';
import { leaveOpenDesk, withErrorsAtDesk } from './at-desk';
import { DeskSteps } from './desk-steps';
import { deskLogs } from './log-view';
import { deskWords } from './words';

/** Who may sit down at this tablet by their initials, where a teacher has opened it. */
async function turnAt(request: Request) {
  const token = await readCookie(request, turnCookie, z.string().min(1));
  const found = token === null ? [] : await turnOf(database(), token, now());
  return turnNames(found.filter(({ isDemo }) => !isDemo || demoIsOpen));
}

/** Pieces that a student is asked about at once. */
const MOST_SAMPLES = 3;

export const loader = withErrorsAtDesk(async ({ request }: Route.LoaderArgs, desk) => {
  const card = new URL(request.url).searchParams.get('card');
  const message = card === 'wait' ? deskWords.tooManyTries : card === 'unknown' ? deskWords.opensNothing : null;
  if (!desk) return { desk: null, message, turn: await turnAt(request) };
  const works = await deskWorks(database(), desk.studentId);
  const words = await stepWordsOf(database(), desk.school.id);
  const { logs, hasProgress } = await deskLogs(database(), desk);
  const samples = await ownWorkSamples(database(), desk.studentId, desk.wall.on);
  const rated = samples.slice(0, MOST_SAMPLES).map(({ id, title, own }) => ({ id, title, isRated: own !== null }));
  const { studentId, firstName } = desk;
  const forms = (await deskForms(database(), studentId, desk.wall.on)).map(({ id, title, timesToday }) => ({
    ...{ id, title, isAnswered: timesToday > 0 },
  }));
  const presentations = await presentationsFor(database(), studentId);
  const isSaidTo = await hasFeedback(database(), studentId);
  const open = { studentId, firstName, works, words, logs, forms, presentations, rated, isSaidTo, hasProgress };
  return { desk: open, message, turn: [] };
});

const typed = z.object({ intent: z.literal('open'), words: z.string().trim().min(1).max(100) });

const taken = z.object({ turn: z.uuid() });

/** Opens the desk by the words on a card or in turn, or puts it away. */
export const action = withFailures(async (args: Route.ActionArgs) => {
  const { request, context } = args;
  const form = Object.fromEntries(await formOf(request));
  if (form.intent === 'leave') {
    await leaveOpenDesk(args);
    return redirect('/desk', { headers: { 'Set-Cookie': await deskCookie.serialize('', { maxAge: 0 }) } });
  }
  const turn = taken.safeParse(form);
  if (turn.success) {
    const kept = await readCookie(request, turnCookie, z.string().min(1));
    const opened = kept === null ? null : await takeTurn(database(), kept, turn.data.turn, now());
    await leaveOpenDesk(args);
    if (!opened) return data({ message: deskWords.turnIsOver, words: '' }, { status: 400 });
    return redirect('/desk', { headers: { 'Set-Cookie': await deskCookie.serialize(opened) } });
  }
  const parsed = typed.safeParse(form);
  if (!parsed.success) return data({ message: deskWords.typeTheWords, words: '' }, { status: 400 });
  const { words } = parsed.data;
  const address = context.get(addressContext);
  if (!(await mayTypeCardWords(database(), address))) {
    return data({ message: deskWords.tooManyTries, words }, { status: 429 });
  }
  const token = await openDesk(database(), { words }, now());
  if (!token) return data({ message: deskWords.opensNothing, words }, { status: 400 });
  await leaveOpenDesk(args);
  await cardWordsWereRight(database(), address);
  return redirect('/desk', { headers: { 'Set-Cookie': await deskCookie.serialize(token) } });
});

export const meta: Route.MetaFunction = () => [
  { title: deskWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** A student's own pages: one thing to do, in large type, and nobody else's name. */
export default function DeskPage({ loaderData: { desk, message, turn }, actionData }: Route.ComponentProps) {
  return (
    <main className="mx-auto max-w-xl px-5 py-6 text-lg sm:py-10">
      {desk ? (
        <OpenDesk {...desk} />
      ) : (
        <>
          {turn.length > 0 && <WhoseTurn turn={turn} />}
          <CardForm
            isSecond={turn.length > 0}
            message={actionData?.message ?? message}
            words={actionData?.words ?? ''}
          />
        </>
      )}
    </main>
  );
}

/** On a tablet that goes from hand to hand: initials, and nobody's name. */
function WhoseTurn({ turn }: { turn: { studentId: string; name: string }[] }) {
  return (
    <Form method="post" action="/desk" className="mb-12 grid gap-5">
      <h1 className="text-3xl">{deskWords.whoseTurn}</h1>
      <div className="grid grid-cols-3 gap-3">
        {turn.map(({ studentId, name }) => (
          <button
            key={studentId}
            type="submit"
            name="turn"
            value={studentId}
            aria-label={deskWords.itIs(name)}
            className="btn h-20 border border-rule bg-sheet text-2xl"
          >
            {name}
          </button>
        ))}
      </div>
    </Form>
  );
}

interface CardFormProps {
  message: string | null;
  words: string;
  /** Whether something else stands above it. */
  isSecond: boolean;
}

function CardForm({ message, words, isSecond }: CardFormProps) {
  const isBusy = useNavigation().state !== 'idle';
  return (
    <Form method="post" action="/desk" className="grid gap-5">
      {isSecond ? <h2 className="text-2xl">{deskWords.withACard}</h2> : <h1 className="text-3xl">{deskWords.hello}</h1>}
      <input type="hidden" name="intent" value="open" />
      <label className="grid gap-2">
        <span className="font-semibold">{deskWords.wordsOnYourCard}</span>
        <input
          name="words"
          required
          defaultValue={words}
          autoComplete="off"
          autoCapitalize="none"
          spellCheck={false}
          aria-describedby="card-message"
          aria-invalid={message ? true : undefined}
          placeholder={deskWords.fourWords}
          className="input h-16 w-full text-xl"
        />
      </label>
      <p id="card-message" role="alert" className={message ? 'font-semibold text-clay-deep' : 'sr-only'}>
        {message}
      </p>
      <button type="submit" disabled={isBusy} className="btn btn-primary h-16 text-lg">
        {deskWords.openMyDesk}
      </button>
      <p className="text-base text-ink-2">{deskWords.orScan}</p>
    </Form>
  );
}

const moreClass =
  'flex min-h-16 flex-wrap items-center justify-between gap-x-4 rounded-box border border-rule bg-sheet px-4 py-3';

type Opened = NonNullable<Route.ComponentProps['loaderData']['desk']>;

function OpenDesk(props: Opened) {
  const { studentId, firstName, works, words, logs, forms, presentations, rated, isSaidTo, hasProgress } = props;
  const more = [logs, forms, presentations, rated].some((list) => list.length > 0) || isSaidTo || hasProgress;
  return (
    <>
      <DeskSteps
        key={studentId}
        studentId={studentId}
        firstName={firstName}
        works={works}
        words={words}
        hasMore={more}
      />
      {more && (
        <nav aria-label={deskWords.alsoHere} className="mt-10 grid gap-3">
          {logs.map(({ goalId, plain, said }) => (
            <Link key={goalId} to={`/desk/log/${goalId}`} className={moreClass}>
              <span className="display text-xl">{plain}</span>
              <span className="text-base text-ink-2">{said}</span>
            </Link>
          ))}
          {forms.map(({ id, title, isAnswered }) => (
            <Link key={id} to={`/desk/form/${id}`} className={moreClass}>
              <span className="display text-xl">{title}</span>
              <span className="text-base text-ink-2">{isAnswered ? deskWords.answeredToday : deskWords.tellUs}</span>
            </Link>
          ))}
          {presentations.map(({ id, title }) => (
            <Link key={id} to={`/desk/feedback/${id}`} className={moreClass}>
              <span className="display text-xl">{title}</span>
              <span className="text-base text-ink-2">{deskWords.feedbackFor}</span>
            </Link>
          ))}
          {isSaidTo && (
            <Link to="/desk/said" className={moreClass}>
              <span className="display text-xl">{deskWords.saidToMe}</span>
            </Link>
          )}
          {rated.map(({ id, title, isRated }) => (
            <Link key={id} to={`/desk/rate/${id}`} className={moreClass}>
              <span className="display text-xl">{deskWords.howIDid(title)}</span>
              <span className="text-base text-ink-2">{isRated ? deskWords.bothSides : deskWords.tellUs}</span>
            </Link>
          ))}
          {hasProgress && (
            <Link to="/desk/progress" className={moreClass}>
              <span className="display text-xl">{deskWords.myProgress}</span>
            </Link>
          )}
        </nav>
      )}
      <Form method="post" action="/desk" className="mt-10 border-t border-rule pt-5">
        <input type="hidden" name="intent" value="leave" />
        <button type="submit" className="btn h-14">
          {deskWords.putAway}
        </button>
      </Form>
    </>
  );
}
