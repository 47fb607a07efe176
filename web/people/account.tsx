import type { SubmissionResult } from '@conform-to/react';
import { useState } from 'react';
import { data, Form, useSubmit } from 'react-router';
import { z } from 'zod';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { emailChangeInput, ownNameInput, passwordChangeInput } from '~/core/people/account-input';
import { pinInput } from '~/core/people/pin-input';
import { roleWords } from '~/core/students/roles';
import { counted } from '~/core/words/counting';
import { calendarAddressOf, endCalendarAddress, makeCalendarAddress } from '~/server/people/calendar-address';
import { askForEmail, changeOwnName, changePassword, endOwnSession, sessionsOf } from '~/server/people/own';
import { hasPin, savePin } from '~/server/people/pins';
import { secondFactorOf } from '~/server/people/second-factor';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { acceptInvitation, declineInvitation, invitationsTo } from '~/server/students/invitations';
import { preferencesOf, sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { mailLeavesFrom } from '../platform/http/mail-leaves';
import { personOf, type RequestPerson } from '../platform/http/request-person';
import { submitted, withoutSecrets } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { KeptHere } from '../platform/offline/kept-here';
import { useWaiting } from '../platform/offline/waiting';
import { Dialog } from '../platform/ui/dialog';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/account';
import { CalendarSection } from './calendar-section';
import { ownAccountWords } from './entry-words';
import { OwnAccount } from './own-account';
import { PasswordField } from './password-field';
import { accountWords } from './words';

export const loader = withErrors(async ({ context, request }: Route.LoaderArgs) => {
  const { actor, person, school, sessionId } = personOf(context);
  const { name, work, email } = person;
  const [invitations, pin, factor, sessions, calendar, { theme, shortcuts, keepsPages }] = await Promise.all([
    invitationsTo(database(), actor),
    hasPin(database(), actor.personId),
    secondFactorOf(database(), actor.personId),
    sessionsOf(database(), actor.personId, sessionId),
    calendarAddressOf(database(), actor.personId),
    preferencesOf(request),
  ]);
  const said = (at: Date) => {
    const { on, time } = wallTime(at, school.timeZone);
    return `${shortDate(on)}, ${time}`;
  };
  return {
    calendar,
    mailLeaves: mailLeavesFrom(school),
    own: {
      ...{ name, work, email, factor },
      sessions: sessions.map(({ createdAt, seenAt, ...one }) => ({
        ...one,
        since: said(createdAt),
        seen: said(seenAt),
      })),
    },
    ...{ name, work, email, schoolName: school.name, theme, shortcuts, keepsPages, hasPin: pin },
    invitations: invitations.map(({ id, role, madeByName }) => ({ id, role: roleWords[role], madeByName })),
  };
});

const reply = z.object({ intent: z.enum(['join', 'decline']), id: z.uuid() });
const answered = (result?: SubmissionResult<string[]>, of = '', asked: string | null = null) => ({
  ...{ result, of, asked },
  // The address of a calendar that was made just now.
  address: null as string | null,
});

/** What is changed of one's own account, each by a form of its own. */
async function ownChange(form: FormData, { actor, school, sessionId, now }: RequestPerson) {
  const of = String(form.get('intent'));
  const { personId, schoolId } = actor;
  const refusedWith = (result: SubmissionResult<string[]>) =>
    data(answered(withoutSecrets(result), of), { status: 400 });
  const done = async (text: string) => data(answered(undefined, of), { headers: await sayNext({ text }) });
  switch (of) {
    case 'name': {
      const { refused } = await submitted(form, ownNameInput, (input) => changeOwnName(database(), actor, input, now));
      return refused ? refusedWith(refused.data.result) : done(ownAccountWords.nameSaved);
    }
    case 'password': {
      const { refused } = await submitted(form, passwordChangeInput, (input) =>
        changePassword(database(), { personId, keep: sessionId }, input, now),
      );
      return refused ? refusedWith(refused.data.result) : done(ownAccountWords.passwordChanged);
    }
    case 'email': {
      const readsOut = !mailLeavesFrom(school);
      const { done: asked, refused } = await submitted(form, emailChangeInput, async (input) => {
        await askForEmail(database(), { personId, schoolId }, input, { now, readsOut });
        return input.email;
      });
      return refused ? refusedWith(refused.data.result) : data(answered({ initialValue: null }, of, asked ?? null));
    }
    case 'calendar': {
      const token = await makeCalendarAddress(database(), personId, { hasNames: form.has('hasNames') }, now);
      return data({ ...answered(undefined, of), address: `${config.PUBLIC_URL}/calendar/${token}/due-dates.ics` });
    }
    case 'endCalendar':
      await endCalendarAddress(database(), personId, now);
      return done(ownAccountWords.addressEnded);
    case 'end': {
      const { refused } = await submitted(form, z.object({ id: z.uuid() }), ({ id }) =>
        endOwnSession(database(), personId, id, now),
      );
      return refused ? refusedWith(refused.data.result) : done(ownAccountWords.ended);
    }
    default:
      return null;
  }
}

export const action = withErrors(async ({ context, request }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const form = await formOf(request);
  const changed = await ownChange(form, personOf(context));
  if (changed) return changed;
  if (form.get('intent') === 'pin') {
    const { refused } = await submitted(form, pinInput, (input) => savePin(database(), actor.personId, input, now));
    if (refused) return data(answered(withoutSecrets(refused.data.result), 'pin'), { status: 400 });
    return data(answered(), { headers: await sayNext({ text: accountWords.pinSaved }) });
  }
  const parsed = reply.safeParse(Object.fromEntries(form));
  if (!parsed.success) return data(answered(), { status: 400 });
  const { intent, id } = parsed.data;
  const when = { today: actor.today, now };
  if (intent === 'join') await acceptInvitation(database(), { id }, { account: null, actor }, when);
  else await declineInvitation(database(), { id }, actor, when);
  const text = intent === 'join' ? accountWords.youAreOnTheTeam : accountWords.youWillNotJoinThis;
  return data(answered(), { headers: await sayNext({ text }) });
});

export const meta: Route.MetaFunction = () => [{ title: accountWords.pageTitle }];

const themes = [
  ['system', 'System'],
  ['light', 'Light'],
  ['dark', 'Dark'],
] as const;

export default function Account({ loaderData, actionData }: Route.ComponentProps) {
  const { name, work, email, schoolName, theme, shortcuts, keepsPages, invitations } = loaderData;
  const resultOf = (of: string) => (actionData?.of === of ? actionData.result : undefined);
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
      <OwnAccount
        own={loaderData.own}
        resultOf={resultOf}
        asked={actionData?.asked ?? null}
        mailLeaves={loaderData.mailLeaves}
      />
      <CalendarSection current={loaderData.calendar} made={actionData?.address ?? null} />
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
      <h2 className="mt-8 text-lg">{accountWords.pin}</h2>
      <Pin hasPin={loaderData.hasPin} result={resultOf('pin')} />
      <h2 className="mt-8 text-lg">{accountWords.leaving}</h2>
      <div className="mt-3 flex flex-wrap gap-2">
        <SignOut>{accountWords.signOut}</SignOut>
        <SignOut everywhere>{accountWords.signOutEverywhere}</SignOut>
      </div>
      <p className="mt-2 text-small text-ink-2">{accountWords.everywhereEndsTheSignIn}</p>
    </Page>
  );
}

function Pin({ hasPin, result }: { hasPin: boolean; result: SubmissionResult<string[]> | undefined }) {
  const { form, fields, isBusy } = useSchemaForm(pinInput, { id: 'pin', result });
  return (
    <>
      <p className="mt-1 max-w-xl text-small text-ink-2">
        {accountWords.pinIsFor} {hasPin && accountWords.youHaveOne}
      </p>
      <SchemaForm form={form} intent="pin" className="mt-3 flex flex-wrap items-start gap-3">
        <PasswordField field={fields.pin} label={accountWords.newPin} holds="new-password" isFigures className="w-36" />
        <PasswordField field={fields.password} label={accountWords.yourPassword} className="w-56" />
        <button type="submit" className="btn mt-6" disabled={isBusy}>
          {accountWords.savePin}
        </button>
      </SchemaForm>
    </>
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
