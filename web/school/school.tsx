import {
  type FieldMetadata,
  type FormMetadata,
  getFormProps,
  getInputProps,
  getSelectProps,
  useForm,
} from '@conform-to/react';
import { parseWithZod } from '@conform-to/zod/v4';
import { data, Form, Link, useNavigation } from 'react-router';
import { v4 as newId } from 'uuid';
import { weekdayName } from '~/core/calendar/iso-date';
import { type SchoolInput, schoolInput } from '~/core/school/school-input';
import { refusal } from '~/core/words/refusal';
import { mustSetUp } from '~/server/access/set-up';
import { database } from '~/server/db/current';
import { saveSchool, schoolSetUp } from '~/server/school/set-up';
import { answering } from '../http/answering';
import { askerOf } from '../http/asker';
import { sayNext } from '../http/cookies';
import { submitted } from '../http/submitted';
import { Field, FieldMessage, FormMessage } from '../ui/fields';
import { MarginTitle, Page } from '../ui/page';
import { Rows } from '../ui/rows';
import type { Route } from './+types/school';

export const loader = answering(async ({ context }: Route.LoaderArgs) => {
  const { actor } = askerOf(context);
  return { school: await schoolSetUp(database(), actor), zones: Intl.supportedValuesOf('timeZone') };
});

export const action = answering(async ({ request, context }: Route.ActionArgs) => {
  const { actor } = askerOf(context);
  await mustSetUp(database(), actor);
  const { refused } = await submitted(await request.formData(), schoolInput, (input) =>
    saveSchool(database(), actor, input),
  );
  if (refused) return refused;
  return data({ result: undefined }, { headers: await sayNext({ text: 'The school is saved.' }) });
});

export const meta: Route.MetaFunction = () => [{ title: 'School · Gentle Margin' }];

const asText = (weekdays: readonly number[]) => weekdays.map(String);

/** Checkboxes hold text. */
const inForm = (school: SchoolInput) => ({
  ...school,
  weekdays: asText(school.weekdays),
  dayParts: school.dayParts.map((part) => ({ ...part, weekdays: asText(part.weekdays) })),
});

const WEEK = [1, 2, 3, 4, 5, 6, 7];

export default function School({ loaderData: { school, zones }, actionData }: Route.ComponentProps) {
  const [form, fields] = useForm({
    id: 'school',
    lastResult: actionData?.result,
    defaultValue: inForm(school),
    onValidate: ({ formData }) => parseWithZod(formData, { schema: schoolInput, error: refusal }),
    shouldRevalidate: 'onInput',
  });
  const isBusy = useNavigation().state !== 'idle';
  const isStored = (list: SchoolInput['groups'], row: NameField) =>
    list.some(({ id }) => id === row.getFieldset().id.initialValue);
  return (
    <Page
      marginName="What it is for"
      margin={
        <>
          <MarginTitle>What it is for</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>
              School days and closures say when a goal is due, how long nothing was observed, and how many points a week
              there can be.
            </p>
            <p>The time zone is the one of the clock on the wall, whatever a device says.</p>
            <p>Groups and places are renamed in every entry at once. They are not taken away: entries name them.</p>
            <p>The timetable tells what is planned now, and fills in the place.</p>
            <p>
              <Link to="/roster" className="font-semibold underline underline-offset-2">
                To the roster
              </Link>
            </p>
          </div>
        </>
      }
    >
      <h1 className="text-3xl">School</h1>
      <Form method="post" {...getFormProps(form)} className="mt-5 grid gap-8 pb-20">
        <FormMessage form={form} />
        <div className="grid max-w-2xl gap-4 sm:grid-cols-2">
          <Field field={fields.name} label="Name">
            <input {...getInputProps(fields.name, { type: 'text' })} key={fields.name.key} className="input w-full" />
          </Field>
          <Field field={fields.timeZone} label="Time zone">
            <select {...getSelectProps(fields.timeZone)} key={fields.timeZone.key} className="select w-full">
              {zones.map((zone) => (
                <option key={zone}>{zone}</option>
              ))}
            </select>
          </Field>
        </div>
        <Section title="School days">
          <Weekdays name={fields.weekdays.name} chosen={school.weekdays} />
          <FieldMessage id={fields.weekdays.errorId} messages={fields.weekdays.errors} />
        </Section>
        <Section title="Closures">
          <Rows form={form} list={fields.closures} what="closure" blank={() => ({ first: '', last: '', label: '' })}>
            {(row) => {
              const { first, last, label } = row.getFieldset();
              return (
                <div className="grid gap-2 sm:grid-cols-[1fr_10rem_10rem]">
                  <Text field={label} label="What it is" />
                  <Text field={first} label="First day" type="date" />
                  <Text field={last} label="Last day" type="date" />
                </div>
              );
            }}
          </Rows>
        </Section>
        <div className="grid gap-8 sm:grid-cols-2">
          <Section title="Class groups">
            <Names form={form} list={fields.groups} what="group" mayRemove={(row) => !isStored(school.groups, row)} />
          </Section>
          <Section title="Places">
            <Names form={form} list={fields.places} what="place" mayRemove={(row) => !isStored(school.places, row)} />
          </Section>
        </div>
        <Section title="Timetable">
          <Rows
            form={form}
            list={fields.dayParts}
            what="part of the day"
            blank={() => ({ part: '', from: '', to: '', weekdays: asText(school.weekdays) })}
          >
            {(row) => {
              const { part, groupId, settingId, weekdays, from, to } = row.getFieldset();
              return (
                <div className="grid gap-2 rounded-field bg-wash p-3">
                  <div className="grid gap-2 sm:grid-cols-[1fr_1fr_1fr_8rem_8rem]">
                    <Text field={part} label="Part of the day" />
                    <Choice field={groupId} label="For" none="Whole school" options={school.groups} />
                    <Choice field={settingId} label="Place" none="Not said" options={school.places} />
                    <Text field={from} label="From" type="time" />
                    <Text field={to} label="To" type="time" />
                  </div>
                  <Weekdays name={weekdays.name} chosen={(weekdays.initialValue as string[] | undefined) ?? []} />
                  <FieldMessage id={weekdays.errorId} messages={weekdays.errors} />
                </div>
              );
            }}
          </Rows>
        </Section>
        <div className="sticky bottom-0 -mx-2 border-t border-rule bg-paper px-2 py-3">
          <button type="submit" className="btn btn-primary h-11 px-6" disabled={isBusy}>
            Save the school
          </button>
        </div>
      </Form>
    </Page>
  );
}

function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section>
      <h2 className="mb-3 text-lg">{title}</h2>
      {children}
    </section>
  );
}

type NameField = FieldMetadata<SchoolInput['groups'][number]>;

function Text({
  field,
  label,
  type = 'text',
}: {
  field: FieldMetadata<string>;
  label: string;
  type?: 'text' | 'date' | 'time';
}) {
  return (
    <Field field={field} label={label}>
      <input {...getInputProps(field, { type })} key={field.key} className="input w-full" />
    </Field>
  );
}

interface ChoiceProps {
  field: FieldMetadata<string | null>;
  label: string;
  none: string;
  options: { id: string; name: string }[];
}

function Choice({ field, label, none, options }: ChoiceProps) {
  return (
    <Field field={field} label={label}>
      <select {...getSelectProps(field)} key={field.key} className="select w-full">
        <option value="">{none}</option>
        {options.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </Field>
  );
}

function Weekdays({ name, chosen }: { name: string; chosen: readonly (number | string)[] }) {
  const isChosen = new Set(chosen.map(Number));
  return (
    <div className="flex flex-wrap gap-x-5">
      {WEEK.map((day) => (
        <label key={day} className="flex min-h-9 items-center gap-2 text-small">
          <input
            type="checkbox"
            name={name}
            value={day}
            defaultChecked={isChosen.has(day)}
            className="checkbox checkbox-sm"
          />
          {weekdayName(day)}
        </label>
      ))}
    </div>
  );
}

interface NamesProps {
  // biome-ignore lint/suspicious/noExplicitAny: only handed on
  form: FormMetadata<any>;
  list: FieldMetadata<SchoolInput['groups']>;
  what: string;
  mayRemove: (row: NameField) => boolean;
}

function Names({ form, list, what, mayRemove }: NamesProps) {
  return (
    <Rows
      form={form}
      list={list}
      what={what}
      canReorder
      mayRemove={mayRemove}
      blank={() => ({ id: newId(), name: '' })}
    >
      {(row, at) => {
        const { id, name } = row.getFieldset();
        return (
          <>
            <input {...getInputProps(id, { type: 'hidden' })} key={id.key} />
            <input
              {...getInputProps(name, { type: 'text' })}
              key={name.key}
              aria-label={`Name of ${what} ${at + 1}`}
              className="input w-full"
            />
            <FieldMessage id={name.errorId} messages={name.errors} />
          </>
        );
      }}
    </Rows>
  );
}
