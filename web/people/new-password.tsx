import type { FieldMetadata } from '@conform-to/react';
import { PasswordField } from './password-field';
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
        <PasswordField key={field.name} field={field} label={label} holds="new-password" />
      ))}
    </>
  );
}
