import { Link } from 'react-router';
import type { Route } from './+types/stack-list';
import { withErrorsAtStack } from './at-stack';
import { stackListWords } from './words';

export const loader = withErrorsAtStack(async ({ params }: Route.LoaderArgs, list) => ({
  token: params.token,
  title: list[0]?.title ?? '',
  isClosed: list.some(({ isClosed }) => isClosed),
  samples: list.map(({ sampleId, number, isRated }) => ({ id: sampleId, number, isRated })),
}));

export const meta: Route.MetaFunction = () => [
  { title: stackListWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** What one rater rates: by number, and nothing of whose each is. */
export default function StackList({ loaderData: { token, title, isClosed, samples } }: Route.ComponentProps) {
  const rated = samples.filter(({ isRated }) => isRated).length;
  return (
    <main className="mx-auto max-w-2xl px-5 py-10">
      <h1 className="text-2xl">{title}</h1>
      <p className="mt-1 text-ink-2">{stackListWords.rated(rated, samples.length)}</p>
      {isClosed && <p className="mt-4 alert block">{stackListWords.closed}</p>}
      <ol className="mt-5 grid gap-2">
        {samples.map(({ id, number, isRated }) => (
          <li key={id}>
            <Link
              to={`/stack/${token}/${id}`}
              className="flex min-h-14 items-center justify-between rounded-box border border-rule bg-sheet px-4 py-2 hover:bg-wash"
            >
              <span className="display text-lg">{stackListWords.sample(number)}</span>
              <span className="text-small text-ink-2">{isRated ? stackListWords.isRated : stackListWords.open}</span>
            </Link>
          </li>
        ))}
      </ol>
      {rated === samples.length && !isClosed && <p className="mt-5">{stackListWords.thanks}</p>}
    </main>
  );
}
