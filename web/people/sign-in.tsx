import { getInputProps } from '@conform-to/react';
import { parseWithZod } from '@conform-to/zod/v4';
import { useEffect } from 'react';
import { data, Form, Link, redirect, useSearchParams } from 'react-router';
import { z } from 'zod';
import { roleWords } from '~/core/students/roles';
import { districtName } from '~/server/people/district';
import { worksSomewhere } from '~/server/people/own';
import { type DemoPerson, demoPeople } from '~/server/people/people';
import { beginHalf, secondFactorOf } from '~/server/people/second-factor';
import { resumeSession } from '~/server/people/sessions';
import { signIn } from '~/server/people/sign-in';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { isDatabaseGone } from '~/server/platform/db/database';
import { schoolIfAny } from '~/server/school/school';
import { halfCookie, sessionCookie } from '../platform/http/cookies';
import { demoIsOpen } from '../platform/http/demo-open';
import { formOf } from '../platform/http/form-of';
import { localPath } from '../platform/http/local-path';
import { addressContext } from '../platform/http/security';
import { withErrors } from '../platform/http/with-errors';
import { forgetHere } from '../platform/offline/connection';
import { Field } from '../platform/ui/fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/sign-in';
import { carriedDevice, letIn } from './let-in';
import { districtRefusals, signInWords } from './words';

const credentials = z.object({
  email: z.string({ error: signInWords.typeYourEmailAddress }).trim().min(1).max(200),
  password: z.string({ error: signInWords.typeYourPassword }).min(1).max(200),
  shared: z.string().optional(),
});
/** Why the district's own service did not let somebody in. */
const refusals = z.enum(districtRefusals).nullable().catch(null);
const demoChoice = z.object({ demo: z.uuid() });

export const loader = withErrors(async ({ request }: Route.LoaderArgs) => {
  const token: unknown = await sessionCookie.parse(request.headers.get('Cookie'));
  if (typeof token === 'string' && (await resumeSession(database(), token, now()))) throw redirect('/students');
  const school = await schoolIfAny(database());
  if (!school) throw redirect('/set-up');
  const isClosed = school.isDemo && !demoIsOpen;
  const people = isClosed ? [] : await demoPeople(database());
  const rolesSaid = (roles: DemoPerson['roles']) =>
    roles.map(({ role, students }) => signInWords.of(roleWords[role].toLowerCase(), students)).join(', ');
  const said = refusals.parse(new URL(request.url).searchParams.get('district'));
  return {
    isClosed,
    district: districtName(),
    refusal: said && signInWords.district[said],
    people: people.map(({ id, name, work, initials, roles }) => ({
      id,
      name,
      initials,
      about: `${work} · ${rolesSaid(roles)}`,
    })),
  };
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const form = await formOf(request);
  const school = await schoolIfAny(database());
  if (!school) throw redirect('/set-up');
  if (school.isDemo && !demoIsOpen) throw data(closedWords, { status: 403 });
  const device = await carriedDevice(request);
  const isShared = form.has('shared');
  const search = new URL(request.url).searchParams;
  const next = localPath(search.get('next'));

  const choice = demoChoice.safeParse(Object.fromEntries(form));
  if (choice.success) {
    const person = (await demoPeople(database())).find(({ id }) => id === choice.data.demo);
    if (person) return letIn(request, { personId: person.id, isShared }, { next });
  }

  const submission = parseWithZod(form, { schema: credentials });
  if (submission.status !== 'success') return data(submission.reply({ hideFields: ['password'] }), { status: 400 });
  const { email, password } = submission.value;
  const refuse = (sentence: string, status: number) =>
    data(submission.reply({ formErrors: [sentence], hideFields: ['password'] }), { status });
  const address = context.get(addressContext);
  try {
    const answer = await signIn(database(), { email, password, address, device }, now());
    if ('waitMinutes' in answer) {
      return refuse(signInWords.tooManyTriesWaitMin(answer.waitMinutes), 429);
    }
    if ('wrong' in answer) return refuse(signInWords.emailOrPasswordIsWrong, 400);
    const { id: personId } = answer.person;
    if (!(await worksSomewhere(database(), personId, now()))) return refuse(signInWords.worksNowhere, 400);
    if (!(await secondFactorOf(database(), personId)).isOn)
      return await letIn(request, { personId, isShared }, { next });
    const half = await beginHalf(database(), personId, isShared, now());
    return redirect(`/sign-in/code${search.size > 0 ? `?${search}` : ''}`, {
      headers: { 'Set-Cookie': await halfCookie.serialize(half) },
    });
  } catch (error) {
    if (isDatabaseGone(error)) return refuse(signInWords.theDatabaseCannotBeReached, 503);
    throw error;
  }
});

export const meta: Route.MetaFunction = () => [{ title: signInWords.signInGentleMargin }];

const closedWords = signInWords.thisIsTheDemoWhich;

export default function SignIn({
  loaderData: { people, isClosed, district, refusal },
  actionData,
}: Route.ComponentProps) {
  // Nobody is signed in here: what could be read without network goes.
  useEffect(() => void forgetHere(), []);
  const [search] = useSearchParams();
  const { form, fields, isBusy } = useSchemaForm(credentials, {
    result: actionData,
  });
  return (
    <div className="grid min-h-dvh lg:grid-cols-[minmax(0,1fr)_27rem]">
      <main className="flex flex-col justify-center px-6 py-12 sm:px-16">
        <div className="w-full max-w-sm">
          <h1 className="flex items-center gap-3 text-3xl">
            <span aria-hidden className="h-8 w-1 rounded bg-clay" />
            {signInWords.gentleMargin}
          </h1>
          <p className="mt-3 text-ink-2">{signInWords.whatWasSeenWhatIt}</p>
          {isClosed && (
            <p role="alert" className="mt-6 border-l-2 border-clay pl-4">
              {closedWords}
            </p>
          )}
          {refusal && (
            <p role="alert" className="mt-6 alert alert-error alert-soft block font-semibold">
              {refusal}
            </p>
          )}
          {district && !isClosed && (
            <p className="mt-8 grid">
              <Link
                to={`/sign-in/district${search.size > 0 ? `?${search}` : ''}`}
                reloadDocument
                className="btn btn-lg text-base"
              >
                {signInWords.signInWith(district)}
              </Link>
            </p>
          )}
          <SchemaForm form={form} className="mt-8 grid gap-4">
            <Field field={fields.email} label={signInWords.emailAddress}>
              <input
                {...getInputProps(fields.email, { type: 'email' })}
                autoComplete="username"
                className="input w-full"
              />
            </Field>
            <Field field={fields.password} label={signInWords.password}>
              <input
                {...getInputProps(fields.password, { type: 'password' })}
                autoComplete="current-password"
                className="input w-full"
              />
            </Field>
            <label className="flex min-h-11 items-center gap-3 text-small">
              <input type="checkbox" name="shared" value="yes" className="checkbox" />
              <span>
                {signInWords.thisIsASharedTablet}
                <span className="text-ink-2">{signInWords.signsOutSooner}</span>
              </span>
            </label>
            <button type="submit" className="btn btn-primary btn-lg text-base" disabled={isBusy || isClosed}>
              {signInWords.signIn}
            </button>
          </SchemaForm>
          <p className="mt-4">
            <Link to="/forgotten" className="tap text-small text-ink-2 link">
              {signInWords.forgotten}
            </Link>
          </p>
        </div>
      </main>
      {people.length > 0 && (
        <aside
          aria-label={signInWords.demoPeople}
          className="margin-rule flex flex-col justify-center px-6 py-10 sm:px-8"
        >
          <h2 className="text-lg">{signInWords.lookAroundAs}</h2>
          <p className="mt-1 text-small text-ink-2">{signInWords.thisInstallationRunsWithMade}</p>
          <Form method="post" className="mt-4 grid gap-1.5">
            {people.map(({ id, name, about, initials }) => (
              <button
                type="submit"
                key={id}
                name="demo"
                value={id}
                className="flex min-h-12 items-center gap-3 rounded-field border border-rule bg-sheet px-3 text-left hover:border-ink-3"
              >
                <span aria-hidden className="w-7 font-bold text-ink-2">
                  {initials}
                </span>
                <span>
                  <span className="block font-semibold">{name}</span>
                  <span className="block text-small text-ink-2">{about}</span>
                </span>
              </button>
            ))}
          </Form>
        </aside>
      )}
    </div>
  );
}
