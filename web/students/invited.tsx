import type { SubmissionResult } from '@conform-to/react';
import { data, Form, Link, redirect } from 'react-router';
import { wallTime } from '~/core/calendar/zone';
import { roleWords } from '~/core/students/roles';
import { acceptanceInput } from '~/core/students/team-input';
import { beginSession } from '~/server/people/sessions';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import type { Door } from '~/server/sharing/doors';
import { acceptInvitation, declineInvitation, findInvitation } from '~/server/students/invitations';
import { NewPassword } from '../people/new-password';
import { closed, withErrorsAtDoor } from '../platform/http/at-door';
import { sayNext, sessionCookie } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { visitorOf } from '../platform/http/request-person';
import { submitted, withoutSecrets } from '../platform/http/submitted';
import { TextField } from '../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/invited';
import { invitedWords } from './words';

/** Who stands at the door with an invitation: one that is over or used is a 404 and is counted. */
async function invited({ params, context }: Route.LoaderArgs | Route.ActionArgs, { school }: Door) {
  const instant = now();
  const today = wallTime(instant, school.timeZone).on;
  const invitation = await findInvitation(database(), params.token, today);
  if (!invitation) throw await closed(context);
  return { invitation, school, instant, today };
}

export const loader = withErrorsAtDoor(async (args: Route.LoaderArgs, at) => {
  const { invitation, school } = await invited(args, at);
  const { name, email, role, madeByName, accountId, isProven, isReadOut } = invitation;
  const visitor = await visitorOf(args.request);
  const isSignedIn = accountId !== null && visitor?.personId === accountId;
  // An account whose address was never proven goes over to whoever answers from the address.
  const needsAccount = accountId === null || (!isProven && !isReadOut && !isSignedIn);
  return {
    ...{ name, email, role: roleWords[role], madeByName, schoolName: school.name },
    asks: needsAccount ? ('account' as const) : isSignedIn ? ('answer' as const) : ('signIn' as const),
    here: `/invited/${args.params.token}`,
  };
});

export const action = withErrorsAtDoor(async (args: Route.ActionArgs, at) => {
  const { invitation, instant, today } = await invited(args, at);
  const door = { token: args.params.token };
  const actor = await visitorOf(args.request);
  const form = await formOf(args.request);
  const when = { today, now: instant };
  if (form.get('intent') === 'decline') {
    await declineInvitation(database(), door, actor, when);
    const headers = await sayNext({ text: invitedWords.youWillNotJoinThis });
    throw redirect('/sign-in', { headers });
  }
  const to = `/students/${invitation.studentId}/individual-report`;
  if (form.get('intent') === 'join') {
    await acceptInvitation(database(), door, { account: null, actor }, when);
    throw redirect(to);
  }
  const { done, refused } = await submitted(form, acceptanceInput, (account) =>
    acceptInvitation(database(), door, { account, actor }, when),
  );
  if (refused) return data({ result: withoutSecrets(refused.data.result) }, { status: 400 });
  const session = await beginSession(database(), done.personId, instant);
  throw redirect(to, { headers: { 'Set-Cookie': await sessionCookie.serialize(session) } });
});

export const meta: Route.MetaFunction = () => [
  { title: invitedWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

export default function Invited({ loaderData, actionData }: Route.ComponentProps) {
  const { name, email, role, madeByName, asks, schoolName, here } = loaderData;
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <div className="border-l-2 border-clay pl-6">
        <p className="text-small text-ink-2">{schoolName}</p>
        <h1 className="text-2xl">{invitedWords.joinASupportTeam}</h1>
        <p className="mt-3">{invitedWords.asksYouToJoinThe(madeByName, role.toLowerCase())}</p>
        {asks === 'account' && <AccountForm name={name} email={email} result={actionData?.result} />}
        {asks === 'signIn' && (
          <div className="mt-5 grid gap-3">
            <p className="text-small text-ink-2">{invitedWords.thereIsAnAccountFor(email)}</p>
            <Link to={`/sign-in?next=${encodeURIComponent(here)}`} className="btn btn-primary">
              {invitedWords.signInToAnswer}
            </Link>
          </div>
        )}
        {asks === 'answer' && (
          <Form method="post" className="mt-5 grid gap-3">
            <p className="text-small text-ink-2">{invitedWords.youAreSignedInAs(email)}</p>
            <button type="submit" name="intent" value="join" className="btn btn-primary">
              {invitedWords.joinTheTeam}
            </button>
          </Form>
        )}
        {asks !== 'signIn' && (
          <Form method="post" className="mt-3 grid">
            <button type="submit" name="intent" value="decline" className="btn btn-ghost">
              {invitedWords.iDoNotWantTo}
            </button>
          </Form>
        )}
      </div>
    </main>
  );
}

interface AccountFormProps {
  name: string;
  email: string;
  result: SubmissionResult<string[]> | undefined;
}

function AccountForm({ name, email, result }: AccountFormProps) {
  const { form, fields, isBusy } = useSchemaForm(acceptanceInput, {
    result,
    defaultValue: { name },
  });
  return (
    <SchemaForm form={form} className="mt-5 grid gap-4">
      <p className="text-small text-ink-2">{invitedWords.yourAccountWithWhichYou(email)}</p>
      <TextField field={fields.name} label={invitedWords.yourName} />
      <TextField
        field={fields.work}
        label={invitedWords.whatYouDoInA}
        placeholder={invitedWords.occupationalSpecialist}
      />
      <NewPassword password={fields.password} again={fields.again} />
      <button type="submit" className="btn btn-primary" disabled={isBusy}>
        {invitedWords.makeMyAccountAndJoin}
      </button>
    </SchemaForm>
  );
}
