import { data, Link, redirect } from 'react-router';
import { z } from 'zod';
import { emailField } from '~/core/people/account-input';
import { plainCode } from '~/server/people/codes';
import { forgotPassword } from '~/server/people/own';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { formOf } from '../platform/http/form-of';
import { mailLeaves } from '../platform/http/mail-leaves';
import { addressContext } from '../platform/http/security';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { TextField } from '../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/forgotten';
import { forgottenWords } from './entry-words';

const emailInput = z.object({ email: emailField });
const code = z.string({ error: forgottenWords.typeCode }).trim().min(1, { error: forgottenWords.typeCode }).max(60);
const codeInput = z.object({ code });

export const loader = withErrors(async (_: Route.LoaderArgs) => ({ mailLeaves: await mailLeaves() }));

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const form = await formOf(request);
  if (form.get('intent') === 'code') {
    const { done, refused } = await submitted(form, codeInput, async (input) => plainCode(input.code));
    if (refused) return data({ of: 'code', result: refused.data.result, isSent: false }, { status: 400 });
    throw redirect(`/account/by/${encodeURIComponent(done)}`);
  }
  const { refused } = await submitted(form, emailInput, async ({ email }) => {
    if (!(await mailLeaves())) throw new Invalid({ email: forgottenWords.noMail });
    const minutes = await forgotPassword(database(), email, context.get(addressContext), now());
    if (minutes !== null) throw new Invalid({ email: forgottenWords.wait(minutes) });
  });
  if (refused) return data({ of: 'email', result: refused.data.result, isSent: false }, { status: 400 });
  return data({ of: 'email', result: undefined, isSent: true });
});

export const meta: Route.MetaFunction = () => [{ title: forgottenWords.pageTitle }];

/** For whoever cannot sign in: a link by message, or an administrator's code. */
export default function Forgotten({ loaderData, actionData }: Route.ComponentProps) {
  const resultOf = (of: string) => (actionData?.of === of ? actionData.result : undefined);
  const byEmail = useSchemaForm(emailInput, { id: 'email', result: resultOf('email') });
  const byCode = useSchemaForm(codeInput, { id: 'code', result: resultOf('code') });
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <div className="border-l-2 border-clay pl-6">
        <h1 className="text-2xl">{forgottenWords.title}</h1>
        {loaderData.mailLeaves ? (
          <>
            <h2 className="mt-6 text-lg">{forgottenWords.byMessage}</h2>
            <p className="mt-1 text-small text-ink-2">{forgottenWords.about}</p>
            {actionData?.isSent ? (
              <p role="status" className="mt-3 font-semibold">
                {forgottenWords.sent}
              </p>
            ) : (
              <SchemaForm form={byEmail.form} intent="email" className="mt-3 grid gap-3">
                <TextField field={byEmail.fields.email} label={forgottenWords.email} type="email" />
                <button type="submit" className="btn btn-primary" disabled={byEmail.isBusy}>
                  {forgottenWords.send}
                </button>
              </SchemaForm>
            )}
          </>
        ) : (
          <p className="mt-3">{forgottenWords.noMail}</p>
        )}
        <h2 className="mt-8 text-lg">{forgottenWords.byCode}</h2>
        <SchemaForm form={byCode.form} intent="code" className="mt-2 grid gap-3">
          <TextField field={byCode.fields.code} label={forgottenWords.aCode} placeholder={'XXXX-XXXX-XXXX-XXXX'} />
          <button type="submit" className="btn" disabled={byCode.isBusy}>
            {forgottenWords.useCode}
          </button>
        </SchemaForm>
        <p className="mt-6">
          <Link to="/sign-in" className="tap text-small text-ink-2 link">
            {forgottenWords.back}
          </Link>
        </p>
      </div>
    </main>
  );
}
