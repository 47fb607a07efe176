import { useRef, useState } from 'react';
import { data, Form, Link, redirect, useNavigation, useSubmit } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { forGroupInput, goalForAnother, MOST_IN_GROUP, pastedTargets, typedTarget } from '~/core/goals/for-group';
import { counted, figure } from '~/core/words/counting';
import { typedNumber } from '~/core/words/typed-number';
import { takeBackGoals } from '~/server/goals/delete';
import { inputOf } from '~/server/goals/edit';
import { giveToGroup } from '~/server/goals/for-group';
import { goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { can } from '~/server/students/rights';
import { studentsOf } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { Covered } from '../platform/ui/covered';
import { GroupButtons, useChosen } from '../platform/ui/group-buttons';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/for-group';
import { forGroupWords } from './words';

export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  if (discreet) return null;
  const students = (await studentsOf(database(), actor)).filter((student) => can(student, 'editGoals'));
  const goals = goalsWorkedOn(
    await goalsOf(
      database(),
      students.map(({ id }) => id),
    ),
  );
  const nameOf = new Map<string, string>(students.map(({ id, shortName }) => [id, shortName]));
  const source = goals.find(({ id }) => id === new URL(request.url).searchParams.get('goal'));
  const owner = students.find(({ id }) => id === source?.studentId);
  return {
    goals: goals.map((goal) => ({
      id: goal.id,
      label: forGroupWords.goalOf(nameOf.get(goal.studentId) ?? '', goal.number, goal.shortName),
    })),
    source: source && owner ? { goal: inputOf(source), firstName: owner.firstName } : null,
    students: students
      .filter(({ id }) => id !== owner?.id)
      .map(({ id, shortName, firstName, groups }) => ({
        ...{ id, shortName, firstName, groups, newGoalId: newId() },
        hasIt: goals.some((goal) => goal.studentId === id && goal.shortName === source?.shortName),
      })),
  };
});

/** What was given a moment ago, to be taken back. */
const undone = z
  .string()
  .transform((text) => text.split('.'))
  .pipe(z.array(z.uuid()).min(1).max(MOST_IN_GROUP));

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const form = await formOf(request);
  const undo = undone.safeParse(form.get('ids'));
  if (undo.success) {
    try {
      const count = await takeBackGoals(database(), actor, undo.data, now);
      return data({ messages: {} }, { headers: await sayNext({ text: forGroupWords.takenBack(count) }) });
    } catch (error) {
      if (!(error instanceof Invalid)) throw error;
      return data(
        { messages: {} },
        { status: 400, headers: await sayNext({ text: Object.values(error.fields).join(' ') }) },
      );
    }
  }
  const goalId = idFrom(String(form.get('goal')));
  const rows = form.getAll('studentId').map((studentId) => {
    return {
      ...{ studentId, id: form.get(`id ${studentId}`) },
      target: typedNumber(String(form.get(`target ${studentId}`) ?? '')),
    };
  });
  const parsed = forGroupInput.safeParse({ rows });
  if (!parsed.success) {
    const messages = Object.fromEntries(
      parsed.error.issues.map(({ path: [, at], message }) => [
        typeof at === 'number' ? String(rows[at]?.studentId) : 'form',
        message,
      ]),
    );
    return data({ messages }, { status: 400 });
  }
  try {
    const count = await giveToGroup(database(), actor, goalId, parsed.data);
    const ids = parsed.data.rows.map(({ id }) => id);
    const undo = { at: '/class/goal', ids };
    return redirect('/class', { headers: await sayNext({ text: forGroupWords.given(count), undo }) });
  } catch (error) {
    if (!(error instanceof Invalid)) throw error;
    return data({ messages: error.fields }, { status: 400 });
  }
});

export const meta: Route.MetaFunction = () => [{ title: forGroupWords.pageTitle }];

type Loaded = NonNullable<Route.ComponentProps['loaderData']>;

/** One goal for a whole group, each student with a target of their own. */
export default function ForGroup({ loaderData, actionData }: Route.ComponentProps) {
  const submit = useSubmit();
  if (!loaderData) return <Covered what={forGroupWords.aGoal} />;
  const { goals, source } = loaderData;
  return (
    <Page
      marginName={forGroupWords.about}
      margin={
        <>
          <MarginTitle>{forGroupWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{forGroupWords.aboutCopies}</p>
            <p>{forGroupWords.aboutPasting}</p>
            <p>{forGroupWords.aboutPast}</p>
          </div>
        </>
      }
    >
      <p className="text-small">
        <Link to="/class" className="text-ink-2 link">
          {forGroupWords.class}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{forGroupWords.title}</h1>
      <Form method="get" onChange={(event) => submit(event.currentTarget, { replace: true })} className="mt-4">
        <label className="grid max-w-xl gap-1 text-small font-semibold">
          {forGroupWords.whichGoal}
          <select name="goal" defaultValue={source?.goal.id ?? ''} className="select w-full font-normal">
            <option value="">{forGroupWords.choose}</option>
            {goals.map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <noscript>
          <button type="submit" className="btn mt-2">
            {forGroupWords.show}
          </button>
        </noscript>
      </Form>
      {source && (
        <Targets key={source.goal.id} loaderData={loaderData} source={source} messages={actionData?.messages ?? {}} />
      )}
    </Page>
  );
}

interface TargetsProps {
  loaderData: Loaded;
  source: NonNullable<Loaded['source']>;
  messages: Record<string, string>;
}

function Targets({ loaderData: { students }, source, messages }: TargetsProps) {
  const first = figure(typedTarget(source.goal));
  const [typed, setTyped] = useState<Record<string, string>>({});
  const isBusy = useNavigation().state !== 'idle';
  const list = useRef<HTMLUListElement>(null);
  // Nobody is chosen until somebody chooses: what is given here stands in a student's plan.
  const { chosen, count, recount } = useChosen(list);
  // A column goes to those who are chosen, from the one on that it is pasted at: never to anybody who gets no goal.
  const pasteFrom = (at: number, text: string) => {
    const to = chosen();
    const rows = students.slice(at).filter(({ id }, i) => i === 0 || to.includes(id));
    const filled = pastedTargets(text).flatMap((target, i) => (rows[i] ? [[rows[i].id, target]] : []));
    setTyped((before) => ({ ...before, ...Object.fromEntries(filled) }));
  };
  return (
    <Form method="post" className="mt-5 max-w-4xl pb-24" onChange={recount}>
      <input type="hidden" name="goal" value={source.goal.id} />
      <p role="alert" className={messages.form ? 'mb-2 font-semibold text-clay-deep' : 'sr-only'}>
        {messages.form}
      </p>
      <GroupButtons students={students} within={list} onChoose={recount} />
      <ul ref={list}>
        {students.map((student, at) => {
          const value = typed[student.id] ?? first;
          const names = { from: source.firstName, to: student.firstName };
          const reads = goalForAnother(source.goal, source.goal, {
            names,
            target: typedNumber(value) ?? typedTarget(source.goal),
          });
          return (
            <li
              key={student.id}
              className="grid items-start gap-x-4 gap-y-1 border-b border-dotted border-ink-3/50 py-2.5 sm:grid-cols-[12rem_7rem_1fr]"
            >
              <label className="flex tap items-center gap-3">
                <input type="checkbox" name="studentId" value={student.id} className="checkbox checkbox-sm" />
                <span className="display">{student.shortName}</span>
              </label>
              <span>
                <input type="hidden" name={`id ${student.id}`} value={student.newGoalId} />
                <input
                  name={`target ${student.id}`}
                  value={value}
                  inputMode="decimal"
                  autoComplete="off"
                  aria-label={forGroupWords.targetOf(student.shortName)}
                  aria-invalid={messages[student.id] ? true : undefined}
                  onChange={(event) => setTyped({ ...typed, [student.id]: event.currentTarget.value })}
                  onPaste={(event) => {
                    const text = event.clipboardData.getData('text');
                    if (!text.includes('\n')) return;
                    event.preventDefault();
                    pasteFrom(at, text);
                  }}
                  className="input w-full"
                />
              </span>
              <span className="text-small text-ink-2">
                {student.hasIt && <strong>{forGroupWords.hasIt} </strong>}
                {reads.wording}
                {messages[student.id] && (
                  <strong role="alert" className="block text-clay-deep">
                    {messages[student.id]}
                  </strong>
                )}
              </span>
            </li>
          );
        })}
      </ul>
      <div className="sticky bottom-0 -mx-2 mt-4 flex gap-2 border-t border-rule bg-paper px-2 py-3">
        <button type="submit" disabled={isBusy || count === 0} className="btn btn-primary px-6">
          {forGroupWords.addTo(counted(count, 'student', 'students'))}
        </button>
        <Link to="/class" className="btn">
          {forGroupWords.back}
        </Link>
      </div>
    </Form>
  );
}
