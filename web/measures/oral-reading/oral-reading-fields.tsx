import { TextField } from '../../platform/ui/form-fields';
import type { MeasureProps } from '../lists';
import { oralReadingFieldsWords } from './words';

export function OralReadingFields({ field }: MeasureProps<'oralReading'>) {
  const { seconds } = field.getFieldset();
  return (
    <TextField
      field={seconds}
      label={oralReadingFieldsWords.lengthOfAReadingIf}
      type="figure"
      unit="seconds"
      className="w-24"
    />
  );
}
