import { CheckField } from '../../platform/ui/form-fields';
import { type MeasureProps, NamedRows, Nouns, SupportOrPlain } from '../lists';
import { itemCheckFieldsWords } from './words';

export function ItemCheckFields({ form, field }: MeasureProps<'itemCheck'>) {
  const { item, items, levels, mostSupport, requiresAll } = field.getFieldset();
  return (
    <>
      <Nouns field={item} what="item" />
      <NamedRows form={form} list={items} stem="item" what="item" title={itemCheckFieldsWords.theItems} />
      <CheckField field={requiresAll} label={itemCheckFieldsWords.everyItem} />
      <SupportOrPlain form={form} field={field} levels={levels} mostSupport={mostSupport} />
    </>
  );
}
