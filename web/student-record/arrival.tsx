import type { SubmissionResult } from '@conform-to/react';
import { data, Form, Link, redirect } from 'react-router';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { readInInput } from '~/core/student-record/arrival';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { arrivalPage, forgetRecord, readIn } from '~/server/student-record/arrivals';
import { rosterChoices } from '~/server/students/roster';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { CheckList, Question, SelectField, TextField } from '../platform/ui/form-fields';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/arrival';
import { arrivalWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const { listed, open } = await arrivalPage(database(), admin, idFrom(params.arrivalId));
  const dayOf = (at: Date) => wallTime(at, school.timeZone).on;
  const { firstName = '', lastName = '' } = open?.student ?? {};
  return {
    discreet,
    doneOn: listed.doneAt && shortDate(dayOf(listed.doneAt)),
    name: discreet ? arrivalWords.hidden : (listed.studentName ?? `${firstName} ${lastName}`),
    // All of it is names.
    open: open &&
      !discreet && {
        ...{ grade: open.student.grade, brief: open.brief, people: open.people, newLocations: open.newLocations },
        ...{ isAgain: open.isAgain, from: arrivalWords.from(open.from, longDate(dayOf(new Date(open.madeAt)))) },
        choices: await rosterChoices(database(), actor),
      },
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const id = idFrom(params.arrivalId);
  const form = await formOf(request);
  const none = { result: undefined as SubmissionResult<string[]> | undefined };
  if (form.get('intent') === 'forget') {
    await forgetRecord(database(), admin, id);
    throw redirect('/records', { headers: await sayNext({ text: arrivalWords.forgotten }) });
  }
  const { refused } = await submitted(form, readInInput, (input) => readIn(database(), admin, id, input, now));
  return refused ? data({ ...none, result: refused.data.result }, { status: 400 }) : data(none);
});

export const meta: Route.MetaFunction = () => [{ title: arrivalWords.pageTitle }];

/** One record: whose it is and what is in it; and once it was read in, where the student is. */
export default function Arrival({ loaderData: { name, open, doneOn, discreet }, actionData }: Route.ComponentProps) {
  return (
    <Page
      marginName={arrivalWords.readIn}
      margin={
        <section aria-label={arrivalWords.readIn}>
          <MarginTitle>{arrivalWords.readIn}</MarginTitle>
          {open && <ReadIn open={open} result={actionData?.result} />}
          <p className="mt-8">
            <Link to="/records" className="font-semibold link">
              {arrivalWords.toAll}
            </Link>
          </p>
        </section>
      }
    >
      <h1 className="text-3xl wrap-anywhere">{discreet ? arrivalWords.hidden : arrivalWords.recordOf(name)}</h1>
      {open && (
        <>
          <p className="mt-1.5 text-small text-ink-2">{open.from}</p>
          {open.isAgain && (
            <p role="alert" className="mt-4 alert alert-warning block max-w-2xl alert-soft font-semibold">
              {arrivalWords.again}
            </p>
          )}
          <Part title={arrivalWords.holds} words={open.brief} />
          <Part title={arrivalWords.people} words={open.people} about={arrivalWords.peopleAre} />
          {open.newLocations.length > 0 && <Part title={arrivalWords.locations} words={open.newLocations} />}
          <h2 className="mt-6 text-xl">{arrivalWords.changes}</h2>
          <p className="mt-1.5 max-w-2xl pb-20 text-ink-2">{arrivalWords.changesAre}</p>
        </>
      )}
      {doneOn && !discreet && (
        <div className="mt-4 grid max-w-2xl justify-items-start gap-4">
          <p>{arrivalWords.done(name, doneOn)}</p>
          <p className="text-small text-ink-2">{arrivalWords.takeBack}</p>
          <Link to="/roster" className="btn btn-primary">
            {arrivalWords.toRoster}
          </Link>
        </div>
      )}
    </Page>
  );
}

function Part({ title, words, about }: { title: string; words: readonly string[]; about?: string }) {
  return (
    <>
      <h2 className="mt-6 text-xl">{title}</h2>
      {about && <p className="mt-1 max-w-2xl text-small text-ink-2">{about}</p>}
      <ul className="mt-2 max-w-2xl columns-2 gap-8">
        {words.map((word, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two people may be called the same, and the list stands as it is
          <li key={`${at} ${word}`} className="break-inside-avoid py-0.5">
            {word}
          </li>
        ))}
      </ul>
    </>
  );
}

interface ReadInProps {
  open: NonNullable<Route.ComponentProps['loaderData']['open']> & object;
  result: SubmissionResult<string[]> | undefined;
}

function ReadIn({ open: { grade, choices }, result }: ReadInProps) {
  const { form, fields, isBusy } = useSchemaForm(readInInput, {
    ...{ id: 'read-in', result, defaultValue: { grade } },
  });
  return (
    <>
      <SchemaForm form={form} intent="read" className="grid gap-4">
        <Question
          field={fields.isSomeoneElse}
          question={result?.error?.isSomeoneElse}
          answer={arrivalWords.someoneElse}
        />
        <TextField field={fields.grade} label={arrivalWords.grade} />
        <SelectField
          field={fields.caseManagerId}
          label={arrivalWords.caseManager}
          none={arrivalWords.choose}
          options={choices.people}
        />
        <CheckList field={fields.groupIds} legend={arrivalWords.groups} options={choices.groups} />
        <button type="submit" className="btn btn-primary" disabled={isBusy}>
          {isBusy ? arrivalWords.reading : arrivalWords.readIn}
        </button>
      </SchemaForm>
      <Form method="post" className="mt-4">
        <button type="submit" name="intent" value="forget" className="btn btn-sm" disabled={isBusy}>
          {arrivalWords.forget}
        </button>
      </Form>
    </>
  );
}
