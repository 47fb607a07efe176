import { type FieldMetadata, type FormMetadata, getInputProps } from '@conform-to/react';
import { data, Link } from 'react-router';
import { v4 as newId } from 'uuid';
import { weekdayName } from '~/core/calendar/iso-date';
import { pageSizes } from '~/core/school/page-size';
import { type SchoolInput, schoolInput } from '~/core/school/school-input';
import { stepStates, stepWordsFrom } from '~/core/school/step-words';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { schoolBegun } from '~/server/school/first-steps';
import { saveSchool, schoolInForm } from '~/server/school/set-up';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { FieldMessage } from '../platform/ui/fields';
import { FirstSteps } from '../platform/ui/first-steps';
import { CheckField, CheckList, SelectField, TextField } from '../platform/ui/form-fields';
import { MarginTitle, Page } from '../platform/ui/page';
import { Rows } from '../platform/ui/rows';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import type { Route } from './+types/school';
import { schoolFirstSteps } from './first-steps';
import { schoolWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, school } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  return {
    school: await schoolInForm(database(), admin),
    firstSteps: schoolFirstSteps(await schoolBegun(database(), admin)),
    zones: Intl.supportedValuesOf('timeZone'),
    hasTestMail: school.isDemo && config.SMTP_URL === undefined,
  };
});

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const { refused } = await submitted(await formOf(request), schoolInput, (input) =>
    saveSchool(database(), admin, input, now),
  );
  if (refused) return refused;
  return data({ result: undefined }, { headers: await sayNext({ text: schoolWords.theSchoolIsSaved }) });
});

export const meta: Route.MetaFunction = () => [{ title: schoolWords.pageTitle }];

const asText = (weekdays: readonly number[]) => weekdays.map(String);

/** Checkboxes hold text. */
const inForm = (school: SchoolInput) => ({
  ...school,
  weekdays: asText(school.weekdays),
  dayParts: school.dayParts.map((part) => ({ ...part, weekdays: asText(part.weekdays) })),
});

const week = [1, 2, 3, 4, 5, 6, 7].map((day) => ({ id: String(day), name: weekdayName(day) }));

export default function School({
  loaderData: { school, zones, hasTestMail, firstSteps },
  actionData,
}: Route.ComponentProps) {
  const { form, fields, isBusy } = useSchemaForm(schoolInput, {
    id: 'school',
    result: actionData?.result,
    defaultValue: inForm(school),
  });
  const stepFields = fields.stepWords.getFieldset();
  const isStored = (list: SchoolInput['groups'], row: NameField) =>
    list.some(({ id }) => id === row.getFieldset().id.initialValue);
  return (
    <Page
      marginName={schoolWords.whatItIsFor}
      help="school"
      margin={
        <>
          <MarginTitle>{schoolWords.whatItIsFor}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{schoolWords.schoolDaysAndClosuresSay}</p>
            <p>{schoolWords.theTimeZoneIsThe}</p>
            <p>{schoolWords.groupsAndLocationsAreRenamed}</p>
            <p>{schoolWords.theTimetableTellsWhatIs}</p>
            <p>
              <Link to="/roster" className="font-semibold link">
                {schoolWords.toTheRoster}
              </Link>
            </p>
            <p>
              <Link to="/school/people" className="font-semibold link">
                {schoolWords.toThePeople}
              </Link>
            </p>
            {hasTestMail && (
              <p>
                <Link to="/messages/test-mail" className="font-semibold link">
                  {schoolWords.testMailServer}
                </Link>
              </p>
            )}
            <p>
              <Link to="/school/changes" className="font-semibold link">
                {schoolWords.whatWasChangedWhenAnd}
              </Link>
            </p>
            <p>
              <Link to="/school/choices" className="font-semibold link">
                {schoolWords.startingListsForAbcNotes}
              </Link>
            </p>
          </div>
        </>
      }
    >
      <h1 className="text-3xl">{schoolWords.school}</h1>
      <FirstSteps steps={firstSteps} />
      <SchemaForm isLong form={form} className="mt-5 grid gap-8 pb-20">
        <div className="grid max-w-2xl gap-4 sm:grid-cols-2">
          <TextField field={fields.name} label={schoolWords.name} />
          <SelectField
            field={fields.timeZone}
            label={schoolWords.timeZone}
            options={zones.map((zone) => ({ id: zone, name: zone }))}
          />
        </div>
        <Section title={schoolWords.schoolDays}>
          <CheckList field={fields.weekdays} legend={schoolWords.openOn} options={week} />
        </Section>
        <Section title={schoolWords.closures}>
          <Rows form={form} list={fields.closures} what="closure" blank={() => ({ first: '', last: '', label: '' })}>
            {(row) => {
              const { first, last, label } = row.getFieldset();
              return (
                <div className="grid gap-2 sm:grid-cols-[1fr_10rem_10rem]">
                  <TextField field={label} label={schoolWords.whatItIs} />
                  <TextField field={first} label={schoolWords.firstDay} type="date" />
                  <TextField field={last} label={schoolWords.lastDay} type="date" />
                </div>
              );
            }}
          </Rows>
        </Section>
        <div className="grid gap-8 sm:grid-cols-2">
          <Section title={schoolWords.classGroups}>
            <Names form={form} list={fields.groups} what="group" mayRemove={(row) => !isStored(school.groups, row)} />
          </Section>
          <Section title={schoolWords.places}>
            <Names
              form={form}
              list={fields.locations}
              what="location"
              mayRemove={(row) => !isStored(school.locations, row)}
            />
          </Section>
        </div>
        <Section title={schoolWords.timetable}>
          <Rows
            form={form}
            list={fields.dayParts}
            what={schoolWords.onePartOfTheDay}
            isTall
            blank={() => ({ part: '', from: '', to: '', weekdays: asText(school.weekdays) })}
          >
            {(row) => {
              const { part, groupId, locationId, weekdays, from, to } = row.getFieldset();
              return (
                <div className="grid gap-2 rounded-field bg-wash p-3">
                  <div className="grid gap-2 sm:grid-cols-[1fr_1fr_1fr_8rem_8rem]">
                    <TextField field={part} label={schoolWords.partOfTheDay} />
                    <SelectField
                      field={groupId}
                      label={schoolWords.for}
                      none={schoolWords.wholeSchool}
                      options={school.groups}
                    />
                    <SelectField
                      field={locationId}
                      label={schoolWords.location}
                      none={schoolWords.notSaid}
                      options={school.locations}
                    />
                    <TextField field={from} label={schoolWords.from} type="time" />
                    <TextField field={to} label={schoolWords.to} type="time" />
                  </div>
                  <CheckList field={weekdays} legend={schoolWords.on} options={week} />
                </div>
              );
            }}
          </Rows>
        </Section>
        <Section title={schoolWords.signingOutByItself}>
          <p className="mb-3 text-small text-ink-2">{schoolWords.whenNobodyUsesASign}</p>
          <div className="flex flex-wrap gap-6">
            <TextField
              field={fields.sharedIdleMinutes}
              label={schoolWords.onASharedTablet}
              type="figure"
              unit="minutes"
              className="w-24"
            />
            <TextField
              field={fields.idleMinutes}
              label={schoolWords.elsewhere}
              type="figure"
              unit="minutes"
              className="w-24"
            />
            <TextField
              field={fields.lockMinutes}
              label={schoolWords.locksItselfAfter}
              type="figure"
              unit="minutes"
              className="w-24"
            />
          </div>
        </Section>
        <Section title={schoolWords.signingIn}>
          <CheckField field={fields.asksSecondFactor} label={schoolWords.asksSecondFactor} />
        </Section>
        <Section title={schoolWords.documents}>
          <SelectField
            field={fields.paper}
            label={schoolWords.paper}
            options={pageSizes.map((id) => ({ id, name: schoolWords.sizes[id] }))}
            className="w-full max-w-xs"
          />
        </Section>
        <Section title={schoolWords.withoutNetwork}>
          <p className="mb-3 text-small text-ink-2">{schoolWords.devicesKeepWhatTheyNeed}</p>
          <TextField
            field={fields.daysOnDevices}
            label={schoolWords.keptForAtMost}
            type="figure"
            unit="days"
            className="w-24"
          />
        </Section>
        <Section title={schoolWords.stepsOfTheirWork}>
          <p className="mb-3 text-small text-ink-2">{schoolWords.fiveMeanings}</p>
          <div className="grid gap-4 sm:grid-cols-3 lg:grid-cols-5">
            {stepStates.map((state) => (
              <TextField
                key={state}
                field={stepFields[state]}
                label={usualWords[state]}
                placeholder={usualWords[state]}
              />
            ))}
          </div>
        </Section>
        <div className="sticky bottom-0 -mx-2 border-t border-rule bg-paper px-2 py-3">
          <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
            {schoolWords.saveTheSchool}
          </button>
        </div>
      </SchemaForm>
    </Page>
  );
}

const usualWords = stepWordsFrom({});

function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section>
      <h2 className="mb-3 text-lg">{title}</h2>
      {children}
    </section>
  );
}

type NameField = FieldMetadata<SchoolInput['groups'][number]>;

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
              aria-label={schoolWords.nameOf(what, at + 1)}
              className="input w-full"
            />
            <FieldMessage id={name.errorId} messages={name.errors} />
          </>
        );
      }}
    </Rows>
  );
}
