import { data, Form, Link } from 'react-router';
import { z } from 'zod';
import { shippedForms } from '~/core/entries/forms/shipped';
import { counted } from '~/core/words/counting';
import { formsOf, setFormClosed } from '~/server/entries/forms/forms';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { sayNext } from '../../platform/http/cookies';
import { formOf as postedForm } from '../../platform/http/form-of';
import { personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import { ClassNav } from '../../progress/class-nav';
import type { Route } from './+types/forms';
import { formsWords, sideWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor } = personOf(context);
  const forms = await formsOf(database(), actor);
  return {
    forms: forms.map(({ id, title, side, madeBy, isMine, isClosed, questions, studentIds }) => ({
      ...{ id, title, side, madeBy, isMine, isClosed, questions: questions.length, students: studentIds.length },
    })),
    shipped: shippedForms.map(({ key, title, side, about }) => ({ key, title, side, about })),
  };
});

const closing = z.object({ id: z.uuid(), intent: z.enum(['close', 'open']) });

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const parsed = closing.safeParse(Object.fromEntries(await postedForm(request)));
  if (!parsed.success) throw new NotFound('No such form.');
  const isClosed = parsed.data.intent === 'close';
  await setFormClosed(database(), actor, { id: parsed.data.id, isClosed }, now);
  return data(null, { headers: await sayNext({ text: isClosed ? formsWords.closed : formsWords.openAgain }) });
});

export const meta: Route.MetaFunction = () => [{ title: formsWords.pageTitle }];

type Loaded = Route.ComponentProps['loaderData'];

/** The school's forms, with the answers of each, and those that ship. */
export default function Forms({ loaderData: { forms, shipped } }: Route.ComponentProps) {
  const open = forms.filter(({ isClosed }) => !isClosed);
  const closed = forms.filter(({ isClosed }) => isClosed);
  return (
    <Page
      marginName={formsWords.about}
      margin={
        <>
          <MarginTitle>{formsWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{formsWords.aboutAnswers}</p>
            <p>{formsWords.aboutSides}</p>
            <p>{formsWords.aboutChanges}</p>
          </div>
        </>
      }
    >
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl">{formsWords.forms}</h1>
          <ClassNav />
        </div>
        <Link to="/class/forms/new" className="btn btn-primary">
          {formsWords.newForm}
        </Link>
      </header>
      {forms.length === 0 && <p className="max-w-xl py-6 text-ink-2">{formsWords.none}</p>}
      <FormList forms={open} />
      <h2 className="mt-8 text-lg">{formsWords.toBeginFrom}</h2>
      <ul className="mt-1 max-w-3xl">
        {shipped.map(({ key, title, side, about }) => (
          <li key={key} className={rowClass}>
            <span className="min-w-60 flex-1">
              <span className="display text-lg">{title}</span>
              <span className="block text-small text-ink-2">
                {sideWords[side]} · {about}
              </span>
            </span>
            <Link to={`/class/forms/new?begin=${key}`} className="tap text-small link">
              {formsWords.begin}
            </Link>
          </li>
        ))}
      </ul>
      {closed.length > 0 && (
        <details className="mt-8">
          <summary className="tap cursor-pointer text-ink-2">{formsWords.putAway(closed.length)}</summary>
          <FormList forms={closed} />
        </details>
      )}
    </Page>
  );
}

const rowClass = 'flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-dotted border-ink-3/50 py-3';

function FormList({ forms }: { forms: Loaded['forms'] }) {
  return (
    <ul className="mt-5 max-w-3xl">
      {forms.map((form) => (
        <li key={form.id} className={rowClass}>
          <span className="min-w-60 flex-1">
            <Link to={`/class/forms/${form.id}`} className="display text-lg hover:underline">
              {form.title}
            </Link>
            <span className="block text-small text-ink-2">
              {[
                sideWords[form.side],
                counted(form.questions, 'question', 'questions'),
                form.side === 'self' && formsWords.atDesks(form.students),
                !form.isMine && formsWords.by(form.madeBy),
              ]
                .filter(Boolean)
                .join(' · ')}
            </span>
          </span>
          <span className="flex items-baseline gap-4 text-small">
            {form.isMine && (
              <Link to={`/class/forms/${form.id}/edit`} className="tap link">
                {formsWords.change}
              </Link>
            )}
            <Link to={`/class/forms/new?from=${form.id}`} className="tap link">
              {formsWords.copy}
            </Link>
            {form.isMine && (
              <Form method="post">
                <input type="hidden" name="id" value={form.id} />
                <button type="submit" name="intent" value={form.isClosed ? 'open' : 'close'} className="tap link">
                  {form.isClosed ? formsWords.takeOut : formsWords.close}
                </button>
              </Form>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}
