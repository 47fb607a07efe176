import { data } from 'react-router';
import { visibilityInput } from '~/core/sharing/visibility-rule';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { saveVisibilityRules, schoolRules } from '~/server/sharing/visibility';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { saveOrStay } from '../platform/ui/use-saving';
import type { Route } from './+types/school-visibility';
import { RulesForm } from './visibility-form';
import { schoolVisibilityWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor } = personOf(context);
  await requireSchoolAdmin(database(), actor);
  return schoolRules(database(), actor.schoolId);
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  await requireSchoolAdmin(database(), actor);
  const { refused } = await submitted(await formOf(request), visibilityInput, (input) =>
    saveVisibilityRules(database(), actor, null, input, now),
  );
  if (refused) return refused;
  return data({ result: undefined }, { headers: await sayNext({ text: schoolVisibilityWords.savedItHoldsForEvery }) });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: schoolVisibilityWords.whatEachReaderSeesGentle }];

export default function SchoolRules({ loaderData: { rules } }: Route.ComponentProps) {
  return (
    <Page
      marginName={schoolVisibilityWords.aboutThisTable}
      margin={
        <>
          <MarginTitle>{schoolVisibilityWords.aboutThisTable}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{schoolVisibilityWords.itHoldsForEveryStudent}</p>
            <p>{schoolVisibilityWords.beCarefulWithNotesAnd}</p>
          </div>
        </>
      }
    >
      <h1 className="text-3xl">{schoolVisibilityWords.whatEachReaderSees}</h1>
      <p className="mt-1.5 text-small text-ink-2">{schoolVisibilityWords.whatEachKindOfReader}</p>
      <RulesForm key={JSON.stringify(rules)} rules={rules} own={[]} />
      <div className="pb-20" />
    </Page>
  );
}
