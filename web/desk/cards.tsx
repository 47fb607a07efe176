import { Printer } from 'lucide-react';
import { data, Form, useNavigation } from 'react-router';
import { renderSVG } from 'uqr';
import { z } from 'zod';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { MOST_STUDENTS } from '~/core/desk/steps';
import { discreetStudent } from '~/core/goals/discreet';
import { counted } from '~/core/words/counting';
import { cardsOf, endCard, makeCards } from '~/server/desk/cards';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { ClassNav } from '../progress/class-nav';
import type { Route } from './+types/cards';
import { cardsWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, now, school, discreet } = personOf(context);
  const students = await cardsOf(database(), actor, now);
  return {
    students: students.map(({ studentId, shortName, initials, groups, card }) => ({
      ...{ studentId, groups },
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
export default function Cards({ loaderData: { students }, actionData }: Route.ComponentProps) {
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
        <StudentCards students={students} message={actionData?.message ?? null} />
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

function StudentCards({ students, message }: { students: Student[]; message: string | null }) {
  const isBusy = useNavigation().state !== 'idle';
  return (
    <div className="no-print mt-6 max-w-3xl pb-20">
      <ul>
        {students.map(({ studentId, name, card }) => (
          <li key={studentId} className="flex items-center gap-4 border-b border-dotted border-ink-3/50 py-1.5">
            <label className="flex tap min-w-44 grow items-center gap-3">
              <input
                form="make-cards"
                type="checkbox"
                name="studentIds"
                value={studentId}
                defaultChecked={card === null}
                className="checkbox checkbox-sm"
              />
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
                <button type="submit" name="studentId" value={studentId} className="tap link text-small">
                  {cardsWords.end(name)}
                </button>
              </Form>
            ) : null}
          </li>
        ))}
      </ul>
      <Form method="post" id="make-cards" className="mt-5 flex flex-wrap items-end gap-4">
        <input type="hidden" name="intent" value="make" />
        <label className="grid gap-1 text-small font-semibold">
          {cardsWords.onTheCard}
          <select name="shows" className="select w-48 font-normal">
            <option value="name">{cardsWords.firstName}</option>
            <option value="initials">{cardsWords.initials}</option>
          </select>
        </label>
        <button type="submit" disabled={isBusy} className="btn btn-primary">
          {cardsWords.make}
        </button>
        <p role="alert" className={message ? 'font-semibold text-clay-deep' : 'sr-only'}>
          {message}
        </p>
      </Form>
    </div>
  );
}
