import { useEffect, useId, useState } from 'react';
import { data, Link, useFetcher, useRevalidator, useSearchParams } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { kindWords, type MessageState, messageStates, stateWords } from '~/core/messages/message';
import { emailField } from '~/core/people/account-input';
import { counted } from '~/core/words/counting';
import { refusal } from '~/core/words/refusal';
import {
  dailyLimit,
  markArrived,
  messageCounts,
  messagesOf,
  sendAgain,
  setDailyLimit,
  stopMessage,
} from '~/server/messages/messages';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { formOf } from '../platform/http/form-of';
import { isWithoutMail } from '../platform/http/mail-leaves';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { Dialog } from '../platform/ui/dialog';
import { FieldMessage } from '../platform/ui/fields';
import { NoMail } from '../platform/ui/no-mail';
import { MarginTitle, Page } from '../platform/ui/page';
import { ReportsNav } from '../progress-report/reports-nav';
import type { Route } from './+types/messages';
import { messagesWords } from './words';

const SHOWN = 300;

export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const { actor, school, person, discreet } = personOf(context);
  const asked = new URL(request.url).searchParams.get('state');
  const state = messageStates.find((one) => one === asked);
  const [messages, counts, limit] = await Promise.all([
    messagesOf(database(), actor, { limit: SHOWN, state }),
    messageCounts(database(), actor),
    dailyLimit(database(), actor),
  ]);
  const said = (at: Date) => {
    const { on, time } = wallTime(at, school.timeZone);
    return `${shortDate(on)}, ${time}`;
  };
  return {
    state: state ?? null,
    counts,
    limit,
    setsUp: person.isSchoolAdmin,
    isWithoutMail: isWithoutMail(school),
    messages: messages.map(
      ({ studentShortName, studentInitials, toName, toEmail, madeAt, sentAt, notBefore, sent, ...message }) => ({
        ...message,
        student: discreet ? studentInitials : studentShortName,
        toName: discreet ? messagesWords.aReader : toName,
        toEmail: discreet ? '' : toEmail,
        sent: discreet ? null : sent,
        at: sentAt ? said(sentAt) : said(madeAt),
        next: message.state === 'waiting' || message.state === 'held' ? said(notBefore) : null,
      }),
    ),
  };
});

const change = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('again'), id: z.uuid(), newId: z.uuid(), email: emailField }),
  z.object({ intent: z.literal('arrived'), id: z.uuid() }),
  z.object({ intent: z.literal('stop'), id: z.uuid() }),
  z.object({
    intent: z.literal('limit'),
    limit: z.coerce
      .number({ error: messagesWords.typeANumber })
      .int({ error: messagesWords.typeAWholeNumber })
      .min(1, { error: messagesWords.atLeast1 })
      .max(100_000, { error: messagesWords.atMost100000 }),
  }),
]);

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const parsed = change.safeParse(Object.fromEntries(await formOf(request)), { error: refusal });
  if (!parsed.success) {
    const messages = parsed.error.issues.map(({ path, message }) => [String(path[0] ?? ''), message]);
    // A field has one text: what a submission says of none is left out.
    return data({ done: null, messages: Object.fromEntries(messages) as Record<string, string> }, { status: 400 });
  }
  const asked = parsed.data;
  try {
    if (asked.intent === 'again') await sendAgain(database(), actor, asked, now);
    else if (asked.intent === 'arrived') await markArrived(database(), actor, asked.id, now);
    else if (asked.intent === 'stop') await stopMessage(database(), actor, asked.id);
    else await setDailyLimit(database(), await requireSchoolAdmin(database(), actor), asked.limit, now);
  } catch (error) {
    if (!(error instanceof Invalid)) throw error;
    return data({ done: null, messages: error.fields }, { status: 400 });
  }
  return data({ done: asked.intent, messages: {} as Record<string, string> });
});

export const meta: Route.MetaFunction = () => [{ title: messagesWords.pageTitle }];

type Posted = Route.ComponentProps['loaderData']['messages'][number];

/** While something is on its way the page looks again by itself. */
function useLookingAgain(isMoving: boolean) {
  const { revalidate, state } = useRevalidator();
  useEffect(() => {
    if (!isMoving || state !== 'idle') return;
    const timer = setTimeout(revalidate, 2000);
    return () => clearTimeout(timer);
  }, [isMoving, state, revalidate]);
}

export default function Post({ loaderData }: Route.ComponentProps) {
  const { state, counts, limit, setsUp, messages } = loaderData;
  const [search] = useSearchParams();
  const total = Object.values(counts).reduce((sum, n) => sum + n, 0);
  useLookingAgain((counts.waiting ?? 0) + (counts.sending ?? 0) > 0);
  return (
    <Page
      marginName={messagesWords.aboutMessages}
      help="messages"
      margin={
        <>
          <MarginTitle>{messagesWords.aboutMessages}</MarginTitle>
          <dl className="grid gap-3 text-small">
            {messageStates
              .filter((one) => counts[one])
              .map((one) => (
                <div key={one}>
                  <dt className="font-semibold">
                    {stateWords[one].label}: {counts[one]}
                  </dt>
                  <dd className="text-ink-2">{stateWords[one].about}</dd>
                </div>
              ))}
          </dl>
          <p className="mt-4 text-small text-ink-2">{messagesWords.atMostLeaveInA(limit.toLocaleString('en-US'))}</p>
          {setsUp && <LimitForm limit={limit} />}
          <p className="mt-4 text-small text-ink-2">{messagesWords.howOftenAReaderGets}</p>
        </>
      }
    >
      <ReportsNav setsUp={setsUp} />
      <h1 className="text-3xl">{messagesWords.post}</h1>
      <p className="mt-1.5 text-small text-ink-2">
        {total === 0
          ? messagesWords.noMessageHasBeenMade
          : messagesWords.aboutTheStudentsWhoseReport(counted(total, 'message', 'messages'))}
      </p>
      <NoMail isWithoutMail={loaderData.isWithoutMail} />
      <nav aria-label={messagesWords.messagesByState} className="mt-4 flex flex-wrap gap-2 text-small">
        {[null, ...messageStates.filter((one) => counts[one])].map((one) => {
          const next = new URLSearchParams(search);
          if (one) next.set('state', one);
          else next.delete('state');
          return (
            <Link
              key={one ?? 'all'}
              to={`?${next}`}
              aria-current={one === state ? 'page' : undefined}
              className="btn btn-sm aria-[current=page]:btn-neutral"
            >
              {one ? `${stateWords[one].label} ${counts[one]}` : messagesWords.all}
            </Link>
          );
        })}
      </nav>
      <ul className="mt-3 pb-20">
        {messages.map((message) => (
          <PostedLine key={message.id} message={message} />
        ))}
      </ul>
    </Page>
  );
}

const needsAPerson: MessageState[] = ['bounced', 'uncertain', 'failed', 'notSetUp'];

function PostedLine({ message }: { message: Posted }) {
  const { state, kind, student, studentId, toName, toEmail, reason, at, next, sent, isReplaced } = message;
  const fetcher = useFetcher();
  const [isAgain, setAgain] = useState(false);
  const asksForHelp = needsAPerson.includes(state) && !isReplaced;
  return (
    <li className="border-b border-rule py-3.5">
      <div className="flex flex-wrap items-baseline justify-between gap-x-5">
        <h2 className="text-base">
          {toName} <span className="font-normal text-ink-2">{toEmail && `· ${toEmail}`}</span>
        </h2>
        <p className={`text-small font-semibold ${asksForHelp ? 'text-clay-deep' : 'text-ink-2'}`}>
          {asksForHelp && <span aria-hidden>▽ </span>}
          {isReplaced ? messagesWords.sentAgain : stateWords[state].label} · {next ? messagesWords.leaves(next) : at}
        </p>
      </div>
      <p className="text-small text-ink-2">
        {kindWords[kind]} ·{' '}
        <Link to={`/students/${studentId}/individual-report`} className="link">
          {student}
        </Link>
        {reason && ` · ${reason}`}
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-3 text-small">
        {sent && (
          <details>
            <summary className="tap py-1.5 text-ink-2 link">{messagesWords.whatItSaid}</summary>
            <div className="mt-1 max-w-2xl border-l-2 border-rule pl-3">
              <p className="font-semibold">{sent.subject}</p>
              <p className="whitespace-pre-line">{sent.body}</p>
            </div>
          </details>
        )}
        {asksForHelp && (
          <button type="button" className="btn btn-sm" onClick={() => setAgain(true)}>
            {messagesWords.sendAgain}
            <span className="sr-only">{messagesWords.to(toName)}</span>
          </button>
        )}
        {state === 'uncertain' && !isReplaced && (
          <fetcher.Form method="post">
            <input type="hidden" name="id" value={message.id} />
            <button type="submit" name="intent" value="arrived" className="btn btn-sm">
              {messagesWords.itArrived}
            </button>
          </fetcher.Form>
        )}
        {(state === 'waiting' || state === 'held') && (
          <fetcher.Form method="post">
            <input type="hidden" name="id" value={message.id} />
            <button type="submit" name="intent" value="stop" className="btn btn-sm">
              {messagesWords.cancelMessage}
              <span className="sr-only">{messagesWords.theMessageTo(toName)}</span>
            </button>
          </fetcher.Form>
        )}
      </div>
      {isAgain && <AgainDialog message={message} onClose={() => setAgain(false)} />}
    </li>
  );
}

/** What the server answers to a change. */
type Answer = { done: string | null; messages: Record<string, string> };

function AgainDialog({ message, onClose }: { message: Posted; onClose: () => void }) {
  const fetcher = useFetcher<Answer>();
  const [id] = useState(() => newId());
  const field = useId();
  const wrong = fetcher.data?.messages.email;
  const isDone = fetcher.data?.done === 'again';
  useEffect(() => {
    if (isDone) onClose();
  }, [isDone, onClose]);
  return (
    <Dialog title={messagesWords.sendAgain} onClose={onClose}>
      <fetcher.Form method="post" noValidate className="grid gap-3 p-6">
        <h2 className="text-xl">{messagesWords.sendItAgainTo(message.toName)}</h2>
        {message.reason && <p>{messagesWords.theMailServerSaid(message.reason)}</p>}
        <input type="hidden" name="id" value={message.id} />
        <input type="hidden" name="newId" value={id} />
        <div className="grid gap-1">
          <label htmlFor={field} className="text-small font-semibold">
            {messagesWords.toThisAddress}
          </label>
          <input
            id={field}
            name="email"
            type="email"
            defaultValue={message.toEmail}
            aria-describedby={wrong ? `${field}-message` : undefined}
            className="input w-full"
          />
          <FieldMessage id={`${field}-message`} messages={wrong ? [wrong] : undefined} />
          <p className="text-small text-ink-2">{messagesWords.aCorrectedAddressIsKept}</p>
        </div>
        <div className="mt-2 flex justify-end gap-2">
          <button type="button" className="btn" onClick={onClose}>
            {messagesWords.leaveIt}
          </button>
          <button type="submit" name="intent" value="again" className="btn btn-primary">
            {messagesWords.sendItAgain}
          </button>
        </div>
      </fetcher.Form>
    </Dialog>
  );
}

function LimitForm({ limit }: { limit: number }) {
  const fetcher = useFetcher<Answer>();
  const wrong = fetcher.data?.messages.limit;
  return (
    <fetcher.Form method="post" noValidate className="mt-2 grid gap-1">
      <label className="grid gap-1 text-small">
        <span className="font-semibold">{messagesWords.messagesInADay}</span>
        <span className="flex gap-2">
          <input
            name="limit"
            inputMode="numeric"
            key={limit}
            defaultValue={limit}
            aria-describedby={wrong ? 'limit-message' : undefined}
            className="input w-28"
          />
          <button type="submit" name="intent" value="limit" className="btn">
            {messagesWords.set}
          </button>
        </span>
      </label>
      <FieldMessage id="limit-message" messages={wrong ? [wrong] : undefined} />
    </fetcher.Form>
  );
}
