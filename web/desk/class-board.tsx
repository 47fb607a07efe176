import { useCallback, useEffect, useState } from 'react';
import { data, Form, Link, useLocation } from 'react-router';
import { z } from 'zod';
import { counted } from '~/core/words/counting';
import { markSeen } from '~/server/desk/board';
import { database } from '~/server/platform/db/current';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { useAskAnew, useLive } from '../platform/ui/use-live';
import type { Route } from './+types/class-board';
import { BoardCell } from './board-cell';
import { classBoardView } from './class-board-view';
import { classBoardWords } from './words';

export const loader = withErrors(({ params, request, context }: Route.LoaderArgs) =>
  classBoardView(database(), personOf(context), idFrom(params.workId), new URL(request.url).searchParams),
);

const seen = z.array(z.uuid()).min(1).max(500);

/** Marks what the chosen students said as seen. */
export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const parsed = seen.safeParse((await formOf(request)).getAll('saidId'));
  if (!parsed.success) return data(null, { status: 400 });
  await markSeen(database(), actor, parsed.data, now);
  return data(null, { headers: await sayNext({ text: classBoardWords.markedAsSeen }) });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: classBoardWords.pageTitle(loaderData?.work.title ?? '') },
];

/** Minutes go on while nothing changes. */
const TICK = 30_000;

/** Shows what changes by itself, and counts minutes on. */
export function useLiveBoard(studentIds: readonly string[]) {
  const askAnew = useAskAnew();
  useLive(
    useCallback(
      (heard) => {
        if (heard.length === 0 || heard.some(({ studentId }) => studentIds.includes(studentId))) askAnew();
      },
      [askAnew, studentIds],
    ),
  );
  useEffect(() => {
    const timer = setInterval(askAnew, TICK);
    return () => clearInterval(timer);
  }, [askAnew]);
}

type Loaded = Route.ComponentProps['loaderData'];

/** Students × steps: who is at what, and who needs somebody. */
export default function ClassBoard({ loaderData }: Route.ComponentProps) {
  const { work, rows, waiting, done, mostStuck } = loaderData;
  useLiveBoard(rows.map(({ studentId }) => studentId));
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const here = rows.filter(({ studentId }) => chosen.includes(studentId));
  const toSee = waiting.filter(({ studentId }) => here.some((row) => row.studentId === studentId));
  return (
    <Page marginName={classBoardWords.needsSomebody} help="board" margin={<Needs loaderData={loaderData} />}>
      <p className="no-print text-small">
        <Link to="/class/works" className="text-ink-2 link">
          {classBoardWords.works}
        </Link>
      </p>
      <header className="mt-1 flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl">{work.title}</h1>
          <p className="text-small text-ink-2">
            {classBoardWords.live(counted(rows.length, 'student', 'students'), work.isClosed)}
          </p>
        </div>
        <Orders loaderData={loaderData} />
      </header>
      {rows.length === 0 ? (
        <p className="max-w-xl py-10 text-ink-2">
          {classBoardWords.nobodyHasIt}{' '}
          {work.isMine && (
            <Link to={`/class/works/${work.id}/edit`} className="link">
              {classBoardWords.giveIt}
            </Link>
          )}
        </p>
      ) : (
        <>
          <Grid
            loaderData={loaderData}
            chosen={chosen}
            onChoose={(id) =>
              setChosen((before) => (before.includes(id) ? before.filter((one) => one !== id) : [...before, id]))
            }
          />
          <Form
            method="post"
            className="no-print mt-5 flex flex-wrap items-center gap-3"
            onSubmit={() => setChosen([])}
          >
            {toSee.map(({ saidId }) => saidId && <input key={saidId} type="hidden" name="saidId" value={saidId} />)}
            {here.length > 0 && (
              <Link
                to={`/rounds/once?students=${here.map(({ studentId }) => studentId).join('.')}`}
                className="btn btn-primary"
              >
                {classBoardWords.observeThese(here.length)}
              </Link>
            )}
            {here.length === 1 && here[0] && (
              <Link to={`/students/${here[0].studentId}/notes/new`} className="btn">
                {classBoardWords.writeNote}
              </Link>
            )}
            {toSee.length > 0 && (
              <button type="submit" className="btn">
                {classBoardWords.markAsSeen}
              </button>
            )}
            <span role="status" className="text-small text-ink-2">
              {here.length > 0 && classBoardWords.chosen(here.length, here.map(({ name }) => name).join(', '))}
            </span>
          </Form>
          <p className="mt-6 pb-16 text-small text-ink-2">
            {classBoardWords.soFar(done.count, counted(done.of, 'step', 'steps'))}{' '}
            {mostStuck &&
              classBoardWords.mostStuck(
                mostStuck.step,
                `${mostStuck.students} of ${counted(mostStuck.of, 'student', 'students')}`,
                mostStuck.minutes,
              )}
          </p>
        </>
      )}
    </Page>
  );
}

const orders = [
  { by: 'need', label: classBoardWords.byNeed },
  { by: 'name', label: classBoardWords.byName },
  { by: 'step', label: classBoardWords.byStep },
];

function Orders({ loaderData: { by, step, allSteps, work } }: { loaderData: Loaded }) {
  const { search } = useLocation();
  const to = (change: Record<string, string | null>) => {
    const wanted = new URLSearchParams(search);
    for (const [name, value] of Object.entries(change)) {
      if (value === null) wanted.delete(name);
      else wanted.set(name, value);
    }
    return `?${wanted}`;
  };
  return (
    <div className="no-print flex flex-wrap items-center gap-4 text-small">
      <nav aria-label={classBoardWords.order} className="join flex-wrap">
        {orders.map((order) => {
          const orderClass = `btn join-item ${by === order.by ? 'btn-neutral' : ''}`;
          return (
            <Link
              key={order.by}
              replace
              to={to({ by: order.by })}
              aria-current={by === order.by ? 'true' : undefined}
              className={orderClass}
            >
              {order.label}
            </Link>
          );
        })}
      </nav>
      {step !== null ? (
        <Link to={to({ step: null })} replace className="tap link">
          {classBoardWords.allSteps(allSteps.length)}
        </Link>
      ) : null}
      <a href={`/class/works/${work.id}/projected`} className="tap link">
        {classBoardWords.project}
      </a>
    </div>
  );
}

interface GridProps {
  loaderData: Loaded;
  chosen: readonly string[];
  onChoose: (studentId: string) => void;
}

function Grid({ loaderData: { rows, steps, work, words }, chosen, onChoose }: GridProps) {
  const { search } = useLocation();
  const toStep = (id: string) => {
    const wanted = new URLSearchParams(search);
    wanted.set('step', id);
    return `?${wanted}`;
  };
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard
    <section aria-label={classBoardWords.boardOf(work.title)} tabIndex={0} className="mt-4 overflow-x-auto">
      <table className="w-full border-separate border-spacing-x-1 border-spacing-y-1.5 text-left">
        <thead className="text-small text-ink-2">
          <tr>
            <th scope="col" className="w-36 font-semibold">
              <span className="sr-only">{classBoardWords.student}</span>
            </th>
            {steps.map(({ id, title }) => (
              <th key={id} scope="col" className="px-2 font-semibold">
                <Link to={toStep(id)} replace className="tap hover:underline">
                  {title}
                </Link>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ studentId, name, cells }) => (
            <tr key={studentId}>
              <th scope="row" className="font-normal">
                <label className="flex tap items-center gap-2.5">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-sm"
                    checked={chosen.includes(studentId)}
                    onChange={() => onChoose(studentId)}
                  />
                  <span className="display text-lg">{name}</span>
                </label>
                <WaitingAt cells={cells} steps={steps} />
              </th>
              {cells.map((cell) => (
                <td key={cell.stepId} className="h-11 min-w-28 p-0">
                  <BoardCell {...cell} words={words} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

interface WaitingAtProps {
  cells: Loaded['rows'][number]['cells'];
  steps: Loaded['steps'];
}

/** Where the steps do not fit beside each other, the one that waits stands below the name. */
function WaitingAt({ cells, steps }: WaitingAtProps) {
  const at = cells.findIndex(({ needs }) => needs);
  const step = steps[at];
  if (!step) return null;
  return (
    <span aria-hidden className="block pl-7 text-small font-bold text-clay-deep lg:hidden">
      {step.title}
    </span>
  );
}

/** Who waits for somebody, longest first, with what they said; and what was done just now. */
function Needs({ loaderData: { waiting, justNow } }: { loaderData: Loaded }) {
  return (
    <>
      <MarginTitle>{classBoardWords.needsSomebody}</MarginTitle>
      <p role="status" className={waiting.length === 0 ? 'text-small text-ink-2' : 'sr-only'}>
        {waiting.length === 0 ? classBoardWords.nobodyWaits : classBoardWords.wait(waiting.length)}
      </p>
      <ul>
        {waiting.map((one) => (
          <li key={one.saidId} className="border-b border-dotted border-ink-3/50 py-3">
            <Link to={`/students/${one.studentId}`} className="display hover:underline">
              {classBoardWords.whoAndStep(one.name, one.step)}
            </Link>
            <p className="text-small text-ink-2">
              {one.word && classBoardWords.quoted(one.word)}{' '}
              {one.state === 'stuck'
                ? classBoardWords.stuckFor(one.minutes, one.timesStuck)
                : classBoardWords.asksFor(one.minutes)}
            </p>
          </li>
        ))}
      </ul>
      {justNow.length > 0 && (
        <>
          <h3 className="mt-5 text-base text-ink-2">{classBoardWords.justNow}</h3>
          <ul className="text-small text-ink-2">
            {justNow.map(({ id, state, name, step }) => (
              <li key={id}>
                {state === 'done' ? classBoardWords.finished(name, step) : classBoardWords.began(name, step)}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
