import { SelectField, TextField } from '../../platform/ui/form-fields';
import { type MeasureProps, Nouns } from '../lists';

export function MeasurementFields({ field }: MeasureProps<'measurement'>) {
  const { unit, of, reading } = field.getFieldset();
  return (
    <>
      <Nouns field={reading} what="measurement" />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField field={unit} label="Unit, such as cm or kg" className="w-24" />
        <SelectField
          field={of}
          label="Of several, the value is"
          options={[
            { id: 'mean', name: 'their mean' },
            { id: 'highest', name: 'the highest' },
            { id: 'lowest', name: 'the lowest' },
            { id: 'last', name: 'the last' },
          ]}
        />
      </div>
    </>
  );
}
