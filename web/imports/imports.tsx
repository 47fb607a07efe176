import { Link, redirect } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { MOST_FILE_BYTES, tooLargeWords } from '~/core/imports/file-table';
import { type ImportKindName, importKinds, uploadInput } from '~/core/imports/kinds';
import { counted } from '~/core/words/counting';
import { importsOf, uploadImport } from '~/server/imports/imports';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import type { AboutRoute } from '../platform/http/routes-known';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { SelectField } from '../platform/ui/form-fields';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { useFreshId } from '../platform/ui/use-fresh-id';
import type { Route } from './+types/imports';
import { FileField } from './file-field';
import { importsWords, kindNames } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, person, school, discreet } = personOf(context);
  const dayOf = (at: Date | null) => at && shortDate(wallTime(at, school.timeZone).on);
  const all = await importsOf(database(), actor);
  return {
    isSchoolAdmin: person.isSchoolAdmin,
    imports: all.map(({ fileName, madeAt, doneAt, undoneAt, ...one }) => ({
      ...one,
      fileName: discreet ? kindNames[one.kind] : fileName,
      ...{ madeOn: dayOf(madeAt), doneOn: dayOf(doneAt), undoneOn: dayOf(undoneAt) },
    })),
  };
});

/** A file, and what a form puts around it. */
export const handle: AboutRoute = { largestBody: MOST_FILE_BYTES + 64 * 1024 };

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const form = await formOf(request);
  const file = form.get('file');
  const { done, refused } = await submitted(form, uploadInput, async (input) => {
    if (!(file instanceof File) || file.size === 0) throw new Invalid({ file: importsWords.chooseFile });
    const bytes = Buffer.from(await file.arrayBuffer());
    await uploadImport(database(), actor, input, { name: file.name, bytes }, now);
    return input.id;
  });
  if (refused) return refused;
  throw redirect(`/imports/${done}`);
});

export const meta: Route.MetaFunction = () => [{ title: importsWords.pageTitle }];

/** What was carried in from files, and the next file. */
export default function Imports({ loaderData: { imports, isSchoolAdmin }, actionData }: Route.ComponentProps) {
  const offered = importKinds.filter((kind) => kind !== 'roster' || isSchoolAdmin);
  return (
    <Page
      marginName={importsWords.aFile}
      margin={
        <section aria-label={importsWords.aFile}>
          <MarginTitle about={importsWords.aboutFile}>{importsWords.aFile}</MarginTitle>
          <Upload offered={offered} result={actionData?.result} />
        </section>
      }
    >
      <h1 className="text-3xl">{importsWords.title}</h1>
      <p className="mt-1.5 max-w-2xl text-small text-ink-2">{importsWords.about}</p>
      <dl className="mt-5 grid max-w-2xl gap-x-6 gap-y-2 text-small sm:grid-cols-[9rem_1fr]">
        {offered.map((kind) => (
          <div key={kind} className="contents">
            <dt className="font-semibold">{kindNames[kind]}</dt>
            <dd className="text-ink-2">{importsWords.ways[kind]}</dd>
          </div>
        ))}
      </dl>
      {imports.length === 0 ? (
        <p className="mt-8 text-ink-2">{importsWords.none}</p>
      ) : (
        <ul className="mt-8 pb-20">
          {imports.map(({ id, kind, fileName, parts, madeOn, doneOn, undoneOn, madeBy }) => (
            <li key={id} className="border-t border-rule">
              <Link to={`/imports/${id}`} className="block rounded-field py-3 hover:bg-wash">
                <span className="font-semibold">{fileName}</span>
                <span className="block text-small text-ink-2">
                  {[
                    kindNames[kind],
                    doneOn
                      ? importsWords.cameIn(counted(parts, 'row', 'rows'), doneOn)
                      : `${importsWords.notYet}, ${madeOn}`,
                    undoneOn && importsWords.undoneOn(undoneOn),
                    madeBy,
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </Page>
  );
}

type Result = NonNullable<Route.ComponentProps['actionData']>['result'];

function Upload({ offered, result }: { offered: readonly ImportKindName[]; result: Result | undefined }) {
  const { form, fields, isBusy } = useSchemaForm(uploadInput, { id: 'upload', result });
  const id = useFreshId(result);
  return (
    <SchemaForm form={form} hasFiles className="grid gap-4">
      <input type="hidden" name="id" value={id} />
      <SelectField
        field={fields.kind}
        label={importsWords.what}
        none={importsWords.choose}
        options={offered.map((kind) => ({ id: kind, name: kindNames[kind] }))}
      />
      <FileField
        name="file"
        label={importsWords.file}
        most={{ bytes: MOST_FILE_BYTES, words: tooLargeWords }}
        messages={result?.error?.file ?? undefined}
      />
      <button type="submit" className="btn btn-primary" disabled={isBusy || id === ''}>
        {isBusy ? importsWords.reading : importsWords.lookThrough}
      </button>
    </SchemaForm>
  );
}
