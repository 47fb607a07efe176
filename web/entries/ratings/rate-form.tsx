import { useState } from 'react';
import { Form, useNavigation } from 'react-router';
import { v4 as newId } from 'uuid';
import { criterionName, type RubricDefinition } from '~/core/measures/rubric/rubric';
import { FieldMessage } from '../../platform/ui/fields';
import { rateFormWords } from './words';

interface RateFormProps {
  rubric: RubricDefinition;
  /** Said in front of the hidden fields’ names, where a page has several forms. */
  intent: string;
  workSampleId?: string;
  before?: { points: Readonly<Record<string, number>>; words: string } | undefined;
  message: string | undefined;
}

/** A rubric to be rated: every level with its words, none without. */
export function RateForm({ rubric, intent, workSampleId, before, message }: RateFormProps) {
  const [id] = useState(() => newId());
  const isBusy = useNavigation().state !== 'idle';
  return (
    <Form method="post" className="grid gap-5">
      <input type="hidden" name="intent" value={intent} />
      <input type="hidden" name="id" value={id} suppressHydrationWarning />
      {workSampleId && <input type="hidden" name="workSampleId" value={workSampleId} />}
      {rubric.criteria.map(({ key, levels, ...named }) => (
        <fieldset key={key}>
          <legend className="mb-1.5 font-bold">{criterionName(named)}</legend>
          <div className="grid gap-2 sm:grid-cols-2">
            {levels.map(({ points, words }) => (
              <label
                key={points}
                className="flex min-h-11 cursor-pointer items-start gap-2.5 rounded-field border border-rule bg-sheet px-3 py-2 has-checked:border-fern has-checked:bg-fern-wash"
              >
                <input
                  type="radio"
                  name={`points.${key}`}
                  value={points}
                  defaultChecked={before?.points[key] === points}
                  className="radio radio-sm mt-0.5"
                />
                <span>
                  <span className="font-semibold">{points}</span> {words}
                </span>
              </label>
            ))}
          </div>
        </fieldset>
      ))}
      <label className="grid gap-1">
        <span className="font-semibold">{rateFormWords.inYourOwnWords}</span>
        <textarea
          name="words"
          rows={2}
          maxLength={1000}
          defaultValue={before?.words}
          className="textarea w-full text-base"
        />
      </label>
      <FieldMessage messages={message ? [message] : undefined} />
      <button type="submit" className="btn btn-primary w-fit px-6" disabled={isBusy}>
        {before ? rateFormWords.changeMyRating : rateFormWords.rateIt}
      </button>
    </Form>
  );
}
