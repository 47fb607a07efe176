import { SelectField, TextField } from '../../platform/ui/form-fields';
import { Levels, type MeasureProps, Nouns } from '../lists';

export function TrialsFields({ form, field }: MeasureProps<'trials'>) {
  const { planned, opportunity, refusalIsOpportunity, levels, mostSupport } = field.getFieldset();
  return (
    <>
      <Nouns field={opportunity} what="opportunity" />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField field={planned} label="Planned in a session, if the goal says" type="figure" className="w-24" />
        <SelectField
          field={refusalIsOpportunity}
          label="When the student refuses"
          options={[
            { id: 'off', name: 'no opportunity: left out' },
            { id: 'on', name: 'an opportunity not taken: incorrect' },
          ]}
        />
      </div>
      <Levels form={form} levels={levels} mostSupport={mostSupport} />
    </>
  );
}
