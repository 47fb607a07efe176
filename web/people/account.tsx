import { useState } from 'react';
import { data, Form, useSubmit } from 'react-router';
import { z } from 'zod';
import { roleWords } from '~/core/students/roles';
import { counted } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { acceptInvitation, declineInvitation, invitationsTo } from '~/server/students/invitations';
import { preferencesOf, sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { KeptHere } from '../platform/offline/kept-here';
import { useWaiting } from '../platform/offline/waiting';
import { Dialog } from '../platform/ui/dialog';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/account';
import { accountWords } from './words';

export const loader = withErrors(async ({ context, request }: Route.LoaderArgs) => {
  const { actor, person, school } = personOf(context);
  const { name, work, email } = person;
  const [invitations, { theme, shortcuts, keepsPages }] = await Promise.all([
    invitationsTo(database(), actor),
    preferencesOf(request),
  ]);
  return {
    ...{ name, work, email, schoolName: school.name, theme, shortcuts, keepsPages },
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
  const text = intent === 'join' ? accountWords.youAreOnTheTeam : accountWords.youWillNotJoinThis;
  return data(null, { headers: await sayNext({ text }) });
});

export const meta: Route.MetaFunction = () => [{ title: accountWords.pageTitle }];

const themes = [
  ['system', 'System'],
  ['light', 'Light'],
  ['dark', 'Dark'],
] as const;

export default function Account({ loaderData }: Route.ComponentProps) {
  const { name, work, email, schoolName, theme, shortcuts, keepsPages, invitations } = loaderData;
  return (
    <Page
      marginName={accountWords.aboutThisDevice}
      margin={
        <>
          <MarginTitle>{accountWords.onThisDevice}</MarginTitle>
          <p>{accountWords.theLookAndTheDiscreet}</p>
        </>
      }
    >
      <h1 className="text-2xl">{name}</h1>
      <p className="mt-1 text-ink-2">
        {work} · {schoolName} · {email}
      </p>
      {invitations.length > 0 && (
        <section aria-label={accountWords.invitations}>
          <h2 className="mt-8 text-lg">{accountWords.invitations}</h2>
          <ul className="mt-1">
            {invitations.map(({ id, role, madeByName }) => (
              <li key={id} className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-3">
                <p>{accountWords.asksYouToJoinThe(madeByName, role.toLowerCase())}</p>
                <Form method="post" className="flex gap-2">
                  <input type="hidden" name="id" value={id} />
                  <button type="submit" name="intent" value="join" className="btn btn-primary">
                    {accountWords.joinTheTeam}
                  </button>
                  <button type="submit" name="intent" value="decline" className="btn">
                    {accountWords.decline}
                  </button>
                </Form>
              </li>
            ))}
          </ul>
        </section>
      )}
      <h2 className="mt-8 text-lg">{accountWords.look}</h2>
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
      <h2 className="mt-8 text-lg">{accountWords.keyboardShortcuts}</h2>
      <p className="mt-1 text-small text-ink-2">{accountWords.singleKeysSuchAsO}</p>
      <OnOff name="shortcuts" label={accountWords.keyboardShortcuts} isOn={shortcuts} />
      <h2 className="mt-8 text-lg">{accountWords.withoutNetwork}</h2>
      <p className="mt-1 text-small text-ink-2">{accountWords.whatYouNeedToGoOn}</p>
      <KeptHere isOn={keepsPages} />
      <OnOff name="keepsPages" label={accountWords.withoutNetwork} isOn={keepsPages} />
      <h2 className="mt-8 text-lg">{accountWords.leaving}</h2>
      <div className="mt-3 flex flex-wrap gap-2">
        <SignOut>{accountWords.signOut}</SignOut>
        <SignOut everywhere>{accountWords.signOutEverywhere}</SignOut>
      </div>
      <p className="mt-2 text-small text-ink-2">{accountWords.everywhereEndsTheSignIn}</p>
    </Page>
  );
}

/** What this device prefers, on or off. */
function OnOff({ name, label, isOn }: { name: 'shortcuts' | 'keepsPages'; label: string; isOn: boolean }) {
  return (
    <Form method="post" action="/preferences" aria-label={label} className="mt-3 flex flex-wrap gap-2">
      <input type="hidden" name="from" value="/account" />
      {(['on', 'off'] as const).map((key) => {
        const isChosen = isOn === (key === 'on');
        return (
          <button
            type="submit"
            key={key}
            name={name}
            value={key}
            aria-pressed={isChosen}
            className={`btn ${isChosen ? 'btn-primary' : ''}`}
          >
            {key === 'on' ? accountWords.on : accountWords.off}
          </button>
        );
      })}
    </Form>
  );
}

/** Ends this sign-in, or all of this person's; warns while something waits to be sent. */
function SignOut({ everywhere = false, children }: { everywhere?: boolean; children: string }) {
  const { list, sendNow, count } = useWaiting();
  const submit = useSubmit();
  const [isWarning, setWarning] = useState(false);
  return (
    <>
      <Form
        method="post"
        action="/sign-out"
        onSubmit={(event) => {
          event.preventDefault();
          const form = event.currentTarget;
          void count().then((waits) => {
            if (waits === 0) return submit(form);
            setWarning(true);
            sendNow();
          });
        }}
      >
        {everywhere && <input type="hidden" name="everywhere" value="yes" />}
        <button type="submit" className="btn">
          {children}
        </button>
      </Form>
      {isWarning && (
        <Dialog title={accountWords.somethingWaitsToBeSent} onClose={() => setWarning(false)}>
          <Form method="post" action="/sign-out" className="p-6">
            {everywhere && <input type="hidden" name="everywhere" value="yes" />}
            <h2 className="text-xl">
              {list.length === 0
                ? accountWords.everythingIsSentNow
                : accountWords.toBeSent(counted(list.length, accountWords.recordWaits, accountWords.recordsWait))}
            </h2>
            {list.length > 0 && <p className="mt-2">{accountWords.whatWaitsStaysOnThis}</p>}
            <div className="mt-5 flex justify-end gap-2">
              <button type="button" className="btn btn-primary" onClick={() => setWarning(false)}>
                {accountWords.staySignedIn}
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
