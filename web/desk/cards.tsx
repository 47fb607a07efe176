import { Printer } from 'lucide-react';
import { useRef } from 'react';
import { data, Form, redirect, useNavigation } from 'react-router';
import { renderSVG } from 'uqr';
import { z } from 'zod';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { MOST_STUDENTS } from '~/core/desk/steps';
import { discreetStudent } from '~/core/goals/discreet';
import { counted } from '~/core/words/counting';
import { cardsOf, endCard, makeCards } from '~/server/desk/cards';
import { openTurn, TURN_MINUTES } from '~/server/desk/turns';
import { endSession } from '~/server/people/sessions';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { sayNext, sessionCookie, turnCookie } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { GroupButtons, useChosen } from '../platform/ui/group-buttons';
import { MarginTitle, Page } from '../platform/ui/page';
import { ClassNav } from '../progress/class-nav';
import type { Route } from './+types/cards';
import { cardsWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, now, school, discreet } = personOf(context);
  const students = await cardsOf(database(), actor, now);
  return {
    minutes: TURN_MINUTES,
    students: students.map(({ studentId, shortName, initials, groups, card }) => ({
      ...{ id: studentId, groups },
      name: discreet ? discreetStudent({ shortName, initials, firstName: '', lastName: '' }).shortName : shortName,
      card: card && { madeOn: wallTime(card.madeAt, school.timeZone).on, devices: card.devices },
    })),
  };
});

const making = z.object({
  intent: z.literal('make'),
  studentIds: z.array(z.uuid()).min(1, { error: cardsWords.chooseSomebody }).max(MOST_STUDENTS),
  shows: z.enum(['name', 'initials']),
});
const turning = z.object({
  intent: z.literal('turn'),
  studentIds: z.array(z.uuid()).min(1).max(MOST_STUDENTS),
  minutes: z.coerce.number().refine((minutes) => TURN_MINUTES.some((one) => one === minutes)),
});
const ending = z.object({ intent: z.literal('end'), studentId: z.uuid() });

/** Makes cards, whose codes are in this answer and nowhere else; or ends one. */
export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const form = await formOf(request);
  const end = ending.safeParse(Object.fromEntries(form));
  if (end.success) {
    await endCard(database(), actor, end.data.studentId, now);
    return data({ made: [], address: '', message: null }, { headers: await sayNext({ text: cardsWords.ended }) });
  }
  const turn = turning.safeParse({ ...Object.fromEntries(form), studentIds: form.getAll('studentIds') });
  if (turn.success) {
    const token = await openTurn(database(), actor, turn.data, now);
    // A tablet that goes from hand to hand is nobody's account any more.
    const session: unknown = await sessionCookie.parse(request.headers.get('Cookie'));
    if (typeof session === 'string') await endSession(database(), session);
    const headers = new Headers();
    headers.append('Set-Cookie', await turnCookie.serialize(token));
    headers.append('Set-Cookie', await sessionCookie.serialize('', { maxAge: 0 }));
    return redirect('/desk', { headers });
  }
  const make = making.safeParse({ ...Object.fromEntries(form), studentIds: form.getAll('studentIds') });
  if (!make.success) return data({ made: [], address: '', message: cardsWords.chooseSomebody }, { status: 400 });
  const cards = await makeCards(database(), actor, make.data.studentIds, now);
  const made = cards.map(({ studentId, firstName, initials, token, code }) => ({
    ...{ studentId, code, name: make.data.shows === 'name' ? firstName : initials },
    picture: renderSVG(new URL(`/desk/in/${token}`, config.PUBLIC_URL).href, { border: 2 }),
  }));
  const { host } = new URL(config.PUBLIC_URL);
  return data({ made, address: `${host}/desk`, message: null });
});

export const meta: Route.MetaFunction = () => [{ title: cardsWords.pageTitle }];

type Made = NonNullable<Route.ComponentProps['actionData']>['made'];
type Student = Route.ComponentProps['loaderData']['students'][number];

/** The cards with which students come to their own desk. */
export default function Cards({ loaderData: { students, minutes }, actionData }: Route.ComponentProps) {
  const made = actionData?.made ?? [];
  return (
    <Page
      marginName={cardsWords.about}
      margin={
        <>
          <MarginTitle>{cardsWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{cardsWords.whatItOpens}</p>
            <p>{cardsWords.shownOnce}</p>
            <p>{cardsWords.whenLost}</p>
          </div>
        </>
      }
    >
      <header className="no-print">
        <h1 className="text-3xl">{cardsWords.cards}</h1>
        <ClassNav />
      </header>
      {made.length > 0 && <NewCards made={made} address={actionData?.address ?? ''} />}
      {students.length === 0 ? (
        <p className="no-print max-w-xl py-10 text-ink-2">{cardsWords.nobody}</p>
      ) : (
        <StudentCards students={students} minutes={minutes} message={actionData?.message ?? null} />
      )}
    </Page>
  );
}

function NewCards({ made, address }: { made: Made; address: string }) {
  const asPicture = (svg: string) => `data:image/svg+xml;utf8,${encodeURIComponent(svg)}`;
  return (
    <section className="mt-5" aria-label={cardsWords.newCards}>
      <p role="status" className="no-print flex flex-wrap items-center gap-4">
        {cardsWords.printNow(counted(made.length, 'card', 'cards'))}
        <button type="button" onClick={() => window.print()} className="btn btn-primary">
          <Printer size={16} aria-hidden /> {cardsWords.print}
        </button>
      </p>
      <ul className="mt-4 grid grid-cols-1 gap-4 sm:grid-cols-2 print:grid-cols-2">
        {made.map(({ studentId, name, code, picture }) => (
          <li
            key={studentId}
            className="flex break-inside-avoid items-center gap-4 rounded-box border border-rule bg-sheet p-4"
          >
            <img src={asPicture(picture)} alt={cardsWords.squareCodeOf(name)} className="size-28 shrink-0" />
            <span className="grid gap-1">
              <span className="display text-2xl">{name}</span>
              <span className="text-lg font-semibold">{code}</span>
              <span className="text-small text-ink-2">{address}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface StudentCardsProps {
  students: Student[];
  minutes: readonly number[];
  message: string | null;
}

function StudentCards({ students, minutes, message }: StudentCardsProps) {
  const isBusy = useNavigation().state !== 'idle';
  const list = useRef<HTMLDivElement>(null);
  // Nobody is chosen until somebody chooses: a new card ends the one before.
  const { count, recount } = useChosen(list);
  return (
    <div ref={list} className="no-print mt-6 max-w-3xl pb-20">
      <GroupButtons students={students} within={list} onChoose={recount} />
      <ul onChange={recount}>
        {students.map(({ id, name, card }) => (
          <li key={id} className="flex items-center gap-4 border-b border-dotted border-ink-3/50 py-1.5">
            <label className="flex tap min-w-44 grow items-center gap-3">
              <input form="make-cards" type="checkbox" name="studentIds" value={id} className="checkbox checkbox-sm" />
              <span className="display">{name}</span>
            </label>
            <span className="text-small text-ink-2">
              {card ? cardsWords.madeOn(shortDate(card.madeOn)) : cardsWords.noCard}
              {card && card.devices > 1 && (
                <strong className="ml-2 text-clay-deep">{cardsWords.onDevices(card.devices)}</strong>
              )}
              {card && card.devices === 1 && <span className="ml-2">{cardsWords.openNow}</span>}
            </span>
            {card ? (
              <Form method="post">
                <input type="hidden" name="intent" value="end" />
                <button type="submit" name="studentId" value={id} className="tap link text-small">
                  {cardsWords.end(name)}
                </button>
              </Form>
            ) : null}
          </li>
        ))}
      </ul>
      <Form method="post" id="make-cards" className="mt-5 flex flex-wrap items-end gap-4">
        <label className="grid gap-1 text-small font-semibold">
          {cardsWords.onTheCard}
          <select name="shows" className="select w-48 font-normal">
            <option value="name">{cardsWords.firstName}</option>
            <option value="initials">{cardsWords.initials}</option>
          </select>
        </label>
        <button type="submit" name="intent" value="make" disabled={isBusy || count === 0} className="btn btn-primary">
          {cardsWords.make(count)}
        </button>
        <p className="basis-full text-small text-ink-2">{cardsWords.oldOnesEnd}</p>
        <label className="mt-3 grid gap-1 text-small font-semibold">
          {cardsWords.forHowLong}
          <select name="minutes" className="select w-48 font-normal">
            {minutes.map((count) => (
              <option key={count} value={count}>
                {cardsWords.minutes(count)}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" name="intent" value="turn" disabled={isBusy} className="btn">
          {cardsWords.whoseTurn}
        </button>
        <p className="basis-full text-small text-ink-2">{cardsWords.signsOut}</p>
        <p role="alert" className={message ? 'font-semibold text-clay-deep' : 'sr-only'}>
          {message}
        </p>
      </Form>
    </div>
  );
}
