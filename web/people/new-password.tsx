import { type FieldMetadata, getInputProps } from '@conform-to/react';
import { Field } from '../platform/ui/fields';
import { newPasswordWords } from './words';

interface NewPasswordProps {
  password: FieldMetadata<string>;
  again: FieldMetadata<string>;
}

/** A password that is chosen, typed twice. */
export function NewPassword({ password, again }: NewPasswordProps) {
  return (
    <>
      {[
        { field: password, label: newPasswordWords.aPasswordOf12Characters },
        { field: again, label: newPasswordWords.onceMore },
      ].map(({ field, label }) => (
        <Field key={field.name} field={field} label={label}>
          <input
            {...getInputProps(field, { type: 'password' })}
            key={field.key}
            autoComplete="new-password"
            className="input w-full"
          />
        </Field>
      ))}
    </>
  );
}
