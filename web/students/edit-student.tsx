import { getInputProps, type SubmissionResult } from '@conform-to/react';
import { data, Link } from 'react-router';
import { v4 as newId } from 'uuid';
import { longDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { planInput, studentInput } from '~/core/students/student-input';
import { database } from '~/server/platform/db/current';
import { type Plan, planOf, savePlan } from '~/server/students/plan';
import { canHandOver, caseManagerHistory, editStudent, rosterChoices, rosterStudent } from '~/server/students/roster';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Covered } from '../platform/ui/covered';
import { TextField } from '../platform/ui/form-fields';
import { MarginTitle, Page } from '../platform/ui/page';
import { Rows } from '../platform/ui/rows';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/edit-student';
import { StudentForm } from './student-form';
import { editStudentWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await rosterStudent(database(), actor, idFrom(params.studentId));
  if (discreet) return null;
  const [choices, plan, handsOver, handed] = await Promise.all([
    rosterChoices(database(), actor),
    planOf(database(), student.id, actor.today),
    canHandOver(database(), actor, student.id),
    caseManagerHistory(database(), student.id),
  ]);
  const { groups, caseManager, isArchived: _, ...rest } = student;
  return {
    student: { ...rest, groupIds: groups.map(({ id }) => id), caseManagerId: caseManager?.id ?? '' },
    title: student.shortName,
    isMine: caseManager?.id === actor.personId,
    handsOver,
    caseManager: caseManager?.name ?? 'nobody',
    handed: handed.map(({ at, from, to, by }) => ({
      said: editStudentWords.changed(longDate(wallTime(at, school.timeZone).on), from, to, by),
    })),
    choices,
    plan,
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await rosterStudent(database(), actor, studentId);
  const form = await formOf(request);
  if (form.get('intent') === 'plan') {
    const { refused } = await submitted(form, planInput, (input) =>
      savePlan(database(), actor, studentId, input, { newId: newId(), now }),
    );
    if (refused) return data({ of: 'plan' as const, result: refused.data.result }, { status: 400 });
    return data(
      { of: 'plan' as const, result: undefined },
      { headers: await sayNext({ text: editStudentWords.thePlanIsSaved }) },
    );
  }
  const { refused } = await submitted(form, studentInput, (input) =>
    editStudent(database(), actor, { ...input, id: studentId }, now),
  );
  if (refused) return data({ of: 'student' as const, result: refused.data.result }, { status: 400 });
  return data(
    { of: 'student' as const, result: undefined },
    { headers: await sayNext({ text: editStudentWords.saved }) },
  );
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: editStudentWords.pageTitle(loaderData?.title ?? editStudentWords.aStudent) },
];

export default function EditStudent({ loaderData, actionData }: Route.ComponentProps) {
  if (!loaderData) return <Covered what={editStudentWords.theRoster} />;
  const { student, title, isMine, choices, plan, handsOver, caseManager, handed } = loaderData;
  return (
    <Page
      marginName={editStudentWords.thePlan}
      margin={
        isMine ? (
          <>
            <MarginTitle about={editStudentWords.theDatesOfTheIndividualized}>{editStudentWords.thePlan}</MarginTitle>
            <PlanForm key={student.id} plan={plan} result={actionData?.of === 'plan' ? actionData.result : undefined} />
          </>
        ) : (
          <>
            <MarginTitle>{editStudentWords.thePlan}</MarginTitle>
            <p className="text-small text-ink-2">{editStudentWords.itsDatesAndGoalsAre}</p>
          </>
        )
      }
    >
      <p className="text-small">
        {isMine && (
          <Link to={`/students/${student.id}`} className="text-ink-2 link">
            {editStudentWords.toThePageOf(title)}
          </Link>
        )}
      </p>
      <h1 className="mt-1 text-3xl">{title}</h1>
      <StudentForm
        key={student.id}
        student={student}
        choices={choices}
        caseManager={handsOver ? undefined : caseManager}
        result={actionData?.of === 'student' ? actionData.result : undefined}
        backTo={isMine ? `/students/${student.id}` : '/roster'}
      />
      <p className="mt-6 max-w-xl text-small text-ink-2">{editStudentWords.withANewCaseManager}</p>
      {handed.length > 0 && (
        <section aria-label={editStudentWords.caseManagersSoFar} className="mt-6 max-w-xl text-small">
          <h2 className="text-lg">{editStudentWords.caseManagersSoFar}</h2>
          <ul className="mt-1 grid gap-1 text-ink-2">
            {handed.map(({ said }) => (
              <li key={said}>{said}</li>
            ))}
          </ul>
        </section>
      )}
    </Page>
  );
}

function PlanForm({ plan, result }: { plan: Plan | null; result: SubmissionResult<string[]> | undefined }) {
  const { form, fields } = useSchemaForm(planInput, {
    id: 'plan',
    result,
    defaultValue: plan ?? { periods: [] },
  });
  return (
    <SchemaForm isLong form={form} intent="plan" className="grid gap-4">
      <TextField field={fields.startsOn} label={editStudentWords.startsOn} type="date" />
      <TextField field={fields.endsOn} label={editStudentWords.endsOn} type="date" />
      <fieldset>
        <legend className="mb-1 text-small font-semibold">{editStudentWords.reportingPeriods}</legend>
        <Rows form={form} list={fields.periods} what="period" blank={() => ({ id: '', label: '', endsOn: '' })}>
          {(row) => {
            const { id, label, endsOn } = row.getFieldset();
            return (
              <div className="grid gap-2">
                <input {...getInputProps(id, { type: 'hidden' })} key={id.key} />
                <TextField field={label} label={editStudentWords.called} />
                <TextField field={endsOn} label={editStudentWords.endsOn} type="date" />
              </div>
            );
          }}
        </Rows>
      </fieldset>
      <button type="submit" className="btn btn-primary">
        {editStudentWords.saveThePlan}
      </button>
    </SchemaForm>
  );
}
