import { SelectField, TextField } from '../../platform/ui/form-fields';
import { type MeasureProps, Nouns, SupportOrPlain } from '../lists';
import { trialsFieldsWords } from './words';

export function TrialsFields({ form, field }: MeasureProps<'trials'>) {
  const { planned, opportunity, refusalIsOpportunity, levels, mostSupport } = field.getFieldset();
  return (
    <>
      <Nouns field={opportunity} what="opportunity" />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField field={planned} label={trialsFieldsWords.plannedInASessionIf} type="figure" className="w-24" />
        <SelectField
          field={refusalIsOpportunity}
          label={trialsFieldsWords.whenTheStudentRefuses}
          options={[
            { id: 'off', name: trialsFieldsWords.noOpportunityLeftOut },
            { id: 'on', name: trialsFieldsWords.anOpportunityNotTakenIncorrect },
          ]}
        />
      </div>
      <SupportOrPlain form={form} field={field} levels={levels} mostSupport={mostSupport} />
    </>
  );
}
