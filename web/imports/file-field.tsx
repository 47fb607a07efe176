import { useId } from 'react';
import { FieldMessage } from '../platform/ui/fields';

interface FileFieldProps {
  name: string;
  label: string;
  messages: string[] | undefined;
  /** Which files are offered. */
  accept?: string;
}

/** A labelled file from one's own device: a table or an archive of tables, unless it is said. */
export function FileField({ name, label, messages, accept = '.csv,.tsv,.txt,.xlsx,.zip' }: FileFieldProps) {
  const id = useId();
  return (
    <div className="grid gap-1">
      <label htmlFor={id} className="text-small font-semibold">
        {label}
      </label>
      <input
        id={id}
        type="file"
        name={name}
        accept={accept}
        aria-describedby={`${id}-message`}
        className="file-input w-full"
      />
      <FieldMessage id={`${id}-message`} messages={messages} />
    </div>
  );
}
