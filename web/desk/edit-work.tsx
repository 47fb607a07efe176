import { data, Link, redirect } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { workInput } from '~/core/desk/steps';
import { saveWork, workOf } from '~/server/desk/works';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { choosableStudents } from '../students/choosable';
import type { Route } from './+types/edit-work';
import { editWorkWords } from './words';
import { newStep, WorkForm } from './work-form';

/** A piece of work that is one's own, a new one, or a copy. */
export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const from = z.uuid().safeParse(new URL(request.url).searchParams.get('from'));
  const known = params.workId ? await workOf(database(), actor, idFrom(params.workId)) : null;
  if (known && !known.isMine) throw new NotFound('No such work.');
  const copied = !known && from.success ? await workOf(database(), actor, from.data) : null;
  const steps = (known ?? copied)?.steps ?? [];
  return {
    isNew: known === null,
    work: {
      id: known?.id ?? newId(),
      title: known?.title ?? copied?.title ?? '',
      steps: steps.length === 0 ? [newStep()] : steps.map((step) => (known ? step : { ...step, id: newId() })),
      studentIds: known?.studentIds ?? [],
    },
    students: await choosableStudents(database(), { actor, discreet }),
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const id = params.workId ? (await workOf(database(), actor, idFrom(params.workId))).id : null;
  const { done, refused } = await submitted(await formOf(request), workInput, async (input) => {
    await saveWork(database(), actor, { ...input, id: id ?? input.id }, now);
    return id ?? input.id;
  });
  if (refused) return data({ result: refused.data.result }, { status: 400 });
  return redirect(`/class/works/${done}`, { headers: await sayNext({ text: editWorkWords.kept }) });
});

export const meta: Route.MetaFunction = () => [{ title: editWorkWords.pageTitle }];

export default function EditWork({ loaderData, actionData }: Route.ComponentProps) {
  const { isNew, work, students } = loaderData;
  return (
    <Page
      marginName={editWorkWords.about}
      margin={
        <>
          <MarginTitle>{editWorkWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{editWorkWords.short}</p>
            <p>{editWorkWords.whileTheyWork}</p>
          </div>
        </>
      }
    >
      <p className="text-small">
        <Link to="/class/works" className="text-ink-2 link">
          {editWorkWords.works}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{isNew ? editWorkWords.newWork : work.title}</h1>
      <WorkForm key={work.id} work={work} students={students} result={actionData?.result} />
    </Page>
  );
}
