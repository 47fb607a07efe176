import { useId, useState } from 'react';
import { FieldMessage } from '../platform/ui/fields';

interface FileFieldProps {
  name: string;
  label: string;
  messages: string[] | undefined;
  /** Which files are offered. */
  accept?: string;
  /** The largest that is taken, in bytes, and what is said of a larger one: it is not sent. */
  most: { bytes: number; words: string };
}

/** A labelled file from one's own device: a table or an archive of tables, unless it is said. */
export function FileField({ name, label, messages, most, accept = '.csv,.tsv,.txt,.xlsx,.zip' }: FileFieldProps) {
  const id = useId();
  const [isTooLarge, setTooLarge] = useState(false);
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
        onChange={({ currentTarget }) => {
          const larger = [...(currentTarget.files ?? [])].some(({ size }) => size > most.bytes);
          setTooLarge(larger);
          // It is not sent: the server would not read it either.
          if (larger) currentTarget.value = '';
        }}
        aria-describedby={`${id}-message`}
        className="file-input w-full"
      />
      <FieldMessage id={`${id}-message`} messages={isTooLarge ? [most.words] : messages} />
    </div>
  );
}
