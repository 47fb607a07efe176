import type { SubmissionResult } from '@conform-to/react';
import { data, Form, Link, type RouterContextProvider, redirect } from 'react-router';
import { wallTime } from '~/core/calendar/zone';
import { accountInput, newPasswordInput } from '~/core/people/account-input';
import { type FoundLink, findAccountLink } from '~/server/people/account-links';
import { canOpenLink, countUnknownLink } from '~/server/people/attempts';
import { joinSchool } from '~/server/people/join';
import { choosePassword, proveEmail } from '~/server/people/own';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { joinAwaitedTeams } from '~/server/students/awaited';
import { sayNext, sessionCookie } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { visitorOf } from '../platform/http/request-person';
import { addressContext } from '../platform/http/security';
import { submitted, withoutSecrets } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { TextField } from '../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/by-link';
import { byLinkWords } from './entry-words';
import { letIn } from './let-in';
import { NewPassword } from './new-password';

/** What a link opens: one that is over, used, or was never given out is a 404 and is counted. */
async function opened(token: string, context: Readonly<RouterContextProvider>): Promise<FoundLink> {
  const address = context.get(addressContext);
  if (!(await canOpenLink(database(), address))) throw data(null, { status: 429 });
  const link = await findAccountLink(database(), token, now());
  if (link) return link;
  await countUnknownLink(database(), address);
  throw data(null, { status: 404 });
}

/** What somebody who opens it is asked for. */
function asksFor({ kind, accountId, isProven, isReadOut }: FoundLink, visitorId: string | null) {
  if (kind !== 'join') return kind;
  const isSignedIn = accountId !== null && visitorId === accountId;
  if (accountId === null || (!isProven && !isReadOut && !isSignedIn)) return 'account';
  return isSignedIn ? 'answer' : 'signIn';
}

/** Joins the school, and the teams on which its roster has them. @returns the person */
async function joined(
  { schoolId, timeZone }: FoundLink,
  token: string,
  by: Parameters<typeof joinSchool>[2],
): Promise<string> {
  const at = now();
  const personId = await joinSchool(database(), token, by, at);
  await joinAwaitedTeams(database(), { personId, schoolId, today: wallTime(at, timeZone).on }, at);
  return personId;
}

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const link = await opened(params.token, context);
  const visitor = await visitorOf(request);
  const { name, email, schoolName, madeByName, isAdmin } = link;
  return {
    ...{ name, email, schoolName, isAdmin, madeByName: madeByName ?? schoolName },
    asks: asksFor(link, visitor?.personId ?? null),
    here: `/account/by/${params.token}`,
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const link = await opened(params.token, context);
  const visitor = await visitorOf(request);
  const { token } = params;
  const form = await formOf(request);
  const toSignIn = async (text: string) => {
    const headers = await sayNext({ text });
    headers.append('Set-Cookie', await sessionCookie.serialize('', { maxAge: 0 }));
    return redirect('/sign-in', { headers });
  };
  const refusedWith = (result: SubmissionResult<string[]>) => data({ result: withoutSecrets(result) }, { status: 400 });
  switch (asksFor(link, visitor?.personId ?? null)) {
    case 'email':
      await proveEmail(database(), token, now());
      throw await toSignIn(byLinkWords.emailIsNew);
    case 'password': {
      const { refused } = await submitted(form, newPasswordInput, ({ password }) =>
        choosePassword(database(), token, password, now()),
      );
      if (refused) return refusedWith(refused.data.result);
      throw await toSignIn(byLinkWords.passwordIsNew);
    }
    case 'account': {
      const { done, refused } = await submitted(form, accountInput, (account) =>
        joined(link, token, { account, signedIn: visitor?.personId ?? null }),
      );
      if (refused) return refusedWith(refused.data.result);
      throw await letIn(request, { personId: done, isShared: false }, { next: '/' });
    }
    default:
      await joined(link, token, { account: null, signedIn: visitor?.personId ?? null });
      throw redirect('/');
  }
});

export const meta: Route.MetaFunction = () => [
  { title: byLinkWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** What a link about an account opens: joining a school, a new password, another address. */
export default function ByLink({ loaderData, actionData }: Route.ComponentProps) {
  const { name, email, schoolName, madeByName, isAdmin, asks, here } = loaderData;
  const result = actionData?.result;
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <div className="border-l-2 border-clay pl-6">
        <p className="text-small text-ink-2">{schoolName}</p>
        {asks === 'password' && <PasswordForm name={name} result={result} />}
        {asks === 'email' && (
          <>
            <h1 className="text-2xl">{byLinkWords.proveEmail}</h1>
            <p className="mt-3">{byLinkWords.signInWith(email)}</p>
            <Form method="post" className="mt-5 grid">
              <button type="submit" className="btn btn-primary">
                {byLinkWords.yesMine}
              </button>
            </Form>
          </>
        )}
        {(asks === 'account' || asks === 'answer' || asks === 'signIn') && (
          <>
            <h1 className="text-2xl">{byLinkWords.join(schoolName)}</h1>
            <p className="mt-3">{byLinkWords.asksYou(madeByName, schoolName)}</p>
            {isAdmin && <p className="mt-2 text-small text-ink-2">{byLinkWords.asAdmin}</p>}
          </>
        )}
        {asks === 'account' && <AccountForm name={name} email={email} result={result} />}
        {asks === 'signIn' && (
          <div className="mt-5 grid gap-3">
            <p className="text-small text-ink-2">{byLinkWords.thereIs(email)}</p>
            <Link to={`/sign-in?next=${encodeURIComponent(here)}`} className="btn btn-primary">
              {byLinkWords.signIn}
            </Link>
          </div>
        )}
        {asks === 'answer' && (
          <Form method="post" className="mt-5 grid gap-3">
            <p className="text-small text-ink-2">{byLinkWords.signedInAs(email)}</p>
            <button type="submit" className="btn btn-primary">
              {byLinkWords.joinNow}
            </button>
          </Form>
        )}
      </div>
    </main>
  );
}

interface FormProps {
  name: string;
  result: SubmissionResult<string[]> | undefined;
}

function PasswordForm({ name, result }: FormProps) {
  const { form, fields, isBusy } = useSchemaForm(newPasswordInput, { result });
  return (
    <>
      <h1 className="text-2xl">{byLinkWords.newPassword}</h1>
      <p className="mt-3 text-ink-2">{byLinkWords.newPasswordFor(name)}</p>
      <SchemaForm form={form} className="mt-5 grid gap-4">
        <NewPassword password={fields.password} again={fields.again} />
        <button type="submit" className="btn btn-primary" disabled={isBusy}>
          {byLinkWords.savePassword}
        </button>
      </SchemaForm>
    </>
  );
}

function AccountForm({ name, email, result }: FormProps & { email: string }) {
  const { form, fields, isBusy } = useSchemaForm(accountInput, { result, defaultValue: { name } });
  return (
    <SchemaForm form={form} className="mt-5 grid gap-4">
      <p className="text-small text-ink-2">{byLinkWords.yourAccount(email)}</p>
      <TextField field={fields.name} label={byLinkWords.yourName} />
      <TextField field={fields.work} label={byLinkWords.whatYouDo} />
      <NewPassword password={fields.password} again={fields.again} />
      <button type="submit" className="btn btn-primary" disabled={isBusy}>
        {byLinkWords.makeAccount}
      </button>
    </SchemaForm>
  );
}
