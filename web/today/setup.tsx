import { Link } from 'react-router';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/setup';
import { setupWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { person, school } = personOf(context);
  return { isSchoolAdmin: person.isSchoolAdmin, isDemo: school.isDemo, schoolName: school.name };
});

export const meta: Route.MetaFunction = () => [{ title: setupWords.pageTitle }];

type Item = readonly [to: string, title: string, about: string];

const ofTheSchool: Item[] = [
  ['/school/overview', setupWords.overview, setupWords.overviewIs],
  ['/school', setupWords.school, setupWords.schoolIs],
  ['/school/people', setupWords.people, setupWords.peopleIs],
  ['/roster', setupWords.roster, setupWords.rosterIs],
  ['/school/new-year', setupWords.newYear, setupWords.newYearIs],
  ['/records', setupWords.records, setupWords.recordsAre],
  ['/destructions', setupWords.destructions, setupWords.destructionsAre],
  ['/school/choices', setupWords.choices, setupWords.choicesIs],
  ['/school/visibility', setupWords.visibility, setupWords.visibilityIs],
  ['/messages/templates', setupWords.templates, setupWords.templatesIs],
  ['/school/changes', setupWords.changes, setupWords.changesIs],
];
const testMail: Item = ['/messages/test-mail', setupWords.testMail, setupWords.testMailIs];
const ofOnesOwn: Item[] = [
  ['/rounds', setupWords.rounds, setupWords.roundsIs],
  ['/rules', setupWords.rules, setupWords.rulesAre],
  ['/follow-ups', setupWords.followUps, setupWords.followUpsAre],
  ['/class/forms', setupWords.forms, setupWords.formsIs],
  ['/class/cards', setupWords.cards, setupWords.cardsIs],
  ['/imports', setupWords.imports, setupWords.importsAre],
  ['/messages', setupWords.messages, setupWords.messagesIs],
  ['/setup/devices', setupWords.devices, setupWords.devicesAre],
  ['/account', setupWords.account, setupWords.accountIs],
];

/** Where everything is that is set once: the school’s for its administrators, one’s own for everybody. */
export default function Setup({ loaderData: { isSchoolAdmin, isDemo, schoolName } }: Route.ComponentProps) {
  const items = [...(isSchoolAdmin ? [...ofTheSchool, ...(isDemo ? [testMail] : [])] : []), ...ofOnesOwn];
  return (
    <Page
      marginName={setupWords.whoMay}
      margin={
        <>
          <MarginTitle>{setupWords.whoMay}</MarginTitle>
          <p>{setupWords.whoMayWords(schoolName)}</p>
        </>
      }
    >
      <h1 className="text-3xl">{setupWords.setup}</h1>
      <p className="mt-1.5 text-small text-ink-2">{setupWords.whatIsSetOnce}</p>
      <ul className="mt-5 grid gap-x-8 md:grid-cols-2">
        {items.map(([to, title, about]) => (
          <li key={to} className="border-t border-rule">
            <Link to={to} className="block rounded-field py-3 hover:bg-wash">
              <span className="display text-lg">{title}</span>
              <span className="block text-small text-ink-2">{about}</span>
            </Link>
          </li>
        ))}
      </ul>
    </Page>
  );
}
