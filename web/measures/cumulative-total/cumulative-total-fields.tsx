import { SelectField, TextField } from '../../platform/ui/form-fields';
import { type MeasureProps, NamedRows, Nouns } from '../lists';
import { cumulativeTotalFieldsWords } from './words';

export function CumulativeTotalFields({ form, field }: MeasureProps<'cumulativeTotal'>) {
  const { unit, total, categories, amounts } = field.getFieldset();
  return (
    <>
      <Nouns field={unit} what="unit" />
      <TextField field={total} label={cumulativeTotalFieldsWords.whatItShouldComeTo} type="figure" className="w-28" />
      <SelectField
        field={amounts}
        label={cumulativeTotalFieldsWords.amountsAre}
        className="w-full sm:w-80"
        options={[
          { id: 'added', name: cumulativeTotalFieldsWords.onlyAdded },
          { id: 'balance', name: cumulativeTotalFieldsWords.addedAndTakenOff },
        ]}
      />
      <NamedRows
        form={form}
        list={categories}
        stem="category"
        what="category"
        title={cumulativeTotalFieldsWords.categoriesOptional}
      />
    </>
  );
}
