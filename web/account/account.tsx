import { Form } from 'react-router';
import { answering } from '../http/answering';
import { askerOf } from '../http/asker';
import { preferencesOf } from '../http/cookies';
import { MarginTitle, Page } from '../ui/page';
import type { Route } from './+types/account';

export const loader = answering(async ({ context, request }: Route.LoaderArgs) => {
  const { person, school } = askerOf(context);
  const { name, work, email } = person;
  return { name, work, email, schoolName: school.name, theme: (await preferencesOf(request)).theme };
});

export const meta: Route.MetaFunction = () => [{ title: 'Account · Gentle Margin' }];

const themes = [
  ['auto', 'As the device has it'],
  ['margin', 'By day'],
  ['lamp', 'By lamplight'],
] as const;

export default function Account({ loaderData: { name, work, email, schoolName, theme } }: Route.ComponentProps) {
  return (
    <Page
      marginName="About this device"
      margin={
        <>
          <MarginTitle>On this device</MarginTitle>
          <p>
            The look and the discreet view are kept on this device only. What you mark while observing is kept here too
            until the server has it, so sign out on a device that others use only after saving.
          </p>
        </>
      }
    >
      <h1 className="text-2xl">{name}</h1>
      <p className="mt-1 text-ink-2">
        {work} · {schoolName} · {email}
      </p>
      <h2 className="mt-8 text-lg">Look</h2>
      <Form method="post" action="/preferences" className="mt-3 flex flex-wrap gap-2">
        <input type="hidden" name="from" value="/account" />
        {themes.map(([key, label]) => (
          <button
            type="submit"
            key={key}
            name="theme"
            value={key}
            aria-pressed={key === theme}
            className={`btn ${key === theme ? 'btn-primary' : ''}`}
          >
            {label}
          </button>
        ))}
      </Form>
      <h2 className="mt-8 text-lg">Leaving</h2>
      <div className="mt-3 flex flex-wrap gap-2">
        <SignOut>Sign out</SignOut>
        <SignOut everywhere>Sign out everywhere</SignOut>
      </div>
      <p className="mt-2 text-small text-ink-2">Everywhere ends the sign-in on every device at once.</p>
    </Page>
  );
}

/** Ends this sign-in, or all of this person's. */
function SignOut({ everywhere = false, children }: { everywhere?: boolean; children: string }) {
  return (
    <Form method="post" action="/sign-out">
      {everywhere && <input type="hidden" name="everywhere" value="yes" />}
      <button type="submit" className="btn">
        {children}
      </button>
    </Form>
  );
}
