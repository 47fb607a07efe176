import { useState } from 'react';
import { data, Form } from 'react-router';
import { z } from 'zod';
import { roleWords } from '~/core/students/roles';
import { counted } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { acceptInvitation, declineInvitation, invitationsTo } from '~/server/students/invitations';
import { preferencesOf, sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { useWaiting } from '../platform/offline/waiting';
import { Dialog } from '../platform/ui/dialog';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/account';

export const loader = withErrors(async ({ context, request }: Route.LoaderArgs) => {
  const { actor, person, school } = personOf(context);
  const { name, work, email } = person;
  const [invitations, { theme, shortcuts }] = await Promise.all([
    invitationsTo(database(), actor),
    preferencesOf(request),
  ]);
  return {
    ...{ name, work, email, schoolName: school.name, theme, shortcuts },
    invitations: invitations.map(({ id, role, madeByName }) => ({ id, role: roleWords[role], madeByName })),
  };
});

const reply = z.object({ intent: z.enum(['join', 'decline']), id: z.uuid() });

export const action = withErrors(async ({ context, request }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const parsed = reply.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) return data(null, { status: 400 });
  const { intent, id } = parsed.data;
  const when = { today: actor.today, now };
  if (intent === 'join') await acceptInvitation(database(), { id }, { account: null, actor }, when);
  else await declineInvitation(database(), { id }, actor, when);
  const text =
    intent === 'join' ? 'You are on the team.' : 'You will not join this team. Whoever asked you can see that.';
  return data(null, { headers: await sayNext({ text }) });
});

export const meta: Route.MetaFunction = () => [{ title: 'Account · Gentle Margin' }];

const themes = [
  ['system', 'System'],
  ['light', 'Light'],
  ['dark', 'Dark'],
] as const;

export default function Account({ loaderData }: Route.ComponentProps) {
  const { name, work, email, schoolName, theme, shortcuts, invitations } = loaderData;
  return (
    <Page
      marginName="About this device"
      margin={
        <>
          <MarginTitle>On this device</MarginTitle>
          <p>
            The look and the discreet view are kept on this device only. What you mark while observing is kept here too
            until the server has it, seen by nobody else who signs in on this device.
          </p>
        </>
      }
    >
      <h1 className="text-2xl">{name}</h1>
      <p className="mt-1 text-ink-2">
        {work} · {schoolName} · {email}
      </p>
      {invitations.length > 0 && (
        <section aria-label="Invitations">
          <h2 className="mt-8 text-lg">Invitations</h2>
          <ul className="mt-1">
            {invitations.map(({ id, role, madeByName }) => (
              <li key={id} className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-3">
                <p>
                  {madeByName} asks you to join the support team of a student, as {role.toLowerCase()}.
                </p>
                <Form method="post" className="flex gap-2">
                  <input type="hidden" name="id" value={id} />
                  <button type="submit" name="intent" value="join" className="btn btn-primary">
                    Join the team
                  </button>
                  <button type="submit" name="intent" value="decline" className="btn">
                    Decline
                  </button>
                </Form>
              </li>
            ))}
          </ul>
        </section>
      )}
      <h2 className="mt-8 text-lg">Look</h2>
      <Form method="post" action="/preferences" className="mt-3 flex flex-wrap gap-2">
        <input type="hidden" name="from" value="/account" />
        {themes.map(([key, label]) => (
          <button
            type="submit"
            key={key}
            name="theme"
            value={key}
            aria-pressed={key === theme}
            className={`btn ${key === theme ? 'btn-primary' : ''}`}
          >
            {label}
          </button>
        ))}
      </Form>
      <h2 className="mt-8 text-lg">Keyboard shortcuts</h2>
      <p className="mt-1 text-small text-ink-2">
        Single keys such as O for Observe. Enter and the arrow keys always work.
      </p>
      <Form method="post" action="/preferences" className="mt-3 flex flex-wrap gap-2">
        <input type="hidden" name="from" value="/account" />
        {(['on', 'off'] as const).map((key) => {
          const isChosen = shortcuts === (key === 'on');
          return (
            <button
              type="submit"
              key={key}
              name="shortcuts"
              value={key}
              aria-pressed={isChosen}
              className={`btn ${isChosen ? 'btn-primary' : ''}`}
            >
              {key === 'on' ? 'On' : 'Off'}
            </button>
          );
        })}
      </Form>
      <h2 className="mt-8 text-lg">Leaving</h2>
      <div className="mt-3 flex flex-wrap gap-2">
        <SignOut>Sign out</SignOut>
        <SignOut everywhere>Sign out everywhere</SignOut>
      </div>
      <p className="mt-2 text-small text-ink-2">Everywhere ends the sign-in on every device at once.</p>
    </Page>
  );
}

/** Ends this sign-in, or all of this person's; warns while something waits to be sent. */
function SignOut({ everywhere = false, children }: { everywhere?: boolean; children: string }) {
  const { list, sendNow } = useWaiting();
  const [isWarning, setWarning] = useState(false);
  return (
    <>
      <Form
        method="post"
        action="/sign-out"
        onSubmit={(event) => {
          if (list.length === 0 || isWarning) return;
          event.preventDefault();
          setWarning(true);
          sendNow();
        }}
      >
        {everywhere && <input type="hidden" name="everywhere" value="yes" />}
        <button type="submit" className="btn">
          {children}
        </button>
      </Form>
      {isWarning && (
        <Dialog title="Something waits to be sent" onClose={() => setWarning(false)}>
          <Form method="post" action="/sign-out" className="p-6">
            {everywhere && <input type="hidden" name="everywhere" value="yes" />}
            <h2 className="text-xl">
              {list.length === 0
                ? 'Everything is sent now'
                : `${counted(list.length, 'record waits', 'records wait')} to be sent`}
            </h2>
            {list.length > 0 && (
              <p className="mt-2">
                What waits stays on this device, hidden from everybody else. It is sent when you sign in here again, not
                before.
              </p>
            )}
            <div className="mt-5 flex justify-end gap-2">
              <button type="button" className="btn btn-primary" onClick={() => setWarning(false)}>
                Stay signed in
              </button>
              <button type="submit" className="btn">
                {children}
              </button>
            </div>
          </Form>
        </Dialog>
      )}
    </>
  );
}
