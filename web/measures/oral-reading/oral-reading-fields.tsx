import { TextField } from '../../platform/ui/form-fields';
import type { MeasureProps } from '../lists';

export function OralReadingFields({ field }: MeasureProps<'oralReading'>) {
  const { seconds } = field.getFieldset();
  return (
    <TextField
      field={seconds}
      label="Length of a reading, if the goal says"
      type="figure"
      unit="seconds"
      className="w-24"
    />
  );
}
