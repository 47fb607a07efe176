import { ArrowDown, ArrowUp } from 'lucide-react';
import { data, Form, Link } from 'react-router';
import { renderSVG } from 'uqr';
import { z } from 'zod';
import { counted, listed } from '~/core/words/counting';
import {
  handOn,
  holdAnswer,
  movePresenter,
  newPresentationCode,
  setPresentationClosed,
} from '~/server/desk/presentations';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { sayNext } from '../../platform/http/cookies';
import { formOf as postedForm } from '../../platform/http/form-of';
import { idFrom, personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import { useAskAnew, useLive } from '../../platform/ui/use-live';
import type { Route } from './+types/presentation';
import { type PresentationView, presentationView } from './presentation-view';
import { presentationsWords, presentationWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) =>
  presentationView(database(), personOf(context), idFrom(params.presentationId)),
);

const asked = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('code') }),
  z.object({ intent: z.enum(['close', 'open']) }),
  z.object({ intent: z.enum(['up', 'down']), studentId: z.uuid() }),
  z.object({ intent: z.enum(['hold', 'letGo']), answerId: z.uuid() }),
  z.object({ intent: z.literal('handOn'), presenterId: z.uuid() }),
]);

/** Shows the class's code, closes, reorders, holds an answer back, or hands answers on. */
export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now, school } = personOf(context);
  const id = idFrom(params.presentationId);
  const parsed = asked.safeParse(Object.fromEntries(await postedForm(request)));
  if (!parsed.success) throw new NotFound('No such presentation.');
  const said = async (text: string) => data({ code: null }, { headers: await sayNext({ text }) });
  switch (parsed.data.intent) {
    case 'code': {
      const token = await newPresentationCode(database(), actor, id);
      const { href } = new URL(`/seat/in/${token}`, config.PUBLIC_URL);
      return data({ code: { href, picture: renderSVG(href, { border: 2 }) } });
    }
    case 'close':
    case 'open': {
      const isClosed = parsed.data.intent === 'close';
      await setPresentationClosed(database(), actor, { id, isClosed }, now);
      return said(isClosed ? presentationWords.nowClosed : presentationWords.nowOpen);
    }
    case 'up':
    case 'down':
      await movePresenter(database(), actor, {
        ...{ id, studentId: parsed.data.studentId, by: parsed.data.intent === 'up' ? -1 : 1 },
      });
      return data({ code: null });
    case 'hold':
    case 'letGo': {
      const isHeld = parsed.data.intent === 'hold';
      await holdAnswer(database(), actor, { id, answerId: parsed.data.answerId, isHeld }, now);
      return said(isHeld ? presentationWords.nowHeld : presentationWords.nowLetGo);
    }
    case 'handOn': {
      const when = { now, timeZone: school.timeZone };
      const n = await handOn(database(), actor, { id, presenterId: parsed.data.presenterId }, when);
      return said(presentationWords.nowHandedOn(n));
    }
  }
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: presentationWords.pageTitle(loaderData?.title ?? '') },
];

export default function PresentationPage({ loaderData, actionData }: Route.ComponentProps) {
  const { id, title, isClosed, looksThrough, showsNames, onSeveral, presenters, formTitle } = loaderData;
  const askAnew = useAskAnew();
  useLive((heard) => {
    if (heard.some(({ what }) => what !== 'steps')) askAnew();
  });
  return (
    <Page
      marginName={presentationWords.code}
      margin={<Code isClosed={isClosed} code={actionData?.code ?? null} onSeveral={onSeveral} />}
    >
      <p className="text-small">
        <Link to="/class/feedback" className="text-ink-2 link">
          {presentationsWords.heading}
        </Link>
      </p>
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="mt-1 text-3xl">{title}</h1>
          <p className="mt-1 text-small text-ink-2">
            {[
              formTitle,
              looksThrough ? presentationWords.looked : presentationWords.atOnce,
              showsNames ? presentationWords.withNames : presentationWords.withoutNames,
            ].join(' · ')}
          </p>
        </div>
        <span className="no-print flex items-center gap-3">
          <Link to={`/class/feedback/${id}/edit`} className="tap text-small link">
            {presentationWords.change}
          </Link>
          <Form method="post">
            <button type="submit" name="intent" value={isClosed ? 'open' : 'close'} className="btn">
              {isClosed ? presentationWords.openAgain : presentationWords.close}
            </button>
          </Form>
        </span>
      </header>
      {isClosed && <p className="mt-4 alert block">{presentationWords.isClosed}</p>}
      <ol className="mt-4 max-w-3xl">
        {presenters.map((presenter, at) => (
          <Presenter
            key={presenter.studentId}
            presenter={presenter}
            isFirst={at === 0}
            isLast={at === presenters.length - 1}
            looksThrough={looksThrough}
          />
        ))}
      </ol>
    </Page>
  );
}

interface PresenterProps {
  presenter: PresentationView['presenters'][number];
  isFirst: boolean;
  isLast: boolean;
  looksThrough: boolean;
}

function Presenter({ presenter, isFirst, isLast, looksThrough }: PresenterProps) {
  const { studentId, place, name, isMine, of, missing, waiting, answers } = presenter;
  return (
    <li className="border-b border-rule py-4">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <h2 className="grow text-xl">
          {place}. {name}
        </h2>
        <Form method="post" className="no-print flex">
          <input type="hidden" name="studentId" value={studentId} />
          <button
            type="submit"
            name="intent"
            value="up"
            disabled={isFirst}
            aria-label={presentationWords.earlier(name)}
            className="btn btn-square btn-ghost"
          >
            <ArrowUp size={16} aria-hidden />
          </button>
          <button
            type="submit"
            name="intent"
            value="down"
            disabled={isLast}
            aria-label={presentationWords.later(name)}
            className="btn btn-square btn-ghost"
          >
            <ArrowDown size={16} aria-hidden />
          </button>
        </Form>
        {isMine && waiting > 0 && looksThrough && (
          <Form method="post">
            <input type="hidden" name="presenterId" value={studentId} />
            <button type="submit" name="intent" value="handOn" className="btn btn-primary">
              {presentationWords.handOn(waiting, name)}
            </button>
          </Form>
        )}
      </div>
      <p className="text-small text-ink-2">
        {presentationWords.answered(answers.length, of)}
        {missing.length > 0 && missing.length < of && ` · ${presentationWords.missing(listed(missing))}`}
      </p>
      <ul className="mt-2">
        {answers.map((answer) => (
          <AnswerLine key={answer.id} answer={answer} />
        ))}
      </ul>
    </li>
  );
}

function AnswerLine({ answer }: { answer: PresentationView['presenters'][number]['answers'][number] }) {
  const { id, from, sentence, names, times, isHeld, isHandedOn, isWithdrawn } = answer;
  const state = isWithdrawn
    ? presentationWords.withdrawn
    : isHeld
      ? presentationWords.held
      : isHandedOn
        ? presentationWords.handedOn
        : presentationWords.waits;
  return (
    <li className="grid gap-x-4 border-t border-dotted border-ink-3/40 py-2 sm:grid-cols-[6rem_1fr_auto]">
      <span className="text-small text-ink-2">{from}</span>
      <span className={isHeld || isWithdrawn ? 'text-ink-3' : ''}>
        {sentence}
        {names.length > 0 && (
          <span className="block text-small font-semibold text-clay-deep">
            {presentationWords.names(listed(names))}
          </span>
        )}
      </span>
      <span className="flex items-center gap-3 text-small text-ink-2">
        {times > 1 && presentationWords.corrected}
        {state}
        {!isHandedOn && !isWithdrawn && (
          <Form method="post">
            <input type="hidden" name="answerId" value={id} />
            <button type="submit" name="intent" value={isHeld ? 'letGo' : 'hold'} className="tap link">
              {isHeld ? presentationWords.letGo : presentationWords.hold}
            </button>
          </Form>
        )}
      </span>
    </li>
  );
}

interface CodeProps {
  isClosed: boolean;
  code: { href: string; picture: string } | null;
  onSeveral: string[];
}

/** The class's code, for the wall. It is made anew each time it is shown: nobody comes in by an old photograph of it. */
function Code({ isClosed, code, onSeveral }: CodeProps) {
  return (
    <>
      <MarginTitle>{presentationWords.code}</MarginTitle>
      {code && !isClosed && (
        <>
          <img
            src={`data:image/svg+xml;utf8,${encodeURIComponent(code.picture)}`}
            alt={presentationWords.codeOf(code.href)}
            className="w-full max-w-72 rounded-box border border-rule"
          />
          <p className="mt-2 text-xs break-all text-ink-2">{code.href}</p>
        </>
      )}
      {!isClosed && (
        <Form method="post" className="mt-3">
          <button type="submit" name="intent" value="code" className="btn">
            {code ? presentationWords.anotherCode : presentationWords.showCode}
          </button>
        </Form>
      )}
      <p className="mt-3 text-small text-ink-2">{presentationWords.aboutCode}</p>
      {onSeveral.length > 0 && (
        <p className="mt-3 text-small font-semibold text-clay-deep">
          {presentationWords.onSeveral(listed(onSeveral), counted(onSeveral.length, 'has', 'have'))}
        </p>
      )}
    </>
  );
}
