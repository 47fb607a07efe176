import { SelectField, TextField } from '../../platform/ui/form-fields';
import type { MeasureProps } from '../lists';
import { intervalRecordingFieldsWords } from './words';

export function IntervalRecordingFields({ field }: MeasureProps<'intervalRecording'>) {
  const { method, seconds, planned } = field.getFieldset();
  return (
    <div className="grid gap-4 sm:grid-cols-3">
      <SelectField
        field={method}
        label={intervalRecordingFieldsWords.countsWhenItWasThere}
        options={[
          { id: 'momentary', name: intervalRecordingFieldsWords.atTheEndOfThe },
          { id: 'partial', name: intervalRecordingFieldsWords.atAnyTimeInIt },
          { id: 'whole', name: intervalRecordingFieldsWords.allThroughIt },
        ]}
      />
      <TextField
        field={seconds}
        label={intervalRecordingFieldsWords.lengthOfAnInterval}
        type="figure"
        unit="seconds"
        className="w-24"
      />
      <TextField
        field={planned}
        label={intervalRecordingFieldsWords.intervalsInASession}
        type="figure"
        className="w-24"
      />
    </div>
  );
}
