import { data, Form, Link } from 'react-router';
import { z } from 'zod';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { counted } from '~/core/words/counting';
import { setWorkClosed, worksOf } from '~/server/desk/works';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { ClassNav } from '../progress/class-nav';
import type { Route } from './+types/works';
import { worksWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, school } = personOf(context);
  const works = await worksOf(database(), actor);
  return {
    works: works.map(({ id, title, madeBy, isMine, madeAt, closedAt, steps, studentIds }) => ({
      ...{ id, title, madeBy, isMine, isClosed: closedAt !== null },
      madeOn: wallTime(madeAt, school.timeZone).on,
      ...{ steps: steps.length, students: studentIds.length },
    })),
  };
});

const closing = z.object({ id: z.uuid(), intent: z.enum(['close', 'open']) });

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const parsed = closing.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) throw new NotFound('No such work.');
  const isClosed = parsed.data.intent === 'close';
  await setWorkClosed(database(), actor, { id: parsed.data.id, isClosed }, now);
  const text = isClosed ? worksWords.closed : worksWords.openAgain;
  return data(null, { headers: await sayNext({ text }) });
});

export const meta: Route.MetaFunction = () => [{ title: worksWords.pageTitle }];

type Listed = Route.ComponentProps['loaderData']['works'][number];

/** Pieces of work with their steps, and the board of each. */
export default function Works({ loaderData: { works } }: Route.ComponentProps) {
  const open = works.filter(({ isClosed }) => !isClosed);
  const closed = works.filter(({ isClosed }) => isClosed);
  return (
    <Page
      marginName={worksWords.about}
      margin={
        <>
          <MarginTitle>{worksWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{worksWords.aboutSteps}</p>
            <p>{worksWords.aboutCards}</p>
            <p>{worksWords.aboutCopies}</p>
          </div>
        </>
      }
    >
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl">{worksWords.works}</h1>
          <ClassNav />
        </div>
        <Link to="/class/works/new" className="btn btn-primary">
          {worksWords.newWork}
        </Link>
      </header>
      {works.length === 0 && <p className="max-w-xl py-10 text-ink-2">{worksWords.none}</p>}
      <WorkList works={open} />
      {closed.length > 0 && (
        <details className="mt-8">
          <summary className="tap cursor-pointer text-ink-2">{worksWords.putAway(closed.length)}</summary>
          <WorkList works={closed} />
        </details>
      )}
    </Page>
  );
}

function WorkList({ works }: { works: Listed[] }) {
  return (
    <ul className="mt-5 max-w-3xl">
      {works.map((work) => (
        <li
          key={work.id}
          className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-dotted border-ink-3/50 py-3"
        >
          <span className="min-w-60 grow">
            <Link to={`/class/works/${work.id}`} className="display text-lg hover:underline">
              {work.title}
            </Link>
            <span className="block text-small text-ink-2">
              {worksWords.summary(
                counted(work.steps, 'step', 'steps'),
                counted(work.students, 'student', 'students'),
                work.isMine ? shortDate(work.madeOn) : worksWords.by(work.madeBy),
              )}
            </span>
          </span>
          <span className="flex items-baseline gap-4 text-small">
            {work.isMine && (
              <Link to={`/class/works/${work.id}/edit`} className="tap link">
                {worksWords.change}
              </Link>
            )}
            <Link to={`/class/works/new?from=${work.id}`} className="tap link">
              {worksWords.copy}
            </Link>
            {work.isMine && (
              <Form method="post">
                <input type="hidden" name="id" value={work.id} />
                <button type="submit" name="intent" value={work.isClosed ? 'open' : 'close'} className="tap link">
                  {work.isClosed ? worksWords.takeOut : worksWords.close}
                </button>
              </Form>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}
