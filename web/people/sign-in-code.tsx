import { getInputProps } from '@conform-to/react';
import { data, Link, redirect } from 'react-router';
import { z } from 'zod';
import { completeHalf, isHalfway } from '~/server/people/second-factor';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { Invalid, NotFound } from '~/server/platform/failures';
import { halfCookie } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { localPath } from '../platform/http/local-path';
import { submitted, withoutSecrets } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Field } from '../platform/ui/fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/sign-in-code';
import { codeWords } from './entry-words';
import { letIn } from './let-in';

const codeInput = z.object({
  code: z.string({ error: codeWords.type }).trim().min(1, { error: codeWords.type }).max(40),
});

async function carried(request: Request): Promise<string> {
  const token: unknown = await halfCookie.parse(request.headers.get('Cookie'));
  if (typeof token === 'string' && (await isHalfway(database(), token, now()))) return token;
  throw redirect('/sign-in');
}

export const loader = withErrors(async ({ request }: Route.LoaderArgs) => {
  await carried(request);
  return null;
});

export const action = withErrors(async ({ request }: Route.ActionArgs) => {
  const token = await carried(request);
  const { done, refused } = await submitted(await formOf(request), codeInput, async ({ code }) => {
    const answer = await completeHalf(database(), token, code, now()).catch((error) => {
      if (error instanceof NotFound) throw redirect('/sign-in');
      throw error;
    });
    if ('waitMinutes' in answer) throw new Invalid({ code: codeWords.wait(answer.waitMinutes) });
    if ('isWrong' in answer) throw new Invalid({ code: codeWords.wrong });
    return answer;
  });
  if (refused) return data({ result: withoutSecrets(refused.data.result) }, { status: 400 });
  const next = localPath(new URL(request.url).searchParams.get('next'));
  return letIn(request, done, { next, ends: halfCookie });
});

export const meta: Route.MetaFunction = () => [
  { title: codeWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** The second step of signing in, of whoever has an authenticator. */
export default function SignInCode({ actionData }: Route.ComponentProps) {
  const { form, fields, isBusy } = useSchemaForm(codeInput, { id: 'code', result: actionData?.result });
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <div className="border-l-2 border-clay pl-6">
        <h1 className="text-2xl">{codeWords.title}</h1>
        <p className="mt-3 text-ink-2">{codeWords.about}</p>
        <SchemaForm form={form} className="mt-5 grid gap-4">
          <Field field={fields.code} label={codeWords.code}>
            <input
              {...getInputProps(fields.code, { type: 'text' })}
              key={fields.code.key}
              // biome-ignore lint/a11y/noAutofocus: the one field of the page, which somebody has just asked for
              autoFocus
              autoComplete="one-time-code"
              autoCapitalize="characters"
              spellCheck={false}
              className="input w-full"
            />
          </Field>
          <button type="submit" className="btn btn-primary" disabled={isBusy}>
            {codeWords.goOn}
          </button>
        </SchemaForm>
        <p className="mt-4">
          <Link to="/sign-in" className="tap text-small text-ink-2 link">
            {codeWords.again}
          </Link>
        </p>
      </div>
    </main>
  );
}
