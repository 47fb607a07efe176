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
import { setUpWords } from './words';

export const loader = withErrors(async (_: Route.LoaderArgs) => {
  if (await schoolIfAny(database())) throw new NotFound(setUpWords.thereIsASchoolAlready);
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

export const meta: Route.MetaFunction = () => [{ title: setUpWords.setUpTheSchoolGentle }];

/** The first page of an installation that has no school yet. */
export default function SetUp({ loaderData: { zones }, actionData }: Route.ComponentProps) {
  const { form, fields, isBusy } = useSchemaForm(beginningInput, {
    id: 'set-up',
    result: actionData?.result,
  });
  return (
    <main className="mx-auto max-w-xl px-6 py-12">
      <div className="border-l-2 border-clay pl-6">
        <h1 className="text-3xl">{setUpWords.setUpTheSchool}</h1>
        <p className="mt-3 text-ink-2">{setUpWords.nobodyHasBegunHereYet}</p>
        <SchemaForm form={form} className="mt-6 grid gap-5">
          <TextField
            field={fields.code}
            label={setUpWords.codeFromTheStartCommand}
            placeholder={'XXXX-XXXX-XXXX-XXXX'}
          />
          <fieldset className="grid gap-4 sm:grid-cols-2">
            <legend className="display mb-2 text-lg">{setUpWords.theSchool}</legend>
            <TextField field={fields.school} label={setUpWords.nameOfTheSchool} />
            <SelectField
              field={fields.timeZone}
              label={setUpWords.timeZone}
              none={setUpWords.choose}
              options={zones.map((zone) => ({ id: zone, name: zone.replaceAll('_', ' ') }))}
              className="w-full"
            />
          </fieldset>
          <fieldset className="grid gap-4 sm:grid-cols-2">
            <legend className="display mb-2 text-lg">{setUpWords.youItsFirstAdministrator}</legend>
            <TextField field={fields.name} label={setUpWords.yourName} />
            <TextField
              field={fields.work}
              label={setUpWords.whatYouDo}
              placeholder={setUpWords.specialEducationCoordinator}
            />
            <div className="sm:col-span-2">
              <TextField field={fields.email} label={setUpWords.emailWithWhichYouSign} />
            </div>
            <NewPassword password={fields.password} again={fields.again} />
          </fieldset>
          <button type="submit" className="btn btn-primary btn-lg text-base" disabled={isBusy}>
            {setUpWords.setUpTheSchool}
          </button>
        </SchemaForm>
      </div>
    </main>
  );
}
