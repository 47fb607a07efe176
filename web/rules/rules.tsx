import { data, Form, Link } from 'react-router';
import { z } from 'zod';
import { ruleSentence, scopeWords } from '~/core/rules/rule-sentence';
import { shippedRules } from '~/core/rules/shipped';
import { capitalised } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { offeredForRules } from '~/server/rules/offered';
import { mayChangeRule, rulesOf, switchRule } from '~/server/rules/rules';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/rules';
import { missingIn, namesFrom } from './names';
import { rulesWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, person, discreet } = personOf(context);
  const [rules, offered] = await Promise.all([rulesOf(database(), actor), offeredForRules(database(), actor)]);
  const names = namesFrom(offered);
  return {
    rules: rules.map((one) => {
      const { id, name, rule, scope, isOff, maker, madeBy } = one;
      const isMine = madeBy === actor.personId;
      return {
        // A name of somebody's own may name a child.
        ...{ id, name: discreet ? rulesWords.aRule : name, isOff, maker, isMine },
        mayChange: mayChangeRule(one, actor, person.isSchoolAdmin),
        says: discreet ? rulesWords.hiddenInDiscreet : ruleSentence(rule, names),
        about: discreet ? '' : capitalised(scopeWords(scope, names)),
        // Of others one does not know what there is to choose from.
        missing: isMine && !discreet && scope.of !== 'school' ? missingIn(rule, scope, offered) : [],
      };
    }),
    shipped: shippedRules.map(({ key, name, rule }) => ({ key, name, says: ruleSentence(rule, names) })),
  };
});

const switching = z.object({ id: z.uuid(), intent: z.enum(['off', 'on']) });

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const parsed = switching.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) throw new NotFound('No such rule.');
  const isOff = parsed.data.intent === 'off';
  await switchRule(database(), actor, { id: parsed.data.id, isOff }, now);
  return data(null, { headers: await sayNext({ text: isOff ? rulesWords.switchedOff : rulesWords.switchedOn }) });
});

export const meta: Route.MetaFunction = () => [{ title: rulesWords.pageTitle }];

type Listed = Route.ComponentProps['loaderData']['rules'][number];

/** The rules that somebody may know of, read out, and those to begin from. */
export default function Rules({ loaderData: { rules, shipped } }: Route.ComponentProps) {
  const off = rules.filter(({ isOff }) => isOff);
  return (
    <Page
      marginName={rulesWords.about}
      margin={
        <>
          <MarginTitle>{rulesWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{rulesWords.aboutMarks}</p>
            <p>{rulesWords.aboutOnce}</p>
            <p>{rulesWords.aboutOff}</p>
          </div>
        </>
      }
    >
      <header className="flex flex-wrap items-end justify-between gap-4">
        <h1 className="text-3xl">{rulesWords.rules}</h1>
        <Link to="/rules/new" className="btn btn-primary">
          {rulesWords.newRule}
        </Link>
      </header>
      {rules.length === 0 && <p className="max-w-xl pt-5 text-ink-2">{rulesWords.none}</p>}
      <RuleList rules={rules.filter(({ isOff }) => !isOff)} />
      {off.length > 0 && (
        <details className="mt-6">
          <summary className="tap cursor-pointer text-ink-2">{rulesWords.off(off.length)}</summary>
          <RuleList rules={off} />
        </details>
      )}
      <h2 className="mt-8 text-lg">{rulesWords.toBeginFrom}</h2>
      <ul className="mt-1 max-w-3xl">
        {shipped.map(({ key, name, says }) => (
          <li key={key} className={row}>
            <span className="min-w-60 flex-1">
              <span className="display text-lg">{name}</span>
              <span className="block text-small text-ink-2">{says}</span>
            </span>
            <Link to={`/rules/new?begin=${key}`} className="tap text-small link">
              {rulesWords.begin}
            </Link>
          </li>
        ))}
      </ul>
    </Page>
  );
}

const row = 'flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-dotted border-ink-3/50 py-3';

function RuleList({ rules }: { rules: readonly Listed[] }) {
  return (
    <ul className="mt-4 max-w-3xl">
      {rules.map(({ id, name, says, about, missing, isOff, maker, isMine, mayChange }) => (
        <li key={id} className={row}>
          <span className="min-w-60 flex-1">
            <span className="display text-lg">{name}</span>
            <span className="block">{says}</span>
            <span className="block text-small text-ink-2">
              {[about, !isMine && rulesWords.by(maker), isOff && rulesWords.isOff].filter(Boolean).join(' · ')}
            </span>
            {missing.map((one) => (
              <span key={one} className="block text-small font-semibold text-clay-deep">
                {one}
              </span>
            ))}
          </span>
          {mayChange && (
            <span className="flex items-baseline gap-4 text-small">
              <Link to={`/rules/${id}`} className="tap link">
                {rulesWords.change}
              </Link>
              <Form method="post">
                <input type="hidden" name="id" value={id} />
                <button type="submit" name="intent" value={isOff ? 'on' : 'off'} className="tap link">
                  {isOff ? rulesWords.switchOn : rulesWords.switchOff}
                </button>
              </Form>
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
