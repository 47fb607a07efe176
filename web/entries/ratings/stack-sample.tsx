import { data, Link, redirect } from 'react-router';
import { rateInStack, sampleToRate } from '~/server/entries/ratings/stack-rater';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { formOf } from '../../platform/http/form-of';
import type { Route } from './+types/stack-sample';
import { withErrorsAtSample } from './at-stack';
import { RateForm } from './rate-form';
import { readRating } from './read-rating';
import { TheWork } from './the-work';
import { stackListWords, stackSampleWords } from './words';

export const loader = withErrorsAtSample(async ({ params }: Route.LoaderArgs, sample) => {
  const { text, fileType, rubric, own } = await sampleToRate(database(), sample);
  return {
    ...{ token: params.token, id: sample.sampleId, title: sample.title, number: sample.number },
    ...{ isClosed: sample.isClosed, text, fileType, rubric, own },
  };
});

export const action = withErrorsAtSample(async ({ params, request }: Route.ActionArgs, sample) => {
  const { rubric } = await sampleToRate(database(), sample);
  const read = readRating(await formOf(request), rubric);
  if ('message' in read) return data({ message: read.message }, { status: 400 });
  try {
    await rateInStack(database(), sample, read.rating, now());
  } catch (error) {
    if (!(error instanceof Invalid)) throw error;
    return data({ message: error.fields.form ?? stackSampleWords.notKept }, { status: 400 });
  }
  return redirect(sample.next ? `/stack/${params.token}/${sample.next}` : `/stack/${params.token}`);
});

export const meta: Route.MetaFunction = () => [
  { title: stackListWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** One work sample in view, with its rubric; after it is rated, the next one that is open. */
export default function StackSample({ loaderData, actionData }: Route.ComponentProps) {
  const { token, id, title, number, isClosed, text, fileType, rubric, own } = loaderData;
  return (
    <main className="mx-auto grid max-w-6xl gap-8 px-5 py-8 lg:grid-cols-[1fr_26rem]">
      <div>
        <Link to={`/stack/${token}`} className="tap text-small text-ink-2 link">
          {stackSampleWords.allOf(title)}
        </Link>
        <h1 className="text-2xl">{stackListWords.sample(number)}</h1>
        <TheWork
          number={number}
          text={text}
          file={fileType === null ? null : { type: fileType, href: `/stack/${token}/${id}/file` }}
        />
      </div>
      <div>
        {isClosed ? (
          <p className="alert block">{stackListWords.closed}</p>
        ) : (
          <RateForm key={id} rubric={rubric} intent="rate" before={own ?? undefined} message={actionData?.message} />
        )}
      </div>
    </main>
  );
}
