import { type FieldMetadata, type FormMetadata, getInputProps, type SubmissionResult } from '@conform-to/react';
import { Link } from 'react-router';
import { v4 as newId } from 'uuid';
import {
  type BehaviorRow,
  type ChoiceKind,
  type ChoiceRow,
  type ChoicesInput,
  choicesInput,
  kindWords,
  optionalFields,
  optionalFieldWords,
} from '~/core/entries/incidents/choice';
import { discreetWords } from '~/core/goals/discreet';
import { FieldMessage } from '../../platform/ui/fields';
import { CheckList, Question, SelectField, TextField } from '../../platform/ui/form-fields';
import { Rows } from '../../platform/ui/rows';
import { SchemaForm, useSchemaForm } from '../../platform/ui/schema-form';
import { choicesFormWords } from './words';

interface ChoicesFormProps {
  input: ChoicesInput;
  result: SubmissionResult<string[]> | undefined;
  locations: { id: string; name: string }[];
  /** Which fields a team does not use is said of one student only. */
  isForStudent: boolean;
  backTo: string;
}

const lists: { kind: Exclude<ChoiceKind, 'behavior'>; about: string }[] = [
  { kind: 'antecedent', about: choicesFormWords.whatUsuallyComesJustBefore },
  { kind: 'consequence', about: choicesFormWords.whateverFollowsNotAPunishment },
  { kind: 'location', about: choicesFormWords.aLocationOfTheSchool },
  { kind: 'intensity', about: choicesFormWords.fromLeastToMostEach },
  { kind: 'function', about: choicesFormWords.whatItMayBeFor },
];

const directions = [
  { id: 'decrease', name: choicesFormWords.shouldBecomeLess },
  { id: 'increase', name: choicesFormWords.shouldBecomeMore },
];

/** What incidents are described with. What is taken away here is retired: incidents that name it keep it. */
export function ChoicesForm({ input, result, locations, isForStudent, backTo }: ChoicesFormProps) {
  const { form, fields, isBusy } = useSchemaForm(choicesInput, {
    id: 'choices',
    result,
    defaultValue: input,
  });
  return (
    <SchemaForm isLong form={form} intent="choices" className="mt-5 grid gap-8 pb-20">
      <section>
        <h2 className="mb-1 text-lg">{kindWords.behavior.many}</h2>
        <p className="mb-2 text-small text-ink-2">{choicesFormWords.writtenSoThatTwoPeople}</p>
        <Rows
          form={form}
          list={fields.behavior}
          what={choicesFormWords.targetBehavior}
          canReorder
          isTall
          blank={() => ({ id: newId(), direction: 'decrease', abc: 'on' })}
        >
          {(row) => <BehaviorFields row={row} result={result} />}
        </Rows>
      </section>
      {lists.map(({ kind, about }) => (
        <ChoiceList
          key={kind}
          form={form}
          list={fields[kind] as unknown as FieldMetadata<ChoiceRow[]>}
          kind={kind}
          about={about}
          locations={locations}
          result={result}
        />
      ))}
      {isForStudent && (
        <CheckList
          field={fields.leftOut}
          legend={choicesFormWords.fieldsLeftOutOfThis}
          options={optionalFields.map((field) => ({ id: field, name: optionalFieldWords[field] }))}
        />
      )}
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
          {choicesFormWords.save}
        </button>
        <Link to={backTo} className="btn">
          {choicesFormWords.back}
        </Link>
      </div>
    </SchemaForm>
  );
}

function BehaviorFields({ row, result }: { row: FieldMetadata<BehaviorRow>; result: ChoicesFormProps['result'] }) {
  const { id, name, words, unlike, direction, abc, counted, timed, discreetWord } = row.getFieldset();
  const noted = [
    { field: abc, label: choicesFormWords.incidentByIncidentAbc },
    { field: counted, label: choicesFormWords.counted },
    { field: timed, label: choicesFormWords.timed },
  ];
  return (
    <div className="grid gap-2 rounded-field bg-wash p-3">
      <input {...getInputProps(id, { type: 'hidden' })} key={id.key} />
      <div className="grid gap-2 sm:grid-cols-[1fr_10rem_14rem]">
        <TextField field={name} label={choicesFormWords.called} placeholder={choicesFormWords.leavesTheBench} />
        <DiscreetWord field={discreetWord} name={name} />
        <SelectField field={direction} label={choicesFormWords.direction} options={directions} />
      </div>
      <MeansSame row={row as unknown as FieldMetadata<ChoiceRow>} result={result} />
      <div className="grid gap-2 sm:grid-cols-2">
        <TextArea field={words} label={choicesFormWords.whatItLooksLike} />
        <TextArea field={unlike} label={choicesFormWords.whatItIsNot} />
      </div>
      <fieldset>
        <legend className="text-small font-semibold">{choicesFormWords.noted}</legend>
        <div className="flex flex-wrap gap-x-5">
          {noted.map(({ field, label }) => (
            <label key={field.name} className="flex tap items-center gap-2.5">
              <input {...getInputProps(field, { type: 'checkbox' })} key={field.key} className="checkbox checkbox-sm" />
              {label}
            </label>
          ))}
        </div>
        <FieldMessage id={abc.errorId} messages={abc.errors} />
      </fieldset>
    </div>
  );
}

/** What it is called in the discreet view; without a word of its own, by its first letters. */
function DiscreetWord(props: { field: FieldMetadata<string>; name: FieldMetadata<string>; hidesLabel?: boolean }) {
  const { field, name, hidesLabel = false } = props;
  const called = String(name.value ?? '');
  return (
    <TextField
      field={field}
      label={hidesLabel ? choicesFormWords.discreetOf(called) : choicesFormWords.discreet}
      hidesLabel={hidesLabel}
      placeholder={called && choicesFormWords.discreetly(discreetWords([called])[0] ?? '')}
    />
  );
}

function TextArea({ field, label }: { field: FieldMetadata<string>; label: string }) {
  const { defaultValue, ...input } = getInputProps(field, { type: 'text' });
  const { type: _, ...props } = input;
  return (
    <div className="grid gap-1">
      <label htmlFor={field.id} className="text-small font-semibold">
        {label}
      </label>
      <textarea {...props} key={field.key} defaultValue={defaultValue} rows={2} className="textarea w-full" />
      <FieldMessage id={field.errorId} messages={field.errors} />
    </div>
  );
}

interface ChoiceListProps {
  form: FormMetadata<ChoicesInput>;
  list: FieldMetadata<ChoiceRow[]>;
  kind: Exclude<ChoiceKind, 'behavior'>;
  about: string;
  locations: { id: string; name: string }[];
  result: ChoicesFormProps['result'];
}

function ChoiceList({ form, list, kind, about, locations, result }: ChoiceListProps) {
  return (
    <section>
      <h2 className="mb-1 text-lg">{kindWords[kind].many}</h2>
      <p className="mb-2 text-small text-ink-2">{about}</p>
      <Rows form={form} list={list} what={kindWords[kind].one} canReorder blank={() => ({ id: newId() })}>
        {(row, at) => {
          const { id, name, words, locationId, discreetWord } = row.getFieldset();
          const second = kind === 'intensity' || kind === 'location';
          return (
            <div className="grid gap-1">
              <input {...getInputProps(id, { type: 'hidden' })} key={id.key} />
              <div className={`grid gap-2 ${second ? 'sm:grid-cols-[1fr_1fr_10rem]' : 'sm:grid-cols-[1fr_10rem]'}`}>
                <TextField field={name} label={`${kindWords[kind].one} ${at + 1}`} hidesLabel />
                {kind === 'intensity' && (
                  <TextField
                    field={words}
                    label={choicesFormWords.whatStepLooksLike(at + 1)}
                    hidesLabel
                    placeholder={choicesFormWords.whatItLooksLike}
                  />
                )}
                {kind === 'location' && (
                  <SelectLocation field={locationId as FieldMetadata<string>} locations={locations} at={at} />
                )}
                <DiscreetWord field={discreetWord} name={name} hidesLabel />
              </div>
              <MeansSame row={row} result={result} />
            </div>
          );
        }}
      </Rows>
    </section>
  );
}

function SelectLocation({
  field,
  locations,
  at,
}: {
  field: FieldMetadata<string>;
  locations: ChoicesFormProps['locations'];
  at: number;
}) {
  return (
    <div>
      <label htmlFor={field.id} className="sr-only">
        {choicesFormWords.placeOfLocation(at + 1)}
      </label>
      <select
        id={field.id}
        name={field.name}
        key={field.key}
        defaultValue={(field.initialValue as string | undefined) ?? ''}
        className="select w-full"
      >
        <option value="">{choicesFormWords.noLocationOfTheTimetable}</option>
        {locations.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      <FieldMessage id={field.errorId} messages={field.errors} />
    </div>
  );
}

/** Asked when a name is nearly that of another; once asked, the question stays until it is answered. */
function MeansSame({ row, result }: { row: FieldMetadata<ChoiceRow>; result: ChoicesFormProps['result'] }) {
  const { isDifferent } = row.getFieldset();
  const question = isDifferent.errors ?? result?.error?.[isDifferent.name];
  return <Question field={isDifferent} question={question} answer={choicesFormWords.yesTheyMeanDifferentThings} />;
}
