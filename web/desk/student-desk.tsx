import { data, Form, Link, useNavigation } from 'react-router';
import { z } from 'zod';
import { canBeLogged, deskShows } from '~/core/desk/log';
import { discreetGoal } from '~/core/goals/discreet';
import { deskGoals, saveDeskGoals } from '~/server/desk/log';
import { database } from '~/server/platform/db/current';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { ReadersNav } from '../sharing/sharing-nav';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/student-desk';
import { studentDeskWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const goals = await deskGoals(database(), student.id);
  return {
    student: headerStudent(student, { discreet }),
    goals: goals.map(({ goal, shows, plain, selfCounts }) => {
      const { id, number, shortName } = discreet ? discreetGoal(goal) : goal;
      return { id, name: `${number} ${shortName}`, shows, plain, selfCounts, canBeLogged: canBeLogged(goal.measure) };
    }),
  };
});

const choice = z.object({
  goalId: z.uuid(),
  shows: z.enum(deskShows),
  plain: z.string().trim().max(80),
  selfCounts: z.boolean(),
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const { id } = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const form = await formOf(request);
  const choices = form.getAll('goalId').map((goalId) => ({
    ...{ goalId, shows: form.get(`shows ${goalId}`), plain: form.get(`plain ${goalId}`) ?? '' },
    selfCounts: form.has(`counts ${goalId}`) || !form.has(`asks ${goalId}`),
  }));
  const parsed = z.array(choice).safeParse(choices);
  if (!parsed.success) return data(null, { status: 400 });
  await saveDeskGoals(database(), actor, id, parsed.data, now);
  return data(null, { headers: await sayNext({ text: studentDeskWords.saved }) });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: studentDeskWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

/** Which goals stand on the student's desk, in which words, and whether what they enter counts. */
export default function StudentDesk({ loaderData: { student, goals } }: Route.ComponentProps) {
  const isBusy = useNavigation().state !== 'idle';
  return (
    <Page
      marginName={studentDeskWords.about}
      margin={
        <>
          <MarginTitle>{studentDeskWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{studentDeskWords.aboutWords}</p>
            <p>{studentDeskWords.aboutLog}</p>
            <p>{studentDeskWords.aboutCounts}</p>
            <p>
              <Link to="/class/cards" className="link">
                {studentDeskWords.cards}
              </Link>
            </p>
          </div>
        </>
      }
    >
      <StudentHeader student={student} />
      <ReadersNav studentId={student.id} />
      <h2 className="mt-5 text-2xl">{studentDeskWords.title}</h2>
      {goals.length === 0 ? (
        <p className="py-8 text-ink-2">{studentDeskWords.noGoals}</p>
      ) : (
        <Form method="post" className="mt-3 max-w-3xl pb-16">
          {goals.map((goal) => (
            <fieldset
              key={goal.id}
              className="grid items-end gap-x-4 gap-y-2 border-b border-dotted border-ink-3/50 pb-4 sm:grid-cols-[14rem_1fr_13rem]"
            >
              <legend className="display pt-4 pb-1">{goal.name}</legend>
              <input type="hidden" name="goalId" value={goal.id} />
              <label className="grid gap-1 text-small font-semibold">
                {studentDeskWords.shows}
                <select name={`shows ${goal.id}`} defaultValue={goal.shows} className="select w-full font-normal">
                  {deskShows
                    .filter((shows) => shows !== 'log' || goal.canBeLogged)
                    .map((shows) => (
                      <option key={shows} value={shows}>
                        {studentDeskWords.showsWords[shows]}
                      </option>
                    ))}
                </select>
              </label>
              <label className="grid gap-1 text-small font-semibold">
                {studentDeskWords.inWords}
                <input
                  name={`plain ${goal.id}`}
                  defaultValue={goal.plain}
                  maxLength={80}
                  autoComplete="off"
                  className="input w-full font-normal"
                />
              </label>
              {goal.canBeLogged && (
                <label className="flex tap items-center gap-2.5 text-small">
                  <input type="hidden" name={`asks ${goal.id}`} value="1" />
                  <input
                    type="checkbox"
                    name={`counts ${goal.id}`}
                    defaultChecked={goal.selfCounts}
                    className="checkbox checkbox-sm"
                  />
                  {studentDeskWords.counts}
                </label>
              )}
            </fieldset>
          ))}
          <button type="submit" disabled={isBusy} className="btn btn-primary mt-5">
            {studentDeskWords.save}
          </button>
        </Form>
      )}
    </Page>
  );
}
