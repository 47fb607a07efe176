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
import { newStudentWords } from './words';

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
      text: newStudentWords.isOnTheRoster(done.firstName),
      link: { to: '/roster/new', label: newStudentWords.addAnother },
    }),
  });
});

export const meta: Route.MetaFunction = () => [{ title: newStudentWords.pageTitle }];

export default function NewStudent({ loaderData: { choices, personId, id }, actionData }: Route.ComponentProps) {
  return (
    <Page
      marginName={newStudentWords.aboutTheRoster}
      margin={
        <>
          <MarginTitle>{newStudentWords.aNewPage}</MarginTitle>
          <p className="text-small text-ink-2">{newStudentWords.theStudentsPageExistsAs}</p>
        </>
      }
    >
      <h1 className="text-3xl">{newStudentWords.aNewStudent}</h1>
      <StudentForm
        student={{ id, caseManagerId: personId }}
        choices={choices}
        result={actionData?.result}
        backTo="/roster"
      />
    </Page>
  );
}
