import { Form, Link, redirect } from 'react-router';
import { v4 as newId } from 'uuid';
import { beginFromGoal, beginFromTemplate, blankGoal } from '~/core/goals/begin';
import { goalInput } from '~/core/goals/goal-input';
import { templateFor, timesNamed } from '~/core/goals/other-student';
import { counted } from '~/core/words/counting';
import { addGoal, inputOf } from '~/server/goals/edit';
import { goalsInBank, takeFromGoalBank } from '~/server/goals/goal-bank';
import { type Goal, goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { requireStudent, type Student, studentsOf } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Covered } from '../platform/ui/covered';
import type { Route } from './+types/new-goal';
import { goalChoices } from './form/choices';
import { GoalForm } from './form/goal-form';
import { newGoalWords } from './words';

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'editGoals');
  if (discreet) return null;
  const students = await studentsOf(database(), actor);
  const [goals, goalBank] = await Promise.all([
    goalsOf(
      database(),
      students.map(({ id }) => id),
    ),
    goalsInBank(database(), actor),
  ]);
  const own = goals.filter(({ studentId }) => studentId === student.id);
  const search = new URL(request.url).searchParams;
  const other = goals.find(({ id }) => id === search.get('goal'));
  const owner = students.find(({ id }) => id === other?.studentId);
  const template = goalBank.find(({ id }) => id === search.get('bank'))?.goal;
  const blank = blankGoal(newId(), {
    today: actor.today,
    planEndsOn: student.plan?.endsOn ?? null,
    numbers: goalsWorkedOn(own).map(({ number }) => number),
  });
  const question = other && owner && owner.id !== student.id ? namesIn(other, owner, student) : null;
  const answer = search.get('name');
  const begun = other
    ? beginFromGoal(blank, inputOf(other), question && answer !== 'keep' ? question.after : other.wording)
    : template
      ? beginFromTemplate(blank, template, student.firstName)
      : blank;
  const names = new Map(students.map(({ id, shortName }) => [id, shortName]));
  return {
    student: { id: student.id, shortName: student.shortName, firstName: student.firstName },
    goal: begun,
    question:
      question && answer === null ? { ...question, from: owner?.firstName ?? '', goalId: other?.id ?? '' } : null,
    from: `${search}`,
    goalBank: goalBank.map(({ id, isOwn, goal }) => ({ id, isOwn, name: goal.name, area: goal.area })),
    others: goals.map(({ id, studentId, number, shortName }) => ({
      id,
      of: names.get(student.id) ?? '',
      label: `${number} · ${shortName}`,
      isOwn: studentId === student.id,
    })),
    choices: await goalChoices(database(), actor, { studentId: student.id, goals }),
    today: actor.today,
  };
});

/** How a goal's wording names its own student, and how it would read for this one. */
function namesIn({ wording }: Goal, owner: Student, student: Student) {
  const times = timesNamed(wording, owner.firstName);
  if (times === 0) return null;
  return { times, before: wording, after: templateFor(wording, { from: owner.firstName, to: student.firstName }) };
}

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'editGoals');
  const form = await formOf(request);
  if (form.get('intent') === 'takeOffShelf') {
    await takeFromGoalBank(database(), actor, idFrom(String(form.get('shelfId'))), now);
    return { result: undefined };
  }
  const { done, refused } = await submitted(form, goalInput, async (input) => {
    await addGoal(database(), actor, studentId, input);
    return input;
  });
  if (refused) return { result: refused.data.result };
  const headers = await sayNext({ text: newGoalWords.goalIsInThePlan(done.number) });
  return redirect(`/students/${studentId}/goals/${done.id}`, { headers });
});

export const meta: Route.MetaFunction = () => [{ title: newGoalWords.pageTitle }];

export default function NewGoal({ loaderData, actionData }: Route.ComponentProps) {
  if (!loaderData) return <Covered what={newGoalWords.aGoal} />;
  const { student, goal, question, from, choices, today } = loaderData;
  return (
    <GoalForm
      isNew
      studentId={student.id}
      key={`${student.id} ${from}`}
      goal={goal}
      recorded={null}
      choices={choices}
      today={today}
      result={actionData?.result}
      backTo={`/students/${student.id}`}
    >
      <p className="text-small">
        <Link to={`/students/${student.id}`} className="text-ink-2 link">
          {student.shortName}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{newGoalWords.aNewGoal}</h1>
      {question ? <NameQuestion question={question} to={student.firstName} /> : <BeginFrom {...loaderData} />}
    </GoalForm>
  );
}

type Loaded = NonNullable<Route.ComponentProps['loaderData']>;

function NameQuestion({ question, to }: { question: NonNullable<Loaded['question']>; to: string }) {
  const { from, times, after, goalId } = question;
  return (
    <section className="mt-4 max-w-3xl alert alert-error alert-soft block">
      <h2 className="text-lg">{newGoalWords.theWordingNames(from, counted(times, 'time', 'times'))}</h2>
      <p className="mt-1 text-small">{newGoalWords.forItWouldRead(to)}</p>
      <p className="mt-1 whitespace-pre-line">{after}</p>
      <div className="mt-3 flex flex-wrap gap-2">
        <Link to={`?goal=${goalId}&name=replace`} className="btn btn-primary">
          {newGoalWords.putIn(to)}
        </Link>
        <Link to={`?goal=${goalId}&name=keep`} className="btn">
          {newGoalWords.keepTheWording}
        </Link>
      </div>
    </section>
  );
}

function BeginFrom({ goalBank, others, from }: Loaded) {
  return (
    <details className="mt-3 max-w-3xl" open={false}>
      <summary className="tap py-1.5 text-small text-ink-2 link">
        {from ? newGoalWords.beginFromSomethingElse : newGoalWords.beginFromAnotherGoalOr}
      </summary>
      <div className="mt-2 grid gap-6 rounded-field bg-wash p-4 sm:grid-cols-2">
        <section>
          <h2 className="mb-1">{newGoalWords.fromTheGoalBank}</h2>
          <ul className="max-h-72 overflow-y-auto">
            {goalBank.map(({ id, isOwn, name, area }) => (
              <li key={id} className="flex items-center justify-between gap-2">
                <Link to={`?bank=${id}`} className="block py-1.5 hover:underline">
                  {name} <span className="text-small text-ink-2">{area}</span>
                </Link>
                {isOwn && (
                  <Form method="post">
                    <input type="hidden" name="intent" value="takeOffShelf" />
                    <input type="hidden" name="shelfId" value={id} />
                    <button type="submit" aria-label={newGoalWords.takeOutOfTheGoal(name)} className="btn btn-xs">
                      {newGoalWords.takeOff}
                    </button>
                  </Form>
                )}
              </li>
            ))}
          </ul>
        </section>
        <section>
          <h2 className="mb-1">{newGoalWords.aGoalThatIsThere}</h2>
          <ul className="max-h-72 overflow-y-auto">
            {[...others]
              .sort((a, b) => Number(b.isOwn) - Number(a.isOwn))
              .map(({ id, of, label }) => (
                <li key={id}>
                  <Link to={`?goal=${id}`} className="block py-1.5 hover:underline">
                    {label} <span className="text-small text-ink-2">{of}</span>
                  </Link>
                </li>
              ))}
          </ul>
        </section>
      </div>
    </details>
  );
}
