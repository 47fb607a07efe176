import { Printer } from 'lucide-react';
import { data, Link, redirect } from 'react-router';
import { renderSVG } from 'uqr';
import { z } from 'zod';
import { beginSecondFactor, confirmSecondFactor, endSecondFactor } from '~/server/people/second-factor';
import { database } from '~/server/platform/db/current';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { submitted, withoutSecrets } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/second-factor';
import { codeWords, ownAccountWords } from './entry-words';
import { PasswordField } from './password-field';

const codeInput = z.object({
  code: z.string({ error: codeWords.type }).trim().min(1, { error: codeWords.type }).max(40),
});
const offInput = z.object({ password: z.string({ error: ownAccountWords.currentPassword }).min(1).max(200) });

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, person, now, needsFactor } = personOf(context);
  // It is set up by who signed in with their password: else a PIN would be all that it takes.
  if (actor.isByPin) throw redirect('/account');
  const begun = await beginSecondFactor(database(), person, now);
  return {
    isAsked: needsFactor,
    begun: begun && {
      secret: begun.secret.replace(/(.{4})(?=.)/g, '$1 '),
      picture: renderSVG(begun.uri, { border: 2 }),
    },
  };
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, person, now } = personOf(context);
  if (actor.isByPin) throw redirect('/account');
  const form = await formOf(request);
  if (form.get('intent') === 'off') {
    const { refused } = await submitted(form, offInput, ({ password }) =>
      endSecondFactor(database(), person.id, password, now),
    );
    if (refused) return data({ codes: null, result: withoutSecrets(refused.data.result) }, { status: 400 });
    throw redirect('/account', { headers: await sayNext({ text: ownAccountWords.turnedOff }) });
  }
  const { done, refused } = await submitted(form, codeInput, ({ code }) =>
    confirmSecondFactor(database(), person.id, code, now),
  );
  if (refused) return data({ codes: null, result: withoutSecrets(refused.data.result) }, { status: 400 });
  return data({ codes: done, result: undefined });
});

export const meta: Route.MetaFunction = () => [{ title: ownAccountWords.pageTitle }];

/** An authenticator is set up with a picture to scan, and taken into use with its first code; or turned off. */
export default function SecondFactor({ loaderData: { begun, isAsked }, actionData }: Route.ComponentProps) {
  return (
    <Page
      marginName={ownAccountWords.whatItIs}
      margin={
        <>
          <MarginTitle>{ownAccountWords.whatItIs}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{ownAccountWords.factorIs}</p>
            <p>{ownAccountWords.anyAuthenticator}</p>
          </div>
        </>
      }
    >
      <h1 className="text-3xl">{ownAccountWords.factor}</h1>
      {isAsked && !actionData?.codes && (
        <p role="status" className="mt-3 max-w-xl border-l-2 border-clay pl-3 font-semibold">
          {ownAccountWords.asked}
        </p>
      )}
      {actionData?.codes ? (
        <Codes codes={actionData.codes} />
      ) : begun ? (
        <SetUp begun={begun} result={actionData?.result} />
      ) : (
        <TurnOff result={actionData?.result} />
      )}
    </Page>
  );
}

type Loaded = Route.ComponentProps['loaderData'];
type Result = NonNullable<Route.ComponentProps['actionData']>['result'];

function SetUp({ begun, result }: { begun: NonNullable<Loaded['begun']>; result: Result }) {
  const { form, fields, isBusy } = useSchemaForm(codeInput, { id: 'factor', result });
  return (
    <div className="mt-6 grid max-w-3xl gap-8 sm:grid-cols-2">
      <section aria-labelledby="scan">
        <h2 id="scan" className="text-lg">
          {ownAccountWords.step1}
        </h2>
        <div
          role="img"
          aria-label={ownAccountWords.picture}
          className="mt-3 w-56 overflow-hidden rounded-box border border-rule bg-white"
          // biome-ignore lint/security/noDangerouslySetInnerHtml: drawn here, of nothing that anybody typed
          dangerouslySetInnerHTML={{ __html: begun.picture }}
        />
        <p className="mt-3 text-small text-ink-2">{ownAccountWords.orType}</p>
        <p className="mt-1 font-mono text-small break-words select-all">{begun.secret}</p>
      </section>
      <section aria-labelledby="type">
        <h2 id="type" className="text-lg">
          {ownAccountWords.step2}
        </h2>
        <SchemaForm form={form} className="mt-3 grid gap-3">
          <PasswordField
            field={fields.code}
            label={ownAccountWords.code}
            holds="one-time-code"
            isFigures
            className="w-40"
          />
          <button type="submit" className="btn btn-primary justify-self-start" disabled={isBusy}>
            {ownAccountWords.turnOn}
          </button>
        </SchemaForm>
      </section>
    </div>
  );
}

function Codes({ codes }: { codes: string[] }) {
  return (
    <section aria-labelledby="codes" className="mt-6 max-w-xl">
      <h2 id="codes" className="text-lg">
        {ownAccountWords.isOn}
      </h2>
      <p className="mt-1">{ownAccountWords.keepCodes}</p>
      <ul className="mt-3 grid grid-cols-2 gap-x-8 gap-y-1 font-mono select-all">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <p className="no-print mt-5 flex gap-2">
        <Link to="/account" className="btn btn-primary">
          {ownAccountWords.toAccount}
        </Link>
        <button type="button" className="btn" onClick={() => window.print()}>
          <Printer size={14} aria-hidden /> {ownAccountWords.print}
        </button>
      </p>
    </section>
  );
}

function TurnOff({ result }: { result: Result }) {
  const { form, fields, isBusy } = useSchemaForm(offInput, { id: 'off', result });
  return (
    <SchemaForm form={form} intent="off" className="mt-5 grid max-w-xs gap-3">
      <PasswordField field={fields.password} label={ownAccountWords.currentPassword} />
      <button type="submit" className="btn justify-self-start" disabled={isBusy}>
        {ownAccountWords.turnOff}
      </button>
    </SchemaForm>
  );
}
