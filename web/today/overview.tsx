import { Link } from 'react-router';
import { longDate } from '~/core/calendar/iso-date';
import { counted } from '~/core/words/counting';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { schoolOverview } from '~/server/today/overview';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { personOf } from '../platform/http/request-person';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/overview';
import { overviewWords } from './overview-words';

export const loader = withErrorsInTurn(async ({ context }: Route.LoaderArgs) => {
  const { actor, school } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  return schoolOverview(database(), admin, { school, folder: config.BACKUP_FOLDER });
});

export const meta: Route.MetaFunction = () => [{ title: overviewWords.pageTitle }];

/** A class of children mistypes no more in an hour. */
const FEW_CARD_WORDS = 100;

type Manager = Route.ComponentProps['loaderData']['managers'][number];

const percent = (value: number | null) => {
  if (value === null) return overviewWords.none;
  // Some is not none.
  return value > 0 && value < 1 ? '<1%' : `${Math.round(value)}%`;
};

/** A column: its heading, and what stands in it, with whether that wants attention. */
const columns: [heading: string, cell: (one: Manager) => string | number, isOpen?: (one: Manager) => boolean][] = [
  [overviewWords.students, ({ students }) => students],
  [overviewWords.goals, ({ goals }) => goals],
  [
    overviewWords.quiet,
    ({ quiet, longest, never }) => overviewWords.quietSaid(quiet, longest, never),
    ({ quiet }) => quiet > 0,
  ],
  [overviewWords.due, ({ reports }) => reports.due],
  [overviewWords.late, ({ reports }) => reports.late, ({ reports }) => reports.late > 0],
  [overviewWords.issued, ({ reports }) => reports.issued],
  [overviewWords.ending, ({ plansEnding }) => plansEnding],
  [overviewWords.without, ({ withoutPlan }) => withoutPlan, ({ withoutPlan }) => withoutPlan > 0],
  [overviewWords.agreement, ({ agreement }) => percent(agreement)],
  [overviewWords.fidelity, ({ fidelity }) => percent(fidelity)],
];

/** What stands open at a school, for whoever sets it up. */
export default function Overview({ loaderData }: Route.ComponentProps) {
  const { managers, accounts, newestBackup, hasNightly, backupProblem, cardWords } = loaderData;
  return (
    <Page
      marginName={overviewWords.school}
      margin={
        <>
          <MarginTitle>{overviewWords.school}</MarginTitle>
          <div className="grid gap-3">
            <p>
              {overviewWords.accounts(accounts.withoutSecondFactor, counted(accounts.all, 'account', 'accounts'))}
              {'. '}
              <Link to="/school/people" className="font-semibold link">
                {overviewWords.toPeople}
              </Link>
            </p>
            <p>{backupSaid(hasNightly, newestBackup)}</p>
            {backupProblem && (
              <p className="font-semibold text-clay-deep">{overviewWords.backupFailed(backupProblem)}</p>
            )}
            {cardWords.wrong >= FEW_CARD_WORDS && (
              <p className={cardWords.wrong >= cardWords.most ? 'font-semibold text-clay-deep' : ''}>
                {overviewWords.cardWords(cardWords)}
              </p>
            )}
          </div>
          <h2 className="mt-8 mb-2 text-lg">{overviewWords.howCounted}</h2>
          <div className="grid gap-3 text-small text-ink-2">
            {overviewWords.counted.map((words) => (
              <p key={words}>{words}</p>
            ))}
          </div>
        </>
      }
    >
      <h1 className="text-3xl">{overviewWords.title}</h1>
      <p className="mt-1.5 max-w-2xl text-small text-ink-2">{overviewWords.about}</p>
      {managers.length === 0 ? (
        <p className="mt-8 text-ink-2">{overviewWords.noStudents}</p>
      ) : (
        <section
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls sideways is scrolled by key too
          tabIndex={0}
          aria-label={overviewWords.byManager}
          className="mt-6 overflow-x-auto pb-20"
        >
          <table className="w-full text-small">
            <caption className="sr-only">{overviewWords.byManager}</caption>
            <thead>
              <tr className="border-b border-rule align-bottom text-ink-2">
                <th scope="col" className="py-2 pr-4 text-left font-semibold">
                  {overviewWords.manager}
                </th>
                {columns.map(([heading]) => (
                  <th key={heading} scope="col" className="min-w-16 py-2 pr-4 text-left font-semibold">
                    {heading}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {managers.map((one) => (
                <tr key={one.id ?? ''} className="border-b border-rule align-baseline">
                  <th scope="row" className="py-2.5 pr-4 text-left text-base font-semibold">
                    {one.name ?? overviewWords.nobody}
                  </th>
                  {columns.map(([heading, cell, isOpen]) => (
                    <td
                      key={heading}
                      className={`py-2.5 pr-4 tabular-nums ${isOpen?.(one) ? 'font-semibold text-clay-deep' : ''}`}
                    >
                      {cell(one)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </Page>
  );
}

function backupSaid(hasNightly: boolean, newest: string | null): string {
  if (!hasNightly) return overviewWords.noNightly;
  return newest === null ? overviewWords.noBackupYet : overviewWords.backup(longDate(newest));
}
