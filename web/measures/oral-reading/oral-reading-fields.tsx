import { SelectField, TextField } from '../../platform/ui/form-fields';
import type { MeasureProps } from '../lists';
import { oralReadingFieldsWords } from './words';

export function OralReadingFields({ field }: MeasureProps<'oralReading'>) {
  const { seconds, passages } = field.getFieldset();
  return (
    <>
      <TextField
        field={seconds}
        label={oralReadingFieldsWords.lengthOfAReadingIf}
        type="figure"
        unit="seconds"
        className="w-24"
      />
      <SelectField
        field={passages}
        label={oralReadingFieldsWords.severalPassages}
        className="w-full sm:w-80"
        options={[
          { id: 'together', name: oralReadingFieldsWords.together },
          { id: 'median', name: oralReadingFieldsWords.median },
        ]}
      />
    </>
  );
}
