import { SelectField, TextField } from '../../platform/ui/form-fields';
import { type MeasureProps, Nouns } from '../lists';
import { measurementFieldsWords } from './words';

export function MeasurementFields({ field }: MeasureProps<'measurement'>) {
  const { unit, of, reading } = field.getFieldset();
  return (
    <>
      <Nouns field={reading} what="measurement" />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField field={unit} label={measurementFieldsWords.unitSuchAsCmOr} className="w-24" />
        <SelectField
          field={of}
          label={measurementFieldsWords.ofSeveralTheValueIs}
          options={[
            { id: 'mean', name: measurementFieldsWords.theirMean },
            { id: 'highest', name: measurementFieldsWords.theHighest },
            { id: 'lowest', name: measurementFieldsWords.theLowest },
            { id: 'last', name: measurementFieldsWords.theLast },
          ]}
        />
      </div>
    </>
  );
}
