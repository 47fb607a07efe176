import { getFormProps, type SubmissionResult, useForm } from '@conform-to/react';
import { Form } from 'react-router';
import { z } from 'zod';
import { isoDateField } from '~/core/calendar/date-fields';
import { type IsoDate, longDate } from '~/core/calendar/iso-date';
import { TextField } from '../platform/ui/form-fields';
import { readForm } from '../platform/ui/read-form';

export const start = z.object({ from: isoDateField });

interface StartFormProps {
  from: IsoDate;
  today: IsoDate;
  result: SubmissionResult<string[]> | undefined;
}

/** Since when the case manager has been that: what was seen before is entered as of then. */
export function StartForm({ from, today, result }: StartFormProps) {
  const [form, fields] = useForm({
    id: 'start',
    lastResult: result,
    defaultValue: { from },
    onValidate: ({ formData }) => readForm(formData, start),
    shouldRevalidate: 'onInput',
  });
  return (
    <Form method="post" {...getFormProps(form)} className="flex max-w-xl flex-wrap items-end gap-3 py-2">
      <input type="hidden" name="intent" value="start" />
      <TextField field={fields.from} label={`On the team since (${longDate(today)} at the latest)`} type="date" />
      <button type="submit" className="btn h-11">
        Save the day
      </button>
    </Form>
  );
}
