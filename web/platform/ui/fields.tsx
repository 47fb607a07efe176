import type { FieldMetadata, FormMetadata } from '@conform-to/react';
import type { ReactNode } from 'react';

type AnyField = Pick<FieldMetadata<unknown>, 'id' | 'errorId' | 'errors'>;

/** A labelled field with its message below it. The control inside carries conform's `id` and `aria-describedby`. */
export function Field(props: {
  field: AnyField;
  label: string;
  hidesLabel?: boolean | undefined;
  children: ReactNode;
}) {
  const { field, label, hidesLabel, children } = props;
  return (
    <div className="grid gap-1">
      <label htmlFor={field.id} className={hidesLabel ? 'sr-only' : 'text-small font-semibold'}>
        {label}
      </label>
      {children}
      <FieldMessage id={field.errorId} messages={field.errors} />
    </div>
  );
}

export function FieldMessage({ id, messages }: { id?: string | undefined; messages: string[] | undefined }) {
  if (!messages?.length) return null;
  return (
    <p id={id} role="alert" className="text-small font-semibold text-clay-deep">
      {messages.join(' ')}
    </p>
  );
}

/** What is wrong with a form as a whole. */
export function FormMessage({ form }: { form: Pick<FormMetadata<Record<string, unknown>>, 'errorId' | 'errors'> }) {
  if (!form.errors?.length) return null;
  return (
    <p id={form.errorId} role="alert" className="alert alert-error alert-soft block font-semibold">
      {form.errors.join(' ')}
    </p>
  );
}
