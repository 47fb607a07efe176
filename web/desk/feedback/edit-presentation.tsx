import { getInputProps, type SubmissionResult } from '@conform-to/react';
import { useRef } from 'react';
import { data, Link, redirect } from 'react-router';
import { v4 as newId } from 'uuid';
import { type PresentationInput, presentationInput } from '~/core/desk/feedback';
import { presentationOf, savePresentation } from '~/server/desk/presentations';
import { formsOf } from '~/server/entries/forms/forms';
import { database } from '~/server/platform/db/current';
import { sayNext } from '../../platform/http/cookies';
import { formOf as postedForm } from '../../platform/http/form-of';
import { idFrom, personOf } from '../../platform/http/request-person';
import { submitted } from '../../platform/http/submitted';
import { withErrors } from '../../platform/http/with-errors';
import { CheckList, SelectField, TextField } from '../../platform/ui/form-fields';
import { GroupButtons } from '../../platform/ui/group-buttons';
import { MarginTitle, Page } from '../../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../../platform/ui/schema-form';
import { choosableStudents } from '../../students/choosable';
import type { Route } from './+types/edit-presentation';
import { editPresentationWords, presentationsWords } from './words';

/** A presentation that is one's own, or a new one. */
export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const known = params.presentationId ? await presentationOf(database(), actor, idFrom(params.presentationId)) : null;
  const forms = (await formsOf(database(), actor)).filter(
    ({ id, side, isClosed }) => side === 'classmates' && (!isClosed || id === known?.formId),
  );
  const members = known?.members ?? [];
  const presenting = members.filter(({ place }) => place !== null);
  return {
    isNew: known === null,
    forms: forms.map(({ id, title }) => ({ id, name: title })),
    presentation: {
      ...{ id: known?.id ?? newId(), title: known?.title ?? '', formId: known?.formId ?? forms[0]?.id ?? '' },
      ...{ showsNames: known?.showsNames ?? false, looksThrough: known?.looksThrough ?? true },
      studentIds: members.map(({ studentId }) => studentId),
      presenterIds: presenting.map(({ studentId }) => studentId),
    },
    students: await choosableStudents(database(), { actor, discreet }),
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const id = params.presentationId
    ? (await presentationOf(database(), actor, idFrom(params.presentationId))).id
    : undefined;
  const { done, refused } = await submitted(await postedForm(request), presentationInput, async (input) => {
    await savePresentation(database(), actor, { ...input, id: id ?? input.id }, now);
    return id ?? input.id;
  });
  if (refused) return data({ result: refused.data.result }, { status: 400 });
  return redirect(`/class/feedback/${done}`, { headers: await sayNext({ text: editPresentationWords.kept }) });
});

export const meta: Route.MetaFunction = () => [{ title: editPresentationWords.pageTitle }];

export default function EditPresentation({ loaderData, actionData }: Route.ComponentProps) {
  const { isNew, presentation, forms } = loaderData;
  return (
    <Page
      marginName={presentationsWords.about}
      margin={
        <>
          <MarginTitle>{presentationsWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{presentationsWords.whereItGoes}</p>
            <p>{presentationsWords.lookThrough}</p>
            <p>{editPresentationWords.order}</p>
          </div>
        </>
      }
    >
      <p className="text-small">
        <Link to="/class/feedback" className="text-ink-2 link">
          {presentationsWords.heading}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{isNew ? editPresentationWords.newOne : presentation.title}</h1>
      {forms.length === 0 ? (
        <p className="mt-4 max-w-xl text-ink-2">
          {editPresentationWords.noForm}{' '}
          <Link to="/class/forms/new?begin=after-presenting" className="link">
            {editPresentationWords.beginForm}
          </Link>
        </p>
      ) : (
        <PresentationForm key={presentation.id} {...loaderData} result={actionData?.result} />
      )}
    </Page>
  );
}

interface PresentationFormProps {
  presentation: PresentationInput;
  forms: { id: string; name: string }[];
  students: { id: string; name: string; groups: string[] }[];
  result: SubmissionResult<string[]> | undefined;
}

function PresentationForm({ presentation, forms, students, result }: PresentationFormProps) {
  const options = { id: 'presentation', result, defaultValue: presentation };
  const { form, fields, isBusy } = useSchemaForm(presentationInput, options);
  const [answering, presenting] = [useRef<HTMLDivElement>(null), useRef<HTMLDivElement>(null)];
  const check = (field: typeof fields.showsNames, label: string) => (
    <label className="flex tap items-center gap-2.5">
      <input {...getInputProps(field, { type: 'checkbox' })} key={field.key} className="checkbox checkbox-sm" />
      {label}
    </label>
  );
  return (
    <SchemaForm isLong form={form} className="mt-5 grid max-w-3xl gap-6 pb-24">
      <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField
          field={fields.title}
          label={editPresentationWords.title}
          placeholder={editPresentationWords.titleExample}
        />
        <SelectField field={fields.formId} label={editPresentationWords.form} options={forms} />
      </div>
      <section ref={answering} className="grid gap-3">
        <CheckList field={fields.studentIds} legend={editPresentationWords.whoAnswers} options={students} />
        <GroupButtons students={students} within={answering} />
      </section>
      <section ref={presenting} className="grid gap-3">
        <CheckList field={fields.presenterIds} legend={editPresentationWords.whoPresents} options={students} />
        <GroupButtons students={students} within={presenting} />
      </section>
      <div>
        {check(fields.looksThrough, editPresentationWords.looksThrough)}
        {check(fields.showsNames, editPresentationWords.showsNames)}
      </div>
      <div className="sticky bottom-0 -mx-2 flex flex-wrap gap-2 border-t border-rule bg-paper px-2 py-3">
        <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
          {editPresentationWords.keep}
        </button>
        <Link to="/class/feedback" className="btn">
          {editPresentationWords.back}
        </Link>
      </div>
    </SchemaForm>
  );
}
