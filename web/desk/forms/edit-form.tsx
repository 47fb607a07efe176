import { data, Link, redirect } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import type { FormSide, Question } from '~/core/entries/forms/form';
import { formInput, questionToChange } from '~/core/entries/forms/form-input';
import { shippedForm } from '~/core/entries/forms/shipped';
import { formOf, saveForm } from '~/server/entries/forms/forms';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import type { Actor } from '~/server/school/school';
import { sayNext } from '../../platform/http/cookies';
import { formOf as postedForm } from '../../platform/http/form-of';
import { idFrom, personOf } from '../../platform/http/request-person';
import { submitted } from '../../platform/http/submitted';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import { choosableStudents } from '../../students/choosable';
import type { Route } from './+types/edit-form';
import { FormForm, newQuestion } from './form-form';
import { editFormWords } from './words';

interface Begun {
  title: string;
  hint: string;
  side: FormSide;
  questions: Omit<Question, 'id'>[];
}

/** What a new form begins from: another one, one that ships, or nothing. */
async function begunFrom(actor: Actor, search: URLSearchParams): Promise<Begun | null> {
  const from = z.uuid().safeParse(search.get('from'));
  if (from.success) return formOf(database(), actor, from.data);
  return shippedForm(search.get('begin') ?? '') ?? null;
}

/** A form that is one's own, a new one, or a copy. */
export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const known = params.formId ? await formOf(database(), actor, idFrom(params.formId)) : null;
  if (known && !known.isMine) throw new NotFound('No such form.');
  const begun = known ? null : await begunFrom(actor, new URL(request.url).searchParams);
  const copied = begun?.questions.map((question) => questionToChange({ ...question, id: newId() })) ?? [newQuestion()];
  return {
    isNew: known === null,
    form: {
      id: known?.id ?? newId(),
      title: known?.title ?? begun?.title ?? '',
      hint: known?.hint ?? begun?.hint ?? '',
      side: known?.side ?? begun?.side ?? ('staff' as const),
      questions: known ? known.questions.map(questionToChange) : copied,
      studentIds: known?.studentIds ?? [],
    },
    students: await choosableStudents(database(), { actor, discreet }),
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const id = params.formId ? (await formOf(database(), actor, idFrom(params.formId))).id : null;
  const { done, refused } = await submitted(await postedForm(request), formInput, async (input) => {
    await saveForm(database(), actor, { ...input, id: id ?? input.id }, now);
    return id ?? input.id;
  });
  if (refused) return data({ result: refused.data.result }, { status: 400 });
  return redirect(`/class/forms/${done}`, { headers: await sayNext({ text: editFormWords.kept }) });
});

export const meta: Route.MetaFunction = () => [{ title: editFormWords.pageTitle }];

export default function EditForm({ loaderData, actionData }: Route.ComponentProps) {
  const { isNew, form, students } = loaderData;
  return (
    <Page
      marginName={editFormWords.about}
      margin={
        <>
          <MarginTitle>{editFormWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{editFormWords.kinds}</p>
            <p>{editFormWords.outs}</p>
            <p>{editFormWords.versions}</p>
          </div>
        </>
      }
    >
      <p className="text-small">
        <Link to="/class/forms" className="text-ink-2 link">
          {editFormWords.forms}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{isNew ? editFormWords.newForm : form.title}</h1>
      <FormForm key={form.id} isNew={isNew} form={form} students={students} result={actionData?.result} />
    </Page>
  );
}
