import { Link, redirect } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { arrivalUpload, MOST_RECORD_BYTES, recordTooLargeWords } from '~/core/student-record/arrival';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { arrivalsOf, receiveRecord } from '~/server/student-record/arrivals';
import { FileField } from '../imports/file-field';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import type { AboutRoute } from '../platform/http/routes-known';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { useFreshId } from '../platform/ui/use-fresh-id';
import type { Route } from './+types/arrivals';
import { arrivalsWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const dayOf = (at: Date) => shortDate(wallTime(at, school.timeZone).on);
  return {
    arrivals: (await arrivalsOf(database(), admin)).map(({ id, fileName, studentName, madeBy, madeAt, doneAt }) => ({
      ...{ id, madeBy, name: discreet ? arrivalsWords.hidden : (studentName ?? fileName) },
      state: doneAt ? arrivalsWords.wasReadIn(dayOf(doneAt)) : arrivalsWords.waits(dayOf(madeAt)),
    })),
  };
});

/** A record, and what a form puts around it. */
export const handle: AboutRoute = { largestBody: MOST_RECORD_BYTES + 64 * 1024 };

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const form = await formOf(request);
  const file = form.get('file');
  const { done, refused } = await submitted(form, arrivalUpload, async (input) => {
    if (!(file instanceof File) || file.size === 0) throw new Invalid({ file: arrivalsWords.chooseFile });
    const bytes = Buffer.from(await file.arrayBuffer());
    await receiveRecord(database(), admin, input, { name: file.name, bytes }, now);
    return input.id;
  });
  if (refused) return refused;
  throw redirect(`/records/${done}`);
});

export const meta: Route.MetaFunction = () => [{ title: arrivalsWords.pageTitle }];

/** The records that arrived from other schools, and the next one. */
export default function Arrivals({ loaderData: { arrivals }, actionData }: Route.ComponentProps) {
  return (
    <Page
      marginName={arrivalsWords.aRecord}
      margin={
        <section aria-label={arrivalsWords.aRecord}>
          <MarginTitle about={arrivalsWords.aboutRecord}>{arrivalsWords.aRecord}</MarginTitle>
          <Upload result={actionData?.result} />
        </section>
      }
    >
      <h1 className="text-3xl">{arrivalsWords.title}</h1>
      <p className="mt-1.5 max-w-2xl text-small text-ink-2">{arrivalsWords.about}</p>
      {arrivals.length === 0 ? (
        <p className="mt-8 text-ink-2">{arrivalsWords.none}</p>
      ) : (
        <ul className="mt-8 pb-20">
          {arrivals.map(({ id, name, state, madeBy }) => (
            <li key={id} className="border-t border-rule">
              <Link to={`/records/${id}`} className="block rounded-field py-3 hover:bg-wash">
                <span className="font-semibold wrap-anywhere">{name}</span>
                <span className="block text-small text-ink-2">{`${state} · ${madeBy}`}</span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </Page>
  );
}

type Result = NonNullable<Route.ComponentProps['actionData']>['result'];

function Upload({ result }: { result: Result | undefined }) {
  const { form, isBusy } = useSchemaForm(arrivalUpload, { id: 'upload', result });
  const id = useFreshId(result);
  return (
    <SchemaForm form={form} hasFiles className="grid gap-4">
      <input type="hidden" name="id" value={id} />
      <FileField
        name="file"
        label={arrivalsWords.file}
        most={{ bytes: MOST_RECORD_BYTES, words: recordTooLargeWords }}
        messages={result?.error?.file ?? undefined}
        accept=".zip,application/zip"
      />
      <button type="submit" className="btn btn-primary" disabled={isBusy || id === ''}>
        {isBusy ? arrivalsWords.reading : arrivalsWords.lookAt}
      </button>
    </SchemaForm>
  );
}
