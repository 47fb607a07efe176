import { getFormProps, getInputProps, useForm } from '@conform-to/react';
import { parseWithZod } from '@conform-to/zod/v4';
import { data, Form, redirect, useNavigation } from 'react-router';
import { z } from 'zod';
import { roleWords } from '~/core/team/roles';
import { countWrongSignIn, forgetWrongSignIns, signInWait } from '~/server/access/attempts';
import { beginSession, resumeSession } from '~/server/access/sessions';
import { now } from '~/server/clock';
import { database } from '~/server/db/current';
import { isDatabaseGone } from '~/server/db/database';
import { type DemoPerson, demoPeople, personByPassword } from '~/server/people/people';
import { answering } from '../http/answering';
import { addressContext } from '../http/context';
import { sessionCookie } from '../http/cookies';
import { formOf } from '../http/form-of';
import { localPath } from '../http/local-path';
import { Field, FormMessage } from '../ui/fields';
import type { Route } from './+types/sign-in';

const credentials = z.object({
  email: z.string({ error: 'Type your e-mail address.' }).trim().min(1).max(200),
  password: z.string({ error: 'Type your password.' }).min(1).max(200),
});
const demoChoice = z.object({ demo: z.uuid() });

export const loader = answering(async ({ request }: Route.LoaderArgs) => {
  const token: unknown = await sessionCookie.parse(request.headers.get('Cookie'));
  if (typeof token === 'string' && (await resumeSession(database(), token, now()))) throw redirect('/students');
  const people = await demoPeople(database());
  const rolesSaid = (roles: DemoPerson['roles']) =>
    roles.map(({ role, students }) => `${roleWords[role].toLowerCase()} of ${students}`).join(', ');
  return {
    people: people.map(({ id, name, work, initials, roles }) => ({
      id,
      name,
      initials,
      about: `${work} · ${rolesSaid(roles)}`,
    })),
  };
});

export const action = answering(async ({ request, context }: Route.ActionArgs) => {
  const form = await formOf(request);
  const letIn = async (personId: string) => {
    const token = await beginSession(database(), personId, now());
    const next = localPath(new URL(request.url).searchParams.get('next')) ?? '/students';
    return redirect(next, { headers: { 'Set-Cookie': await sessionCookie.serialize(token) } });
  };

  const choice = demoChoice.safeParse(Object.fromEntries(form));
  if (choice.success) {
    const person = (await demoPeople(database())).find(({ id }) => id === choice.data.demo);
    if (person) return letIn(person.id);
  }

  const submission = parseWithZod(form, { schema: credentials });
  if (submission.status !== 'success') return data(submission.reply({ hideFields: ['password'] }), { status: 400 });
  const { email, password } = submission.value;
  const refuse = (sentence: string, status: number) =>
    data(submission.reply({ formErrors: [sentence], hideFields: ['password'] }), { status });
  const address = context.get(addressContext);
  const wait = await signInWait(email, address);
  if (wait !== null) return refuse(`Too many tries. Wait ${wait} min, then try again.`, 429);
  try {
    const person = await personByPassword(database(), email, password);
    if (!person) {
      await countWrongSignIn(email, address);
      return refuse('This e-mail address and password do not go together.', 400);
    }
    await forgetWrongSignIns(email);
    return await letIn(person.id);
  } catch (error) {
    if (isDatabaseGone(error)) return refuse('The database cannot be reached at the moment. Try again shortly.', 503);
    throw error;
  }
});

export const meta: Route.MetaFunction = () => [{ title: 'Sign in · Gentle Margin' }];

export default function SignIn({ loaderData: { people }, actionData }: Route.ComponentProps) {
  const [form, fields] = useForm({
    lastResult: actionData,
    onValidate: ({ formData }) => parseWithZod(formData, { schema: credentials }),
    shouldRevalidate: 'onInput',
  });
  const isBusy = useNavigation().state !== 'idle';
  return (
    <div className="grid min-h-dvh lg:grid-cols-[minmax(0,1fr)_27rem]">
      <main className="flex flex-col justify-center px-6 py-12 sm:px-16">
        <div className="w-full max-w-sm">
          <h1 className="flex items-center gap-3 text-3xl">
            <span aria-hidden className="h-8 w-1 rounded bg-clay" />
            Gentle Margin
          </h1>
          <p className="mt-3 text-ink-2">What was seen, what it adds up to, and who should know.</p>
          <Form method="post" {...getFormProps(form)} className="mt-8 grid gap-4">
            <FormMessage form={form} />
            <Field field={fields.email} label="E-mail address">
              <input
                {...getInputProps(fields.email, { type: 'email' })}
                autoComplete="username"
                className="input w-full"
              />
            </Field>
            <Field field={fields.password} label="Password">
              <input
                {...getInputProps(fields.password, { type: 'password' })}
                autoComplete="current-password"
                className="input w-full"
              />
            </Field>
            <button type="submit" className="btn btn-primary mt-2 h-12" disabled={isBusy}>
              Sign in
            </button>
          </Form>
        </div>
      </main>
      {people.length > 0 && (
        <aside aria-label="Demo people" className="margin-rule flex flex-col justify-center px-6 py-10 sm:px-8">
          <h2 className="text-lg">Look around as</h2>
          <p className="mt-1 text-small text-ink-2">
            This installation runs with made-up data. Everyone here is invented.
          </p>
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
