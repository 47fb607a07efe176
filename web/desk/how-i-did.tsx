import { data, Link, redirect } from 'react-router';
import { longDate } from '~/core/calendar/iso-date';
import { type Rating, sideBySide } from '~/core/entries/ratings/ratings';
import { ownWorkSamples, rateOwn } from '~/server/entries/ratings/own';
import { database } from '~/server/platform/db/current';
import { Conflict, NotFound } from '~/server/platform/failures';
import { RateForm } from '../entries/ratings/rate-form';
import { readRating } from '../entries/ratings/read-rating';
import { formOf } from '../platform/http/form-of';
import { idFrom } from '../platform/http/request-person';
import type { Route } from './+types/how-i-did';
import { type Desk, withErrorsAtDesk } from './at-desk';
import { deskWords, howIDidWords } from './words';

async function sampleOf({ studentId, wall }: Desk, id: string) {
  const sample = (await ownWorkSamples(database(), studentId, wall.on)).find((one) => one.id === id);
  if (!sample) throw new NotFound('No such work sample.');
  return sample;
}

export const loader = withErrorsAtDesk(async ({ params }: Route.LoaderArgs, desk) => {
  if (!desk) throw redirect('/desk');
  const { title, madeOn, rubric, own, staff } = await sampleOf(desk, idFrom(params.workSampleId));
  return {
    ...{ title, madeOn: longDate(madeOn), rubric, isRated: own !== null, isRatedByStaff: staff.length > 0 },
    compared: own ? sideBySide(rubric, [own, ...staff]) : [],
    words: [own, ...staff].flatMap((one: Rating | null) =>
      one?.words ? [{ id: one.id, kind: one.kind, words: one.words }] : [],
    ),
  };
});

export const action = withErrorsAtDesk(async ({ params, request }: Route.ActionArgs, desk) => {
  if (!desk) throw redirect('/desk');
  const { id, rubric } = await sampleOf(desk, idFrom(params.workSampleId));
  const read = readRating(await formOf(request), rubric);
  if ('message' in read) return data({ message: read.message }, { status: 400 });
  try {
    await rateOwn(database(), desk, id, read.rating, desk.now);
  } catch (error) {
    if (!(error instanceof Conflict)) throw error;
    return data({ message: howIDidWords.saidAlready }, { status: 409 });
  }
  return data({ message: undefined });
});

export const meta: Route.MetaFunction = () => [
  { title: howIDidWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** What the student thinks of their work, before the teacher's rating is shown; then both side by side. */
export default function HowIDid({ loaderData, actionData }: Route.ComponentProps) {
  const { title, madeOn, rubric, isRated } = loaderData;
  return (
    <main className="mx-auto max-w-xl px-5 py-6 text-lg sm:py-10">
      <Link to="/desk" className="tap text-base text-ink-2 link">
        {deskWords.backToDesk}
      </Link>
      <p className="mt-1 text-base text-ink-2">{howIDidWords.about(title, madeOn)}</p>
      <h1 className="text-3xl">{isRated ? howIDidWords.bothSides : howIDidWords.whatDoYouThink}</h1>
      {isRated ? (
        <BothSides loaderData={loaderData} />
      ) : (
        <div className="mt-5">
          <RateForm rubric={rubric} intent="rate" message={actionData?.message} />
        </div>
      )}
    </main>
  );
}

type Loaded = Route.ComponentProps['loaderData'];

function BothSides({ loaderData: { compared, words, isRatedByStaff } }: { loaderData: Loaded }) {
  return (
    <>
      {!isRatedByStaff && <p className="mt-3">{howIDidWords.notYet}</p>}
      {compared.map(({ key, label, cells: [own, ...staff] }) => (
        <section key={key} className="mt-5 rounded-box border border-rule bg-sheet p-4">
          <h2 className="text-xl">{label}</h2>
          <dl className="mt-2 grid gap-2">
            <Said who={howIDidWords.i} cell={own ?? null} />
            {staff.map((cell, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: raters stand in one order
              <Said key={i} who={howIDidWords.myTeacher} cell={cell} />
            ))}
          </dl>
        </section>
      ))}
      {words.map(({ id, kind, words: said }) => (
        <p key={id} className="mt-4">
          <strong>{kind === 'student' ? howIDidWords.i : howIDidWords.myTeacher}</strong> {said}
        </p>
      ))}
    </>
  );
}

/** Points are never shown without the words that explain them. */
function Said({ who, cell }: { who: string; cell: { points: number; words: string } | null }) {
  return (
    <div className="grid grid-cols-[7rem_1fr] gap-3">
      <dt className="text-ink-2">{who}</dt>
      <dd>{cell ? howIDidWords.level(cell.points, cell.words) : howIDidWords.leftOut}</dd>
    </div>
  );
}
