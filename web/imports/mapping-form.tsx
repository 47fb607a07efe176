import type { SubmissionResult } from '@conform-to/react';
import { useSubmit } from 'react-router';
import { entriesMapping, entryFields, goalColumn, PART } from '~/core/imports/entries';
import { goalFields, goalsMapping } from '~/core/imports/goals';
import { incidentFields, incidentsMapping } from '~/core/imports/incidents';
import type { ImportKindName } from '~/core/imports/kinds';
import { rosterFields, rosterMapping } from '~/core/imports/roster';
import { measureKinds, kinds as measures } from '~/core/measures/measure';
import { capitalised } from '~/core/words/counting';
import type { MappingChoices } from '~/server/imports/mapping-choices';
import { CheckField, CheckList, SelectField, TextField } from '../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { Columns, type Option } from './columns';
import { entryFieldWords, goalFieldWords, importWords, incidentFieldWords, rosterFieldWords } from './words';

interface MappingFormProps {
  mapping: unknown;
  choices: MappingChoices;
  result: SubmissionResult<string[]> | undefined;
}

/** What is said of a file: what its columns hold, and what else there is to know. */
export function MappingForm({ kind, ...props }: MappingFormProps & { kind: ImportKindName }) {
  if (kind === 'roster') return <RosterForm {...props} />;
  if (kind === 'goals') return <GoalsForm {...props} />;
  if (kind === 'entries') return <EntriesForm {...props} />;
  return <IncidentsForm {...props} />;
}

const optionsOf = <Key extends string>(fields: readonly { key: Key }[], words: Record<Key, string>): Option[] =>
  fields.map(({ key }) => ({ id: key, name: words[key] }));

const dayOrders = Object.entries(importWords.dayOrders).map(([id, name]) => ({ id, name }));

/** More choices in one form than a browser shows at once without a wait. */
const MOST_CHOICES = 8000;

function EntriesForm({ mapping, choices, result }: MappingFormProps) {
  const { form, fields, isBusy } = useSchemaForm(entriesMapping, {
    id: 'mapping',
    result,
    defaultValue: entriesMapping.parse(mapping),
  });
  const { goals, students, columns } = choices;
  const chosen = new Set(entriesMapping.parse(mapping).columns);
  const isMany = goals.length * columns.length > MOST_CHOICES;
  const shown = goals.filter(({ id }) => !isMany || chosen.has(goalColumn(id)));
  const options = [
    ...optionsOf(entryFields, entryFieldWords),
    { id: PART, name: importWords.part },
    ...shown.map(({ id, name }) => ({ id: goalColumn(id), name })),
  ];
  return (
    <MappingShape form={form} isBusy={isBusy} choices={choices} sheet={fields.sheet}>
      <Columns list={fields.columns} columns={columns} options={options} />
      <div className="mt-5 grid max-w-3xl gap-4 sm:grid-cols-2">
        <SelectField field={fields.studentId} label={importWords.allOf} none={importWords.nobody} options={students} />
        <SelectField field={fields.goalId} label={importWords.allOfGoal} none={importWords.nobody} options={goals} />
        <SelectField field={fields.dayOrder} label={importWords.dates} options={dayOrders} />
        <TextField field={fields.time} label={importWords.timeOfOthers} type="time" />
        <SelectField
          field={fields.help}
          label={importWords.help}
          options={[
            { id: 'most', name: importWords.helpMost },
            { id: 'least', name: importWords.helpLeast },
          ]}
        />
      </div>
      <div className="mt-3 grid">
        <CheckField field={fields.areFractions} label={importWords.areFractions} />
        <CheckField field={fields.fillsDown} label={importWords.fillsDown} />
      </div>
    </MappingShape>
  );
}

function GoalsForm({ mapping, choices, result }: MappingFormProps) {
  const { form, fields, isBusy } = useSchemaForm(goalsMapping, {
    id: 'mapping',
    result,
    defaultValue: goalsMapping.parse(mapping),
  });
  return (
    <MappingShape form={form} isBusy={isBusy} choices={choices} sheet={fields.sheet}>
      <Columns list={fields.columns} columns={choices.columns} options={optionsOf(goalFields, goalFieldWords)} />
      <div className="mt-5 grid max-w-3xl gap-4 sm:grid-cols-2">
        <SelectField
          field={fields.studentId}
          label={importWords.allOf}
          none={importWords.nobody}
          options={choices.students}
        />
        <SelectField
          field={fields.measure}
          label={importWords.measureOfOthers}
          options={measureKinds.map((kind) => ({ id: kind, name: capitalised(measures[kind].term) }))}
        />
        <SelectField field={fields.dayOrder} label={importWords.dates} options={dayOrders} />
      </div>
      <div className="mt-3 grid">
        <CheckField field={fields.fillsDown} label={importWords.fillsDownStudent} />
      </div>
    </MappingShape>
  );
}

function IncidentsForm({ mapping, choices, result }: MappingFormProps) {
  const { form, fields, isBusy } = useSchemaForm(incidentsMapping, {
    id: 'mapping',
    result,
    defaultValue: incidentsMapping.parse(mapping),
  });
  return (
    <MappingShape form={form} isBusy={isBusy} choices={choices} sheet={fields.sheet}>
      <Columns
        list={fields.columns}
        columns={choices.columns}
        options={optionsOf(incidentFields, incidentFieldWords)}
      />
      <div className="mt-5 grid max-w-3xl gap-4 sm:grid-cols-2">
        <SelectField
          field={fields.studentId}
          label={importWords.allOf}
          none={importWords.nobody}
          options={choices.students}
        />
        <SelectField field={fields.dayOrder} label={importWords.dates} options={dayOrders} />
        <TextField field={fields.time} label={importWords.timeOfOthers} type="time" />
        <SelectField
          field={fields.durationIn}
          label={importWords.durationIn}
          options={Object.entries(importWords.durations).map(([id, name]) => ({ id, name }))}
        />
      </div>
      <div className="mt-3 grid">
        <CheckField field={fields.offersNew} label={importWords.offersNew} />
        <CheckField field={fields.fillsDown} label={importWords.fillsDown} />
      </div>
    </MappingShape>
  );
}

function RosterForm({ mapping, choices, result }: MappingFormProps) {
  const { form, fields, isBusy } = useSchemaForm(rosterMapping, {
    id: 'mapping',
    result,
    defaultValue: rosterMapping.parse(mapping),
  });
  const isStandard = choices.columns.length === 0;
  return (
    <MappingShape form={form} isBusy={isBusy} choices={choices} sheet={fields.sheet}>
      {!isStandard && (
        <Columns list={fields.columns} columns={choices.columns} options={optionsOf(rosterFields, rosterFieldWords)} />
      )}
      <div className="mt-5 grid max-w-3xl gap-4 sm:grid-cols-2">
        <SelectField
          field={fields.managerId}
          label={importWords.manager}
          none={importWords.nobody}
          options={choices.staff}
        />
        {isStandard && choices.orgs.length > 1 && (
          <SelectField
            field={fields.org}
            label={importWords.schoolOfFile}
            none={importWords.allSchools}
            options={choices.orgs}
          />
        )}
      </div>
      {choices.invites.length > 0 && (
        <>
          <CheckList field={fields.invites} legend={importWords.invites} options={choices.invites} />
          <p className="mt-1 max-w-2xl text-small text-ink-2">{importWords.invitesAre}</p>
        </>
      )}
      {isStandard && <CheckList field={fields.classes} legend={importWords.classes} options={choices.classes} />}
      <div className="mt-3 grid">
        <CheckField field={fields.isSomeoneElse} label={importWords.isSomeoneElse} />
        <CheckField field={fields.isRenamed} label={importWords.isRenamed} />
        <CheckField field={fields.isWhole} label={importWords.isWhole} />
        {!isStandard && <CheckField field={fields.fillsDown} label={importWords.fillsDownRoster} />}
      </div>
    </MappingShape>
  );
}

interface MappingShapeProps {
  // biome-ignore lint/suspicious/noExplicitAny: the forms of four kinds
  form: any;
  // biome-ignore lint/suspicious/noExplicitAny: a field of any of them
  sheet: any;
  isBusy: boolean;
  choices: MappingChoices;
  children: React.ReactNode;
}

function MappingShape({ form, sheet, isBusy, choices, children }: MappingShapeProps) {
  const submit = useSubmit();
  return (
    <section aria-label={importWords.columns} className="mt-6">
      <h2 className="text-lg">{importWords.columns}</h2>
      <p className="text-small text-ink-2">{importWords.aboutColumns}</p>
      <SchemaForm form={form} intent="look" className="mt-3">
        {choices.sheets.length > 1 ? (
          <SelectField
            field={sheet}
            label={importWords.sheet}
            options={choices.sheets}
            className="w-64"
            onChange={(event) => submit(event.currentTarget.form)}
          />
        ) : (
          <input type="hidden" name={sheet.name} defaultValue={sheet.initialValue ?? '0'} />
        )}
        {children}
        <button type="submit" className="btn mt-4" disabled={isBusy}>
          {importWords.lookAgain}
        </button>
      </SchemaForm>
    </section>
  );
}
