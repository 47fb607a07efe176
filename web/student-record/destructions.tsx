import type { SubmissionResult } from '@conform-to/react';
import { useState } from 'react';
import { data, Form } from 'react-router';
import { z } from 'zod';
import { longDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { destructionInput, typedName } from '~/core/student-record/destruction';
import { counted } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin } from '~/server/school/administrators';
import {
  archivedStudents,
  askToDestroy,
  confirmDestruction,
  destructionsOf,
  doneOn,
  type Identity,
  takeBackDestruction,
} from '~/server/student-record/destructions';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Dialog } from '../platform/ui/dialog';
import { SelectField, TextField } from '../platform/ui/form-fields';
import { OneTap } from '../platform/ui/one-tap';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { useFreshId } from '../platform/ui/use-fresh-id';
import type { Route } from './+types/destructions';
import { destructionWords } from './destruction-words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const all = await destructionsOf(database(), admin);
  const students = discreet ? [] : await archivedStudents(database(), admin);
  const dayOf = (at: Date) => longDate(wallTime(at, school.timeZone).on);
  const named = (name: string | null) => (discreet || name === null ? destructionWords.hidden : name);
  return {
    today: actor.today,
    students: students.map((one) => ({ ...one, name: one.name, about: destructionWords.identity(one) })),
    open: all
      .filter(({ doneAt }) => doneAt === null)
      .map((one) => ({
        ...{ id: one.id, name: named(one.studentName), isMine: one.askedById === actor.personId },
        ...identitySaid(students.find(({ id }) => id === one.studentId)),
        asked: destructionWords.line(one.askedBy, dayOf(one.askedAt), discreet ? '' : one.reason),
        told: discreet ? null : destructionWords.family(longDate(one.toldOn), one.toldHow),
        isConfirmed: one.confirmedAt !== null,
        state: stateSaid(one, longDate(doneOn(one, school))),
      })),
    done: all.flatMap((one) =>
      one.doneAt === null
        ? []
        : {
            ...{ id: one.id, name: named(one.keptName) },
            kept: destructionWords.receipt(one.keptGrade ?? '', one.keptYears ?? ''),
            said: destructionWords.doneSaid(
              dayOf(one.doneAt),
              counted(
                Object.values(one.rows ?? {}).reduce((sum, n) => sum + n, 0),
                'row',
                'rows',
              ),
              destructionWords.askedBy(one.askedBy, one.confirmedBy),
            ),
          },
    ),
  };
});

const identitySaid = (one: Identity | undefined) => ({
  about: one ? destructionWords.identity(one) : '',
  recent: one && one.recent > 0 ? destructionWords.recent(one.recent) : null,
});

const stateSaid = (one: { isAskedFor: boolean; confirmedBy: string | null }, day: string) => {
  if (one.isAskedFor) return destructionWords.held;
  return one.confirmedBy ? destructionWords.confirmed(one.confirmedBy) : destructionWords.waits(day);
};

const named = z.object({ id: z.uuid() });
const confirmed = named.extend({ typedName });

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const form = await formOf(request);
  const of = String(form.get('intent'));
  const answer = async (refused: { data: { result: SubmissionResult<string[]> } } | null | undefined, text: string) =>
    refused
      ? data({ of, result: refused.data.result }, { status: 400 })
      : data({ of, result: undefined }, { headers: await sayNext({ text }) });
  switch (of) {
    case 'ask': {
      const { refused } = await submitted(form, destructionInput, (input) =>
        askToDestroy(database(), admin, input, now),
      );
      return answer(refused, destructionWords.asked);
    }
    case 'confirm': {
      const { refused } = await submitted(form, confirmed, (input) =>
        confirmDestruction(database(), admin, input, now),
      );
      return answer(refused, destructionWords.isConfirmed);
    }
    case 'takeBack': {
      const { refused } = await submitted(form, named, ({ id }) => takeBackDestruction(database(), admin, id, now));
      return answer(refused, destructionWords.takenBack);
    }
    default:
      return data({ of, result: undefined }, { status: 400 });
  }
});

export const meta: Route.MetaFunction = () => [{ title: destructionWords.pageTitle }];

type Loaded = Route.ComponentProps['loaderData'];

/** Records that are to be destroyed, and the receipts of those that were. */
export default function Destructions({ loaderData, actionData }: Route.ComponentProps) {
  const { students, open, done, today } = loaderData;
  const result = actionData?.of === 'ask' ? actionData.result : undefined;
  const errors = actionData?.of === 'confirm' ? actionData.result?.error : undefined;
  const refused = Object.values(errors ?? {})
    .flatMap((said) => said ?? [])
    .join(' ');
  return (
    <Page
      marginName={destructionWords.ask}
      margin={
        <section aria-label={destructionWords.ask}>
          <MarginTitle about={destructionWords.aboutAsk}>{destructionWords.ask}</MarginTitle>
          {students.length === 0 ? (
            <p className="text-small text-ink-2">{destructionWords.nobodyLeft}</p>
          ) : (
            <Ask key={open.length} students={students} today={today} result={result} />
          )}
        </section>
      }
    >
      <h1 className="text-3xl">{destructionWords.title}</h1>
      <p className="mt-1.5 max-w-2xl text-small text-ink-2">{destructionWords.about}</p>
      {refused && (
        <p role="alert" className="mt-4 alert alert-error block max-w-2xl alert-soft font-semibold">
          {refused}
        </p>
      )}
      <h2 className="mt-6 mb-2 text-xl">{destructionWords.open}</h2>
      {open.length === 0 && <p className="text-ink-2">{destructionWords.none}</p>}
      <ul className="max-w-2xl">
        {open.map((one) => (
          <Open key={one.id} one={one} />
        ))}
      </ul>
      <h2 className="mt-8 mb-2 text-xl">{destructionWords.tell}</h2>
      <ul className="grid max-w-2xl list-disc gap-1.5 pl-5">
        {destructionWords.told.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
      {done.length > 0 && (
        <>
          <h2 className="mt-8 mb-2 text-xl">{destructionWords.done}</h2>
          <ul className="max-w-2xl">
            {done.map(({ id, name, kept, said }) => (
              <li key={id} className="border-t border-rule py-3">
                <span className="font-semibold">{name}</span> <span className="text-ink-2">{kept}</span>
                <span className="block text-small text-ink-2">{said}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <div className="pb-20" />
    </Page>
  );
}

function Open({ one }: { one: Loaded['open'][number] }) {
  const [isAsking, setAsking] = useState(false);
  const { id, name, about, recent, asked, told, state, isMine, isConfirmed } = one;
  return (
    <li className="border-t border-rule py-3">
      <p className="font-semibold">{name}</p>
      {about && <p className="text-small">{about}</p>}
      {recent && <p className="text-small font-semibold text-clay-deep">{recent}</p>}
      <p className="text-small text-ink-2">{asked}</p>
      {told && <p className="text-small text-ink-2">{told}</p>}
      <p className="mt-1 text-small">{state}</p>
      <div className="mt-2 flex flex-wrap gap-3">
        {!isMine && !isConfirmed && (
          <button type="button" className="btn btn-sm" onClick={() => setAsking(true)}>
            {destructionWords.confirm}
          </button>
        )}
        <OneTap intent="takeBack" values={{ id }} label={destructionWords.takeBackOf(name)}>
          {destructionWords.takeBack}
        </OneTap>
      </div>
      {isAsking && (
        <Dialog title={destructionWords.confirmTitle(name)} onClose={() => setAsking(false)}>
          <div className="grid gap-4 p-6">
            <h2 className="text-xl">{destructionWords.confirmTitle(name)}</h2>
            <p>{about}</p>
            {recent && <p className="font-semibold text-clay-deep">{recent}</p>}
            <p>{destructionWords.confirmAbout}</p>
            <Form method="post" className="flex flex-wrap items-end gap-3" onSubmit={() => setAsking(false)}>
              <input type="hidden" name="id" value={id} />
              <label className="grid w-full gap-1">
                <span className="text-small font-semibold">{destructionWords.typeName(name)}</span>
                <input name="typedName" required autoComplete="off" className="input w-full" />
              </label>
              <button type="submit" name="intent" value="confirm" className="btn btn-error">
                {destructionWords.confirmNow}
              </button>
              <button type="button" className="btn" onClick={() => setAsking(false)}>
                {destructionWords.keep}
              </button>
            </Form>
          </div>
        </Dialog>
      )}
    </li>
  );
}

interface AskProps {
  students: Loaded['students'];
  today: string;
  result: SubmissionResult<string[]> | undefined;
}

function Ask({ students, today, result }: AskProps) {
  const { form, fields, isBusy } = useSchemaForm(destructionInput, {
    ...{ id: 'ask', result, defaultValue: { toldOn: today } },
  });
  const id = useFreshId(result);
  const chosen = students.find((one) => one.id === fields.studentId.value);
  return (
    <SchemaForm form={form} intent="ask" className="grid gap-4">
      <input type="hidden" name="id" value={id} />
      <SelectField
        field={fields.studentId}
        label={destructionWords.student}
        none={destructionWords.choose}
        options={students.map((one) => ({ id: one.id, name: `${one.name} · ${one.about}` }))}
      />
      {chosen && chosen.recent > 0 && (
        <p className="text-small font-semibold text-clay-deep">{destructionWords.recent(chosen.recent)}</p>
      )}
      <TextField field={fields.reason} label={destructionWords.reason} />
      <TextField field={fields.toldOn} label={destructionWords.toldOn} type="date" className="w-44" />
      <TextField field={fields.toldHow} label={destructionWords.toldHow} />
      <TextField field={fields.typedName} label={destructionWords.typeName(chosen?.name ?? null)} />
      <button type="submit" className="btn btn-primary" disabled={isBusy || id === ''}>
        {destructionWords.send}
      </button>
    </SchemaForm>
  );
}
