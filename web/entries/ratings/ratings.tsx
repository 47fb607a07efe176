import { data, Link } from 'react-router';
import { z } from 'zod';
import { longDate } from '~/core/calendar/iso-date';
import { raterNames, ratingLinkInput, sideBySide, spreadWords, workSampleInput } from '~/core/entries/ratings/ratings';
import { addWorkSample, askRater, makeEntry, rateAsStaff, workSamplesOf } from '~/server/entries/ratings/ratings';
import { goalOf } from '~/server/goals/goals';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { Conflict, Invalid, NotFound } from '~/server/platform/failures';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../../platform/http/cookies';
import { formOf } from '../../platform/http/form-of';
import { idFrom, personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import type { Route } from './+types/ratings';
import { RateForm } from './rate-form';
import { readRating } from './read-rating';
import { ratingsWords } from './words';
import { AskForm, EntryForm, WorkSampleForm } from './work-sample-forms';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, now, person, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'see');
  const goal = await goalOf(database(), student.id, idFrom(params.goalId));
  const workSamples = await workSamplesOf(database(), student, goal.id, now);
  return {
    student: { id: student.id, shortName: discreet ? student.initials : student.shortName },
    goal: { id: goal.id, number: goal.number, shortName: discreet ? ratingsWords.goal(goal.number) : goal.shortName },
    today: actor.today,
    mayRate: can(student, 'observe') && goal.retired === null,
    workSamples: workSamples.map(({ rubric, ratings, ...workSample }) => {
      const mine = ratings.find(({ kind, name }) => kind === 'staff' && name === person.shortName);
      return {
        ...workSample,
        rubric,
        raters: raterNames(ratings).map((name, i) => ({ name, words: ratings[i]?.words ?? '' })),
        criteria: sideBySide(rubric, ratings).map((one) => ({ ...one, said: spreadWords(one) })),
        mine: mine && { points: mine.points, words: mine.words },
      };
    }),
  };
});

const workSampleId = z.uuid();

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, wall, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  const goalId = idFrom(params.goalId);
  const student = await requireStudent(database(), actor, studentId, 'observe');
  const workSamples = await workSamplesOf(database(), student, goalId, now);
  const form = await formOf(request);
  const intent = String(form.get('intent'));
  const of = String(form.get('workSampleId') ?? '');
  const answer = (problem: { field: string; text: string } | null, link: string | null = null) =>
    data({ intent, of, problem, link }, { status: problem ? 400 : 200 });
  const wrong = (error: z.ZodError) => {
    const issue = error.issues[0];
    return answer({ field: String(issue?.path[0] ?? ''), text: issue?.message ?? '' });
  };
  try {
    if (intent === 'workSample') {
      const parsed = workSampleInput.safeParse(Object.fromEntries(form));
      if (!parsed.success) return wrong(parsed.error);
      await addWorkSample(database(), actor, { studentId, goalId }, parsed.data, now);
      return answer(null);
    }
    const workSample = workSampleId.safeParse(of);
    const known = workSample.success && workSamples.find(({ id }) => id === workSample.data);
    if (!known) throw new NotFound(ratingsWords.noSuchWorkSample);
    if (intent === 'rate') {
      const read = readRating(form, known.rubric);
      if ('message' in read) return answer({ field: 'points', text: read.message });
      await rateAsStaff(database(), actor, studentId, known.id, read.rating, now);
      return answer(null);
    }
    if (intent === 'ask') {
      const parsed = ratingLinkInput.safeParse(Object.fromEntries(form));
      if (!parsed.success) return wrong(parsed.error);
      const token = await askRater(database(), actor, studentId, known.id, parsed.data, now);
      return answer(null, token && `${config.PUBLIC_URL}/rate/${token}`);
    }
    const entry = workSampleId.safeParse(form.get('id'));
    if (intent !== 'entry' || !entry.success) throw new NotFound(ratingsWords.noSuchAddress);
    await makeEntry(database(), actor, studentId, { workSampleId: known.id, entryId: entry.data }, { wall, now });
    const headers = await sayNext({ text: ratingsWords.theRatingsAreAnEntry });
    return data({ intent, of, problem: null, link: null }, { headers });
  } catch (error) {
    if (error instanceof Invalid)
      return answer({ field: Object.keys(error.fields)[0] ?? '', text: Object.values(error.fields)[0] ?? '' });
    if (error instanceof Conflict) return answer({ field: '', text: ratingsWords.thisWorkSampleIsAn });
    throw error;
  }
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: ratingsWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

type WorkSampleOf = Route.ComponentProps['loaderData']['workSamples'][number];
type Answer = Route.ComponentProps['actionData'];

export default function Ratings({ loaderData, actionData }: Route.ComponentProps) {
  const { student, goal, today, mayRate, workSamples } = loaderData;
  return (
    <Page
      marginName={ratingsWords.anotherWorkSample}
      margin={
        mayRate ? (
          <>
            <MarginTitle about={ratingsWords.oneWorkSampleRatedBy}>{ratingsWords.anotherWorkSample}</MarginTitle>
            <WorkSampleForm
              key={workSamples.length}
              today={today}
              problem={actionData?.intent === 'workSample' ? actionData.problem : null}
            />
          </>
        ) : (
          <MarginTitle>{ratingsWords.ratedBySeveral}</MarginTitle>
        )
      }
    >
      <p className="text-small">
        <Link to={`/students/${student.id}`} className="text-ink-2 link">
          {student.shortName}
        </Link>{' '}
        ·{' '}
        <Link to={`/students/${student.id}/goals/${goal.id}`} className="text-ink-2 link">
          {goal.number} · {goal.shortName}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{ratingsWords.ratedBySeveral}</h1>
      {workSamples.length === 0 && <p className="py-8 text-ink-2">{ratingsWords.noWorkSampleHasBeen}</p>}
      <div className="pb-20">
        {workSamples.map((workSample) => (
          <WorkSampleSection
            key={workSample.id}
            workSample={workSample}
            studentId={student.id}
            mayRate={mayRate && workSample.entryId === null}
            answer={actionData?.of === workSample.id ? actionData : undefined}
          />
        ))}
      </div>
    </Page>
  );
}

interface WorkSampleSectionProps {
  workSample: WorkSampleOf;
  studentId: string;
  mayRate: boolean;
  answer: Answer;
}

function WorkSampleSection({ workSample, studentId, mayRate, answer }: WorkSampleSectionProps) {
  const { id, title, madeOn, raters, asked, mine, entryId, rubric } = workSample;
  return (
    <section aria-label={title} className="mt-8">
      <h2 className="border-b border-rule pb-1.5 text-xl">{title}</h2>
      <p className="mt-1 text-small text-ink-2">
        {longDate(madeOn)}
        {asked.length > 0 &&
          ratingsWords.asked(asked.map(({ label, isOver }) => (isOver ? ratingsWords.linkEnded(label) : label)))}
        {entryId && (
          <>
            {' · '}
            <Link to={`/students/${studentId}/entries/${entryId}`} className="link">
              {ratingsWords.itsEntry}
            </Link>
          </>
        )}
      </p>
      {raters.length > 0 && <SideBySide workSample={workSample} />}
      {mayRate && (
        <div className="mt-4 grid gap-3">
          <details open={answer?.intent === 'rate' && answer.problem !== null}>
            <summary className="tap py-1.5 font-semibold">
              {mine ? ratingsWords.changeMyRating : ratingsWords.rateItMyself}
              <span className="sr-only">: {title}</span>
            </summary>
            <div className="mt-3 max-w-2xl">
              <RateForm
                key={JSON.stringify(mine ?? null)}
                rubric={rubric}
                intent="rate"
                workSampleId={id}
                before={mine}
                message={answer?.intent === 'rate' ? answer.problem?.text : undefined}
              />
            </div>
          </details>
          <details open={answer?.intent === 'ask'}>
            <summary className="tap py-1.5 font-semibold">
              {ratingsWords.askAPeerOrThe}
              <span className="sr-only">{ratingsWords.toRate(title)}</span>
            </summary>
            <AskForm key={asked.length} workSampleId={id} answer={answer?.intent === 'ask' ? answer : undefined} />
          </details>
          {raters.length > 0 && <EntryForm workSampleId={id} title={title} />}
        </div>
      )}
    </section>
  );
}

function SideBySide({ workSample: { title, raters, criteria } }: { workSample: WorkSampleOf }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard
    <section tabIndex={0} aria-label={ratingsWords.sideBySide(title)} className="mt-3 overflow-x-auto">
      <table className="table table-sm [&_td]:align-top [&_th]:align-top">
        <thead>
          <tr className="text-ink-2">
            <td />
            {raters.map(({ name }, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a rater is their column
              <th key={i} scope="col" className="min-w-32 text-ink">
                {name}
              </th>
            ))}
            <th scope="col" className="min-w-32">
              {ratingsWords.together}
            </th>
          </tr>
        </thead>
        <tbody>
          {criteria.map(({ key, label, cells, said }) => (
            <tr key={key}>
              <th scope="row">{label}</th>
              {cells.map((cell, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a rater is their column
                <td key={i}>
                  {cell ? (
                    <>
                      <span className="font-semibold">{cell.points}</span>
                      <span className="block text-xs text-ink-2">{cell.words}</span>
                    </>
                  ) : (
                    <span className="text-ink-3">{ratingsWords.notRated}</span>
                  )}
                </td>
              ))}
              <td className="font-semibold">{said}</td>
            </tr>
          ))}
          {raters.some(({ words }) => words) && (
            <tr>
              <th scope="row">{ratingsWords.inTheirWords}</th>
              {raters.map(({ words }, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a rater is their column
                <td key={i} className="whitespace-pre-line">
                  {words}
                </td>
              ))}
              <td />
            </tr>
          )}
        </tbody>
      </table>
    </section>
  );
}
