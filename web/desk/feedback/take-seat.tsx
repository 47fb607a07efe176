import { data, Form, redirect } from 'react-router';
import { z } from 'zod';
import { turnNames } from '~/core/desk/turn-names';
import { takeSeat, whoPresents } from '~/server/desk/seats';
import { countTry, uncountTry } from '~/server/people/attempts';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { seatCookie } from '../../platform/http/cookies';
import { demoIsOpen } from '../../platform/http/demo-open';
import { withFailures } from '../../platform/http/failure-answer';
import { formOf } from '../../platform/http/form-of';
import { addressContext } from '../../platform/http/security';
import type { Route } from './+types/take-seat';
import { takeSeatWords } from './words';

/** Who is in the class whose code this is; codes that are guessed are counted. */
async function classBehind({ params, context }: Route.LoaderArgs | Route.ActionArgs) {
  const address = context.get(addressContext);
  if ((await countTry(database(), 'unknownCard', address)) !== null) throw data(null, { status: 429 });
  const found = (await whoPresents(database(), params.token)).filter(({ isDemo }) => !isDemo || demoIsOpen);
  if (found.length > 0) await uncountTry(database(), 'unknownCard', address);
  return found;
}

export const loader = withFailures(async (args: Route.LoaderArgs) => ({ names: turnNames(await classBehind(args)) }));

const taken = z.object({ studentId: z.uuid() });

export const action = withFailures(async (args: Route.ActionArgs) => {
  await classBehind(args);
  const parsed = taken.safeParse(Object.fromEntries(await formOf(args.request)));
  const kept = parsed.success ? await takeSeat(database(), args.params.token, parsed.data.studentId, now()) : null;
  if (!kept) return data(null, { status: 400 });
  return redirect('/seat', { headers: { 'Set-Cookie': await seatCookie.serialize(kept) } });
});

export const meta: Route.MetaFunction = () => [
  { title: takeSeatWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** What the class's code leads to: whoever comes says who they are, by initials. */
export default function TakeSeat({ loaderData: { names } }: Route.ComponentProps) {
  return (
    <main className="mx-auto max-w-xl px-5 py-6 text-lg sm:py-10">
      <h1 className="text-3xl">{names.length > 0 ? takeSeatWords.whoAreYou : takeSeatWords.closed}</h1>
      {names.length === 0 && <p className="mt-3">{takeSeatWords.askForTheCode}</p>}
      <Form method="post" className="mt-6 grid grid-cols-3 gap-3">
        {names.map(({ studentId, name }) => (
          <button
            key={studentId}
            type="submit"
            name="studentId"
            value={studentId}
            aria-label={takeSeatWords.iAm(name)}
            className="btn h-20 border border-rule bg-sheet text-2xl"
          >
            {name}
          </button>
        ))}
      </Form>
    </main>
  );
}
