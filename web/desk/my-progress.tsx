import { Link, redirect } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import { amountSaid } from '~/core/measures/cumulative-total/cumulative-total';
import { smallGraphShape } from '~/core/progress/graph/small-graph-shape';
import { criterionSentence } from '~/core/progress/mastery';
import type { Progress } from '~/core/progress/progress';
import { nowText, valueSaid } from '~/core/progress/sentences';
import { figure } from '~/core/words/counting';
import type { Goal } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { SmallGraph } from '../progress/small-graph';
import type { Route } from './+types/my-progress';
import { withErrorsAtDesk } from './at-desk';
import { progressView } from './log-view';
import { deskWords, myProgressWords } from './words';

export const loader = withErrorsAtDesk(async (_: Route.LoaderArgs, desk) => {
  if (!desk) throw redirect('/desk');
  const shown = await progressView(database(), desk);
  return {
    goals: shown.map(({ goal, plain, progress }) => ({
      ...{ id: goal.id, plain, isReached: progress.mastery.metOn !== null },
      ...{ said: whereSaid(goal, progress), next: criterionSentence(goal), until: shortDate(goal.targetOn) },
      shape: progress.points.length > 0 ? smallGraphShape(goal, progress, desk.wall.on) : null,
    })),
  };
});

/** Where the student is: of a total how much there is, else the figure beside its target. */
function whereSaid(goal: Goal, progress: Progress): string {
  const { measure } = goal;
  const amount = progress.points.at(-1)?.amount;
  if (measure.kind === 'cumulativeTotal') {
    return myProgressWords.youHave(figure(amount ?? 0), amountSaid(measure.total, measure.unit));
  }
  const [now, target] = [nowText(goal, progress), valueSaid(goal, goal.target)];
  return now === null ? myProgressWords.notYet(target) : myProgressWords.youAreAt(now, target);
}

export const meta: Route.MetaFunction = () => [
  { title: myProgressWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** Each goal that the teacher has opened to the student, in plain words, with its graph and what comes next. */
export default function MyProgress({ loaderData: { goals } }: Route.ComponentProps) {
  return (
    <main className="mx-auto max-w-xl px-5 py-6 text-lg sm:py-10">
      <Link to="/desk" className="tap text-base text-ink-2 link">
        {deskWords.backToDesk}
      </Link>
      <h1 className="mt-1 text-3xl">{myProgressWords.pageTitle}</h1>
      {goals.length === 0 && <p className="mt-4">{myProgressWords.nothing}</p>}
      {goals.map(({ id, plain, isReached, said, next, until, shape }) => (
        <section key={id} className="mt-6 rounded-box border border-rule bg-sheet p-4">
          <h2 className="text-2xl">{plain}</h2>
          <p className="mt-1">{said}</p>
          {shape && (
            <div className="mt-3 [&_svg]:max-w-full">
              <SmallGraph shape={shape} />
            </div>
          )}
          <p className="mt-2 text-base text-ink-2">
            {isReached ? myProgressWords.reached : `${next} ${myProgressWords.untilWhen(until)}`}
          </p>
        </section>
      ))}
    </main>
  );
}
