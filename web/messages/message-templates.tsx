import { getInputProps, getTextareaProps, type SubmissionResult } from '@conform-to/react';
import { data, Link, useSearchParams } from 'react-router';
import { kindWords, messageKinds } from '~/core/messages/message';
import {
  fillIn,
  templateFields,
  templateInput,
  templateWarnings,
  usualTemplates,
} from '~/core/messages/message-template';
import { type ReaderKind, readerKinds, readerWords } from '~/core/sharing/reader-kind';
import { messageTemplates, saveMessageTemplate } from '~/server/messages/message-templates';
import { sampleValues } from '~/server/messages/sample';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { studentsOf } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Covered } from '../platform/ui/covered';
import { Field } from '../platform/ui/fields';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { saveOrStay } from '../platform/ui/use-saving';
import { ReportsNav } from '../progress-report/reports-nav';
import type { Route } from './+types/message-templates';
import { messageTemplatesWords } from './words';

export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  await requireSchoolAdmin(database(), actor);
  if (discreet) return null;
  const search = new URL(request.url).searchParams;
  const kind = messageKinds.find((one) => one === search.get('kind')) ?? 'entry';
  const readerKind: ReaderKind = readerKinds.find((one) => one === search.get('as')) ?? 'family';
  const students = await studentsOf(database(), actor);
  const student = students.find(({ id }) => id === search.get('student')) ?? students[0];
  const all = await messageTemplates(database(), actor.schoolId);
  return {
    kind,
    readerKind,
    template: all[kind],
    isUsual: all[kind].subject === usualTemplates[kind].subject && all[kind].body === usualTemplates[kind].body,
    students: students.map(({ id, shortName }) => ({ id, shortName })),
    studentId: student?.id ?? null,
    values: student
      ? await sampleValues(database(), {
          studentId: student.id,
          kind,
          readerKind,
          school,
          publicUrl: config.PUBLIC_URL,
        })
      : null,
  };
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const kind = messageKinds.find((one) => one === new URL(request.url).searchParams.get('kind')) ?? 'entry';
  const form = await formOf(request);
  if (form.get('intent') === 'usual') {
    await saveMessageTemplate(database(), admin, kind, null, now);
    return data(
      { result: undefined },
      { headers: await sayNext({ text: messageTemplatesWords.theStandardTextIsBack }) },
    );
  }
  const { refused } = await submitted(form, templateInput, (template) =>
    saveMessageTemplate(database(), admin, kind, template, now),
  );
  if (refused) return refused;
  return data(
    { result: undefined },
    { headers: await sayNext({ text: messageTemplatesWords.savedNewMessagesUseThis }) },
  );
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: messageTemplatesWords.pageTitle }];

/** What the page shows outside of the discreet view. */
type Opened = Omit<Route.ComponentProps, 'loaderData'> & {
  loaderData: NonNullable<Route.ComponentProps['loaderData']>;
};

export default function MessageTemplates(props: Route.ComponentProps) {
  const { loaderData } = props;
  return loaderData ? (
    <OpenTemplates {...props} loaderData={loaderData} />
  ) : (
    <Covered what={messageTemplatesWords.aboutTemplates} />
  );
}

function OpenTemplates({ loaderData, actionData }: Opened) {
  const { kind, readerKind, students, studentId } = loaderData;
  const [search, setSearch] = useSearchParams();
  const choose = (name: string, value: string) => {
    const next = new URLSearchParams(search);
    next.set(name, value);
    setSearch(next, { preventScrollReset: true });
  };
  const result = actionData && 'result' in actionData ? actionData.result : undefined;
  return (
    <TemplateForm key={`${kind} ${JSON.stringify(loaderData.template)}`} {...loaderData} result={result}>
      <ReportsNav setsUp />
      <h1 className="text-3xl">{messageTemplatesWords.messageTemplates}</h1>
      <p className="mt-1.5 text-small text-ink-2">{messageTemplatesWords.laidOutOnceForThe}</p>
      <nav aria-label={messageTemplatesWords.kindsOfMessage} className="mt-4 flex flex-wrap gap-2 text-small">
        {messageKinds.map((one) => (
          <Link
            key={one}
            to={`?kind=${one}`}
            aria-current={one === kind ? 'page' : undefined}
            className="btn btn-sm aria-[current=page]:btn-neutral"
          >
            {kindWords[one]}
          </Link>
        ))}
      </nav>
      <div className="mt-4 flex flex-wrap gap-4 text-small">
        <label className="flex items-center gap-2">
          <span className="font-semibold">{messageTemplatesWords.previewFor}</span>
          <select className="select w-auto" value={readerKind} onChange={(event) => choose('as', event.target.value)}>
            {readerKinds.map((one) => (
              <option key={one} value={one}>
                {readerWords[one].label}
              </option>
            ))}
          </select>
        </label>
        {studentId && (
          <label className="flex items-center gap-2">
            <span className="font-semibold">{messageTemplatesWords.withAnEntryOf}</span>
            <select
              className="select w-auto"
              value={studentId}
              onChange={(event) => choose('student', event.target.value)}
            >
              {students.map(({ id, shortName }) => (
                <option key={id} value={id}>
                  {shortName}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
    </TemplateForm>
  );
}

type TemplateFormProps = Omit<NonNullable<Route.ComponentProps['loaderData']>, 'students' | 'studentId'> & {
  result: SubmissionResult<string[]> | undefined;
  children: React.ReactNode;
};

function TemplateForm({ template, values, isUsual, result, children }: TemplateFormProps) {
  const { form, fields, isBusy } = useSchemaForm(templateInput, {
    result,
    defaultValue: template,
    validatesAtOnce: true,
  });
  const now = { subject: fields.subject.value ?? template.subject, body: fields.body.value ?? template.body };
  const warnings = values ? templateWarnings(now, values) : [];
  return (
    <Page
      marginName={messageTemplatesWords.asItWouldArrive}
      margin={
        <>
          <MarginTitle about={messageTemplatesWords.withTheNewestEntryThat}>
            {messageTemplatesWords.asItWouldArrive}
          </MarginTitle>
          {values ? (
            <div aria-live="polite">
              <p className="font-bold">{fillIn(now.subject, values)}</p>
              <p className="mt-2 text-small break-words whitespace-pre-line">{fillIn(now.body, values)}</p>
              {warnings.length > 0 && (
                <ul
                  aria-label={messageTemplatesWords.toLookAt}
                  className="mt-5 grid gap-2 rounded-box bg-clay-wash p-4 text-small"
                >
                  {warnings.map(({ field, text }) => (
                    <li key={field + text}>
                      <span className="font-semibold">
                        {field === 'subject' ? messageTemplatesWords.subject : messageTemplatesWords.body}:
                      </span>{' '}
                      {text}
                    </li>
                  ))}
                </ul>
              )}
            </div>
          ) : (
            <p className="text-small text-ink-2">{messageTemplatesWords.thereIsNoEntryYet}</p>
          )}
        </>
      }
    >
      {children}
      <SchemaForm isLong form={form} className="mt-5 grid max-w-2xl gap-4">
        <Field field={fields.subject} label={messageTemplatesWords.subject}>
          <input {...getInputProps(fields.subject, { type: 'text' })} className="input w-full" />
        </Field>
        <Field field={fields.body} label={messageTemplatesWords.body}>
          <textarea {...getTextareaProps(fields.body)} rows={12} className="textarea w-full text-base" />
        </Field>
        <details className="text-small">
          <summary className="tap py-1.5 font-semibold">{messageTemplatesWords.fieldsThatCanBeFilled}</summary>
          <dl className="mt-2 grid gap-x-5 gap-y-1 sm:grid-cols-2">
            {Object.entries(templateFields).map(([name, { about }]) => (
              <div key={name} className="flex gap-2">
                <dt className="font-semibold">{`{${name}}`}</dt>
                <dd className="text-ink-2">{about}</dd>
              </div>
            ))}
          </dl>
        </details>
        <div className="flex gap-2 pb-20">
          <button type="submit" className="btn btn-primary" disabled={isBusy}>
            {messageTemplatesWords.saveTemplate}
          </button>
          {!isUsual && (
            <button type="submit" name="intent" value="usual" formNoValidate className="btn" disabled={isBusy}>
              {messageTemplatesWords.useTheStandardText}
            </button>
          )}
        </div>
      </SchemaForm>
    </Page>
  );
}
