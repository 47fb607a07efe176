import { useState } from 'react';
import { data } from 'react-router';
import { batchInput } from '~/core/documents/batch-input';
import { counted } from '~/core/words/counting';
import { askForBatch } from '~/server/documents/batches';
import { goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { can } from '~/server/students/rights';
import { studentsOf } from '~/server/students/students';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { FieldMessage } from '../platform/ui/fields';
import { CheckList, SelectField, TextField } from '../platform/ui/form-fields';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { useFreshId } from '../platform/ui/use-fresh-id';
import { ReportsNav } from '../progress-report/reports-nav';
import type { Route } from './+types/several';
import { BatchList } from './batch-list';
import { batchesShown } from './batches-shown';
import { severalWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, school, person, discreet } = personOf(context);
  const students = (await studentsOf(database(), actor)).filter((student) => can(student, 'share'));
  const goals = goalsWorkedOn(
    await goalsOf(
      database(),
      students.map(({ id }) => id),
    ),
  );
  return {
    students: students.map(({ id, shortName, initials, groups }) => ({
      id,
      groups,
      name: discreet ? initials : shortName,
    })),
    goals: goals.map(({ id, studentId, number, shortName }) => ({
      ...{ id, studentId },
      name: discreet ? number : `${number} · ${shortName}`,
    })),
    areas: [...new Set(goals.map(({ area }) => area))].filter(Boolean).sort(),
    setsUp: person.isSchoolAdmin,
    batches: await batchesShown(actor, { school, discreet }),
  };
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const { refused } = await submitted(await formOf(request), batchInput, (input) =>
    askForBatch(database(), actor, input, now),
  );
  return refused ?? data({ result: undefined });
});

export const meta: Route.MetaFunction = () => [{ title: severalWords.pageTitle }];

export default function Several({ loaderData, actionData }: Route.ComponentProps) {
  const { students, goals, areas, batches, setsUp } = loaderData;
  return (
    <Page
      marginName={severalWords.files}
      help="reports"
      margin={
        <>
          <MarginTitle about={severalWords.readyWithinAMinute}>{severalWords.files}</MarginTitle>
          {batches.length === 0 && <p className="text-small text-ink-2">{severalWords.noneYet}</p>}
          <BatchList batches={batches} />
        </>
      }
    >
      <ReportsNav setsUp={setsUp} />
      <h1 className="text-3xl">{severalWords.title}</h1>
      {students.length === 0 ? (
        <p className="py-8 text-ink-2">{severalWords.nobody}</p>
      ) : (
        <WantedForm key={batches[0]?.id ?? 'first'} {...{ students, goals, areas }} result={actionData?.result} />
      )}
    </Page>
  );
}

interface WantedFormProps {
  students: { id: string; name: string; groups: string[] }[];
  goals: { id: string; studentId: string; name: string }[];
  areas: string[];
  result: Parameters<typeof useSchemaForm>[1]['result'];
}

function WantedForm({ students, goals, areas, result }: WantedFormProps) {
  const id = useFreshId();
  const { form, fields, isBusy } = useSchemaForm(batchInput, {
    result,
    defaultValue: { what: 'progress', length: 'full', order: 'group', as: 'one' },
  });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(() => new Set());
  const [length, setLength] = useState('full');
  const groups = [...new Set(students.flatMap((one) => one.groups))].sort();
  const choose = (ids: string[], isOn: boolean) =>
    setChosen((before) => new Set(isOn ? [...before, ...ids] : [...before].filter((one) => !ids.includes(one))));
  const of = (group: string | null) =>
    students.filter((one) => group === null || one.groups.includes(group)).map((one) => one.id);
  const sets = [{ label: severalWords.all, ids: of(null) }, ...groups.map((label) => ({ label, ids: of(label) }))];
  return (
    <SchemaForm form={form} className="mt-5 grid max-w-3xl gap-7 pb-20">
      <input type="hidden" name="id" value={id} />
      <fieldset className="grid gap-2">
        <legend className="mb-1 font-semibold">{severalWords.students}</legend>
        <p className="flex flex-wrap gap-2">
          {sets.map(({ label, ids }) => {
            const isOn = ids.every((one) => chosen.has(one));
            return (
              <button
                key={label}
                type="button"
                aria-pressed={isOn}
                className="btn aria-pressed:border-fern aria-pressed:bg-fern-soft"
                onClick={() => choose(ids, !isOn)}
              >
                {label}
              </button>
            );
          })}
        </p>
        <div className="grid gap-x-5 sm:grid-cols-3">
          {students.map(({ id: student, name }) => (
            <label key={student} className="flex tap items-center gap-2.5">
              <input
                type="checkbox"
                name={fields.students.name}
                value={student}
                checked={chosen.has(student)}
                onChange={(event) => choose([student], event.target.checked)}
                className="checkbox checkbox-sm"
              />
              {name}
            </label>
          ))}
        </div>
        <FieldMessage id={fields.students.errorId} messages={fields.students.errors} />
      </fieldset>
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField field={fields.what} label={severalWords.what} options={severalWords.whats} />
        <SelectField
          field={fields.length}
          label={severalWords.length}
          options={severalWords.lengths}
          onChange={(event) => setLength(event.target.value)}
        />
      </div>
      {areas.length > 1 && (
        <CheckList
          field={fields.areas}
          legend={severalWords.areas}
          options={areas.map((area) => ({ id: area, name: area }))}
        />
      )}
      {chosen.size > 0 && <OneByOne {...{ students, goals, chosen }} name={fields.goals.name} />}
      <div>
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField field={fields.from} label={severalWords.from} type="date" />
          <TextField field={fields.to} label={severalWords.to} type="date" />
        </div>
        <p className="mt-1 text-small text-ink-2">{severalWords.datesAreFor}</p>
      </div>
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField field={fields.order} label={severalWords.order} options={severalWords.orders} />
        <SelectField field={fields.as} label={severalWords.as} options={severalWords.ways} />
      </div>
      <div>
        <p className="mb-2 text-small" aria-live="polite">
          {chosen.size === 0
            ? severalWords.chooseFirst
            : severalWords.pages(
                counted(chosen.size, 'student', 'students'),
                length === 'short' ? counted(chosen.size, 'page', 'pages') : null,
              )}
        </p>
        <button type="submit" className="btn btn-primary px-6" disabled={isBusy || id === ''}>
          {severalWords.make}
        </button>
      </div>
    </SchemaForm>
  );
}

interface OneByOneProps extends Pick<WantedFormProps, 'students' | 'goals'> {
  chosen: ReadonlySet<string>;
  name: string;
}

/** The goals of the students who are chosen, for who wants some of them and not a whole area. */
function OneByOne({ students, goals, chosen, name }: OneByOneProps) {
  return (
    <details>
      <summary className="tap cursor-pointer font-semibold">{severalWords.goals}</summary>
      <div className="mt-2 grid gap-4 sm:grid-cols-2">
        {students
          .filter(({ id }) => chosen.has(id) && goals.some(({ studentId }) => studentId === id))
          .map((student) => (
            <fieldset key={student.id}>
              <legend className="text-small font-semibold">{severalWords.goalsOf(student.name)}</legend>
              {goals
                .filter(({ studentId }) => studentId === student.id)
                .map((goal) => (
                  <label key={goal.id} className="tap flex items-center gap-2.5">
                    <input type="checkbox" name={name} value={goal.id} className="checkbox checkbox-sm" />
                    {goal.name}
                  </label>
                ))}
            </fieldset>
          ))}
      </div>
    </details>
  );
}
