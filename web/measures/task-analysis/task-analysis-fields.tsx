import { SelectField } from '../../platform/ui/form-fields';
import { Levels, type MeasureProps, NamedRows } from '../lists';

export function TaskAnalysisFields({ form, field }: MeasureProps<'taskAnalysis'>) {
  const { steps, chaining, levels, mostSupport } = field.getFieldset();
  return (
    <>
      <NamedRows form={form} list={steps} stem="step" what="step" title="The steps, in order" />
      <SelectField
        field={chaining}
        label="Taught"
        className="w-full sm:w-80"
        options={[
          { id: 'whole', name: 'all steps at once' },
          { id: 'forward', name: 'from the first step on' },
          { id: 'backward', name: 'from the last step back' },
        ]}
      />
      <Levels form={form} levels={levels} mostSupport={mostSupport} />
    </>
  );
}
