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
import { SupportStepRows } from './support-step-rows';
import { goalFormWords } from './words';

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
      marginName={goalFormWords.asTheObserverGetsIt}
      margin={
        <div className="lg:sticky lg:top-6">
          <MarginTitle about={goalFormWords.tryItNothingHereIs}>{goalFormWords.asTheObserverGetsIt}</MarginTitle>
          {last && (
            <SheetPreview key={JSON.stringify(last)} measure={last} criterion={criterion ?? { ...usual, value: 0 }} />
          )}
          {marginFoot}
        </div>
      }
    >
      {children}
      <SchemaForm isLong form={form} className="mt-6 grid max-w-3xl gap-9 pb-24">
        <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
        <input {...getInputProps(fields.editedAt, { type: 'hidden' })} key={fields.editedAt.key} />
        <section className="grid gap-4">
          <div className="grid gap-4 sm:grid-cols-[6rem_1fr_1fr]">
            <TextField field={fields.number} label={goalFormWords.number} />
            <TextField
              field={fields.shortName}
              label={goalFormWords.shortName}
              placeholder={goalFormWords.asksForATool}
            />
            <Field field={fields.area} label={goalFormWords.area}>
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
          <Field field={fields.wording} label={goalFormWords.theGoalWordForWord}>
            <textarea
              {...getTextareaProps(fields.wording)}
              key={fields.wording.key}
              rows={4}
              className="textarea min-h-28 w-full field-sizing-content"
            />
          </Field>
          <NamesInNote studentId={studentId} text={`${fields.shortName.value ?? ''}\n${fields.wording.value ?? ''}`} />
        </section>
        <Part title={goalFormWords.whatDoYouWantTo}>
          <MeasureFields form={form} field={fields.measure} kind={kind} />
          {isAnew && (
            <div className="mt-5 alert alert-error alert-soft block">
              <p className="mb-3">
                {recorded && measure && canBeCompared(recorded, measure)
                  ? goalFormWords.thisChangesWhatIsRecorded
                  : goalFormWords.thisChangesWhatIsRecordedEntries}
              </p>
              <TextField
                field={fields.newVersionFrom}
                label={goalFormWords.measuredInThisWayFrom}
                type="date"
                className="w-44"
              />
            </div>
          )}
          {recorded && !isAnew && (
            <p className="mt-4 text-small text-ink-2">{goalFormWords.namesAndWordingsMayChange}</p>
          )}
        </Part>
        <Part title={goalFormWords.reachedWhen}>
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
              label={goalFormWords.baselineWhereThePlanStates}
              type="figure"
              className="w-28"
            />
            <TextField field={fields.baselineOn} label={goalFormWords.baselineTakenOn} type="date" />
            <p className="text-small text-ink-2 sm:col-span-2">{goalFormWords.whereDoesTheStudentBegin}</p>
            <TextField field={fields.startsOn} label={goalFormWords.observedFrom} type="date" />
            <TextField field={fields.targetOn} label={goalFormWords.toBeReachedBy} type="date" />
          </div>
        </Part>
        <Part title={goalFormWords.howOftenByWhomWhere}>
          <div className="grid gap-5">
            <TextField
              field={fields.plannedGap}
              label={goalFormWords.atLeastOnceEvery}
              type="figure"
              unit={goalFormWords.schoolDays}
              className="w-20"
            />
            <CheckList field={fields.observerIds} legend={goalFormWords.byIfThePlanSays} options={choices.people} />
            <CheckList field={fields.locationIds} legend={goalFormWords.inIfThePlanSays} options={choices.locations} />
          </div>
        </Part>
        <Part title={goalFormWords.phases}>
          <p className="mb-3 text-small text-ink-2">{goalFormWords.aLineInTheGraph}</p>
          <Rows
            form={form}
            list={fields.phases}
            what="phase"
            blank={() => ({ label: '', startsOn: today, isBaseline: false })}
          >
            {(row) => {
              const { label, startsOn, isBaseline, steps } = row.getFieldset();
              return (
                <div className="grid gap-2 rounded-field bg-wash p-3">
                  <div className="grid items-end gap-2 sm:grid-cols-[1fr_10rem_auto]">
                    <TextField field={label} label={goalFormWords.whatBegins} />
                    <TextField field={startsOn} label={goalFormWords.on} type="date" />
                    <label className="flex tap items-center gap-2 text-small">
                      <input
                        {...getInputProps(isBaseline, { type: 'checkbox' })}
                        key={isBaseline.key}
                        className="checkbox checkbox-sm"
                      />
                      {goalFormWords.baseline}
                    </label>
                  </div>
                  <SupportStepRows form={form} steps={steps} />
                </div>
              );
            }}
          </Rows>
        </Part>
        <div className="sticky bottom-0 z-10 -mx-2 flex gap-2 border-t border-rule bg-paper px-2 py-3">
          <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
            {goalFormWords.saveTheGoal}
          </button>
          <Link to={backTo} className="btn">
            {goalFormWords.back}
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
