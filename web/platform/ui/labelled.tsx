import type { ReactNode } from 'react';
import { FieldMessage } from './fields';

/** A control with its label, and below it what is wrong with it. */
export function Labelled(props: { label: string; message?: string | undefined; children: ReactNode }) {
  return (
    <div className="grid content-start gap-1">
      {/* biome-ignore lint/a11y/noLabelWithoutControl: the control is among the children */}
      <label className="grid gap-1">
        <span className="text-small font-semibold">{props.label}</span>
        {props.children}
      </label>
      <FieldMessage messages={props.message ? [props.message] : undefined} />
    </div>
  );
}

interface InputProps {
  label: string;
  type?: 'date' | 'time' | 'text';
  value: string;
  /** The latest date that may be chosen. */
  max?: string;
  message?: string | undefined;
  onChange: (value: string) => void;
}

/** A labelled date, time or line of text. */
export function LabelledInput({ label, message, onChange, type = 'text', ...rest }: InputProps) {
  return (
    <Labelled label={label} message={message}>
      <input type={type} className="input w-full" onChange={(event) => onChange(event.target.value)} {...rest} />
    </Labelled>
  );
}

interface SelectProps {
  label: string;
  value: string | null;
  /** What choosing nothing is called, where one may. */
  none?: string;
  options: readonly { id: string; name: string }[];
  message?: string | undefined;
  onChange: (id: string | null) => void;
}

/** A labelled choice of one. */
export function LabelledSelect({ label, value, none, options, message, onChange }: SelectProps) {
  return (
    <Labelled label={label} message={message}>
      <select className="select w-full" value={value ?? ''} onChange={(event) => onChange(event.target.value || null)}>
        {none !== undefined && <option value="">{none}</option>}
        {options.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </Labelled>
  );
}
