import type { SubmissionResult } from '@conform-to/react';
import { recordRequestInput } from '~/core/student-record/destruction';
import { TextField } from '../platform/ui/form-fields';
import { OneTap } from '../platform/ui/one-tap';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { useFreshId } from '../platform/ui/use-fresh-id';
import { takeOutWords } from './words';

interface RecordRequestsProps {
  requests: { id: string; who: string; said: string; isOpen: boolean }[];
  today: string;
  result: SubmissionResult<string[]> | undefined;
}

/** Who has asked to see a student's record, and until when it is to be shown. */
export function RecordRequests({ requests, today, result }: RecordRequestsProps) {
  const { form, fields, isBusy } = useSchemaForm(recordRequestInput, {
    ...{ id: 'request', result, defaultValue: { askedOn: today } },
  });
  const id = useFreshId(result);
  return (
    <section aria-label={takeOutWords.requests} className="mt-4 max-w-2xl border-t border-rule pt-4 pb-20">
      <h3 className="text-lg">{takeOutWords.requests}</h3>
      <p className="text-small text-ink-2">{takeOutWords.requestsAre}</p>
      {requests.length === 0 && <p className="mt-3 text-ink-2">{takeOutWords.noRequests}</p>}
      <ul className="mt-2">
        {requests.map(({ id: request, who, said, isOpen }) => (
          <li key={request} className="flex flex-wrap items-center justify-between gap-3 py-1.5">
            <span>
              <span className="font-semibold">{who}</span> <span className="text-small text-ink-2">{said}</span>
            </span>
            {isOpen && (
              <OneTap intent="answered" values={{ id: request }} label={takeOutWords.answeredOf(who)}>
                {takeOutWords.answered}
              </OneTap>
            )}
          </li>
        ))}
      </ul>
      <SchemaForm form={form} intent="request" className="mt-3 flex flex-wrap items-start gap-3">
        <input type="hidden" name="id" value={id} />
        <TextField field={fields.askedBy} label={takeOutWords.askedBy} className="w-56" />
        <TextField field={fields.askedOn} label={takeOutWords.askedOn} type="date" className="w-44" />
        <button type="submit" className="btn mt-6" disabled={isBusy || id === ''}>
          {takeOutWords.note}
        </button>
      </SchemaForm>
    </section>
  );
}
