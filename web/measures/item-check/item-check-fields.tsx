import { type FieldMetadata, getInputProps } from '@conform-to/react';
import type { DefinitionOf } from '~/core/measures/measure';
import { usualLevels } from '~/core/measures/support-levels';
import { CheckField } from '../../platform/ui/form-fields';
import { Levels, type MeasureProps, NamedRows, Nouns, valuesOf } from '../lists';
import { itemCheckFieldsWords } from './words';

export function ItemCheckFields({ form, field }: MeasureProps<'itemCheck'>) {
  const { item, items, levels, mostSupport, requiresAll } = field.getFieldset();
  const keys = valuesOf(levels).map(({ key }) => key);
  const isPlain = keys.length === 1 && keys[0] === 'right';
  const plain = [{ key: 'right', label: itemCheckFieldsWords.right, words: 'right' }];
  const change = (noted: boolean) => {
    // Conform’s types cannot follow a name that is computed.
    form.update({ name: field.name as 'measure', value: { ...field.value, ...levelsFor(noted) } as never });
  };
  const levelsFor = (noted: boolean) =>
    noted ? { levels: usualLevels, mostSupport: 'independent' } : { levels: plain, mostSupport: 'right' };
  return (
    <>
      <Nouns field={item} what="item" />
      <NamedRows form={form} list={items} stem="item" what="item" title={itemCheckFieldsWords.theItems} />
      <label className="flex tap items-center gap-2.5">
        <input
          type="checkbox"
          checked={!isPlain}
          onChange={(event) => change(event.target.checked)}
          className="checkbox checkbox-sm"
        />
        {itemCheckFieldsWords.noteHowMuchHelpEach}
      </label>
      <CheckField field={requiresAll} label={itemCheckFieldsWords.everyItem} />
      {isPlain ? <PlainLevel field={field} /> : <Levels form={form} levels={levels} mostSupport={mostSupport} />}
    </>
  );
}

function PlainLevel({ field }: { field: FieldMetadata<DefinitionOf<'itemCheck'>> }) {
  const { levels, mostSupport } = field.getFieldset();
  const level = levels.getFieldList()[0]?.getFieldset();
  if (!level) return null;
  return [level.key, level.label, level.words, mostSupport].map((one) => (
    <input {...getInputProps(one, { type: 'hidden' })} key={one.key} />
  ));
}
