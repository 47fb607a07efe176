import { SelectField, TextField } from '../../platform/ui/form-fields';
import { type MeasureProps, Nouns } from '../lists';

export function FrequencyFields({ field }: MeasureProps<'frequency'>) {
  const { per, sessionMinutes, counted } = field.getFieldset();
  return (
    <>
      <Nouns field={counted} what="of what is counted" />
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField
          field={per}
          label="Said as"
          options={[
            { id: 'hour', name: 'how many an hour' },
            { id: 'minute', name: 'how many a minute' },
            { id: 'session', name: 'how many a session' },
          ]}
        />
        <TextField
          field={sessionMinutes}
          label="Length of a session, where it is fixed"
          type="figure"
          unit="minutes"
          className="w-24"
        />
      </div>
    </>
  );
}
