import { redirect } from 'react-router';
import { v4 as newId } from 'uuid';
import { studentInput } from '~/core/students/student-input';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { addStudent, rosterChoices } from '~/server/students/roster';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/new-student';
import { StudentForm } from './student-form';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, person } = personOf(context);
  await requireSchoolAdmin(database(), actor);
  // The id is made with the form: sent twice, it is one student.
  return { choices: await rosterChoices(database(), actor), personId: person.id, id: newId() };
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const { done, refused } = await submitted(await formOf(request), studentInput, async (input) => {
    await addStudent(database(), admin, input, now);
    return input;
  });
  if (refused) return refused;
  return redirect(`/students/${done.id}`, {
    headers: await sayNext({
      text: `${done.firstName} is on the roster.`,
      link: { to: '/roster/new', label: 'Add another' },
    }),
  });
});

export const meta: Route.MetaFunction = () => [{ title: 'A new student · Gentle Margin' }];

export default function NewStudent({ loaderData: { choices, personId, id }, actionData }: Route.ComponentProps) {
  return (
    <Page
      marginName="About the roster"
      margin={
        <>
          <MarginTitle>A new page</MarginTitle>
          <p className="text-small text-ink-2">
            The student’s page exists as soon as you save, with a tab at the edge for the case manager. Goals come next.
          </p>
        </>
      }
    >
      <h1 className="text-3xl">A new student</h1>
      <StudentForm
        student={{ id, caseManagerId: personId }}
        choices={choices}
        result={actionData?.result}
        backTo="/roster"
      />
    </Page>
  );
}
