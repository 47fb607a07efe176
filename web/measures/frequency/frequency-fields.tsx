import { SelectField, TextField } from '../../platform/ui/form-fields';
import { type MeasureProps, Nouns } from '../lists';
import { frequencyFieldsWords } from './words';

export function FrequencyFields({ field }: MeasureProps<'frequency'>) {
  const { per, sessionMinutes, counted } = field.getFieldset();
  return (
    <>
      <Nouns field={counted} what={frequencyFieldsWords.ofWhatIsCounted} />
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField
          field={per}
          label={frequencyFieldsWords.saidAs}
          options={[
            { id: 'hour', name: frequencyFieldsWords.howManyAnHour },
            { id: 'minute', name: frequencyFieldsWords.howManyAMinute },
            { id: 'session', name: frequencyFieldsWords.howManyASession },
          ]}
        />
        <TextField
          field={sessionMinutes}
          label={frequencyFieldsWords.lengthOfASessionWhere}
          type="figure"
          unit="minutes"
          className="w-24"
        />
      </div>
    </>
  );
}
