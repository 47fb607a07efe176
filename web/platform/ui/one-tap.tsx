import { Form } from 'react-router';

interface OneTapProps {
  /** What the page is asked to do … */
  intent: string;
  /** … with what. */
  values: Readonly<Record<string, string>>;
  children: string;
  /** What it says to whom the row beside it is not read. */
  label?: string;
  isLarge?: boolean;
}

/** One thing that is done to one row of a list, by one tap. */
export function OneTap({ intent, values, children, label, isLarge = false }: OneTapProps) {
  return (
    <Form method="post">
      {Object.entries(values).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <button
        type="submit"
        name="intent"
        value={intent}
        className={`btn ${isLarge ? '' : 'btn-sm'}`}
        aria-label={label}
      >
        {children}
      </button>
    </Form>
  );
}
