import { Form, Link } from 'react-router';
import { z } from 'zod';
import { clockTimeField, isoDateField } from '~/core/calendar/date-fields';
import { shortDate } from '~/core/calendar/iso-date';
import { minutesOfDay } from '~/core/calendar/timetable';
import { discreetChoices } from '~/core/goals/discreet';
import { totalCountAgreement, USUAL_AGREEMENT } from '~/core/measures/agreement/agreement';
import { occurrenceAgreement } from '~/core/measures/agreement/occurrence';
import { coefficient, percent } from '~/core/words/counting';
import { choicesOf } from '~/server/entries/incidents/choices';
import { countPairs, countsOf } from '~/server/entries/incidents/counts';
import { minutesOfIncidents, type Naming, namingOf, newestIncidents } from '~/server/entries/incidents/incidents';
import { peopleById } from '~/server/people/people';
import { database } from '~/server/platform/db/current';
import { requireStudent, supportTeam } from '~/server/students/students';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { Labelled } from '../platform/ui/labelled';
import { MarginTitle, Page } from '../platform/ui/page';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/agreement';
import { agreementWords } from './words';

/** A window that two people watched. */
const windowSearch = z
  .object({
    behavior: z.uuid({ error: agreementWords.chooseABehavior }),
    on: isoDateField,
    from: clockTimeField,
    to: clockTimeField,
    interval: z.coerce
      .number({ error: agreementWords.sayHowManyMinutes })
      .positive({ error: agreementWords.sayHowManyMinutes })
      .max(240),
    a: z.uuid({ error: agreementWords.chooseAnObserver }),
    b: z.uuid({ error: agreementWords.chooseAnObserver }),
  })
  .superRefine(({ from, to, a, b }, context) => {
    if (to <= from)
      context.addIssue({ code: 'custom', path: ['to'], message: agreementWords.itEndsAfterItBegins, input: to });
    if (a === b)
      context.addIssue({ code: 'custom', path: ['b'], message: agreementWords.chooseSomebodyElse, input: b });
  });

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const studentId = idFrom(params.studentId);
  const student = await requireStudent(database(), actor, studentId, 'see');
  const asked = Object.fromEntries(new URL(request.url).searchParams);
  const parsed = windowSearch.safeParse(asked);
  const [stored, team, counts, people, incidents] = await Promise.all([
    choicesOf(database(), student.id),
    supportTeam(database(), student.id, actor.today),
    countsOf(database(), [student.id]),
    peopleById(database()),
    newestIncidents(database(), [student.id], parsed.success ? { on: parsed.data.on } : { limit: 500 }),
  ]);
  const choices = discreet ? discreetChoices(stored) : stored;
  const naming = namingOf(choices);
  const minutesBy = (observerId: string, behaviorId: string) =>
    minutesOfIncidents(incidents, naming, { observerId, behaviorId });
  const watch = parsed.success ? parsed.data : null;
  return {
    student: headerStudent(student, { discreet }),
    behaviors: choices
      .filter(({ kind, mergedInto }) => kind === 'behavior' && mergedInto === null)
      .map(({ id, name }) => ({ id, name })),
    team: team.map(({ id, shortName }) => ({ id, name: shortName })),
    asked,
    messages: parsed.success || Object.keys(asked).length === 0 ? {} : z.flattenError(parsed.error).fieldErrors,
    today: actor.today,
    watched: watch && {
      a: people.get(watch.a) ?? '?',
      b: people.get(watch.b) ?? '?',
      agreement: occurrenceAgreement(minutesBy(watch.a, watch.behavior), minutesBy(watch.b, watch.behavior), {
        from: minutesOfDay(watch.from),
        to: minutesOfDay(watch.to),
        interval: watch.interval,
      }),
    },
    pairs: countPairs(counts).map((pair) => pairShown(pair, naming, people)),
    // Days on which somebody noted beside somebody else: where a shared window is likely.
    days: parsed.success
      ? []
      : [...new Set(incidents.filter(({ besideId }) => besideId !== null).map(({ on }) => on))].slice(0, 12),
  };
});

/** What two observers counted in the same stretch, and how far they agree. */
function pairShown({ first, second }: CountPair, { choices }: Naming, people: ReadonlyMap<string, string>) {
  return {
    id: second.id,
    on: second.on,
    behavior: choices.get(second.behaviorId)?.name ?? '?',
    first: { name: people.get(first.observerId) ?? '?', count: first.count },
    second: { name: people.get(second.observerId) ?? '?', count: second.count },
    share: totalCountAgreement(first.count, second.count),
  };
}
type CountPair = ReturnType<typeof countPairs>[number];

export const meta: Route.MetaFunction = () => [{ title: agreementWords.pageTitle }];

export default function Agreement({ loaderData }: Route.ComponentProps) {
  const { student, behaviors, team, asked, messages, watched, pairs, days, today } = loaderData;
  // The union of two forms’ messages, asked by a name that only one may have.
  const problem = (field: string) => (messages as Record<string, string[] | undefined>)[field]?.[0];
  const select = (name: string, label: string, options: { id: string; name: string }[], at: number) => (
    <Labelled label={label} message={problem(name)}>
      <select name={name} defaultValue={asked[name] ?? options[at]?.id} className="select w-full">
        {options.map(({ id, name: said }) => (
          <option key={id} value={id}>
            {said}
          </option>
        ))}
      </select>
    </Labelled>
  );
  return (
    <Page
      marginName={agreementWords.howItIsDone}
      margin={
        <>
          <MarginTitle>{agreementWords.howItIsDone}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{agreementWords.twoPeopleWatchTheSame}</p>
            <p>{agreementWords.usualMark}</p>
            {days.length > 0 && <p>{agreementWords.notedByTwo(days.map(shortDate).join(', '))}</p>}
          </div>
        </>
      }
    >
      <p className="text-small">
        <Link to={`/students/${student.id}/behavior`} className="text-ink-2 link">
          {student.shortName} · {student.isDiscreet ? agreementWords.notes : agreementWords.behavior}
        </Link>
      </p>
      <h1 className="mt-1 text-2xl">
        {agreementWords.twoObservers} <span className="text-small font-normal text-ink-2">{agreementWords.ioa}</span>
      </h1>
      <Form method="get" className="mt-4 grid max-w-3xl grid-cols-2 gap-3 rounded-box bg-wash p-4 sm:grid-cols-4">
        {select('behavior', agreementWords.behavior, behaviors, 0)}
        {select('a', agreementWords.oneObserver, team, 0)}
        {select('b', agreementWords.theOther, team, 1)}
        <Labelled label={agreementWords.date} message={problem('on')}>
          <input type="date" name="on" defaultValue={asked.on ?? today} max={today} className="input w-full" />
        </Labelled>
        <Labelled label={agreementWords.from} message={problem('from')}>
          <input type="time" name="from" defaultValue={asked.from ?? '09:00'} className="input w-full" />
        </Labelled>
        <Labelled label={agreementWords.to} message={problem('to')}>
          <input type="time" name="to" defaultValue={asked.to ?? '10:00'} className="input w-full" />
        </Labelled>
        <Labelled label={agreementWords.intervalsInMinutes} message={problem('interval')}>
          <input name="interval" inputMode="decimal" defaultValue={asked.interval ?? '10'} className="input w-full" />
        </Labelled>
        <button type="submit" className="btn btn-primary self-end">
          {agreementWords.compare}
        </button>
      </Form>
      {watched && <Watched watched={watched} />}
      <section className="mt-8 pb-16">
        <h2 className="mb-1 text-lg">{agreementWords.countsOfTwoObservers}</h2>
        {pairs.length === 0 && <p className="text-ink-2">{agreementWords.noCountWasMadeBy}</p>}
        <ul>
          {pairs.map(({ id, on, behavior, first, second, share }) => (
            <li key={id} className="border-b border-rule py-2">
              {`${shortDate(on)} · ${behavior}: ${first.name} ${first.count}, ${second.name} ${second.count}; `}
              <b>{percent(100 * share)}</b>
              {share < USUAL_AGREEMENT && agreementWords.belowTheUsual80}
            </li>
          ))}
        </ul>
      </section>
    </Page>
  );
}

function Watched({
  watched: { a, b, agreement },
}: {
  watched: NonNullable<Route.ComponentProps['loaderData']['watched']>;
}) {
  const { counts, intervals, perInterval, kappa } = agreement;
  const said = (share: number | null) => (share === null ? agreementWords.notDefined : percent(100 * share));
  const figures: [string, string][] = [
    [agreementWords.intervalByInterval, said(agreement.occurrence)],
    [agreementWords.whereOneOrBothSaw, said(agreement.scored)],
    [agreementWords.whereOneOrBothDid, said(agreement.unscored)],
    [agreementWords.cohens, kappa === null ? agreementWords.notDefined : coefficient(kappa)],
    [agreementWords.totalCount, said(agreement.total)],
    [agreementWords.countInEachInterval, said(agreement.meanPerInterval)],
    [agreementWords.sameCountInEachInterval, said(agreement.exactPerInterval)],
  ];
  return (
    <section className="mt-6" aria-labelledby="agree">
      <h2 id="agree" className="text-lg">
        {agreementWords.howFarTheyAgree}
      </h2>
      {counts.a + counts.b === 0 ? (
        <p className="mt-1 text-ink-2">{agreementWords.neitherNotedItInThis}</p>
      ) : (
        <p className="mt-1">{agreementWords.bothCounted(a, counts.a, b, counts.b, intervals)}</p>
      )}
      <dl className="mt-2 grid max-w-xl grid-cols-[1fr_auto] gap-x-6 gap-y-1">
        {figures.map(([label, value]) => (
          <div key={label} className="contents">
            <dt className="text-ink-2">{label}</dt>
            <dd className="font-semibold">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-2 text-small text-ink-3">
        {agreementWords.inEachInterval(a, perInterval.a.join(' '), b, perInterval.b.join(' '))}
      </p>
    </section>
  );
}
