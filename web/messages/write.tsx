import { getInputProps, getTextareaProps } from '@conform-to/react';
import { Link, redirect } from 'react-router';
import { letterInput } from '~/core/messages/message';
import { fillIn } from '~/core/messages/message-template';
import { valuesFor } from '~/server/messages/compose';
import { writeLetter } from '~/server/messages/frequency';
import { messageTemplates } from '~/server/messages/message-templates';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { shareLinksOf } from '~/server/sharing/share-links';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { isWithoutMail } from '../platform/http/mail-leaves';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Covered } from '../platform/ui/covered';
import { Field } from '../platform/ui/fields';
import { SelectField } from '../platform/ui/form-fields';
import { NoMail } from '../platform/ui/no-mail';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { useFreshId } from '../platform/ui/use-fresh-id';
import { saveOrStay } from '../platform/ui/use-saving';
import { ReadersNav } from '../sharing/sharing-nav';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/write';
import { writeWords } from './words';

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  if (discreet) return null;
  const [ways, all] = await Promise.all([
    shareLinksOf(database(), actor, student.id),
    messageTemplates(database(), actor.schoolId),
  ]);
  const readers = ways.filter(
    (way) => way.withdrawnAt === null && way.endsOn >= actor.today && way.email && !way.hasStopped,
  );
  const asked = new URL(request.url).searchParams.get('to');
  const reader = readers.find(({ id }) => id === asked) ?? readers[0];
  const about = { studentId: student.id, kind: 'byHand' as const, entryIds: [], toName: reader?.readerName ?? '' };
  const values = await valuesFor(database(), about, { kind: 'team', shows: new Set() }, school);
  return {
    student: headerStudent(student, { discreet: false }),
    isWithoutMail: isWithoutMail(school),
    readers: readers.map(({ id, readerName, email }) => ({
      id,
      name: `${readerName}, ${email}`,
      readerName,
    })),
    to: reader?.id ?? '',
    template: all.byHand,
    values: { ...values, link: `${config.PUBLIC_URL}/shared/…`, stop: `${config.PUBLIC_URL}/stop/…` },
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now, school } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'share');
  const { refused } = await submitted(await formOf(request), letterInput, (input) =>
    writeLetter(database(), actor, studentId, input, now),
  );
  if (refused) return refused;
  throw redirect(`/students/${studentId}/sharing/links`, {
    headers: await sayNext({
      text: isWithoutMail(school) ? writeWords.notSent : writeWords.theMessageWillBeSent,
      link: { to: '/messages', label: writeWords.seeMessages },
    }),
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: writeWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

/** What the page shows outside of the discreet view. */
type Opened = Omit<Route.ComponentProps, 'loaderData'> & {
  loaderData: NonNullable<Route.ComponentProps['loaderData']>;
};

export default function Write(props: Route.ComponentProps) {
  const { loaderData } = props;
  return loaderData ? <OpenWrite {...props} loaderData={loaderData} /> : <Covered what={writeWords.aMessage} />;
}

function OpenWrite({ loaderData, actionData }: Opened) {
  const { student, readers, to, template, values } = loaderData;
  const { form, fields, isBusy } = useSchemaForm(letterInput, {
    result: actionData && 'result' in actionData ? actionData.result : undefined,
    defaultValue: { linkId: to, ...template },
  });
  const id = useFreshId();
  const reader = readers.find((one) => one.id === (fields.linkId.value ?? to))?.readerName ?? null;
  const filled = { ...values, reader };
  return (
    <Page
      marginName={writeWords.asItWouldArrive}
      margin={
        <>
          <MarginTitle>{writeWords.asItWouldArrive}</MarginTitle>
          <div aria-live="polite">
            <p className="font-bold">{fillIn(fields.subject.value ?? template.subject, filled)}</p>
            <p className="mt-2 text-small break-words whitespace-pre-line">
              {fillIn(fields.body.value ?? template.body, filled)}
            </p>
          </div>
        </>
      }
    >
      <StudentHeader student={student} />
      <ReadersNav studentId={student.id} />
      <h2 className="mt-5 text-2xl">{writeWords.writeAMessage}</h2>
      <NoMail isWithoutMail={loaderData.isWithoutMail} />
      {readers.length === 0 ? (
        <p className="py-6 text-ink-2">
          {writeWords.noReaderHasAnEmail}{' '}
          <Link to={`/students/${student.id}/sharing/links`} className="link">
            {writeWords.addOneAtTheirShare}
          </Link>
          .
        </p>
      ) : (
        <SchemaForm isLong form={form} className="mt-4 grid max-w-2xl gap-4 pb-20">
          <input type="hidden" name="id" value={id} />
          <SelectField field={fields.linkId} label={writeWords.to} options={readers} />
          <Field field={fields.subject} label={writeWords.subject}>
            <input {...getInputProps(fields.subject, { type: 'text' })} className="input w-full" />
          </Field>
          <Field field={fields.body} label={writeWords.message}>
            <textarea {...getTextareaProps(fields.body)} rows={12} className="textarea w-full text-base" />
          </Field>
          <button type="submit" className="btn btn-primary w-fit px-6" disabled={isBusy || id === ''}>
            {writeWords.sendMessage}
          </button>
        </SchemaForm>
      )}
    </Page>
  );
}
