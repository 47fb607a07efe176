import { type FieldMetadata, getInputProps, getSelectProps } from '@conform-to/react';
import type { ReactNode } from 'react';
import { Field, FieldMessage } from './fields';

// biome-ignore lint/suspicious/noExplicitAny: a field stands in forms of every shape
type AnyField = FieldMetadata<any>;

interface TextFieldProps {
  field: AnyField;
  label: string;
  /** For screen readers only, where a column's head says it. */
  hidesLabel?: boolean;
  /** A figure is typed as text, so that “0,5” may be typed too. */
  type?: 'text' | 'email' | 'date' | 'time' | 'figure';
  placeholder?: string;
  /** What stands after the box: “minutes”. */
  unit?: string;
  className?: string;
  onPaste?: React.ClipboardEventHandler<HTMLInputElement>;
}

/** A labelled line of text, a date, a time or a figure. */
export function TextField({
  field,
  label,
  hidesLabel,
  type = 'text',
  unit,
  className = 'w-full',
  ...rest
}: TextFieldProps) {
  const isFigure = type === 'figure';
  return (
    <Field field={field} label={label} hidesLabel={hidesLabel}>
      <span className="flex items-center gap-2">
        <input
          {...getInputProps(field, { type: isFigure ? 'text' : type })}
          key={field.key}
          inputMode={isFigure ? 'decimal' : undefined}
          autoComplete="off"
          className={`input ${className}`}
          {...rest}
        />
        {unit && <span className="text-small text-ink-2">{unit}</span>}
      </span>
    </Field>
  );
}

/** Something that is so or not. */
export function CheckField({ field, label }: { field: FieldMetadata<boolean>; label: string }) {
  return (
    <label className="flex tap items-center gap-2.5">
      <input {...getInputProps(field, { type: 'checkbox' })} key={field.key} className="checkbox checkbox-sm" />
      {label}
    </label>
  );
}

interface SelectFieldProps {
  field: AnyField;
  label: string;
  /** What choosing nothing is called, where one may. */
  none?: string;
  options: readonly { id: string; name: string }[];
  className?: string;
  onChange?: React.ChangeEventHandler<HTMLSelectElement>;
}

/** A labelled choice of one. */
export function SelectField({ field, label, none, options, className = 'w-full', onChange }: SelectFieldProps) {
  return (
    <Field field={field} label={label}>
      <select {...getSelectProps(field)} key={field.key} className={`select ${className}`} onChange={onChange}>
        {none !== undefined && <option value="">{none}</option>}
        {options.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </Field>
  );
}

interface CheckListProps {
  field: AnyField;
  legend: ReactNode;
  /** Where several lists make one field, its message stands elsewhere. */
  hidesMessage?: boolean;
  options: readonly { id: string; name: string }[];
}

/** A labelled choice of several. */
export function CheckList({ field, legend, hidesMessage, options }: CheckListProps) {
  const chosen = new Set([(field.initialValue as string[] | string | undefined) ?? []].flat());
  return (
    <fieldset className="grid gap-1">
      <legend className="mb-1 text-small font-semibold">{legend}</legend>
      <div className="flex flex-wrap gap-x-5">
        {options.map(({ id, name }) => (
          <label key={id} className="flex tap items-center gap-2.5">
            <input
              type="checkbox"
              name={field.name}
              value={id}
              defaultChecked={chosen.has(id)}
              className="checkbox checkbox-sm"
            />
            {name}
          </label>
        ))}
      </div>
      {!hidesMessage && <FieldMessage id={field.errorId} messages={field.errors} />}
    </fieldset>
  );
}

interface QuestionProps {
  /** The checkbox that answers it. */
  field: AnyField;
  /** What is asked; nothing while there is nothing to ask. */
  question: string[] | null | undefined;
  answer: string;
}

/** Asked where something is nearly the same as what is there: it is saved only when this is answered. */
export function Question({ field, question, answer }: QuestionProps) {
  if (!question?.length) return null;
  return (
    <div className="alert alert-error alert-soft block">
      <FieldMessage id={field.errorId} messages={question} />
      <label className="mt-2 flex tap items-center gap-2.5">
        <input {...getInputProps(field, { type: 'checkbox' })} key={field.key} className="checkbox checkbox-sm" />
        {answer}
      </label>
    </div>
  );
}
