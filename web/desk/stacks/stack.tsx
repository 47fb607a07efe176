import { data, Form, Link } from 'react-router';
import { renderSVG } from 'uqr';
import { z } from 'zod';
import { LARGEST_FILE } from '~/core/entries/evidence';
import { makeStackEntries, newStackLinks, putWork, setStackClosed, stackOf } from '~/server/entries/ratings/stacks';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { Invalid, NotFound } from '~/server/platform/failures';
import { sayNext } from '../../platform/http/cookies';
import { formOf } from '../../platform/http/form-of';
import { idFrom, personOf } from '../../platform/http/request-person';
import type { AboutRoute } from '../../platform/http/routes-known';
import { withErrors } from '../../platform/http/with-errors';
import { FieldMessage } from '../../platform/ui/fields';
import { MarginTitle, Page } from '../../platform/ui/page';
import type { Route } from './+types/stack';
import { PutWork } from './put-work';
import { stackAgreements } from './stack-view';
import { stacksWords, stackWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const stack = await stackOf(database(), actor, idFrom(params.stackId));
  const { id, title, each, isClosed, raters, samples } = stack;
  return {
    ...{ id, title, each, isClosed, raters, discreet },
    samples: samples.map(({ name, initials, ...sample }) => ({ ...sample, name: discreet ? initials : name })),
    agreements: await stackAgreements(database(), stack),
  };
});

/** A file, and what a form puts around it. */
export const handle: AboutRoute = { largestBody: LARGEST_FILE + 64 * 1024 };

const asked = z.discriminatedUnion('intent', [
  z.object({ intent: z.enum(['close', 'open', 'entries']) }),
  z.object({ intent: z.literal('links'), raterId: z.uuid().optional() }),
  z.object({
    intent: z.literal('work'),
    sampleId: z.uuid(),
    text: z.string().default(''),
    file: z.instanceof(File).optional(),
  }),
]);

type Links = { raterId: string; name: string | null; href: string; picture: string }[];

/** Gives raters their links, puts work in, closes, or makes entries. */
export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, wall, now } = personOf(context);
  const id = idFrom(params.stackId);
  const parsed = asked.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) throw new NotFound('No such stack.');
  const { data: wanted } = parsed;
  const answer = (links: Links, problem: { of: string; text: string } | null = null) => ({ links, problem });
  const said = async (text: string) => data(answer([]), { headers: await sayNext({ text }) });
  try {
    switch (wanted.intent) {
      case 'links': {
        const links = await newStackLinks(database(), actor, id, wanted.raterId);
        return data(
          answer(
            links.map(({ raterId, name, token }) => {
              const { href } = new URL(`/stack/${token}`, config.PUBLIC_URL);
              return { raterId, name, href, picture: renderSVG(href, { border: 2 }) };
            }),
          ),
        );
      }
      case 'work': {
        const file = wanted.file && wanted.file.size > 0 ? Buffer.from(await wanted.file.arrayBuffer()) : null;
        await putWork(database(), actor, { id, sampleId: wanted.sampleId, text: wanted.text, file }, now);
        return said(stackWords.putIn);
      }
      case 'entries':
        return said(stackWords.madeEntries(await makeStackEntries(database(), actor, id, { wall, now })));
      default: {
        const isClosed = wanted.intent === 'close';
        await setStackClosed(database(), actor, { id, isClosed }, now);
        return said(isClosed ? stackWords.nowClosed : stackWords.nowOpen);
      }
    }
  } catch (error) {
    if (!(error instanceof Invalid)) throw error;
    const of = wanted.intent === 'work' ? wanted.sampleId : 'form';
    return data(answer([], { of, text: Object.values(error.fields)[0] ?? '' }), { status: 400 });
  }
});

export const meta: Route.MetaFunction = ({ loaderData }) => [{ title: stackWords.pageTitle(loaderData?.title ?? '') }];

type Loaded = Route.ComponentProps['loaderData'];

export default function StackPage({ loaderData, actionData }: Route.ComponentProps) {
  const { id, title, each, isClosed, raters, samples, agreements } = loaderData;
  const problem = actionData?.problem ?? null;
  const entries = samples.filter(({ entryId }) => entryId !== null).length;
  return (
    <Page
      marginName={stackWords.agreement}
      margin={
        <>
          <MarginTitle>{stackWords.agreement}</MarginTitle>
          <Agreements agreements={agreements} />
        </>
      }
    >
      <p className="no-print text-small">
        <Link to="/class/work-samples" className="text-ink-2 link">
          {stacksWords.heading}
        </Link>
      </p>
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="mt-1 text-3xl">{title}</h1>
          <p className="mt-1 text-small text-ink-2">
            {[stacksWords.samples(samples.length), stackWords.each(each), isClosed && stacksWords.closed]
              .filter(Boolean)
              .join(' · ')}
          </p>
        </div>
        <Form method="post" className="no-print flex items-center gap-3">
          <Link to={`/class/work-samples/${id}/pages`} className="tap text-small link">
            {stackWords.pages}
          </Link>
          {isClosed && entries < samples.length && (
            <button type="submit" name="intent" value="entries" className="btn btn-primary">
              {stackWords.makeEntries}
            </button>
          )}
          <button type="submit" name="intent" value={isClosed ? 'open' : 'close'} className="btn">
            {isClosed ? stackWords.openAgain : stackWords.close}
          </button>
        </Form>
      </header>
      <FieldMessage messages={problem?.of === 'form' ? [problem.text] : undefined} />
      <section className="mt-6 max-w-3xl">
        <h2 className="text-lg">{stackWords.workSamples}</h2>
        {!isClosed && <p className="mt-1 text-small text-ink-2">{stackWords.onPaper}</p>}
        <ul className="mt-1">
          {samples.map((sample) => (
            <PutWork
              key={sample.id}
              sample={sample}
              isClosed={isClosed}
              message={problem?.of === sample.id ? problem.text : undefined}
            />
          ))}
        </ul>
      </section>
      <Raters raters={raters} isClosed={isClosed} links={actionData?.links ?? []} />
    </Page>
  );
}

interface RatersProps {
  raters: Loaded['raters'];
  isClosed: boolean;
  links: Links;
}

function Raters({ raters, isClosed, links }: RatersProps) {
  return (
    <section className="mt-8 max-w-3xl">
      <header className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-lg">{stackWords.raters}</h2>
        {!isClosed && (
          <Form method="post" className="no-print">
            <button type="submit" name="intent" value="links" className="btn">
              {stackWords.linksForAll}
            </button>
          </Form>
        )}
      </header>
      {links.length > 0 && <p className="no-print mt-2 text-small text-ink-2">{stackWords.shownOnce}</p>}
      <ul className="mt-1">
        {raters.map((rater) => {
          const link = links.find(({ raterId }) => raterId === rater.id);
          return (
            <li
              key={rater.id}
              className="grid break-inside-avoid items-center gap-x-4 border-b border-dotted border-ink-3/50 py-2 sm:grid-cols-[1fr_auto_auto]"
            >
              <span>
                {rater.name ?? stackWords.noName}
                {!rater.isStaff && <span className="text-small text-ink-2"> {stackWords.classmate}</span>}
              </span>
              <span className="text-small text-ink-2">{stacksWords.rated(rater.rated, rater.turns)}</span>
              {!isClosed && (
                <Form method="post" className="no-print">
                  <input type="hidden" name="raterId" value={rater.id} />
                  <button type="submit" name="intent" value="links" className="tap text-small link">
                    {stackWords.newLink(rater.name ?? stackWords.noName)}
                  </button>
                </Form>
              )}
              {link && (
                <span className="mt-1 flex items-center gap-3 sm:col-span-3">
                  <img
                    src={`data:image/svg+xml;utf8,${encodeURIComponent(link.picture)}`}
                    alt={stackWords.codeOf(link.name ?? stackWords.noName)}
                    className="w-28 rounded-box border border-rule"
                  />
                  <a href={link.href} className="text-small break-all link">
                    {link.href}
                  </a>
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Agreements({ agreements }: { agreements: Loaded['agreements'] }) {
  return (
    <>
      <dl className="grid gap-3">
        {agreements.map(({ key, label, said, alpha }) => (
          <div key={key}>
            <dt className="font-semibold">{label}</dt>
            <dd className="text-small">
              {said}
              {alpha !== null && <span className="block text-ink-2">{stackWords.alpha(alpha)}</span>}
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-4 text-small text-ink-2">{stackWords.aboutAgreement}</p>
    </>
  );
}
