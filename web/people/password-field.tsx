import { type FieldMetadata, getInputProps } from '@conform-to/react';
import { Field } from '../platform/ui/fields';

interface PasswordFieldProps {
  field: FieldMetadata<string>;
  label: string;
  /** What a password manager may put in: the password there is, a new one, or a code. */
  holds?: 'current-password' | 'new-password' | 'one-time-code';
  /** Digits only. */
  isFigures?: boolean;
  className?: string;
}

/** A password, a PIN or a code: what is typed is not kept by the browser as other texts are. */
export function PasswordField(props: PasswordFieldProps) {
  const { field, label, holds = 'current-password', isFigures = false, className = 'w-full' } = props;
  const isCode = holds === 'one-time-code';
  return (
    <Field field={field} label={label}>
      <input
        {...getInputProps(field, { type: isCode ? 'text' : 'password' })}
        key={field.key}
        autoComplete={holds}
        spellCheck={false}
        inputMode={isFigures ? 'numeric' : undefined}
        className={`input ${className}`}
      />
    </Field>
  );
}
