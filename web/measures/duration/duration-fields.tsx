import { SelectField } from '../../platform/ui/form-fields';
import { type MeasureProps, Nouns } from '../lists';
import { durationFieldsWords } from './words';

export function DurationFields({ field }: MeasureProps<'duration'>) {
  const { of, unit, episode } = field.getFieldset();
  return (
    <>
      <Nouns field={episode} what="episode" />
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField
          field={of}
          label={durationFieldsWords.theValueIs}
          options={[
            { id: 'total', name: durationFieldsWords.allEpisodesTogether },
            { id: 'episode', name: durationFieldsWords.theMeanOfAnEpisode },
            { id: 'share', name: durationFieldsWords.theShareOfTheSession },
          ]}
        />
        <SelectField
          field={unit}
          label={durationFieldsWords.in}
          options={[
            { id: 'minutes', name: 'minutes' },
            { id: 'seconds', name: 'seconds' },
          ]}
        />
      </div>
    </>
  );
}
