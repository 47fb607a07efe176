import { data, Link } from 'react-router';
import { v4 as newId } from 'uuid';
import { choicesInput } from '~/core/entries/incidents/choice';
import { choicesInForm, saveChoices } from '~/server/entries/incidents/edit-choices';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { locationsOf } from '~/server/school/school';
import { sayNext } from '../../platform/http/cookies';
import { formOf } from '../../platform/http/form-of';
import { personOf } from '../../platform/http/request-person';
import { submitted } from '../../platform/http/submitted';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import type { Route } from './+types/school-choices';
import { ChoicesForm } from './choices-form';
import { schoolChoicesWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor } = personOf(context);
  const { input } = await choicesInForm(database(), actor, null, newId);
  return { input, locations: await locationsOf(database(), actor.schoolId) };
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  await requireSchoolAdmin(database(), actor);
  const { refused } = await submitted(await formOf(request), choicesInput, (input) =>
    saveChoices(database(), actor, null, input, now),
  );
  if (refused) return refused;
  return data({ result: undefined }, { headers: await sayNext({ text: schoolChoicesWords.theStartingListsAreSaved }) });
});

export const meta: Route.MetaFunction = () => [{ title: schoolChoicesWords.pageTitle }];

export default function SchoolChoices({ loaderData: { input, locations }, actionData }: Route.ComponentProps) {
  return (
    <Page
      marginName={schoolChoicesWords.whatTheyAreFor}
      margin={
        <>
          <MarginTitle>{schoolChoicesWords.whatTheyAreFor}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{schoolChoicesWords.aStudentWhoseBehaviorBegins}</p>
            <p>{schoolChoicesWords.aChangeHereChangesNo}</p>
            <p>
              <Link to="/school" className="font-semibold link">
                {schoolChoicesWords.toTheSchool}
              </Link>
            </p>
          </div>
        </>
      }
    >
      <h1 className="text-3xl">{schoolChoicesWords.startingLists}</h1>
      <ChoicesForm
        input={input}
        locations={locations}
        result={actionData?.result}
        isForStudent={false}
        backTo="/school"
      />
    </Page>
  );
}
