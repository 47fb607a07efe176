import { CheckField, SelectField } from '../../platform/ui/form-fields';
import { type MeasureProps, NamedRows, SupportOrPlain } from '../lists';
import { taskAnalysisFieldsWords } from './words';

export function TaskAnalysisFields({ form, field }: MeasureProps<'taskAnalysis'>) {
  const { steps, chaining, opportunity, levels, mostSupport, requiresAll } = field.getFieldset();
  return (
    <>
      <NamedRows form={form} list={steps} stem="step" what="step" title={taskAnalysisFieldsWords.theStepsInOrder} />
      <SelectField
        field={chaining}
        label={taskAnalysisFieldsWords.taught}
        className="w-full sm:w-80"
        options={[
          { id: 'whole', name: taskAnalysisFieldsWords.allStepsAtOnce },
          { id: 'forward', name: taskAnalysisFieldsWords.fromTheFirstStepOn },
          { id: 'backward', name: taskAnalysisFieldsWords.fromTheLastStepBack },
        ]}
      />
      <SelectField
        field={opportunity}
        label={taskAnalysisFieldsWords.whenAStepIsNotDone}
        className="w-full sm:w-80"
        options={[
          { id: 'each', name: taskAnalysisFieldsWords.theNextGetsItsOpportunity },
          { id: 'single', name: taskAnalysisFieldsWords.theRestIsNotDone },
        ]}
      />
      <CheckField field={requiresAll} label={taskAnalysisFieldsWords.everyStep} />
      <SupportOrPlain form={form} field={field} levels={levels} mostSupport={mostSupport} />
    </>
  );
}
