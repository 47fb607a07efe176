import { data, Form } from 'react-router';
import { z } from 'zod';
import { isoDateField } from '~/core/calendar/date-fields';
import { longDate } from '~/core/calendar/iso-date';
import { absenceInput } from '~/core/students/absence-input';
import { database } from '~/server/platform/db/current';
import { absencesOf, recordAbsence, withdrawAbsence } from '~/server/students/absences';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { TextField } from '../platform/ui/form-fields';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/absences';
import { headerStudent } from './header-student';
import { StudentHeader } from './student-header';
import { absencesWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'see');
  const absences = await absencesOf(database(), student.id);
  return {
    student: headerStudent(student, { discreet }),
    today: actor.today,
    mayObserve: can(student, 'observe'),
    absences: absences.map(({ day, recordedBy }) => ({ day, recordedBy })),
  };
});

const removal = z.object({ intent: z.literal('remove'), day: isoDateField });

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'observe');
  const form = await formOf(request);
  const toRemove = removal.safeParse(Object.fromEntries(form));
  if (toRemove.success) {
    await withdrawAbsence(database(), actor, studentId, toRemove.data.day, now);
    return data({ result: undefined }, { headers: await sayNext({ text: absencesWords.removed }) });
  }
  const { done, refused } = await submitted(form, absenceInput, (input) =>
    recordAbsence(database(), actor, studentId, input, now),
  );
  if (refused) return refused;
  const text = absencesWords.saved(done);
  return data({ result: undefined }, { headers: await sayNext({ text }) });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: absencesWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

export default function Absences({ loaderData, actionData }: Route.ComponentProps) {
  const { student, today, mayObserve, absences } = loaderData;
  return (
    <Page
      marginName={absencesWords.whatTheyAreFor}
      margin={
        <>
          <MarginTitle>{absencesWords.whatTheyAreFor}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{absencesWords.takenOutOfRates}</p>
            <p>{absencesWords.ofOneGoal}</p>
          </div>
        </>
      }
    >
      <StudentHeader student={student} />
      <h2 className="mt-5 text-2xl">{absencesWords.daysAway}</h2>
      {mayObserve && <AbsenceForm key={absences.length} today={today} result={actionData?.result} />}
      {absences.length === 0 ? (
        <p className="py-8 text-ink-2">{absencesWords.none}</p>
      ) : (
        <ul className="mt-6 max-w-xl">
          {absences.map(({ day, recordedBy }) => (
            <li key={day} className="flex items-center justify-between gap-3 border-b border-rule py-2">
              <span>
                {longDate(day)} <span className="text-small text-ink-2">{absencesWords.by(recordedBy)}</span>
              </span>
              {mayObserve && (
                <Form method="post">
                  <input type="hidden" name="intent" value="remove" />
                  <input type="hidden" name="day" value={day} />
                  <button type="submit" className="btn btn-sm" aria-label={absencesWords.removeDay(longDate(day))}>
                    {absencesWords.remove}
                  </button>
                </Form>
              )}
            </li>
          ))}
        </ul>
      )}
    </Page>
  );
}

type Result = Parameters<typeof useSchemaForm>[1]['result'];

function AbsenceForm({ today, result }: { today: string; result: Result }) {
  const { form, fields, isBusy } = useSchemaForm(absenceInput, {
    id: 'absence',
    result,
    defaultValue: { from: today, to: today },
  });
  return (
    <SchemaForm form={form} className="mt-4 flex flex-wrap items-end gap-3">
      <TextField field={fields.from} label={absencesWords.from} type="date" />
      <TextField field={fields.to} label={absencesWords.to} type="date" />
      <button type="submit" className="btn btn-primary" disabled={isBusy}>
        {absencesWords.save}
      </button>
    </SchemaForm>
  );
}
