import type { SubmissionResult } from '@conform-to/react';
import { z } from 'zod';
import { isoDateField } from '~/core/calendar/date-fields';
import { type IsoDate, longDate } from '~/core/calendar/iso-date';
import { TextField } from '../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { startFormWords } from './words';

export const start = z.object({ from: isoDateField });

interface StartFormProps {
  from: IsoDate;
  today: IsoDate;
  result: SubmissionResult<string[]> | undefined;
}

/** Since when the case manager has been that: what was seen before is entered as of then. */
export function StartForm({ from, today, result }: StartFormProps) {
  const { form, fields } = useSchemaForm(start, {
    id: 'start',
    result,
    defaultValue: { from },
  });
  return (
    <SchemaForm form={form} intent="start" className="flex max-w-xl flex-wrap items-end gap-3 py-2">
      <TextField field={fields.from} label={startFormWords.onTheTeamSinceAt(longDate(today))} type="date" />
      <button type="submit" className="btn">
        {startFormWords.saveTheDay}
      </button>
    </SchemaForm>
  );
}
