import { SelectField } from '../../platform/ui/form-fields';
import { type MeasureProps, Nouns } from '../lists';

export function DurationFields({ field }: MeasureProps<'duration'>) {
  const { of, unit, episode } = field.getFieldset();
  return (
    <>
      <Nouns field={episode} what="episode" />
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField
          field={of}
          label="The value is"
          options={[
            { id: 'total', name: 'all episodes together' },
            { id: 'episode', name: 'the mean of an episode' },
            { id: 'share', name: 'the share of the session' },
          ]}
        />
        <SelectField
          field={unit}
          label="In"
          options={[
            { id: 'minutes', name: 'minutes' },
            { id: 'seconds', name: 'seconds' },
          ]}
        />
      </div>
    </>
  );
}
