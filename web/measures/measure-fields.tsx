import type { FieldMetadata } from '@conform-to/react';
import type { ComponentType } from 'react';
import {
  beginningOf,
  type Kind,
  kinds,
  type MeasureDefinition,
  measureKinds,
  measureOf,
} from '~/core/measures/measure';
import { FieldMessage } from '../platform/ui/fields';
import { CumulativeTotalFields } from './cumulative-total/cumulative-total-fields';
import { DurationFields } from './duration/duration-fields';
import { FrequencyFields } from './frequency/frequency-fields';
import { IntervalRecordingFields } from './interval-recording/interval-recording-fields';
import { ItemCheckFields } from './item-check/item-check-fields';
import { LatencyFields } from './latency/latency-fields';
import type { GoalForm, MeasureProps } from './lists';
import { MeasurementFields } from './measurement/measurement-fields';
import { OralReadingFields } from './oral-reading/oral-reading-fields';
import { RubricFields } from './rubric/rubric-fields';
import { TaskAnalysisFields } from './task-analysis/task-analysis-fields';
import { TrialsFields } from './trials/trials-fields';
import { measureFieldsWords } from './words';

/** The measure, chosen by what one wants to know, and its settings. */
export function MeasureFields({
  form,
  field,
  kind,
}: {
  form: GoalForm;
  field: FieldMetadata<MeasureDefinition>;
  kind: Kind;
}) {
  // The field holds a measure of the kind that is chosen: `choose` puts both there at once, and conform's types cannot follow it.
  const Settings = settings[kind] as ComponentType<{ form: GoalForm; field: FieldMetadata<MeasureDefinition> }>;
  const choose = (chosen: Kind) => {
    const measure = beginningOf(chosen);
    form.update({ name: field.name as 'measure', value: measure as never });
    // The minimum is left blank: it then follows what is planned.
    const criterion = { ...measureOf(measure).defaultCriterion(), minimumOpportunities: undefined };
    form.update({ name: 'criterion', value: criterion as never });
  };
  return (
    <>
      <input type="hidden" name={`${field.name}.kind`} value={kind} />
      <fieldset>
        <legend className="sr-only">{measureFieldsWords.whatDoYouWantTo}</legend>
        <div className="grid gap-x-3 gap-y-1 sm:grid-cols-2">
          {measureKinds.map((one) => (
            <label
              key={one}
              className={`flex items-start gap-3 rounded-field border px-3 py-2 ${one === kind ? 'border-ink bg-sheet' : 'border-transparent hover:bg-wash'}`}
            >
              <input
                type="radio"
                name="question"
                checked={one === kind}
                onChange={() => choose(one)}
                className="radio radio-sm mt-0.5"
              />
              <span>
                <span className="font-semibold">{kinds[one].question}</span>{' '}
                <span className="text-small text-ink-2">{kinds[one].term}</span>
                <span className="block text-small text-ink-2">{kinds[one].example}</span>
              </span>
            </label>
          ))}
        </div>
      </fieldset>
      <div className="mt-5 grid gap-5">
        <Settings key={kind} form={form} field={field} />
      </div>
      <FieldMessage id={field.errorId} messages={field.errors} />
    </>
  );
}

/** The settings of each kind of measure. */
const settings: { [K in Kind]: ComponentType<MeasureProps<K>> } = {
  trials: TrialsFields,
  itemCheck: ItemCheckFields,
  frequency: FrequencyFields,
  duration: DurationFields,
  latency: LatencyFields,
  intervalRecording: IntervalRecordingFields,
  rubric: RubricFields,
  cumulativeTotal: CumulativeTotalFields,
  taskAnalysis: TaskAnalysisFields,
  oralReading: OralReadingFields,
  measurement: MeasurementFields,
};
