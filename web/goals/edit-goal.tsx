import { data, Link, redirect, useFetcher } from 'react-router';
import { v4 as newId } from 'uuid';
import { templateOf } from '~/core/goals/begin';
import { goalInput } from '~/core/goals/goal-input';
import { offeredBaseline } from '~/core/progress/baseline';
import { valueSaid } from '~/core/progress/sentences';
import { sessionsOfGoal } from '~/server/entries/read';
import { editGoal, inputOf } from '~/server/goals/edit';
import { putInGoalBank } from '~/server/goals/goal-bank';
import { goalOf, goalsOf, hasEntries } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { progressFrom } from '~/server/progress/progress';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Covered } from '../platform/ui/covered';
import type { Route } from './+types/edit-goal';
import { goalChoices } from './form/choices';
import { GoalForm } from './form/goal-form';
import { editGoalWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'editGoals');
  const goal = await goalOf(database(), student.id, idFrom(params.goalId));
  if (discreet) return null;
  const [goals, isRecorded] = await Promise.all([
    goalsOf(database(), [student.id]),
    hasEntries(database(), goal.id, goal.version),
  ]);
  return {
    student: { id: student.id, shortName: student.shortName },
    goal: inputOf(goal),
    recorded: isRecorded ? goal.measure : null,
    forShelf: { id: newId(), ...templateOf(goal, student.firstName) },
    choices: await goalChoices(database(), actor, { studentId: student.id, goals }),
    today: actor.today,
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  const student = await requireStudent(database(), actor, studentId, 'editGoals');
  const goal = await goalOf(database(), student.id, idFrom(params.goalId));
  const form = await formOf(request);
  if (form.get('intent') === 'goalBank') {
    const template = templateOf(goal, student.firstName);
    await putInGoalBank(database(), actor, studentId, { id: idFrom(String(form.get('shelfId'))), goal: template }, now);
    return data(
      { result: undefined },
      { headers: await sayNext({ text: editGoalWords.goalIsInTheGoal(goal.number) }) },
    );
  }
  if (form.get('intent') === 'baseline') {
    const sessions = await sessionsOfGoal(database(), student.id, goal.id);
    const { points } = progressFrom(goal, sessions, { school, today: actor.today });
    const offered = goal.baseline ? null : offeredBaseline(points);
    if (!offered) throw new NotFound(editGoalWords.thereAreNoThreeScores);
    const baseline = { baselineValue: Math.round(100 * offered.value) / 100, baselineOn: offered.on };
    await editGoal(database(), actor, studentId, { ...inputOf(goal), ...baseline }, now);
    const text = editGoalWords.theBaselineIsEditThe(valueSaid(goal, offered.value));
    return redirect(`/students/${studentId}/goals/${goal.id}`, { headers: await sayNext({ text }) });
  }
  const { done, refused } = await submitted(form, goalInput, async (input) => {
    await editGoal(database(), actor, studentId, { ...input, id: goal.id }, now);
    return input;
  });
  if (refused) return { result: refused.data.result };
  const headers = await sayNext({ text: editGoalWords.goalIsChanged(done.number) });
  return redirect(`/students/${studentId}/goals/${goal.id}`, { headers });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: editGoalWords.pageTitle(loaderData?.goal.number) },
];

export default function EditGoal({ loaderData, actionData }: Route.ComponentProps) {
  if (!loaderData) return <Covered what={editGoalWords.aGoal} />;
  const { student, goal, recorded, forShelf, choices, today } = loaderData;
  return (
    <GoalForm
      studentId={student.id}
      key={`${goal.id} ${goal.editedAt}`}
      goal={goal}
      recorded={recorded}
      choices={choices}
      today={today}
      result={actionData?.result}
      backTo={`/students/${student.id}/goals/${goal.id}`}
      marginFoot={<ToGoalBank id={forShelf.id} name={forShelf.name} wording={forShelf.wording} />}
    >
      <p className="text-small">
        <Link to={`/students/${student.id}/goals/${goal.id}`} className="text-ink-2 link">
          {student.shortName} · {goal.number}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{editGoalWords.editTheGoal}</h1>
    </GoalForm>
  );
}

/** Puts the goal, as it is saved, where a new one can begin from it. */
function ToGoalBank({ id, name, wording }: { id: string; name: string; wording: string }) {
  const fetcher = useFetcher();
  const isThere = fetcher.state === 'idle' && fetcher.data !== undefined;
  return (
    <details className="mt-8 border-t border-rule pt-3">
      <summary className="tap py-1.5 text-small text-ink-2 link">{editGoalWords.putItIntoTheSchools}</summary>
      <p className="mt-2 text-small text-ink-2">{editGoalWords.everyoneWhoSetsUpGoals(name)}</p>
      <p className="mt-2 text-small whitespace-pre-line">{wording}</p>
      <fetcher.Form method="post" className="mt-3">
        <input type="hidden" name="intent" value="goalBank" />
        <input type="hidden" name="shelfId" value={id} />
        <button type="submit" className="btn btn-sm" disabled={isThere || fetcher.state !== 'idle'}>
          {isThere ? editGoalWords.inTheGoalBank : editGoalWords.putItThere}
        </button>
      </fetcher.Form>
    </details>
  );
}
