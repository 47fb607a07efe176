import type { FieldMetadata } from '@conform-to/react';
import { getSelectProps } from '@conform-to/react';
import type { GoalInput } from '~/core/goals/goal-input';
import type { CriterionDefinition } from '~/core/measures/criterion-definition';
import { type MeasureDefinition, measureOf } from '~/core/measures/measure';
import type { GoalForm } from '../../measures/lists';
import { FieldMessage } from '../../platform/ui/fields';
import { TextField } from '../../platform/ui/form-fields';
import { criterionFieldsWords } from './words';

interface CriterionFieldsProps {
  form: GoalForm;
  field: FieldMetadata<CriterionDefinition>;
  pointPer: FieldMetadata<GoalInput['pointPer']>;
  /** The measure as it stands; null while it is not complete. */
  measure: MeasureDefinition | null;
  /** The criterion read out, when it can be. */
  sentence: string | null;
  /** How easily luck would meet it, where that can be told. */
  luck: string[];
}

/** The criterion as a sentence with blanks, and below it what it comes to. */
export function CriterionFields({ form, field, pointPer, measure, sentence, luck }: CriterionFieldsProps) {
  const { comparison, value, rule, minimumOpportunities, distinctLocations, distinctObservers } = field.getFieldset();
  const { kind, n, k } = (rule as FieldMetadata<{ kind: string; n: number; k: number }>).getFieldset();
  const isOfLast = kind.value !== 'inARow';
  const of = measure ? measureOf(measure) : null;
  const unit = of ? of.axis.unit.trim() || of.axis.change : '';
  const errors = [value, n, ...(isOfLast ? [k] : []), rule].flatMap((one) => one.errors ?? []);
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-center gap-x-2 gap-y-3 text-lg">
        <Pick
          field={comparison}
          label={criterionFieldsWords.atLeastOrAtMost}
          options={{ atLeast: criterionFieldsWords.atLeast, atMost: criterionFieldsWords.atMost }}
        />
        <Blank field={value} label={criterionFieldsWords.valueOfTheCriterion} />
        {unit && <span>{unit},</span>}
        <Pick
          field={kind}
          label={criterionFieldsWords.howOftenItMustBe}
          options={{ ofLast: criterionFieldsWords.inSoManyOfThe, inARow: criterionFieldsWords.inARow }}
          onChange={(chosen) =>
            form.update({
              name: rule.name as 'criterion',
              value: (chosen === 'inARow' ? { kind: chosen, n: 3 } : { kind: chosen, k: 3, n: 4 }) as never,
            })
          }
        />
        {isOfLast && (
          <>
            <Blank field={k} label={criterionFieldsWords.inHowMany} />
            <span>{criterionFieldsWords.ofTheLast}</span>
          </>
        )}
        <Blank
          field={n}
          label={isOfLast ? criterionFieldsWords.ofTheLastHowMany : criterionFieldsWords.howManyInARow}
        />
        <Pick
          field={pointPer}
          label={criterionFieldsWords.daysOrSessions}
          options={{ day: 'days', session: 'sessions' }}
        />
      </div>
      <FieldMessage id={value.errorId} messages={errors} />
      <p role="status" className="rounded-field bg-wash px-4 py-3">
        {sentence ?? criterionFieldsWords.whatIsMissingAboveAnd}
      </p>
      {luck.length > 0 && (
        <div className="rounded-field border border-rule px-4 py-3 text-small">
          <h3 className="font-semibold">{criterionFieldsWords.howEasilyLuckWouldMeet}</h3>
          {luck.map((sentence) => (
            <p key={sentence} className="mt-0.5 text-ink-2">
              {sentence}
            </p>
          ))}
        </div>
      )}
      <div className="grid gap-4 sm:grid-cols-3">
        <TextField
          field={minimumOpportunities}
          label={criterionFieldsWords.countsWithAtLeastSo(of ? of.weightNoun.many : 'opportunities')}
          type="figure"
          placeholder={of ? String(of.usualMinimum()) : undefined}
        />
        <TextField field={distinctLocations} label={criterionFieldsWords.inEachOfSoMany} type="figure" />
        <TextField field={distinctObservers} label={criterionFieldsWords.forEachOfSoMany} type="figure" />
      </div>
    </div>
  );
}

function Blank({ field, label }: { field: FieldMetadata<number>; label: string }) {
  return (
    <input
      id={field.id}
      name={field.name}
      key={field.key}
      defaultValue={field.initialValue}
      aria-label={label}
      aria-invalid={!field.valid || undefined}
      inputMode="decimal"
      autoComplete="off"
      className="input w-18 text-center text-lg"
    />
  );
}

interface PickProps<T extends string> {
  // biome-ignore lint/suspicious/noExplicitAny: literals of every kind
  field: FieldMetadata<any>;
  label: string;
  options: Record<T, string>;
  onChange?: (chosen: T) => void;
}

function Pick<T extends string>({ field, label, options, onChange }: PickProps<T>) {
  return (
    <select
      {...getSelectProps(field)}
      key={field.key}
      aria-label={label}
      onChange={onChange && ((event) => onChange(event.target.value as T))}
      className="select w-auto text-lg"
    >
      {Object.entries(options).map(([id, name]) => (
        <option key={id} value={id}>
          {name as string}
        </option>
      ))}
    </select>
  );
}
