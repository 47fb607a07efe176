import { data, Link, redirect } from 'react-router';
import { v4 as newId } from 'uuid';
import { roundInput } from '~/core/entries/rounds/round-input';
import { discreetGoal, discreetStudent } from '~/core/goals/discreet';
import { staffForms } from '~/server/entries/forms/forms';
import { roundOf, saveRound } from '~/server/entries/rounds/rounds';
import { goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { studentsOf } from '~/server/students/students';
import { sayNext } from '../../platform/http/cookies';
import { formOf } from '../../platform/http/form-of';
import { idFrom, personOf } from '../../platform/http/request-person';
import { submitted } from '../../platform/http/submitted';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import type { Route } from './+types/edit-round';
import { RoundForm } from './round-form';
import { editRoundWords } from './words';

/** A round that is there, or a new one. */
export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const round = params.roundId === undefined ? null : await roundOf(database(), actor, idFrom(params.roundId));
  const students = await studentsOf(database(), actor);
  const all = goalsWorkedOn(
    await goalsOf(
      database(),
      students.map(({ id }) => id),
    ),
  );
  const goals = discreet ? all.map(discreetGoal) : all;
  const { goals: inRound, ...rest } = round ?? {
    ...{ id: newId(), name: '', weekday: null },
    ...{ startsAt: null, goals: [], formIds: [] },
  };
  return {
    isNew: round === null,
    round: { ...rest, goalIds: inRound.map(({ id }) => id) },
    students: students
      .map((student) => (discreet ? discreetStudent(student) : student))
      .map(({ id, shortName }) => ({
        id,
        name: shortName,
        goals: goals
          .filter(({ studentId }) => studentId === id)
          .map((goal) => ({ id: goal.id, name: `${goal.number} ${goal.shortName}` })),
      }))
      .filter((student) => student.goals.length > 0),
    forms: (await staffForms(database(), actor)).map(({ id, title }) => ({ id, name: title })),
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor } = personOf(context);
  const id = params.roundId === undefined ? null : (await roundOf(database(), actor, idFrom(params.roundId))).id;
  const { refused } = await submitted(await formOf(request), roundInput, (input) =>
    saveRound(database(), actor, { ...input, id: id ?? input.id }),
  );
  if (refused) return data({ result: refused.data.result }, { status: 400 });
  return redirect('/rounds', { headers: await sayNext({ text: editRoundWords.theRoundIsKept }) });
});

export const meta: Route.MetaFunction = () => [{ title: editRoundWords.pageTitle }];

export default function EditRound({ loaderData, actionData }: Route.ComponentProps) {
  const { isNew, round, students, forms } = loaderData;
  return (
    <Page
      marginName={editRoundWords.aboutRounds}
      margin={
        <>
          <MarginTitle>{editRoundWords.aboutRounds}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{editRoundWords.aRoundTakesSeveralStudents}</p>
            <p>{editRoundWords.notEverythingInItMust}</p>
            <p>{editRoundWords.aRoundIsYoursThe}</p>
          </div>
        </>
      }
    >
      <p className="text-small">
        <Link to="/rounds" className="text-ink-2 link">
          {editRoundWords.rounds}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{isNew ? editRoundWords.aNewRound : round.name}</h1>
      <RoundForm key={round.id} round={round} students={students} forms={forms} result={actionData?.result} />
    </Page>
  );
}
