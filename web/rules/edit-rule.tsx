import { Link, redirect } from 'react-router';
import { v4 as newId } from 'uuid';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { type Rule, type RuleScope, ruleInput } from '~/core/rules/rule';
import { shippedRules } from '~/core/rules/shipped';
import { readable } from '~/core/words/readable';
import { database } from '~/server/platform/db/current';
import { Invalid, NotFound } from '~/server/platform/failures';
import { offeredForRules } from '~/server/rules/offered';
import { tellsOften } from '~/server/rules/preview';
import { mayChangeRule, ruleOf, saveRule, versionsOf } from '~/server/rules/rules';
import { sayNext } from '../platform/http/cookies';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { saveOrStay } from '../platform/ui/use-saving';
import type { Route } from './+types/edit-rule';
import { messagesFrom } from './messages-from';
import { RuleForm } from './rule-form';
import { editRuleWords } from './words';

const blank: Rule = {
  when: { trigger: 'goalEntry', fulfils: 'all', conditions: [{ is: 'figure', comparison: 'below', value: 50 }] },
  does: { mark: { word: '', look: 'line' }, followUp: null, message: null },
};

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, person, school, discreet } = personOf(context);
  const stands = params.ruleId ? await ruleOf(database(), actor, idFrom(params.ruleId)) : null;
  if (stands && !mayChangeRule(stands, actor, person.isSchoolAdmin)) throw new NotFound('No such rule.');
  const search = new URL(request.url).searchParams;
  const shipped = shippedRules.find(({ key }) => key === search.get('begin'));
  const offered = await offeredForRules(database(), actor);
  const studentId = offered.students.find(({ id }) => id === search.get('student'))?.id;
  const scope: RuleScope = studentId ? { of: 'student', studentId } : { of: 'mine' };
  const versions = stands ? await versionsOf(database(), stands.id) : [];
  const id = stands?.id ?? newId();
  const begun = {
    ...{ id, name: stands?.name ?? shipped?.name ?? '', scope: stands?.scope ?? scope },
    rule: stands?.rule ?? shipped?.rule ?? blank,
  };
  return {
    isNew: stands === null,
    isSchoolAdmin: person.isSchoolAdmin,
    offered: discreet ? null : offered,
    begun: discreet ? { id, name: '', scope: { of: 'mine' as const }, rule: blank } : begun,
    versions: versions.map(({ version, madeBy, madeAt }) =>
      editRuleWords.version(version, madeBy, shortDate(wallTime(madeAt, school.timeZone).on)),
    ),
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now, school } = personOf(context);
  const body = await jsonOf(request);
  const parsed = readable(ruleInput).safeParse(body);
  if (!parsed.success) return refusedWith(messagesFrom(parsed.error));
  const id = params.ruleId ? (await ruleOf(database(), actor, idFrom(params.ruleId))).id : parsed.data.id;
  const input = { ...parsed.data, id };
  const often = input.mayTellOften ? null : await tellsOften(database(), actor, input, school.calendar);
  if (often !== null) return refusedWith({ mayTellOften: editRuleWords.tellsOften(often) });
  try {
    await saveRule(database(), actor, input, now);
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    throw error;
  }
  return redirect('/rules', { headers: await sayNext({ text: editRuleWords.kept }) });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: editRuleWords.pageTitle }];

export default function EditRule({ loaderData }: Route.ComponentProps) {
  const { begun, isNew, isSchoolAdmin, offered, versions } = loaderData;
  return (
    <Page
      marginName={editRuleWords.versions}
      margin={
        <>
          <MarginTitle>{editRuleWords.versions}</MarginTitle>
          {versions.length === 0 ? (
            <p className="text-small text-ink-2">{editRuleWords.newRule}</p>
          ) : (
            <ul className="grid gap-1 text-small text-ink-2">
              {versions.map((one) => (
                <li key={one}>{one}</li>
              ))}
            </ul>
          )}
        </>
      }
    >
      <p className="text-small">
        <Link to="/rules" className="text-ink-2 link">
          {editRuleWords.rules}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{isNew ? editRuleWords.newRule : begun.name || editRuleWords.aRule}</h1>
      {offered ? (
        <RuleForm key={begun.id} {...{ begun, isNew, isSchoolAdmin, offered }} />
      ) : (
        <p className="py-6 text-ink-2">{editRuleWords.notInDiscreet}</p>
      )}
    </Page>
  );
}
