import { getFormProps, getInputProps, type SubmissionResult, useForm } from '@conform-to/react';
import { data, Form, redirect, useNavigation } from 'react-router';
import { wallTime } from '~/core/calendar/zone';
import { roleWords } from '~/core/team/roles';
import { acceptanceInput } from '~/core/team/team-input';
import { countUnknownLink, mayOpenLink } from '~/server/access/attempts';
import { beginSession } from '~/server/access/sessions';
import { now } from '~/server/clock';
import { database } from '~/server/db/current';
import { theSchool } from '~/server/school/school';
import { acceptInvitation, findInvitation } from '~/server/team/invitations';
import { answering } from '../http/answering';
import { addressContext } from '../http/context';
import { sessionCookie } from '../http/cookies';
import { formOf } from '../http/form-of';
import { submitted } from '../http/submitted';
import { Field, FormMessage } from '../ui/fields';
import { TextField } from '../ui/form-fields';
import { readForm } from '../ui/read-form';
import type { Route } from './+types/invited';

/** Who stands at the door with an invitation: an unknown one is a 404 and is counted. */
async function invited({ params, context }: Route.LoaderArgs | Route.ActionArgs) {
  const address = context.get(addressContext);
  if (!(await mayOpenLink(address))) throw data(null, { status: 429 });
  const school = await theSchool(database());
  const instant = now();
  const today = wallTime(instant, school.timeZone).on;
  const invitation = await findInvitation(database(), params.token, today);
  if (!invitation) {
    await countUnknownLink(address);
    throw data(null, { status: 404 });
  }
  return { invitation, school, instant, today };
}

export const loader = answering(async (args: Route.LoaderArgs) => {
  const { invitation, school } = await invited(args);
  const { name, email, role, madeByName, hasAccount } = invitation;
  return { name, email, role: roleWords[role], madeByName, hasAccount, schoolName: school.name };
});

export const action = answering(async (args: Route.ActionArgs) => {
  const { invitation, instant, today } = await invited(args);
  const token = args.params.token;
  if (invitation.hasAccount) {
    await acceptInvitation(database(), token, null, { today, now: instant });
    throw redirect(`/sign-in?next=/students/${invitation.studentId}/report`);
  }
  const form = await formOf(args.request);
  const { done, refused } = await submitted(form, acceptanceInput, (input) =>
    acceptInvitation(database(), token, input, { today, now: instant }),
  );
  if (refused) return data({ result: withoutSecrets(refused.data.result) }, { status: 400 });
  const session = await beginSession(database(), done.personId, instant);
  throw redirect(`/students/${invitation.studentId}/report`, {
    headers: { 'Set-Cookie': await sessionCookie.serialize(session) },
  });
});

/** A password that was typed is not sent back. */
function withoutSecrets(result: SubmissionResult<string[]>): SubmissionResult<string[]> {
  const { password: _, again: __, ...rest } = result.initialValue ?? {};
  return { ...result, initialValue: rest };
}

export const meta: Route.MetaFunction = () => [
  { title: 'An invitation · Gentle Margin' },
  { name: 'robots', content: 'noindex, nofollow' },
];

export default function Invited({ loaderData, actionData }: Route.ComponentProps) {
  const { name, email, role, madeByName, hasAccount, schoolName } = loaderData;
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <div className="border-l-2 border-clay pl-6">
        <p className="text-small text-ink-2">{schoolName}</p>
        <h1 className="text-2xl">Join a support team</h1>
        <p className="mt-3">
          {madeByName} asks you to join the support team of a student, as {role.toLowerCase()}.
        </p>
        {hasAccount ? (
          <Form method="post" className="mt-5 grid gap-3">
            <p className="text-small text-ink-2">There is an account for {email}. Join, then sign in with it.</p>
            <button type="submit" className="btn btn-primary h-11">
              Join the team
            </button>
          </Form>
        ) : (
          <AccountForm name={name} email={email} result={actionData?.result} />
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
  const [form, fields] = useForm({
    lastResult: result,
    defaultValue: { name },
    onValidate: ({ formData }) => readForm(formData, acceptanceInput),
    shouldRevalidate: 'onInput',
  });
  const isBusy = useNavigation().state !== 'idle';
  return (
    <Form method="post" {...getFormProps(form)} className="mt-5 grid gap-4">
      <p className="text-small text-ink-2">Your account, with which you sign in: {email}</p>
      <FormMessage form={form} />
      <TextField field={fields.name} label="Your name" />
      <TextField field={fields.work} label="What you do, in a word or two" placeholder="Occupational specialist" />
      <Field field={fields.password} label="A password, of 10 characters or more">
        <input
          {...getInputProps(fields.password, { type: 'password' })}
          key={fields.password.key}
          autoComplete="new-password"
          className="input w-full"
        />
      </Field>
      <Field field={fields.again} label="Once more">
        <input
          {...getInputProps(fields.again, { type: 'password' })}
          key={fields.again.key}
          autoComplete="new-password"
          className="input w-full"
        />
      </Field>
      <button type="submit" className="btn btn-primary h-11" disabled={isBusy}>
        Make my account and join
      </button>
    </Form>
  );
}
