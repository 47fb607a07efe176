import { data, redirect } from 'react-router';
import { beginningInput } from '~/core/people/beginning-input';
import { beginSchool } from '~/server/people/beginning';
import { beginSession } from '~/server/people/sessions';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { schoolIfAny } from '~/server/school/school';
import { sessionCookie } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { submitted, withoutSecrets } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { SelectField, TextField } from '../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/set-up';
import { NewPassword } from './new-password';

export const loader = withErrors(async (_: Route.LoaderArgs) => {
  if (await schoolIfAny(database())) throw new NotFound('There is a school already.');
  return { zones: Intl.supportedValuesOf('timeZone') };
});

export const action = withErrors(async ({ request }: Route.ActionArgs) => {
  const { done, refused } = await submitted(await formOf(request), beginningInput, (input) =>
    beginSchool(database(), input, now()),
  );
  if (refused) return data({ result: withoutSecrets(refused.data.result) }, { status: 400 });
  throw redirect('/school', {
    headers: { 'Set-Cookie': await sessionCookie.serialize(await beginSession(database(), done, now())) },
  });
});

export const meta: Route.MetaFunction = () => [{ title: 'Set up the school · Gentle Margin' }];

/** The first page of an installation that has no school yet. */
export default function SetUp({ loaderData: { zones }, actionData }: Route.ComponentProps) {
  const { form, fields, isBusy } = useSchemaForm(beginningInput, {
    id: 'set-up',
    result: actionData?.result,
  });
  return (
    <main className="mx-auto max-w-xl px-6 py-12">
      <div className="border-l-2 border-clay pl-6">
        <h1 className="text-3xl">Set up the school</h1>
        <p className="mt-3 text-ink-2">
          Nobody has begun here yet. The start command printed a code in its window; whoever types it here names the
          school and becomes its first administrator. Everything else can be changed later.
        </p>
        <SchemaForm form={form} className="mt-6 grid gap-5">
          <TextField field={fields.code} label="Code from the start command" placeholder="XXXX-XXXX-XXXX-XXXX" />
          <fieldset className="grid gap-4 sm:grid-cols-2">
            <legend className="display mb-2 text-lg">The school</legend>
            <TextField field={fields.school} label="Name of the school" />
            <SelectField
              field={fields.timeZone}
              label="Time zone"
              none="Choose …"
              options={zones.map((zone) => ({ id: zone, name: zone.replaceAll('_', ' ') }))}
              className="w-full"
            />
          </fieldset>
          <fieldset className="grid gap-4 sm:grid-cols-2">
            <legend className="display mb-2 text-lg">You, its first administrator</legend>
            <TextField field={fields.name} label="Your name" />
            <TextField field={fields.work} label="What you do" placeholder="Special education coordinator" />
            <div className="sm:col-span-2">
              <TextField field={fields.email} label="Email, with which you sign in" />
            </div>
            <NewPassword password={fields.password} again={fields.again} />
          </fieldset>
          <button type="submit" className="btn btn-primary h-12" disabled={isBusy}>
            Set up the school
          </button>
        </SchemaForm>
      </div>
    </main>
  );
}
