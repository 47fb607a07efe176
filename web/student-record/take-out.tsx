import type { SubmissionResult } from '@conform-to/react';
import { useEffect, useRef } from 'react';
import { data } from 'react-router';
import { z } from 'zod';
import { addDays, longDate } from '~/core/calendar/iso-date';
import { carryOutInput } from '~/core/student-record/arrival';
import { recordRequestInput, SHOW_DAYS } from '~/core/student-record/destruction';
import { database } from '~/server/platform/db/current';
import { answerRecordRequest, noteRecordRequest, recordRequestsOf } from '~/server/student-record/record-requests';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { TextField } from '../platform/ui/form-fields';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { ReadersNav } from '../sharing/sharing-nav';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/take-out';
import { RecordRequests } from './record-requests';
import { takeOutWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'carryOut');
  const requests = await recordRequestsOf(database(), actor, student.id);
  return {
    ...{ student: headerStudent(student, { discreet }), discreet, today: actor.today },
    requests: requests.map(({ id, askedBy, askedOn, answeredBy }) => ({
      ...{ id, who: discreet ? takeOutWords.aReader : askedBy, isOpen: answeredBy === null },
      said:
        answeredBy === null
          ? takeOutWords.requestSaid(longDate(askedOn), longDate(addDays(askedOn, SHOW_DAYS)))
          : takeOutWords.answeredSaid(longDate(askedOn), answeredBy),
    })),
  };
});

const named = z.object({ id: z.uuid() });

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'carryOut');
  const form = await formOf(request);
  const of = String(form.get('intent'));
  const none = { of, result: undefined as SubmissionResult<string[]> | undefined, forWhom: null as string | null };
  if (of === 'request') {
    const { refused } = await submitted(form, recordRequestInput, (input) =>
      noteRecordRequest(database(), actor, student.id, input, now),
    );
    if (refused) return data({ ...none, result: refused.data.result }, { status: 400 });
    return data(
      { ...none, result: { initialValue: null } as SubmissionResult<string[]> },
      { headers: await sayNext({ text: takeOutWords.noted }) },
    );
  }
  if (of === 'answered') {
    const { refused } = await submitted(form, named, ({ id }) =>
      answerRecordRequest(database(), actor, student.id, id, now),
    );
    if (refused) return data({ ...none, result: refused.data.result }, { status: 400 });
    return data(none, { headers: await sayNext({ text: takeOutWords.isAnswered }) });
  }
  const { done, refused } = await submitted(form, carryOutInput, async (input) => input);
  if (refused) return data({ ...none, result: refused.data.result }, { status: 400 });
  return data({ ...none, forWhom: done?.forWhom ?? null });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: takeOutWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

/** What the whole record of a student holds, and how it leaves. */
export default function TakeOut({ loaderData, actionData }: Route.ComponentProps) {
  const { student, discreet, requests, today } = loaderData;
  const resultOf = (isRequest: boolean) =>
    (actionData?.of === 'request') === isRequest ? actionData?.result : undefined;
  return (
    <Page
      marginName={takeOutWords.carryOut}
      margin={
        <section aria-label={takeOutWords.carryOut}>
          <MarginTitle>{takeOutWords.carryOut}</MarginTitle>
          {discreet ? (
            <p>{takeOutWords.hidden}</p>
          ) : (
            <CarryOut studentId={student.id} forWhom={actionData?.forWhom ?? null} result={resultOf(false)} />
          )}
        </section>
      }
    >
      <StudentHeader student={student} />
      {!student.hasLeft && <ReadersNav studentId={student.id} />}
      <h2 className="mt-5 text-2xl">{takeOutWords.heading}</h2>
      <p className="mt-1.5 max-w-2xl text-ink-2">{takeOutWords.about}</p>
      <h3 className="mt-6 text-lg">{takeOutWords.holds}</h3>
      <dl className="mt-2 grid max-w-2xl gap-x-6 gap-y-3 pb-6 sm:grid-cols-[12rem_1fr]">
        {takeOutWords.parts.map(([name, words]) => (
          <div key={name} className="contents">
            <dt className="font-semibold">{name}</dt>
            <dd className="text-ink-2">{words}</dd>
          </div>
        ))}
      </dl>
      <p className="max-w-2xl text-small text-ink-2">{takeOutWords.asks}</p>
      <RecordRequests key={requests.length} requests={requests} today={today} result={resultOf(true)} />
    </Page>
  );
}

interface CarryOutProps {
  studentId: string;
  /** For whom it is to be made now; null until that was said. */
  forWhom: string | null;
  result: SubmissionResult<string[]> | undefined;
}

function CarryOut({ studentId, forWhom, result }: CarryOutProps) {
  const { form, fields, isBusy } = useSchemaForm(carryOutInput, { id: 'carry-out', result });
  const download = useRef<HTMLFormElement>(null);
  // It begins by itself; the button is for when it does not.
  useEffect(() => {
    if (forWhom !== null) download.current?.requestSubmit();
  }, [forWhom]);
  return (
    <>
      <SchemaForm form={form} className="grid gap-4">
        <TextField field={fields.forWhom} label={takeOutWords.forWhom} placeholder={takeOutWords.example} />
        <p className="text-small text-ink-2">{takeOutWords.logged}</p>
        <button type="submit" className="btn btn-primary" disabled={isBusy}>
          {isBusy ? takeOutWords.making : takeOutWords.make}
        </button>
      </SchemaForm>
      <div className="mt-4 grid gap-3 text-small text-ink-2" role="status">
        {forWhom !== null && (
          <form ref={download} method="post" action={`/students/${studentId}/sharing/record/file`}>
            <input type="hidden" name="forWhom" value={forWhom} />
            <button type="submit" className="font-semibold text-ink link">
              {takeOutWords.download}
            </button>
          </form>
        )}
        <p>{takeOutWords.takesAWhile}</p>
        <p>{takeOutWords.keepSafe}</p>
      </div>
    </>
  );
}
