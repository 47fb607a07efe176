import {
  type DefaultValue,
  type FieldMetadata,
  getInputProps,
  getTextareaProps,
  type SubmissionResult,
} from '@conform-to/react';
import { type ReactNode, useRef } from 'react';
import { Link } from 'react-router';
import type { IsoDate } from '~/core/calendar/iso-date';
import { type GoalInput, goalInput, withMinimum } from '~/core/goals/goal-input';
import { canBeCompared, meansTheSame } from '~/core/goals/same-meaning';
import { criterionDefinition, criterionInput } from '~/core/measures/criterion-definition';
import { type MeasureDefinition, measureDefinition } from '~/core/measures/measure';
import { criterionSentence } from '~/core/progress/mastery';
import { MeasureFields } from '../../measures/measure-fields';
import { SheetPreview } from '../../measures/sheet-preview';
import { Field } from '../../platform/ui/fields';
import { CheckList, TextField } from '../../platform/ui/form-fields';
import { MarginTitle, Page } from '../../platform/ui/page';
import { readValue } from '../../platform/ui/read-form';
import { Rows } from '../../platform/ui/rows';
import { SchemaForm, useSchemaForm } from '../../platform/ui/schema-form';
import { NamesInNote } from '../../students/names-in-note';
import { CriterionFields } from './criterion-fields';
import { luckWhile } from './luck';

export interface GoalChoices {
  people: { id: string; name: string }[];
  locations: { id: string; name: string }[];
  areas: string[];
}

interface GoalFormProps {
  studentId: string;
  goal: DefaultValue<GoalInput>;
  /** How entries of this goal were made so far; null while there are none. */
  recorded: MeasureDefinition | null;
  choices: GoalChoices;
  today: IsoDate;
  result: SubmissionResult<string[]> | undefined;
  backTo: string;
  /** Where the minimum was not written yet, it is left blank: it then follows what is planned. */
  isNew?: boolean;
  /** What stands above the form. */
  children: ReactNode;
  /** What stands below the data sheet in the margin. */
  marginFoot?: ReactNode;
}

/** A goal as the plan words it, with the observer’s data sheet beside it. */
export function GoalForm({
  studentId,
  goal,
  recorded,
  choices,
  today,
  result,
  backTo,
  isNew = false,
  children,
  marginFoot,
}: GoalFormProps) {
  const { form, fields, isBusy } = useSchemaForm(goalInput, {
    id: 'goal',
    result,
    defaultValue: withBlankMinimum(goal, isNew),
  });
  const { measure, last } = useMeasure(fields.measure);
  const written = readValue(fields.criterion.value, criterionInput);
  const criterion = written && measure ? withMinimum(written, measure) : null;
  const pointPer = fields.pointPer.value === 'session' ? 'session' : 'day';
  const sentence = measure && criterion ? criterionSentence({ measure, criterion, pointPer }) : null;
  // Conform gives the raw value of a union of forms, whose kind is one of the select’s.
  const kind = ((fields.measure.value as { kind?: string } | undefined)?.kind ?? 'trials') as MeasureDefinition['kind'];
  const isAnew = recorded !== null && measure !== null && !meansTheSame(recorded, measure);
  return (
    <Page
      marginName="As the observer gets it"
      margin={
        <div className="lg:sticky lg:top-6">
          <MarginTitle about="Try it: nothing here is saved.">As the observer gets it</MarginTitle>
          {last && (
            <SheetPreview key={JSON.stringify(last)} measure={last} criterion={criterion ?? { ...usual, value: 0 }} />
          )}
          {marginFoot}
        </div>
      }
    >
      {children}
      <SchemaForm form={form} className="mt-6 grid max-w-3xl gap-9 pb-24">
        <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
        <input {...getInputProps(fields.editedAt, { type: 'hidden' })} key={fields.editedAt.key} />
        <section className="grid gap-4">
          <div className="grid gap-4 sm:grid-cols-[6rem_1fr_1fr]">
            <TextField field={fields.number} label="Number" />
            <TextField field={fields.shortName} label="Short name" placeholder="Asks for a tool" />
            <Field field={fields.area} label="Area">
              <input
                {...getInputProps(fields.area, { type: 'text' })}
                key={fields.area.key}
                list="areas"
                autoComplete="off"
                className="input w-full"
              />
              <datalist id="areas">
                {choices.areas.map((area) => (
                  <option key={area} value={area} />
                ))}
              </datalist>
            </Field>
          </div>
          <Field field={fields.wording} label="The goal, word for word as the plan has it">
            <textarea
              {...getTextareaProps(fields.wording)}
              key={fields.wording.key}
              rows={4}
              className="textarea min-h-28 w-full field-sizing-content"
            />
          </Field>
          <NamesInNote studentId={studentId} text={`${fields.shortName.value ?? ''}\n${fields.wording.value ?? ''}`} />
        </section>
        <Part title="What do you want to know?">
          <MeasureFields form={form} field={fields.measure} kind={kind} />
          {isAnew && (
            <div className="mt-5 alert alert-error alert-soft block">
              <p className="mb-3">
                {recorded && measure && canBeCompared(recorded, measure)
                  ? 'This changes what is recorded. Items that stay carry on, and the graph goes on as one.'
                  : 'This changes what is recorded. Entries made before keep how they were measured, and the graph draws a line.'}
              </p>
              <TextField field={fields.newVersionFrom} label="Measured in this way from" type="date" className="w-44" />
            </div>
          )}
          {recorded && !isAnew && (
            <p className="mt-4 text-small text-ink-2">
              Names and wordings may change any time. Another list of levels, items or steps, or another kind of measure
              begins anew from a date.
            </p>
          )}
        </Part>
        <Part title="Reached when">
          <CriterionFields
            form={form}
            field={fields.criterion}
            pointPer={fields.pointPer}
            measure={measure}
            sentence={sentence}
            luck={
              measure && criterion
                ? luckWhile(
                    { measure, criterion, pointPer },
                    { from: fields.startsOn.value, to: fields.targetOn.value, gap: fields.plannedGap.value },
                  )
                : []
            }
          />
          <div className="mt-5 grid gap-4 sm:grid-cols-2">
            <TextField
              field={fields.baselineValue}
              label="Baseline, where the plan states one"
              type="figure"
              className="w-28"
            />
            <TextField field={fields.baselineOn} label="Baseline taken on" type="date" />
            <p className="text-small text-ink-2 sm:col-span-2">
              Where does the student begin? Without a figure from the plan, mark a phase below as baseline and record
              three scores in it, or take the first three when they are there.
            </p>
            <TextField field={fields.startsOn} label="Observed from" type="date" />
            <TextField field={fields.targetOn} label="To be reached by" type="date" />
          </div>
        </Part>
        <Part title="How often, by whom, where">
          <div className="grid gap-5">
            <TextField
              field={fields.plannedGap}
              label="At least once every"
              type="figure"
              unit="school days"
              className="w-20"
            />
            <CheckList field={fields.observerIds} legend="By, if the plan says" options={choices.people} />
            <CheckList field={fields.locationIds} legend="In, if the plan says" options={choices.locations} />
          </div>
        </Part>
        <Part title="Phases">
          <p className="mb-3 text-small text-ink-2">
            A line in the graph where something was changed: another way of helping, another room.
          </p>
          <Rows
            form={form}
            list={fields.phases}
            what="phase"
            blank={() => ({ label: '', startsOn: today, isBaseline: false })}
          >
            {(row) => {
              const { label, startsOn, isBaseline } = row.getFieldset();
              return (
                <div className="grid items-end gap-2 sm:grid-cols-[1fr_10rem_auto]">
                  <TextField field={label} label="What begins" />
                  <TextField field={startsOn} label="On" type="date" />
                  <label className="flex min-h-10 items-center gap-2 text-small">
                    <input
                      {...getInputProps(isBaseline, { type: 'checkbox' })}
                      key={isBaseline.key}
                      className="checkbox checkbox-sm"
                    />
                    baseline
                  </label>
                </div>
              );
            }}
          </Rows>
        </Part>
        <div className="sticky bottom-0 z-10 -mx-2 flex gap-2 border-t border-rule bg-paper px-2 py-3">
          <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
            Save the goal
          </button>
          <Link to={backTo} className="btn">
            Back
          </Link>
        </div>
      </SchemaForm>
    </Page>
  );
}

function withBlankMinimum(goal: DefaultValue<GoalInput>, isNew: boolean): DefaultValue<GoalInput> {
  const criterion = goal?.criterion;
  return isNew && criterion?.minimumOpportunities === 1
    ? { ...goal, criterion: { ...criterion, minimumOpportunities: undefined } }
    : goal;
}

const usual = criterionDefinition.parse({ comparison: 'atLeast', value: 0, rule: { kind: 'inARow', n: 1 } });

/** The measure as the form has it now, and the last one that was complete: the data sheet does not blink while one types. */
function useMeasure(field: FieldMetadata<MeasureDefinition>) {
  const last = useRef<MeasureDefinition | null>(null);
  const measure = readValue(field.value, measureDefinition);
  if (measure) last.current = measure;
  return { measure, last: last.current };
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="mb-3 border-b border-rule pb-2 text-lg">{title}</h2>
      {children}
    </section>
  );
}
