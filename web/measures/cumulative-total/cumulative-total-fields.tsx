import { TextField } from '../../platform/ui/form-fields';
import { type MeasureProps, NamedRows, Nouns } from '../lists';
import { cumulativeTotalFieldsWords } from './words';

export function CumulativeTotalFields({ form, field }: MeasureProps<'cumulativeTotal'>) {
  const { unit, total, categories } = field.getFieldset();
  return (
    <>
      <Nouns field={unit} what="unit" />
      <TextField field={total} label={cumulativeTotalFieldsWords.whatItShouldComeTo} type="figure" className="w-28" />
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
