import { getInputProps, type SubmissionResult } from '@conform-to/react';
import { useRef } from 'react';
import { data, Link, redirect } from 'react-router';
import { v4 as newId } from 'uuid';
import { MOST_EACH, stackInput } from '~/core/entries/ratings/stack';
import { discreetGoal } from '~/core/goals/discreet';
import { makeStack } from '~/server/entries/ratings/stacks';
import { goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { colleaguesOf } from '~/server/students/team';
import { sayNext } from '../../platform/http/cookies';
import { formOf } from '../../platform/http/form-of';
import { personOf } from '../../platform/http/request-person';
import { submitted } from '../../platform/http/submitted';
import { withErrors } from '../../platform/http/with-errors';
import { CheckList, SelectField, TextField } from '../../platform/ui/form-fields';
import { GroupButtons } from '../../platform/ui/group-buttons';
import { MarginTitle, Page } from '../../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../../platform/ui/schema-form';
import { choosableStudents } from '../../students/choosable';
import type { Route } from './+types/new-stack';
import { newStackWords, stacksWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const named = await choosableStudents(database(), { actor, discreet });
  const goals = goalsWorkedOn(
    await goalsOf(
      database(),
      named.map(({ id }) => id),
    ),
  ).filter(({ measure }) => measure.kind === 'rubric');
  return {
    id: newId(),
    goals: named.flatMap(({ id, name }) =>
      goals
        .filter(({ studentId }) => studentId === id)
        .map((goal) => {
          const { number, shortName } = discreet ? discreetGoal(goal) : goal;
          return { id: goal.id, name: `${name} · ${number} ${shortName}` };
        }),
    ),
    staff: await colleaguesOf(database(), actor),
    students: named,
  };
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const { done, refused } = await submitted(await formOf(request), stackInput, async (input) => {
    await makeStack(database(), actor, input, now);
    return input.id;
  });
  if (refused) return data({ result: refused.data.result }, { status: 400 });
  return redirect(`/class/work-samples/${done}`, { headers: await sayNext({ text: newStackWords.made }) });
});

export const meta: Route.MetaFunction = () => [{ title: newStackWords.pageTitle }];

export default function NewStack({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <Page
      marginName={stacksWords.about}
      margin={
        <>
          <MarginTitle>{stacksWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{stacksWords.spread}</p>
            <p>{stacksWords.whatRatersSee}</p>
          </div>
        </>
      }
    >
      <p className="text-small">
        <Link to="/class/work-samples" className="text-ink-2 link">
          {stacksWords.heading}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{newStackWords.heading}</h1>
      {loaderData.goals.length === 0 ? (
        <p className="mt-4 max-w-xl text-ink-2">
          {newStackWords.noRubric}{' '}
          <Link to="/class/goal" className="link">
            {newStackWords.giveOne}
          </Link>
        </p>
      ) : (
        <StackForm key={loaderData.id} {...loaderData} result={actionData?.result} />
      )}
    </Page>
  );
}

interface StackFormProps {
  id: string;
  goals: { id: string; name: string }[];
  staff: { id: string; name: string }[];
  students: { id: string; name: string; groups: string[] }[];
  result: SubmissionResult<string[]> | undefined;
}

const eachOptions = Array.from({ length: MOST_EACH }, (_, i) => ({ id: String(i + 1), name: String(i + 1) }));

function StackForm({ id, goals, staff, students, result }: StackFormProps) {
  const defaultValue = { id, title: '', goalIds: [], staffIds: [], classmateIds: [], each: 2 };
  const { form, fields, isBusy } = useSchemaForm(stackInput, { id: 'stack', result, defaultValue });
  const classmates = useRef<HTMLDivElement>(null);
  return (
    <SchemaForm isLong form={form} className="mt-5 grid max-w-3xl gap-6 pb-24">
      <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
      <div className="grid gap-4 sm:grid-cols-[1fr_14rem]">
        <TextField field={fields.title} label={newStackWords.title} placeholder={newStackWords.titleExample} />
        <SelectField field={fields.each} label={newStackWords.each} options={eachOptions} />
      </div>
      <CheckList field={fields.goalIds} legend={newStackWords.whose} options={goals} />
      <CheckList field={fields.staffIds} legend={newStackWords.staff} options={staff} />
      <section ref={classmates} className="grid gap-3">
        <CheckList field={fields.classmateIds} legend={newStackWords.classmates} options={students} />
        <GroupButtons students={students} within={classmates} />
      </section>
      <div className="sticky bottom-0 -mx-2 flex flex-wrap gap-2 border-t border-rule bg-paper px-2 py-3">
        <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
          {newStackWords.make}
        </button>
        <Link to="/class/work-samples" className="btn">
          {newStackWords.back}
        </Link>
      </div>
    </SchemaForm>
  );
}
