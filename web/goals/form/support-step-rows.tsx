import { type FieldMetadata, type FormMetadata, getInputProps } from '@conform-to/react';
import { newKey } from '~/core/goals/keys';
import type { Named } from '~/core/measures/named';
import { keysOf } from '../../measures/lists';
import { TextField } from '../../platform/ui/form-fields';
import { Rows } from '../../platform/ui/rows';
import { supportStepRowsWords } from './words';

interface SupportStepRowsProps {
  // biome-ignore lint/suspicious/noExplicitAny: rows stand in forms of every shape
  form: FormMetadata<any>;
  steps: FieldMetadata<Named[] | undefined>;
}

/** What adults do in a support, step by step: while observing one can say which of it was done. */
export function SupportStepRows({ form, steps }: SupportStepRowsProps) {
  const list = steps as FieldMetadata<Named[]>;
  const { length } = list.getFieldList();
  return (
    <details open={length > 0 || undefined}>
      <summary className="tap py-1 text-small text-ink-2 link">{supportStepRowsWords.stepsOfTheSupport}</summary>
      <p className="mb-2 text-small text-ink-2">{supportStepRowsWords.whatTheyAreFor}</p>
      <Rows form={form} list={list} what="step" blank={() => ({ key: newKey('step', keysOf(list)), label: '' })}>
        {(row, at) => {
          const { key, label } = row.getFieldset();
          return (
            <>
              <input {...getInputProps(key, { type: 'hidden' })} key={key.key} />
              <TextField field={label} label={supportStepRowsWords.whatTheAdultDoes} hidesLabel={at > 0} />
            </>
          );
        }}
      </Rows>
    </details>
  );
}
