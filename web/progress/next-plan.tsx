import { getInputProps, getSelectProps, getTextareaProps, useInputControl } from '@conform-to/react';
import { data, Link, redirect } from 'react-router';
import { v4 as newId } from 'uuid';
import { dateSeenFrom } from '~/core/calendar/iso-date';
import { measureOf } from '~/core/measures/measure';
import { criterionSentence } from '~/core/progress/mastery';
import { type NextPlanInput, nextPlanInput, proposedPlan } from '~/core/progress/next-plan';
import { database } from '~/server/platform/db/current';
import { beginNextPlan, goalsForNextPlan } from '~/server/progress/next-plan';
import { planOf } from '~/server/students/plan';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Covered } from '../platform/ui/covered';
import { Field, FieldMessage } from '../platform/ui/fields';
import { TextField } from '../platform/ui/form-fields';
import { MarginTitle, Page } from '../platform/ui/page';
import { Rows } from '../platform/ui/rows';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/next-plan';
import { nextPlanWords } from './next-plan-words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'editGoals');
  if (discreet) return null;
  const [plan, goals] = await Promise.all([
    planOf(database(), student.id, actor.today),
    goalsForNextPlan(database(), student, { school, today: actor.today }),
  ]);
  const { today } = actor;
  const proposed = proposedPlan(plan ?? { startsOn: today, endsOn: today, periods: [] }, today);
  return {
    student: { id: student.id as string, shortName: student.shortName },
    plan: plan && { from: dateSeenFrom(plan.startsOn, today), until: dateSeenFrom(plan.endsOn, today) },
    proposed: { id: newId(), ...proposed },
    goals: goals.map(({ goal, now, isMet }) => {
      const kind = measureOf(goal.measure);
      return {
        ...{ id: goal.id, nextId: newId(), number: goal.number, shortName: goal.shortName, wording: goal.wording },
        ...{ target: goal.criterion.value, unit: kind.axis.unit, criterion: criterionSentence(goal), isMet },
        now: now && {
          ...now,
          value: Math.round(10 * now.value) / 10,
          said: kind.said(now.value),
          day: dateSeenFrom(now.on, today),
        },
      };
    }),
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'editGoals');
  const { refused } = await submitted(await formOf(request), nextPlanInput, (input) =>
    beginNextPlan(database(), actor, studentId, input, now),
  );
  if (refused) return data(refused.data, { status: 400 });
  throw redirect(`/students/${studentId}`, { headers: await sayNext({ text: nextPlanWords.begun }) });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: nextPlanWords.pageTitle(loaderData?.student.shortName ?? '') },
];

/** A student's next plan: its dates, and what becomes of each goal. */
export default function NextPlan({ loaderData, actionData }: Route.ComponentProps) {
  if (!loaderData) return <Covered what={nextPlanWords.thePlan} />;
  return <NextPlanForm key={loaderData.student.id} {...loaderData} result={actionData?.result} />;
}

type Loaded = NonNullable<Route.ComponentProps['loaderData']>;
type Result = NonNullable<Route.ComponentProps['actionData']>['result'];

function NextPlanForm({ student, plan, proposed, goals, result }: Loaded & { result: Result | undefined }) {
  const defaultValue: NextPlanInput = {
    ...proposed,
    periods: [...proposed.periods],
    goals: goals.map(({ id, nextId, wording, target, now, isMet }) => ({
      ...{ id, nextId, wording, target, becomes: isMet ? ('met' as const) : ('goesOn' as const) },
      ...{ baselineValue: now?.value ?? null, baselineOn: now?.on ?? null },
    })),
  };
  const { form, fields, isBusy } = useSchemaForm(nextPlanInput, { id: 'next-plan', result, defaultValue });
  const rows = fields.goals.getFieldList();
  return (
    <Page
      marginName={nextPlanWords.whatBecomes}
      margin={
        <>
          <MarginTitle>{nextPlanWords.whatBecomes}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{nextPlanWords.oldStays}</p>
            <p>{nextPlanWords.goesOnAs}</p>
            <p>{nextPlanWords.newOnes}</p>
            <p>
              <Link to={`/students/${student.id}`} className="font-semibold link">
                {nextPlanWords.backTo(student.shortName)}
              </Link>
            </p>
          </div>
        </>
      }
    >
      <h1 className="text-3xl">{nextPlanWords.title(student.shortName)}</h1>
      <p className="mt-1.5 text-small text-ink-2">
        {plan ? nextPlanWords.present(plan.from, plan.until) : nextPlanWords.none}
      </p>
      <SchemaForm isLong form={form} className="mt-6 grid gap-8 pb-24">
        <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
        <fieldset className="grid max-w-2xl gap-4 sm:grid-cols-2">
          <legend className="mb-2 display text-lg">{nextPlanWords.dates}</legend>
          <TextField field={fields.startsOn} label={nextPlanWords.from} type="date" />
          <TextField field={fields.endsOn} label={nextPlanWords.until} type="date" />
        </fieldset>
        <fieldset className="max-w-2xl">
          <legend className="mb-2 display text-lg">{nextPlanWords.periods}</legend>
          <Rows form={form} list={fields.periods} what="period" blank={() => ({ label: '', endsOn: '' })}>
            {(row) => {
              const { label, endsOn } = row.getFieldset();
              return (
                <div className="grid gap-2 sm:grid-cols-2">
                  <TextField field={label} label={nextPlanWords.called} />
                  <TextField field={endsOn} label={nextPlanWords.endsOn} type="date" />
                </div>
              );
            }}
          </Rows>
        </fieldset>
        {rows.map((row, at) => {
          const goal = goals[at];
          return goal ? <GoalNext key={row.key} row={row} goal={goal} /> : null;
        })}
        <button type="submit" className="btn btn-primary justify-self-start px-6 text-base" disabled={isBusy}>
          {nextPlanWords.begin}
        </button>
      </SchemaForm>
    </Page>
  );
}

type GoalField = ReturnType<
  ReturnType<typeof useSchemaForm<typeof nextPlanInput>>['fields']['goals']['getFieldList']
>[number];

function GoalNext({ row, goal }: { row: GoalField; goal: Loaded['goals'][number] }) {
  const fields = row.getFieldset();
  const becomes = useInputControl(fields.becomes);
  const { key: _, ...select } = getSelectProps(fields.becomes);
  const goesOn = (becomes.value ?? fields.becomes.initialValue) === 'goesOn';
  return (
    <fieldset className="border-t border-rule pt-4">
      <legend className="sr-only">{nextPlanWords.goal(goal.number, goal.shortName)}</legend>
      <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
      <input {...getInputProps(fields.nextId, { type: 'hidden' })} key={fields.nextId.key} />
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div className="min-w-0">
          <h2 className="text-lg">
            {goal.number} · {goal.shortName}
          </h2>
          <p className="text-small text-ink-2">
            {goal.criterion}
            {goal.now && ` ${nextPlanWords.now(goal.now.said, goal.now.day)}`}
            {goal.isMet && ` ${nextPlanWords.isMet}`}
          </p>
        </div>
        <select
          {...select}
          defaultValue={undefined}
          value={becomes.value ?? ''}
          onChange={(event) => becomes.change(event.target.value)}
          aria-label={nextPlanWords.becomesOf(goal.number)}
          className="select w-64"
        >
          {Object.entries(nextPlanWords.becomes).map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <FieldMessage messages={fields.becomes.errors} />
      </div>
      <div className={goesOn ? 'mt-3 grid max-w-2xl gap-3' : 'hidden'}>
        <Field field={fields.wording} label={nextPlanWords.wording}>
          <textarea
            {...getTextareaProps(fields.wording)}
            key={fields.wording.key}
            className="textarea min-h-20 w-full field-sizing-content"
          />
        </Field>
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField field={fields.target} label={nextPlanWords.target} type="figure" unit={goal.unit.trim()} />
          <TextField
            field={fields.baselineValue}
            label={nextPlanWords.baseline}
            type="figure"
            unit={goal.unit.trim()}
          />
          <TextField field={fields.baselineOn} label={nextPlanWords.baselineOn} type="date" />
        </div>
      </div>
    </fieldset>
  );
}
