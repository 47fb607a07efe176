import { data, Form, redirect } from 'react-router';
import { z } from 'zod';
import { lockSession, unlockSession } from '~/server/people/locks';
import { endSession, resumeSession } from '~/server/people/sessions';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { sessionCookie } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { jsonOf } from '../platform/http/json-of';
import { localPath } from '../platform/http/local-path';
import { isOfSeveral } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { FieldMessage } from '../platform/ui/fields';
import type { Route } from './+types/locked';
import { lockedWords } from './words';

/** Whose sign-in this browser carries, locked or not; null where it carries none. */
async function carried(request: Request) {
  const token: unknown = await sessionCookie.parse(request.headers.get('Cookie'));
  return typeof token === 'string' ? resumeSession(database(), token, now()) : null;
}

const nextOf = (request: Request) => localPath(new URL(request.url).searchParams.get('next')) ?? '/';

export const loader = withErrors(async ({ request }: Route.LoaderArgs) => {
  const session = await carried(request);
  if (!session) throw redirect('/sign-in');
  if (!session.isLocked) throw redirect(nextOf(request));
  return { name: session.person.name };
});

const asked = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('lock') }),
  z.object({ intent: z.literal('unlock'), secret: z.string().min(1).max(200) }),
  z.object({ intent: z.literal('leave') }),
]);

/** Locks this browser's sign-in, opens it again, or ends it: from the page, or from what covers a page that is open. */
export const action = withErrors(async ({ request }: Route.ActionArgs) => {
  const isJson = request.headers.get('Content-Type')?.startsWith('application/json');
  const parsed = asked.safeParse(isJson ? await jsonOf(request) : Object.fromEntries(await formOf(request)));
  const session = await carried(request);
  const isShared = await isOfSeveral(request);
  const signIn = () => redirect(isShared ? '/device' : '/sign-in');
  if (!session) throw isJson ? data(null, { status: 401 }) : signIn();
  if (!parsed.success) return data({ problem: lockedWords.type }, { status: 400 });
  if (parsed.data.intent === 'lock') {
    await lockSession(database(), session.sessionId, now());
    return data({ problem: null });
  }
  if (parsed.data.intent === 'leave') {
    await endSession(database(), String(await sessionCookie.parse(request.headers.get('Cookie'))));
    throw signIn();
  }
  const came = await unlockSession(database(), session, parsed.data.secret, now());
  if (came === 'over') throw isJson ? data(null, { status: 401 }) : signIn();
  if (came === 'wrong') return data({ problem: lockedWords.wrong }, { status: 400 });
  if (isJson) return data({ problem: null });
  throw redirect(nextOf(request));
});

export const meta: Route.MetaFunction = () => [{ title: lockedWords.pageTitle }];

/** In place of every page, after a device has lain there for a while. */
export default function Locked({ loaderData: { name }, actionData }: Route.ComponentProps) {
  const problem = actionData?.problem;
  return (
    <main id="page" tabIndex={-1} className="mx-auto grid min-h-dvh max-w-sm content-center gap-4 px-6 outline-none">
      <h1 className="text-2xl">{lockedWords.title}</h1>
      <p className="text-ink-2">{lockedWords.itIs(name)}</p>
      <Form method="post" className="grid gap-3">
        <label className="grid gap-1">
          <span className="text-small font-semibold">{lockedWords.secret}</span>
          <input
            type="password"
            name="secret"
            autoComplete="off"
            aria-invalid={problem ? true : undefined}
            aria-describedby="secret-message"
            className="input input-lg w-full"
          />
        </label>
        <FieldMessage id="secret-message" messages={problem ? [problem] : undefined} />
        <button type="submit" name="intent" value="unlock" className="btn btn-primary btn-lg text-base">
          {lockedWords.open}
        </button>
        <button type="submit" name="intent" value="leave" className="btn">
          {lockedWords.somebodyElse}
        </button>
      </Form>
    </main>
  );
}
