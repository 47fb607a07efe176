import { SelectField, TextField } from '../../platform/ui/form-fields';
import { Levels, type MeasureProps, Nouns } from '../lists';

export function TrialsFields({ form, field }: MeasureProps<'trials'>) {
  const { planned, chance, refusalIsOpportunity, levels, mostSupport } = field.getFieldset();
  return (
    <>
      <Nouns field={chance} what="chance" />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField field={planned} label="Planned in a session, if the goal says" type="figure" className="w-24" />
        <SelectField
          field={refusalIsOpportunity}
          label="When help or work is declined"
          options={[
            { id: 'off', name: 'no chance: left out' },
            { id: 'on', name: 'a chance that was not taken' },
          ]}
        />
      </div>
      <Levels form={form} levels={levels} mostSupport={mostSupport} />
    </>
  );
}
