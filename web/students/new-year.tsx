import { type FieldMetadata, getInputProps, type SubmissionResult } from '@conform-to/react';
import { data, Link } from 'react-router';
import { closuresInput, type FoundClosure, MOST_CALENDAR_BYTES } from '~/core/school/closures-input';
import { LEAVES, type NewYearInput, newYearInput, nextGrade, STAYS } from '~/core/students/new-year';
import { counted } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { addClosures, closuresIn } from '~/server/school/closures-file';
import { beginNewYear, newYearRoster, prepareNewYear } from '~/server/students/new-year';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import type { AboutRoute } from '../platform/http/routes-known';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { CheckField, SelectField, TextField } from '../platform/ui/form-fields';
import { MarginTitle, Page } from '../platform/ui/page';
import { Rows } from '../platform/ui/rows';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/new-year';
import { ClosuresFromFile } from './closures-from-file';
import { newYearWords } from './new-year-words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const { students, groups } = await newYearRoster(database(), await requireSchoolAdmin(database(), actor));
  const count = new Map<string, number>();
  for (const { grade } of students) count.set(grade, (count.get(grade) ?? 0) + 1);
  const grades = [...count].sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true }));
  return { discreet, groups, grades: grades.map(([grade, n]) => ({ grade, students: n })) };
});

const none = {
  result: undefined as SubmissionResult<string[]> | undefined,
  plan: null as { sentences: string[]; remarks: string[]; seal: string } | null,
  file: null as { error: string } | { closures: FoundClosure[]; passedOver: number } | null,
};

/** A calendar, and what a form puts around it. */
export const handle: AboutRoute = { largestBody: MOST_CALENDAR_BYTES + 64 * 1024 };

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const form = await formOf(request);
  const refuse = (result: SubmissionResult<string[]>) => data({ ...none, result }, { status: 400 });
  switch (form.get('intent')) {
    case 'calendar':
      return calendar(form.get('file'), actor.today);
    case 'closures': {
      const { done, refused } = await submitted(form, closuresInput, (input) =>
        addClosures(database(), admin, input, now),
      );
      if (refused) return refuse(refused.data.result);
      const text = done ? newYearWords.added(counted(done, 'closure', 'closures')) : newYearWords.addedNone;
      return data(none, { headers: await sayNext({ text }) });
    }
    case 'begin': {
      const seen = String(form.get('seen') ?? '');
      const { refused } = await submitted(form, newYearInput, (input) =>
        beginNewYear(database(), admin, { input, seen }, now),
      );
      if (refused) return refuse(refused.data.result);
      return data(none, { headers: await sayNext({ text: newYearWords.done }) });
    }
    default: {
      const { done, refused } = await submitted(form, newYearInput, (input) =>
        prepareNewYear(database(), admin, input),
      );
      if (refused) return refuse(refused.data.result);
      return data({
        ...none,
        plan: done ? { sentences: done.sentences, remarks: done.remarks, seal: done.seal } : null,
      });
    }
  }
});

async function calendar(file: unknown, today: string) {
  try {
    if (!(file instanceof File) || file.size === 0) throw new Invalid({ file: newYearWords.chooseFile });
    return data({ ...none, file: await closuresIn(Buffer.from(await file.arrayBuffer()), today) });
  } catch (error) {
    if (!(error instanceof Invalid)) throw error;
    return data({ ...none, file: { error: error.fields.file ?? error.message } }, { status: 400 });
  }
}

export const meta: Route.MetaFunction = () => [{ title: newYearWords.pageTitle }];

/** What becomes of grades, groups, teams and reporting periods, seen before it is done. */
export default function NewYear({ loaderData: { grades, groups, discreet }, actionData }: Route.ComponentProps) {
  const { form, fields, isBusy } = useSchemaForm(newYearInput, {
    id: 'new-year',
    result: actionData?.result,
    defaultValue: {
      grades: grades.map(({ grade }) => ({
        ...{ from: grade, to: nextGrade(grade) ?? '', leaves: nextGrade(grade) === null },
      })),
      groups: groups.map(({ id }) => ({ id, to: STAYS })),
    },
  });
  const plan = actionData?.plan ?? null;
  return (
    <Page
      marginName={newYearWords.willDo}
      margin={
        <section aria-label={newYearWords.willDo}>
          <MarginTitle>{newYearWords.willDo}</MarginTitle>
          <div role="status" className="grid gap-3">
            {plan === null && <p className="text-small text-ink-2">{newYearWords.notYet}</p>}
            {plan?.sentences.length === 0 && <p>{newYearWords.nothing}</p>}
            {plan?.remarks.map((remark) => (
              <p key={remark} className="mt-1">
                {remark}
              </p>
            ))}
            {plan !== null && plan.sentences.length > 0 && (
              <>
                {discreet ? (
                  <p className="text-small text-ink-2">{newYearWords.names}</p>
                ) : (
                  <ul className="grid gap-2">
                    {plan.sentences.map((sentence) => (
                      <li key={sentence}>{sentence}</li>
                    ))}
                  </ul>
                )}
                <input type="hidden" name="seen" value={plan.seal} form={form.id} />
                <button
                  type="submit"
                  name="intent"
                  value="begin"
                  form={form.id}
                  className="btn mt-2 btn-primary"
                  disabled={isBusy || discreet}
                >
                  {isBusy ? newYearWords.doing : newYearWords.doIt}
                </button>
              </>
            )}
          </div>
          <p className="mt-8">
            <Link to="/school/changes" className="font-semibold link">
              {newYearWords.toAll}
            </Link>
          </p>
        </section>
      }
    >
      <h1 className="text-3xl">{newYearWords.title}</h1>
      <p className="mt-1.5 max-w-2xl text-small text-ink-2">{newYearWords.about}</p>
      <SchemaForm isLong form={form} className="mt-6 grid gap-8">
        <Section title={newYearWords.grades} about={newYearWords.gradesAre}>
          {grades.length === 0 && <p className="text-ink-2">{newYearWords.noStudents}</p>}
          <ul className="grid gap-3">
            {fields.grades.getFieldList().map((row, at) => (
              <Grade key={row.key} row={row} {...(grades[at] ?? { grade: '', students: 0 })} />
            ))}
          </ul>
        </Section>
        {groups.length > 0 && (
          <Section title={newYearWords.groups}>
            <ul className="grid gap-3 sm:grid-cols-2">
              {fields.groups.getFieldList().map((row, at) => {
                const { id, to } = row.getFieldset();
                return (
                  <li key={row.key}>
                    <input {...getInputProps(id, { type: 'hidden' })} key={id.key} />
                    <SelectField
                      field={to}
                      label={newYearWords.becomesOf(groups[at]?.name ?? '')}
                      options={[
                        { id: STAYS, name: newYearWords.stay },
                        { id: LEAVES, name: newYearWords.leaveGroup },
                        ...groups
                          .filter((_, other) => other !== at)
                          .map((group) => ({ id: group.id, name: newYearWords.goTo(group.name) })),
                      ]}
                    />
                  </li>
                );
              })}
            </ul>
          </Section>
        )}
        <Section title={newYearWords.teams} about={newYearWords.teamsAre}>
          <TextField field={fields.teamsUntil} label={newYearWords.lastDay} type="date" className="w-44" />
        </Section>
        <Section title={newYearWords.periods} about={newYearWords.periodsAre}>
          <Rows form={form} list={fields.periods} what={newYearWords.period} blank={() => ({ label: '', endsOn: '' })}>
            {(row) => {
              const { label, endsOn } = row.getFieldset();
              return (
                <div className="grid gap-2 sm:grid-cols-[1fr_11rem]">
                  <TextField field={label} label={newYearWords.called} />
                  <TextField field={endsOn} label={newYearWords.ends} type="date" />
                </div>
              );
            }}
          </Rows>
        </Section>
        <button type="submit" name="intent" value="look" className="btn justify-self-start px-6" disabled={isBusy}>
          {newYearWords.look}
        </button>
      </SchemaForm>
      <ClosuresFromFile file={actionData?.file ?? null} />
    </Page>
  );
}

interface GradeProps {
  row: FieldMetadata<NewYearInput['grades'][number]>;
  grade: string;
  students: number;
}

function Grade({ row, grade, students }: GradeProps) {
  const { from, to, leaves } = row.getFieldset();
  return (
    <li className="grid items-end gap-x-4 gap-y-1 sm:grid-cols-[12rem_14rem_1fr]">
      <span className="pb-2.5">{newYearWords.now(grade, counted(students, 'student', 'students'))}</span>
      <input {...getInputProps(from, { type: 'hidden' })} key={from.key} />
      <TextField field={to} label={newYearWords.nextOf(grade)} />
      <CheckField field={leaves} label={newYearWords.leave} />
    </li>
  );
}

function Section({ title, about, children }: { title: string; about?: string; children: React.ReactNode }) {
  return (
    <section>
      <h2 className="mb-1 text-xl">{title}</h2>
      {about && <p className="mb-3 max-w-2xl text-small text-ink-2">{about}</p>}
      {children}
    </section>
  );
}
