import { SelectField, TextField } from '../../platform/ui/form-fields';
import type { MeasureProps } from '../lists';

export function IntervalRecordingFields({ field }: MeasureProps<'intervalRecording'>) {
  const { method, seconds, planned } = field.getFieldset();
  return (
    <div className="grid gap-4 sm:grid-cols-3">
      <SelectField
        field={method}
        label="Counts when it was there"
        options={[
          { id: 'momentary', name: 'at the end of the interval' },
          { id: 'partial', name: 'at any time in it' },
          { id: 'whole', name: 'all through it' },
        ]}
      />
      <TextField field={seconds} label="Length of an interval" type="figure" unit="seconds" className="w-24" />
      <TextField field={planned} label="Intervals in a session" type="figure" className="w-24" />
    </div>
  );
}
