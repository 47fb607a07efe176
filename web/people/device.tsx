import { useEffect, useState } from 'react';
import { data, Form, redirect } from 'react-router';
import { z } from 'zod';
import { wallTime } from '~/core/calendar/zone';
import { adultsAt, beginAtDevice, openedDevice } from '~/server/people/devices';
import { resumeSession } from '~/server/people/sessions';
import { now } from '~/server/platform/clock';
import { asking, database } from '~/server/platform/db/current';
import { schoolOf } from '~/server/school/school';
import { halfCookie, openedCookie, readCookie, sessionCookie } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { withErrors } from '../platform/http/with-errors';
import { forgetHere } from '../platform/offline/connection';
import { FieldMessage } from '../platform/ui/fields';
import type { Route } from './+types/device';
import { deviceWords } from './words';

/** The device as it was opened, and the day at its school; to the sign-in page where it was not, or was closed. */
async function deviceHere(request: Request) {
  const token = await readCookie(request, openedCookie, z.string().min(1));
  const device = token === null ? null : await openedDevice(database(), token);
  if (!device) throw redirect('/sign-in');
  const { timeZone } = await schoolOf(database(), device.schoolId);
  const today = wallTime(now(), timeZone).on;
  // Nobody has said yet who they are: what is looked up is what the one who opened it may know.
  const asOpener = <Found,>(work: () => Promise<Found>) => asking({ personId: device.openedBy, today }, work);
  return { device, today, asOpener };
}

export const loader = withErrors(async ({ request }: Route.LoaderArgs) => {
  const { device, today, asOpener } = await deviceHere(request);
  const token: unknown = await sessionCookie.parse(request.headers.get('Cookie'));
  const session = typeof token === 'string' ? await resumeSession(database(), token, now()) : null;
  if (session && !session.isLocked) throw redirect('/');
  return { name: device.name, adults: await asOpener(() => adultsAt(database(), device, today)) };
});

const chosen = z.object({ personId: z.uuid(), pin: z.string().min(1).max(20) });

/** Begins as whoever tapped their name and typed their PIN. */
export const action = withErrors(async ({ request }: Route.ActionArgs) => {
  const { device, today, asOpener } = await deviceHere(request);
  const parsed = chosen.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) return data({ problem: deviceWords.type }, { status: 400 });
  const came = await asOpener(() => beginAtDevice(database(), device, { ...parsed.data, today }, now()));
  if ('wrong' in came) return data({ problem: deviceWords.wrong }, { status: 400 });
  if ('needsPassword' in came) return data({ problem: deviceWords.needsPassword }, { status: 400 });
  if ('waitMinutes' in came) {
    const problem = came.waitMinutes === null ? deviceWords.locked : deviceWords.wait(came.waitMinutes);
    return data({ problem }, { status: 429 });
  }
  if ('half' in came)
    return redirect('/sign-in/code', { headers: { 'Set-Cookie': await halfCookie.serialize(came.half) } });
  return redirect('/', { headers: { 'Set-Cookie': await sessionCookie.serialize(came.token) } });
});

export const meta: Route.MetaFunction = () => [{ title: deviceWords.pageTitle }];

/** A tablet of several adults: nobody is filled in until somebody says who they are. */
export default function Device({ loaderData: { name, adults }, actionData }: Route.ComponentProps) {
  const [personId, setPerson] = useState<string | null>(null);
  // Nobody has it now: what could be read without network goes.
  useEffect(() => void forgetHere(), []);
  const problem = actionData?.problem;
  return (
    <main
      id="page"
      tabIndex={-1}
      className="mx-auto grid min-h-dvh max-w-2xl content-center gap-5 px-6 py-10 outline-none"
    >
      <header>
        <h1 className="text-3xl">{deviceWords.who}</h1>
        <p className="mt-1 text-ink-2">{name}</p>
      </header>
      {adults.length === 0 && <p className="text-ink-2">{deviceWords.nobodyYet}</p>}
      <ul className="grid gap-2 sm:grid-cols-2">
        {adults.map((adult) => (
          <li key={adult.id}>
            <button
              type="button"
              aria-pressed={adult.id === personId}
              onClick={() => setPerson(adult.id)}
              className="flex min-h-16 w-full items-center gap-3 rounded-box border border-rule bg-sheet px-4 text-left aria-pressed:border-fern-deep aria-pressed:bg-fern-wash"
            >
              <span aria-hidden className="w-8 font-bold text-ink-2">
                {adult.initials}
              </span>
              <span>
                <span className="block font-semibold">{adult.name}</span>
                <span className="block text-small text-ink-2">{adult.work}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {personId && (
        <Form method="post" key={personId} className="flex flex-wrap items-end gap-3">
          <input type="hidden" name="personId" value={personId} />
          <label className="grid gap-1">
            <span className="text-small font-semibold">{deviceWords.pin}</span>
            <input
              // biome-ignore lint/a11y/noAutofocus: a name was tapped to say its PIN next
              autoFocus
              type="password"
              name="pin"
              inputMode="numeric"
              autoComplete="off"
              aria-describedby="pin-message"
              className="input input-lg w-44"
            />
          </label>
          <button type="submit" className="btn btn-primary btn-lg text-base">
            {deviceWords.begin}
          </button>
        </Form>
      )}
      <FieldMessage id="pin-message" messages={problem ? [problem] : undefined} />
    </main>
  );
}
