import { useState } from 'react';
import { data, Form, Link, useNavigation } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { addTestMailRule, removeTestMailRule, testMailInbox } from '~/server/messages/test-mail';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Covered } from '../platform/ui/covered';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/test-mail';
import { testMailWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  if (config.SMTP_URL) throw new NotFound(testMailWords.aRealMailServerHas);
  const { inbox, rules } = await testMailInbox(database(), await requireSchoolAdmin(database(), actor));
  if (discreet) return null;
  return {
    rules,
    inbox: inbox.map(({ id, recipient, subject, body, arrivedAt }) => {
      const { on, time } = wallTime(arrivedAt, school.timeZone);
      return { id, recipient, subject, body, at: `${shortDate(on)}, ${time}` };
    }),
  };
});

const rule = z.object({
  id: z.uuid(),
  address: z
    .string({ error: testMailWords.typePartOfAnAddress })
    .trim()
    .min(1, { error: testMailWords.typePartOfAnAddress })
    .max(100, { error: testMailWords.keepItTo100Characters }),
  does: z.enum(['bounce', 'defer', 'delay']),
  seconds: z.number().int().min(0).max(60).default(0),
  words: z.string().trim().max(200).default(''),
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  if (config.SMTP_URL) throw new NotFound(testMailWords.aRealMailServerHasNo);
  const form = await formOf(request);
  if (form.get('intent') === 'remove') {
    const { refused } = await submitted(form, z.object({ id: z.uuid() }), ({ id }) =>
      removeTestMailRule(database(), admin, id),
    );
    return refused ?? data({ result: undefined });
  }
  const { refused } = await submitted(form, rule, (input) => addTestMailRule(database(), admin, input, now));
  return refused ?? data({ result: undefined });
});

export const meta: Route.MetaFunction = () => [{ title: testMailWords.pageTitle }];

export default function TestMail({ loaderData, actionData }: Route.ComponentProps) {
  if (!loaderData) return <Covered what={testMailWords.testMail} />;
  const { inbox, rules } = loaderData;
  return (
    <Page
      marginName={testMailWords.itsRules}
      margin={
        <>
          <MarginTitle about={testMailWords.itTakesEverythingButFor}>{testMailWords.itsRules}</MarginTitle>
          <ul className="mb-5">
            {rules.map(({ id, address, does, seconds, words }) => (
              <li
                key={id}
                className="flex items-center justify-between gap-3 border-b border-dotted border-ink-3/50 py-2 text-small"
              >
                <span>
                  <span className="font-semibold">{address}</span>: {testMailWords.does[does]}
                  {does === 'delay' && `, ${seconds} s`}
                  {words && `, “${words}”`}
                </span>
                <Form method="post">
                  <input type="hidden" name="id" value={id} />
                  <button
                    type="submit"
                    name="intent"
                    value="remove"
                    className="btn btn-sm"
                    aria-label={testMailWords.removeTheRuleFor(address)}
                  >
                    {testMailWords.remove}
                  </button>
                </Form>
              </li>
            ))}
          </ul>
          <RuleForm key={rules.length} error={actionData?.result?.error?.address?.[0]} />
        </>
      }
    >
      <p className="text-small">
        <Link to="/school" className="text-ink-2 link">
          {testMailWords.school}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{testMailWords.testMailServer}</h1>
      <p className="mt-1.5 max-w-2xl text-small text-ink-2">{testMailWords.nothingLeavesThisMachineMessages}</p>
      {inbox.length === 0 && <p className="py-8 text-ink-2">{testMailWords.nothingHasArrivedYet}</p>}
      <ul className="mt-4 pb-20">
        {inbox.map(({ id, recipient, subject, body, at }) => (
          <li key={id} className="border-b border-rule py-3">
            <details>
              <summary className="cursor-pointer">
                <span className="font-semibold">{subject}</span>
                <span className="block text-small text-ink-2">
                  {recipient} · {at}
                </span>
              </summary>
              <p className="mt-2 border-l-2 border-rule pl-3 break-words whitespace-pre-line">{body}</p>
            </details>
          </li>
        ))}
      </ul>
    </Page>
  );
}

function RuleForm({ error }: { error: string | undefined }) {
  const [id] = useState(() => newId());
  const isBusy = useNavigation().state !== 'idle';
  return (
    <Form method="post" className="grid gap-3 text-small">
      <input type="hidden" name="id" value={id} suppressHydrationWarning />
      <label className="grid gap-1">
        <span className="font-semibold">{testMailWords.addressesWithThisInThem}</span>
        <input name="address" className="input w-full" placeholder={testMailWords.forInstance} autoComplete="off" />
      </label>
      {error && (
        <p role="alert" className="font-semibold text-clay-deep">
          {error}
        </p>
      )}
      <label className="grid gap-1">
        <span className="font-semibold">{testMailWords.whatItDoes}</span>
        <select name="does" className="select w-full">
          <option value="bounce">{testMailWords.sendsItBack}</option>
          <option value="defer">{testMailWords.takesItLater}</option>
          <option value="delay">{testMailWords.takesItSlowly}</option>
        </select>
      </label>
      <label className="grid gap-1">
        <span className="font-semibold">{testMailWords.secondsWhenSlowly}</span>
        <input name="seconds" inputMode="numeric" defaultValue="2" className="input w-full" />
      </label>
      <label className="grid gap-1">
        <span className="font-semibold">{testMailWords.itsWords}</span>
        <input name="words" className="input w-full" placeholder={testMailWords.noSuchMailboxHere} autoComplete="off" />
      </label>
      <button type="submit" className="btn btn-primary" disabled={isBusy}>
        {testMailWords.addTheRule}
      </button>
    </Form>
  );
}
