import { getInputProps, type SubmissionResult } from '@conform-to/react';
import { useState } from 'react';
import { data, Link, useFetcher } from 'react-router';
import { z } from 'zod';
import { type IsoDate, longDate, shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { frequencyInput } from '~/core/messages/message';
import { type OutsideKind, outsideKinds, readerWords } from '~/core/sharing/reader-kind';
import { frequencies, frequencyWords, shareLinkInput, usualPurposes } from '~/core/sharing/share-link';
import { counted } from '~/core/words/counting';
import { setFrequency } from '~/server/messages/frequency';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import {
  endsOfLink,
  makeShareLink,
  shareLinksOf,
  unlockShareLink,
  withdrawShareLink,
} from '~/server/sharing/share-links';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { isWithoutMail } from '../platform/http/mail-leaves';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Dialog } from '../platform/ui/dialog';
import { Field, FieldMessage } from '../platform/ui/fields';
import { SelectField, TextField } from '../platform/ui/form-fields';
import { NoMail } from '../platform/ui/no-mail';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { useFreshId } from '../platform/ui/use-fresh-id';
import { saveOrStay } from '../platform/ui/use-saving';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/share-links';
import { CopyButton } from './copy-button';
import { ReadersNav } from './sharing-nav';
import { shareLinksWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const links = await shareLinksOf(database(), actor, student.id);
  return {
    student: headerStudent(student, { discreet }),
    today: actor.today,
    isWithoutMail: isWithoutMail(school),
    ...endsOfLink(student.plan, actor.today),
    links: links.map(({ createdAt, withdrawnAt, lastReadAt, lockedAt, ...link }) => ({
      ...link,
      isLocked: lockedAt !== null,
      readerName: discreet ? shareLinksWords.aReader : link.readerName,
      // In the discreet view: that there is an address, and not which.
      email: discreet ? null : link.email,
      hasEmail: link.email !== null,
      madeOn: wallTime(createdAt, school.timeZone).on,
      withdrawnOn: withdrawnAt && wallTime(withdrawnAt, school.timeZone).on,
      lastRead: lastReadAt && wallTime(lastReadAt, school.timeZone),
    })),
  };
});

const change = z.object({ intent: z.enum(['withdraw', 'unlock']), id: z.uuid() });

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  // Even a wrong form is answered only to whom the page belongs.
  await requireStudent(database(), actor, studentId, 'share');
  const form = await formOf(request);
  if (form.get('intent') === 'frequency') {
    const { refused } = await submitted(form, frequencyInput, (input) =>
      setFrequency(database(), actor, studentId, input, now),
    );
    return data(
      { made: null, result: undefined, frequency: refused?.data.result.error ?? {} },
      { status: refused ? 400 : 200 },
    );
  }
  const changed = change.safeParse(Object.fromEntries(form));
  if (changed.success) {
    const { intent, id } = changed.data;
    if (intent === 'withdraw') await withdrawShareLink(database(), actor, studentId, id, now);
    else await unlockShareLink(database(), actor, studentId, id, now);
    const text =
      intent === 'withdraw' ? shareLinksWords.theShareLinkIsWithdrawn : shareLinksWords.theShareLinkIsUnlocked;
    return data({ made: null, result: undefined }, { headers: await sayNext({ text }) });
  }
  const { done, refused } = await submitted(form, shareLinkInput, async (input) => {
    const token = await makeShareLink(database(), actor, studentId, input, now);
    if (!token) throw new Invalid({ '': shareLinksWords.thisShareLinkIsAlready });
    return { link: `${config.PUBLIC_URL}/shared/${token}`, readerName: input.readerName };
  });
  if (refused) return data({ made: null, result: refused.data.result }, { status: 400 });
  return data({ made: done, result: { initialValue: null } });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: shareLinksWords.pageTitle(loaderData?.student.shortName ?? 'a report') },
];

export default function ShareLinks({ loaderData, actionData }: Route.ComponentProps) {
  const { student, today, lastDay, usualEnd, links } = loaderData;
  const isUnreachable = actionData !== undefined && 'unreachable' in actionData;
  const answer = actionData && 'result' in actionData ? actionData : undefined;
  return (
    <Page
      marginName={shareLinksWords.aNewShareLink}
      help="sharing"
      margin={
        <>
          <MarginTitle about={shareLinksWords.aLinkForOneReader}>{shareLinksWords.aNewShareLink}</MarginTitle>
          {isUnreachable && (
            <p role="alert" className="mb-4 font-semibold text-clay-deep">
              {shareLinksWords.theServerCannotBeReached}
            </p>
          )}
          <NewShareLink key={student.id} result={answer?.result} today={today} lastDay={lastDay} usualEnd={usualEnd} />
        </>
      }
    >
      <StudentHeader student={student} />
      <ReadersNav studentId={student.id} />
      {answer?.made && <MadeLink made={answer.made} />}
      <h2 className="mt-5 text-2xl">{shareLinksWords.shareLinks}</h2>
      <NoMail isWithoutMail={loaderData.isWithoutMail} />
      <p className="mt-1 text-small text-ink-2">
        {shareLinksWords.linksForReadersFromOutside}{' '}
        <Link to={`/students/${student.id}/sharing/visibility`} className="link">
          {shareLinksWords.whatEachReaderSees}
        </Link>
        {shareLinksWords.eachReadingIsWrittenDown}
      </p>
      {links.length === 0 && <p className="py-8 text-ink-2">{shareLinksWords.nobodyFromOutsideTheTeam}</p>}
      <ul className="pb-20">
        {links.map((link) => (
          <ShareLinkRow key={link.id} link={link} today={today} />
        ))}
      </ul>
    </Page>
  );
}

interface NewShareLinkProps {
  result: SubmissionResult<string[]> | undefined;
  today: IsoDate;
  lastDay: IsoDate;
  usualEnd: IsoDate;
}

function NewShareLink({ result, today, lastDay, usualEnd }: NewShareLinkProps) {
  const { form, fields, isBusy } = useSchemaForm(shareLinkInput, {
    result,
    defaultValue: { endsOn: usualEnd, kind: 'family' },
  });
  const id = useFreshId(result);
  return (
    <SchemaForm form={form} className="grid gap-4">
      <input type="hidden" name="id" value={id} />
      <Field field={fields.readerName} label={shareLinksWords.whoWillRead}>
        <input
          {...getInputProps(fields.readerName, { type: 'text' })}
          placeholder={shareLinksWords.grandmotherDrPerrin}
          className="input w-full"
        />
      </Field>
      <SelectField
        field={fields.kind}
        label={shareLinksWords.whatKindOfReader}
        options={outsideKinds.map((kind) => ({ id: kind, name: readerWords[kind].label }))}
      />
      <TextField
        field={fields.purpose}
        label={shareLinksWords.whatFor}
        placeholder={usualPurposes[(fields.kind.value as OutsideKind) ?? 'family'] ?? ''}
      />
      <Field field={fields.endsOn} label={shareLinksWords.openUntil}>
        <input {...getInputProps(fields.endsOn, { type: 'date' })} min={today} max={lastDay} className="input w-full" />
      </Field>
      <TextField
        field={fields.passcode}
        label={shareLinksWords.passcodeIfYouWantOne}
        placeholder={shareLinksWords.tellItByAnotherWay}
      />
      <button type="submit" className="btn btn-primary" disabled={isBusy || id === ''}>
        {shareLinksWords.makeTheLink}
      </button>
    </SchemaForm>
  );
}

function MadeLink({ made: { link, readerName } }: { made: { link: string; readerName: string } }) {
  return (
    <section aria-label={shareLinksWords.theNewLink} className="mt-6 rounded-box border border-fern bg-fern-wash p-4">
      <h2 className="text-lg">{shareLinksWords.theLinkFor(readerName)}</h2>
      <p className="mt-1 text-small">{shareLinksWords.itIsShownOnlyNow}</p>
      <div className="mt-3 flex gap-2">
        <input
          readOnly
          aria-label={shareLinksWords.theLink}
          value={link}
          onFocus={(event) => event.target.select()}
          className="input grow"
        />
        <CopyButton text={link} />
      </div>
    </section>
  );
}

type ShareLinkAddress = Route.ComponentProps['loaderData']['links'][number];

function ShareLinkRow({ link, today }: { link: ShareLinkAddress; today: IsoDate }) {
  const fetcher = useFetcher();
  const [isAsking, setAsking] = useState(false);
  const isOpen = link.withdrawnOn === null && link.endsOn >= today;
  const state = link.withdrawnOn
    ? shareLinksWords.withdrawn(shortDate(link.withdrawnOn))
    : isOpen
      ? shareLinksWords.isOpenUntil(longDate(link.endsOn))
      : shareLinksWords.endedOn(longDate(link.endsOn));
  return (
    <li
      className={`flex flex-wrap items-center justify-between gap-x-6 gap-y-2 border-b border-rule py-4 ${isOpen ? '' : 'text-ink-3'}`}
    >
      <div>
        <h3 className="text-base">{link.readerName}</h3>
        <p className="text-small text-ink-2">
          {readerWords[link.kind].label} · {link.purpose} · {state}
          {link.hasPasscode && shareLinksWords.withAPasscode}
          {shareLinksWords.made}
          {shortDate(link.madeOn)}
          {shareLinksWords.by}
          {link.createdByName}
        </p>
        {isOpen && link.isLocked && (
          <fetcher.Form method="post" className="mt-1 flex items-center gap-3">
            <input type="hidden" name="id" value={link.id} />
            <span role="status" className="font-semibold text-clay-deep">
              {shareLinksWords.lockedAWrongPasscodeWas}
            </span>
            <button type="submit" name="intent" value="unlock" className="btn btn-sm">
              {shareLinksWords.unlock}
            </button>
          </fetcher.Form>
        )}
      </div>
      <div className="flex items-center gap-4">
        <p className="text-right text-small">
          {link.lastRead
            ? shareLinksWords.lastRead(shortDate(link.lastRead.on), link.lastRead.time)
            : shareLinksWords.notOpenedYet}
          {link.readings > 0 && (
            <span className="block text-ink-2">{shareLinksWords.opened(counted(link.readings, 'time', 'times'))}</span>
          )}
        </p>
        {isOpen && (
          <button
            type="button"
            className="btn"
            aria-label={shareLinksWords.withdrawNamed(link.readerName)}
            onClick={() => setAsking(true)}
          >
            {shareLinksWords.withdraw}
          </button>
        )}
      </div>
      {isOpen && (link.email !== null || !link.hasEmail) && <HowOften link={link} />}
      {isAsking && (
        <Dialog title={shareLinksWords.withdrawThisShareLink} onClose={() => setAsking(false)}>
          <fetcher.Form method="post" className="p-6" onSubmit={() => setAsking(false)}>
            <h2 className="text-xl">{shareLinksWords.withdrawQuestion(link.readerName)}</h2>
            <p className="mt-2">{shareLinksWords.itStopsOpeningAtOnce}</p>
            <input type="hidden" name="id" value={link.id} />
            <div className="mt-5 flex justify-end gap-2">
              <button type="button" className="btn" onClick={() => setAsking(false)}>
                {shareLinksWords.keepIt}
              </button>
              <button type="submit" name="intent" value="withdraw" className="btn btn-primary">
                {shareLinksWords.withdrawLink}
              </button>
            </div>
          </fetcher.Form>
        </Dialog>
      )}
    </li>
  );
}

/** Whether and when this reader is told of new entries. */
function HowOften({ link }: { link: ShareLinkAddress }) {
  const fetcher = useFetcher<{ frequency?: Record<string, string[] | null> }>();
  const wrong = fetcher.data?.frequency?.email;
  const said = link.hasStopped
    ? shareLinksWords.theReaderHasStoppedMessages
    : link.email
      ? shareLinksWords.emailsTo(link.email, frequencyWords[link.frequency])
      : shareLinksWords.noEmails;
  return (
    <details className="basis-full text-small">
      <summary className="tap py-1.5 text-ink-2">
        {said} <span className="link">{shareLinksWords.change}</span>
        <span className="sr-only">{shareLinksWords.howIsTold(link.readerName)}</span>
      </summary>
      <fetcher.Form method="post" noValidate className="flex flex-wrap items-end gap-3 py-2">
        <input type="hidden" name="id" value={link.id} />
        <label className="grid gap-1">
          <span className="font-semibold">{shareLinksWords.email}</span>
          <input
            name="email"
            type="email"
            key={link.email}
            defaultValue={link.email ?? ''}
            aria-describedby={wrong ? `${link.id}-email` : undefined}
            className="input w-64"
          />
        </label>
        <label className="grid gap-1">
          <span className="font-semibold">{shareLinksWords.told}</span>
          <select name="frequency" key={link.frequency} defaultValue={link.frequency} className="select w-44">
            {frequencies.map((when) => (
              <option key={when} value={when}>
                {frequencyWords[when]}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" name="intent" value="frequency" className="btn" disabled={fetcher.state !== 'idle'}>
          {shareLinksWords.save}
        </button>
        {link.email && !link.hasStopped && (
          <Link to={`../../messages/new?to=${link.id}`} relative="path" className="btn">
            {shareLinksWords.writeTo(link.readerName)}
          </Link>
        )}
        <FieldMessage id={`${link.id}-email`} messages={wrong ?? undefined} />
      </fetcher.Form>
    </details>
  );
}
