import { z } from 'zod';
import { MOST_IN_ROUND } from '~/core/entries/rounds/round-input';
import { counted } from '~/core/words/counting';
import { type Form, staffForms } from '~/server/entries/forms/forms';
import { observable, observableOf, type Round, roundOf } from '~/server/entries/rounds/rounds';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { idFrom, personOf, type RequestPerson } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import type { NoteForm } from '../forms/use-note';
import { observing, type WantedStudent } from '../load';
import { ObservingPage } from '../observing-page';
import type { Route } from './+types/observe-round';
import { observeRoundWords } from './words';

/** Ids as an address has several of them. */
const ids = z
  .string()
  .transform((text) => text.split('.'))
  .pipe(z.array(z.uuid()).min(1).max(MOST_IN_ROUND));

/** A round that is kept, or one of the goals, or of all goals of the students, that the address names. */
export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const asker = personOf(context);
  const { roundId } = params;
  if (roundId !== undefined) {
    const round = await roundOf(database(), asker.actor, idFrom(roundId));
    const all = round.formIds.length > 0 ? await staffForms(database(), asker.actor) : [];
    const forms = round.formIds.flatMap((id) => all.find((form) => form.id === id) ?? []).map(asNoteForm);
    return goThrough(round.goals, { asker, name: round.name, key: round.id, forms });
  }
  const { searchParams } = new URL(request.url);
  const whole = ids.safeParse(searchParams.get('students'));
  if (whole.success) {
    const all = await observableOf(database(), asker.actor, whole.data);
    const name =
      all.length > MOST_IN_ROUND ? observeRoundWords.theFirst(MOST_IN_ROUND, all.length) : observeRoundWords.aRound;
    // Whoever was pulled together is noted down in words as often as by a goal.
    const forms = (await staffForms(database(), asker.actor)).map(asNoteForm);
    return goThrough(all.slice(0, MOST_IN_ROUND), { asker, name, key: whole.data.join('.'), forms });
  }
  const parsed = ids.safeParse(searchParams.get('goals'));
  if (!parsed.success) throw new NotFound(observeRoundWords.noSuchGoals);
  const goals = await observable(database(), asker.actor, parsed.data);
  return goThrough(goals, { asker, name: observeRoundWords.aRound, key: goals.map(({ id }) => id).join('.') });
});

const asNoteForm = ({ id, version, title, hint, questions }: Form): NoteForm => ({
  id,
  version,
  title,
  hint,
  questions,
});

interface GoThrough {
  asker: RequestPerson;
  name: string;
  key: string;
  forms?: NoteForm[];
}

async function goThrough(goals: Round['goals'], { asker, name, key, forms = [] }: GoThrough) {
  const wanted = new Map<string, string[]>();
  for (const { id, studentId } of goals) wanted.set(studentId, [...(wanted.get(studentId) ?? []), id]);
  const students = [...wanted].map(([studentId, ids]): WantedStudent => ({ studentId, goalIds: ids }));
  return { ...(await observing(database(), asker, students)), name, key, forms };
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: observeRoundWords.pageTitle(loaderData?.name ?? observeRoundWords.aRound) },
];

export default function ObserveRound({ loaderData }: Route.ComponentProps) {
  const { name, key, ...observing } = loaderData;
  const { personId, students } = observing;
  return (
    <ObservingPage
      key={key}
      {...observing}
      title={
        students.length === 0
          ? observeRoundWords.nobodyIsInItNow(name)
          : `${name}, ${counted(students.length, 'student', 'students')}`
      }
      draftKey={`${personId} round ${key}`}
      doneTo="/"
    />
  );
}
